<script lang="ts">
  import type { DebriefView, PartLine } from '../../api/api';
  import { plain } from '../../words/units';
  import { tell } from '../../words/tell';

  /** On which day the laps were driven, why, and what else the run holds. */
  interface Props {
    view: DebriefView;
    mine: boolean;
    busy: boolean;
    onpart: (day: string) => void;
    onadd: () => void;
    onown: () => void;
    onyes: () => void;
  }
  let { view, mine, busy, onpart, onadd, onown, onyes }: Props = $props();
  const day = $derived(view.day);
  const none = $derived((day?.id ?? null) === null);
  const others = $derived(view.parts.filter((p: PartLine) => (p.day ?? null) !== (day?.id ?? null)));
  const laps = (n: number) => `${n} ${n === 1 ? tell('dayNote.lap') : tell('dayNote.laps')}`;
</script>

{#if day}
  <div
    class={['text-sm', none ? 'border-l-4 border-[var(--turn)] py-1 pl-3' : 'flex flex-wrap gap-x-2 pt-1']}
    data-day={day.id ?? 'none'}
  >
    {#if none}
      <p class="text-lg font-semibold">{tell('dayNote.these_laps_are_not_judged')}</p>
      <p>{tell('dayNote.against_another_day_every_braking', { words: day.words })}</p>
      {#if mine}
        <p class="flex flex-wrap gap-2 pt-1.5">
          {#if day.offer}
            <button class="btn btn-sm btn-primary" disabled={busy} onclick={onadd}
              >{tell('dayNote.add_a_day_like_this', {
                words: day.offer.words,
                grip: plain(day.offer.grip * 100, 0),
              })}</button
            >
          {/if}
          <button class="btn btn-sm" disabled={busy} onclick={onown}
            >{tell('dayNote.all_of_it_was_it', { isParts: view.parts.length > 1 })}</button
          >
        </p>
      {/if}
    {:else}
      <span
        >{tell('dayNote.held_against')} <strong>{day.called}</strong>{tell('dayNote.as_you_said_told_from', {
          hasSaid: !!day.said,
        })}</span
      >
      {#if !day.sure && mine}
        <span
          >{tell('dayNote.nothing_is_proposed_until_you')}
          <button class="btn btn-xs" disabled={busy} onclick={onyes}
            >{tell('dayNote.all_of_it_was_it_2', { isParts: view.parts.length > 1, called: day.called })}</button
          ></span
        >
      {/if}
      {#if !day.said}<span>{day.words}</span>{/if}
    {/if}
    {#each others as p (p.day ?? 'none')}
      <button class="link" data-part={p.day ?? 'none'} onclick={() => onpart(p.day ?? 'none')}
        >{tell('dayNote.of_this_run_are_fit', {
          laps: laps(p.laps.length),
          hasCalled: !!p.called,
          called: p.called,
        })}</button
      >
    {/each}
  </div>
{/if}
