<script lang="ts">
  import { api, ask, asProblem, type SheetView } from '../lib/api';
  import type { Desk } from '../lib/desk.svelte';
  import { POINTS } from '../lib/points';

  /** What has changed around a reference: its layout, and the set-up of the next session. */
  let { desk, corner }: { desk: Desk; corner: string } = $props();

  const view = $derived(desk.view);
  const here = $derived(view.doubts.filter((d) => d.corner === corner));
  const ahead = $derived(view.ahead.filter((d) => d.corner === corner));
  const path = $derived({ params: { path: { id: view.id } } });

  async function act(call: () => Promise<unknown>) {
    try {
      await desk.store();
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
  const prove = (id: string) =>
    act(() => ask(api.PUT('/api/references/{id}/sheet', { ...path, body: { sheet: id || undefined } })));
</script>

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
