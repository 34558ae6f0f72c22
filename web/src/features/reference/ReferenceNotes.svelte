<script lang="ts">
  import { api, ask, asProblem, type SheetView } from '../../api/api';
  import type { Desk } from './desk.svelte';
  import { push } from 'svelte-spa-router';
  import { POINTS } from '../../road/points';
  import { metres, speedText } from '../../words/units';
  import { tell } from '../../words/tell';

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
      <strong>{tell('referenceNotes.the_computed_lap_brakes_here')}</strong>
      {tell('referenceNotes.from_to_at_hollow_flags', {
        from: speedText(lost.from),
        to: speedText(lost.to),
        station: metres(lost.station),
        later:
          lost.later == null
            ? tell('referenceNotes.this_reference_does_not')
            : tell('referenceNotes.this_reference_later', { later: metres(lost.later) }),
        hasShowDraft: !!desk.showDraft,
      })}
    </p>
    <p class="flex flex-wrap gap-1">
      <button class="btn btn-xs" aria-pressed={desk.showDraft} onclick={() => (desk.showDraft = !desk.showDraft)}
        >{tell('referenceNotes.hide_show_the_corner_drafted', { hasShowDraft: !!desk.showDraft })}</button
      >
      <button class="btn btn-xs btn-primary" onclick={() => desk.takeDrafted()}>{tell('referenceNotes.take_it')}</button
      >
    </p>
  </div>
{/if}
{#if lostElsewhere.length}
  <p class="text-sm" data-lost-elsewhere={lostElsewhere.length}>
    {tell('referenceNotes.also_in_the_computed_lap', { hasLost: !!lost })}
    {#each lostElsewhere as l (l.corner)}<button class="link mr-1" onclick={() => desk.select(l.corner)}
        >{number(l.corner)}</button
      >{/each}
  </p>
{/if}
{#if view.oldLine || view.vehicleChanged}
  <p class="flex items-center gap-2 text-sm" data-old-line>
    <span class="flex-1"
      >{tell('referenceNotes.vehicle_sheet_ground_or_your', { hasVehicleChanged: !!view.vehicleChanged })}</span
    >
    <a class="btn btn-xs" href="#/recompute/{view.id}?again">{tell('referenceNotes.see_what_changes')}</a>
  </p>
{:else if view.laidInPart}
  <p class="flex items-center gap-2 text-sm" data-laid-in-part>
    <span class="flex-1"
      >{tell('referenceNotes.the_line_was_laid_anew')}
      <a class="link" href="#/recompute/{view.id}">{tell('referenceNotes.what_was_can_be_brought')}</a></span
    >
    <a class="btn btn-xs" href="#/recompute/{view.id}?again">{tell('referenceNotes.compute_all_of_it')}</a>
  </p>
{:else if view.recomputed}
  <p class="text-sm">
    <a class="link" href="#/recompute/{view.id}">{tell('referenceNotes.computed_anew_what_was_can')}</a>
  </p>
{/if}
{#if view.newerLayout}
  <p class="flex items-center gap-2 text-sm" data-ahead>
    <span class="flex-1">
      {tell('referenceNotes.the_circuit_has_a_newer', {
        ahead: view.ahead.length
          ? tell('referenceNotes.point_points_to_look_at', { ahead: view.ahead.length })
          : tell('referenceNotes.no_point_is_touched'),
        ahead2: ahead.length
          ? tell('referenceNotes.here', { ahead: ahead.map((d) => `${POINTS[d.kind].word} (${d.why})`).join(', ') })
          : '',
      })}
    </span>
    <button class="btn btn-xs" onclick={move}>{tell('referenceNotes.go_over_to_it')}</button>
  </p>
{/if}
{#if view.doubts.length}
  <p class="flex flex-wrap items-center gap-2 text-sm" data-doubts={view.doubts.length}>
    {#if here.length}
      {tell('referenceNotes.to_be_confirmed_here')}
      {#each here as d (d.kind)}
        <button class="btn btn-xs" title={d.why} onclick={() => confirm(d.kind)}
          >{tell('referenceNotes.it_still_holds', { word: POINTS[d.kind].word, why: d.why })}</button
        >
      {/each}
      {tell('referenceNotes.or_move_the_flag')}
    {/if}
    {#if others.length}
      {tell('referenceNotes.also_in')}
      {#each others as c (c)}<button class="link" onclick={() => desk.select(c)}>{number(c)}</button>{/each}
    {/if}
  </p>
{/if}
<div class="text-sm">
  {#if sheets}
    <label class="flex items-center gap-2">
      {tell('referenceNotes.proved_on')}
      <select
        class="select select-xs flex-1"
        name="sheet"
        value={sheets.find((s) => s.sheet.name === view.sheet)?.id ?? ''}
        onchange={(e) => prove(e.currentTarget.value)}
      >
        <option value="">{tell('referenceNotes.no_sheet')}</option>
        {#each sheets as s (s.id)}<option value={s.id}>{s.sheet.name}</option>{/each}
      </select>
    </label>
  {:else}
    <button class="link" onclick={offer}
      >{tell('referenceNotes.proved_on_proved_on_no', { hasSheet: !!view.sheet, sheet: view.sheet })}</button
    >
  {/if}
  {#if view.otherSheetNext}
    <p style="color:var(--turn)" data-other-sheet>
      {tell('referenceNotes.the_next_session_has_on', { otherSheetNext: view.otherSheetNext })}
    </p>
  {/if}
</div>
