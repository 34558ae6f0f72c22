<script lang="ts">
  import { api, ask, asProblem, type SheetView } from '../../api/api';
  import type { Desk } from './desk.svelte';
  import { push } from 'svelte-spa-router';
  import { POINTS } from '../../road/points';
  import { metres, speedText } from '../../words/units';

  /** What has changed around a reference: its layout, and the set-up of the next session. */
  let { desk, corner }: { desk: Desk; corner: string } = $props();

  const view = $derived(desk.view);
  const here = $derived(view.doubts.filter((d) => d.corner === corner));
  const ahead = $derived(view.ahead.filter((d) => d.corner === corner));
  const path = $derived({ params: { path: { id: view.id } } });

  async function act(call: () => Promise<unknown>) {
    try {
      await desk.ensureKept();
      await call();
      await desk.reload();
    } catch (e) {
      desk.problem = asProblem(e);
    }
  }
  const move = () => act(() => ask(api.POST('/api/references/{id}/newest-layout', path)));
  const confirm = (kind: (typeof here)[number]['kind']) =>
    act(() => ask(api.POST('/api/references/{id}/confirmed', { ...path, body: { corner, kind } })));
  const number = (id: string) => view.corners.find((c) => c.id === id)?.number ?? id;
  const others = $derived([...new Set(view.doubts.map((d) => d.corner))].filter((c) => c !== corner));

  let sheets = $state.raw<SheetView[] | null>(null);
  async function offer() {
    sheets ??= (await ask(api.GET('/api/vehicles/{id}/sheets', { params: { path: { id: view.vehicleId } } }))).sheets;
  }
  // Another sheet is another line and other numbers: looked at before it is taken.
  async function prove(id: string) {
    try {
      await desk.ensureKept();
    } catch (e) {
      desk.problem = asProblem(e);
      return;
    }
    await push(`/recompute/${view.id}?sheet=${id}`);
  }
  const lost = $derived(view.lost.find((l) => l.corner === corner));
  const lostElsewhere = $derived(view.lost.filter((l) => l.corner !== corner));
</script>

{#if lost}
  <div class="border-error grid gap-1 border-l-4 pl-2 text-sm" data-lost>
    <p>
      <strong>The computed lap brakes here</strong> from {speedText(lost.from)} to {speedText(lost.to)}, at
      {metres(lost.station)}; {lost.later == null
        ? 'this reference does not.'
        : `this reference ${metres(lost.later)} later.`}
      {desk.showDraft ? 'Hollow flags: the corner drafted anew.' : ''}
    </p>
    <p class="flex flex-wrap gap-1">
      <button class="btn btn-xs" aria-pressed={desk.showDraft} onclick={() => (desk.showDraft = !desk.showDraft)}
        >{desk.showDraft ? 'Hide' : 'Show'} the corner drafted anew</button
      >
      <button class="btn btn-xs btn-primary" onclick={() => desk.takeDrafted()}>Take it</button>
    </p>
  </div>
{/if}
{#if lostElsewhere.length}
  <p class="text-sm" data-lost-elsewhere={lostElsewhere.length}>
    {lost ? 'Also in' : 'The computed lap brakes where this reference does not, in'}
    {#each lostElsewhere as l (l.corner)}<button class="link mr-1" onclick={() => desk.select(l.corner)}
        >{number(l.corner)}</button
      >{/each}
  </p>
{/if}
{#if view.oldLine || view.vehicleChanged}
  <p class="flex items-center gap-2 text-sm" data-old-line>
    <span class="flex-1"
      >{view.vehicleChanged
        ? 'Vehicle, sheet, ground or your pace differ from what was computed on.'
        : 'The line was computed by an older method; there is a quicker one.'}</span
    >
    <a class="btn btn-xs" href="#/recompute/{view.id}?again">See what changes</a>
  </p>
{:else if view.laidInPart}
  <p class="flex items-center gap-2 text-sm" data-laid-in-part>
    <span class="flex-1"
      >The line was laid anew on one stretch; the rest was computed before that.
      <a class="link" href="#/recompute/{view.id}">What was can be brought back.</a></span
    >
    <a class="btn btn-xs" href="#/recompute/{view.id}?again">Compute all of it</a>
  </p>
{:else if view.recomputed}
  <p class="text-sm"><a class="link" href="#/recompute/{view.id}">Computed anew; what was can be brought back</a></p>
{/if}
{#if view.newerLayout}
  <p class="flex items-center gap-2 text-sm" data-ahead>
    <span class="flex-1">
      The circuit has a newer version.
      {view.ahead.length
        ? `${view.ahead.length} ${view.ahead.length === 1 ? 'point' : 'points'} to look at`
        : 'No point is touched'}{ahead.length
        ? `, here: ${ahead.map((d) => `${POINTS[d.kind].word} (${d.why})`).join(', ')}`
        : ''}.
    </span>
    <button class="btn btn-xs" onclick={move}>Go over to it</button>
  </p>
{/if}
{#if view.doubts.length}
  <p class="flex flex-wrap items-center gap-2 text-sm" data-doubts={view.doubts.length}>
    {#if here.length}
      To be confirmed here:
      {#each here as d (d.kind)}
        <button class="btn btn-xs" title={d.why} onclick={() => confirm(d.kind)}
          >{POINTS[d.kind].word}: {d.why}; it still holds</button
        >
      {/each}
      or move the flag.
    {/if}
    {#if others.length}
      Also in
      {#each others as c (c)}<button class="link" onclick={() => desk.select(c)}>{number(c)}</button>{/each}
    {/if}
  </p>
{/if}
<div class="text-sm">
  {#if sheets}
    <label class="flex items-center gap-2">
      Proved on
      <select
        class="select select-xs flex-1"
        name="sheet"
        value={sheets.find((s) => s.sheet.name === view.sheet)?.id ?? ''}
        onchange={(e) => prove(e.currentTarget.value)}
      >
        <option value="">no sheet</option>
        {#each sheets as s (s.id)}<option value={s.id}>{s.sheet.name}</option>{/each}
      </select>
    </label>
  {:else}
    <button class="link" onclick={offer}>{view.sheet ? `Proved on ${view.sheet}` : 'Proved on no set-up sheet'}</button>
  {/if}
  {#if view.otherSheetNext}
    <p style="color:var(--turn)" data-other-sheet>
      The next session has {view.otherSheetNext} on: what was proved may not hold.
    </p>
  {/if}
</div>
