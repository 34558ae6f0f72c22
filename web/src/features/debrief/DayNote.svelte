<script lang="ts">
  import type { DebriefView, PartLine } from '../../api/api';
  import { plain } from '../../words/units';

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
  const laps = (n: number) => `${n} ${n === 1 ? 'lap' : 'laps'}`;
</script>

{#if day}
  <div
    class={['text-sm', none ? 'border-l-4 border-[var(--turn)] py-1 pl-3' : 'flex flex-wrap gap-x-2 pt-1']}
    data-day={day.id ?? 'none'}
  >
    {#if none}
      <p class="text-lg font-semibold">These laps are not judged: no day of this reference is like theirs.</p>
      <p>{day.words} Against another day every braking would look early and every corner slow.</p>
      {#if mine}
        <p class="flex flex-wrap gap-2 pt-1.5">
          {#if day.offer}
            <button class="btn btn-sm btn-primary" disabled={busy} onclick={onadd}
              >Add a day like this: {day.offer.words}, {plain(day.offer.grip * 100, 0)} % grip</button
            >
          {/if}
          <button class="btn btn-sm" disabled={busy} onclick={onown}
            >{view.parts.length > 1 ? 'All of it was' : 'It was'} the reference's own day: dry, warm</button
          >
        </p>
      {/if}
    {:else}
      <span>Held against <strong>{day.called}</strong>, {day.said ? 'as you said' : 'told from the laps'}.</span>
      {#if !day.sure && mine}
        <span
          >Nothing is proposed until you say so:
          <button class="btn btn-xs" disabled={busy} onclick={onyes}
            >{view.parts.length > 1 ? 'All of it was' : 'It was'} {day.called}</button
          ></span
        >
      {/if}
      {#if !day.said}<span>{day.words}</span>{/if}
    {/if}
    {#each others as p (p.day ?? 'none')}
      <button class="link" data-part={p.day ?? 'none'} onclick={() => onpart(p.day ?? 'none')}
        >{laps(p.laps.length)} of this run {p.called ? `are ${p.called}` : 'fit no day'}</button
      >
    {/each}
  </div>
{/if}
