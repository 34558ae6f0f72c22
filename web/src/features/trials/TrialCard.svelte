<script lang="ts">
  import type { LapLine, SetupParameter, TrialView } from '../../api/api';
  import { lapTime, signed } from '../../words/units';
  import { blocks, takes, wayWords } from './trials';
  import TwoWays from './TwoWays.svelte';

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
    <strong>{t.called || 'Whole lap'}</strong>
    <span class="flex-1"
      ><strong>A</strong>
      {wayWords(t.a, parameters)} · <strong>B</strong>
      {wayWords(t.b, parameters)}</span
    >
    {#if t.sessionName}<span class="text-sm">{t.sessionName}</span>{/if}
    {#if mine && onremove}<button class="link text-sm" onclick={onremove}>remove</button>{/if}
  </p>
  {#if t.traces || driven}<TwoWays trial={t} {length} />{/if}
  {#if t.a.words || t.b.words}
    <p class="text-sm">A: {t.a.words?.line}<br />B: {t.b.words?.line}</p>
  {/if}
  {#if t.planned && !driven}<p class="text-sm" data-takes>{takes(t)}</p>{/if}
  {#if order.length}
    <ol class="flex flex-wrap gap-1 text-sm" aria-label="Order" data-order>
      {#each order as o, i (i)}
        <li
          class={['border-base-300 rounded border px-1.5', o.way === 'A' ? 'bg-base-300' : '']}
          title={t.stints ? `stint ${o.from}` : `lap ${o.from} finds the way; the others count`}
        >
          {t.stints ? 'stint ' : ''}{o.from === o.to ? o.from : `${o.from}–${o.to}`} <strong>{o.way}</strong>
        </li>
      {/each}
      {#if !t.stints}<li class="self-center pl-1">the first lap of each block does not count</li>{/if}
    </ol>
  {/if}
  <p data-verdict>
    {t.verdict}
    {#if t.low != null}<span class="text-sm">
        B less A {signed(t.difference, 2)} s ({signed(t.low, 2)} to {signed(t.high ?? 0, 2)} in 95 of 100){t.predicted ==
        null
          ? ''
          : `, reckoned ${signed(t.predicted, 2)} s`}</span
      >{/if}
  </p>
  {#if mine && onmark && counted.length}
    <p class="flex flex-wrap items-center gap-1 text-sm">
      Laps of this run:
      {#each counted as l (l.id)}
        <button
          class="btn btn-xs"
          aria-label="Lap {l.number}: {t.marks[l.id] ?? 'not marked'}"
          title={lapTime(l.lapTime)}
          data-mark={l.number}
          onclick={() => onmark?.({ ...t.marks, [l.id]: next(t.marks[l.id]) })}>{l.number}{t.marks[l.id] ?? ''}</button
        >
      {/each}
      <button
        class="btn btn-xs"
        onclick={() =>
          onmark?.({ ...t.marks, ...Object.fromEntries(counted.map((l, i) => [l.id, i % 2 ? 'B' : 'A'])) })}
        >A and B alternately</button
      >
    </p>
  {/if}
  {#if mine && ontake && t.b.source !== 'WORDS'}
    <p class="flex flex-wrap items-center gap-2 text-sm">
      {#if t.taken}
        <span
          >{t.taken} is taken{t.taken === 'B' ? (t.stints ? ', and on the vehicle' : ' into the reference') : ''}.</span
        >
        <button class="btn btn-xs" onclick={() => ontake?.(null)}>Take it back</button>
      {:else}
        {#if !t.decided}<span>Not decided by laps; you can still</span>{/if}
        <button class="btn btn-xs" onclick={() => ontake?.('A')}>Stay with A</button>
        <button class="btn btn-xs" onclick={() => ontake?.('B')}
          >{t.stints ? 'Put B on' : 'Take B into the reference'}</button
        >
      {/if}
    </p>
  {/if}
</article>
