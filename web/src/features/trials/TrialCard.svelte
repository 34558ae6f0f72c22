<script lang="ts">
  import type { LapLine, SetupParameter, TrialView } from '../../api/api';
  import { lapTime, signed } from '../../words/units';
  import { blocks, takes, wayWords } from './trials';
  import TwoWays from './TwoWays.svelte';
  import { tell } from '../../words/tell';

  /** A trial: both ways drawn, what it takes, in which order, what the laps say, and what became of it. */
  interface Props {
    trial: TrialView;
    /** Metres of the lap. */
    length: number;
    parameters: SetupParameter[];
    /** Laps that can be marked; none where it is only planned. */
    laps?: LapLine[];
    mine: boolean;
    onmark?: (marks: Record<string, string>) => void;
    ontake?: (way: 'A' | 'B' | null) => void;
    onremove?: () => void;
  }
  let { trial: t, length, parameters, laps = [], mine, onmark, ontake, onremove }: Props = $props();
  const counted = $derived(laps.filter((l) => l.counts && l.measured));
  const order = $derived(blocks(t));
  const driven = $derived(t.secondsA.length + t.secondsB.length > 0);
  const next = (way: string | undefined) => (way === 'A' ? 'B' : way === 'B' ? '-' : 'A');
</script>

<article class="border-base-300 grid gap-1 border-t pt-2" data-trial={t.corner || 'lap'}>
  <p class="flex flex-wrap items-baseline gap-x-3">
    <strong>{t.called || tell('trialCard.whole_lap')}</strong>
    <span class="flex-1"
      ><strong>{tell('trialCard.a')}</strong>
      {wayWords(t.a, parameters)} · <strong>B</strong>
      {wayWords(t.b, parameters)}</span
    >
    {#if t.sessionName}<span class="text-sm">{t.sessionName}</span>{/if}
    {#if mine && onremove}<button class="link text-sm" onclick={onremove}>{tell('trialCard.remove')}</button>{/if}
  </p>
  {#if t.traces || driven}<TwoWays trial={t} {length} />{/if}
  {#if t.a.words || t.b.words}
    <p class="text-sm">{tell('trialCard.a_2', { line: t.a.words?.line })}<br />B: {t.b.words?.line}</p>
  {/if}
  {#if t.planned && !driven}<p class="text-sm" data-takes>{takes(t)}</p>{/if}
  {#if order.length}
    <ol class="flex flex-wrap gap-1 text-sm" aria-label={tell('trialCard.order')} data-order>
      {#each order as o, i (i)}
        <li
          class={['border-base-300 rounded border px-1.5', o.way === 'A' ? 'bg-base-300' : '']}
          title={tell('trialCard.stint_lap_finds_the_way', { hasStints: !!t.stints, from: o.from })}
        >
          {tell('trialCard.stint', { hasStints: !!t.stints, from: o.from === o.to ? o.from : `${o.from}–${o.to}` })}
          <strong>{o.way}</strong>
        </li>
      {/each}
      {#if !t.stints}<li class="self-center pl-1">{tell('trialCard.the_first_lap_of_each')}</li>{/if}
    </ol>
  {/if}
  <p data-verdict>
    {t.verdict}
    {#if t.low != null}<span class="text-sm">
        {tell('trialCard.b_less_a_s_to', {
          difference: signed(t.difference, 2),
          low: signed(t.low, 2),
          high: signed(t.high ?? 0, 2),
          predicted: t.predicted == null ? '' : tell('trialCard.reckoned_s', { predicted: signed(t.predicted, 2) }),
        })}</span
      >{/if}
  </p>
  {#if mine && onmark && counted.length}
    <p class="flex flex-wrap items-center gap-1 text-sm">
      {tell('trialCard.laps_of_this_run')}
      {#each counted as l (l.id)}
        <button
          class="btn btn-xs"
          aria-label={tell('trialCard.lap', { number: l.number, id: t.marks[l.id] ?? tell('trialCard.not_marked') })}
          title={lapTime(l.lapTime)}
          data-mark={l.number}
          onclick={() => onmark?.({ ...t.marks, [l.id]: next(t.marks[l.id]) })}>{l.number}{t.marks[l.id] ?? ''}</button
        >
      {/each}
      <button
        class="btn btn-xs"
        onclick={() =>
          onmark?.({ ...t.marks, ...Object.fromEntries(counted.map((l, i) => [l.id, i % 2 ? 'B' : 'A'])) })}
        >{tell('trialCard.a_and_b_alternately')}</button
      >
    </p>
  {/if}
  {#if mine && ontake && t.b.source !== 'WORDS'}
    <p class="flex flex-wrap items-center gap-2 text-sm">
      {#if t.taken}
        <span
          >{tell('trialCard.is_taken_and_on_the', {
            taken: t.taken,
            isB: t.taken === 'B',
            hasStints: !!t.stints,
          })}</span
        >
        <button class="btn btn-xs" onclick={() => ontake?.(null)}>{tell('trialCard.take_it_back')}</button>
      {:else}
        {#if !t.decided}<span>{tell('trialCard.not_decided_by_laps_you')}</span>{/if}
        <button class="btn btn-xs" onclick={() => ontake?.('A')}>{tell('trialCard.stay_with_a')}</button>
        <button class="btn btn-xs" onclick={() => ontake?.('B')}
          >{tell('trialCard.put_b_on_take_b', { hasStints: !!t.stints })}</button
        >
      {/if}
    </p>
  {/if}
</article>
