<script lang="ts">
  import type { CornerEntry, TrialView } from '../../api/api';
  import { pathOf } from '../../road/strip';
  import { POINTS } from '../../road/points';
  import { inSpeed, plain, speedUnit } from '../../words/units';
  import { tell } from '../../words/tell';

  /**
   * Two ways over the same metres: the speed of A as a full line, of B as a broken one; what is done on A's road
   * above, on B's below, joined where it moves. What laps took stands at the right, each as a mark.
   */
  interface Props {
    trial: TrialView;
    length: number;
  }
  let { trial, length }: Props = $props();

  // What is aimed for besides would stand on top of the rest.
  const DRAWN = new Set<string>([
    'BRAKE',
    'DOWNSHIFT',
    'TURN_IN',
    'RELEASE',
    'FIRST_APEX',
    'APEX',
    'FIRST_THROTTLE',
    'FULL_THROTTLE',
    'EXIT',
  ]);
  const HEIGHT = 170;
  const ROAD_A = 118;
  const ROAD_B = 146;
  const TIMES = 190;
  let width = $state(800);
  const timed = $derived(trial.secondsA.length + trial.secondsB.length > 0);
  const right = $derived(width - (timed ? TIMES : 8));
  const traces = $derived(trial.traces ?? null);
  const shown = $derived(range());
  /** Metres of the drawing: a corner from before its first action until after its last; a lap as a whole. */
  function range() {
    if (!traces) return { from: 0, to: 0 };
    const all = traces.step * (traces.a.length - 1);
    const at = [...points(trial.a.entry), ...points(trial.b.entry)].map((p) => p.at);
    if (at.length === 0) return { from: 0, to: all };
    return { from: Math.max(0, Math.min(...at) - 40), to: Math.min(all, Math.max(...at) + 30) };
  }
  function points(entry: CornerEntry | null | undefined) {
    if (!entry || !traces) return [];
    const from = traces.from;
    return entry.points
      .filter((p) => DRAWN.has(p.kind))
      .map((p) => ({ kind: p.kind, at: (((p.station - from) % length) + length) % length }))
      .filter((p) => p.at <= traces.step * traces.a.length);
  }
  const x = $derived(
    (metres: number) => 34 + ((metres - shown.from) / Math.max(1, shown.to - shown.from)) * (right - 44),
  );
  const within = $derived((values: number[]) =>
    values
      .map((v, i) => [i * (traces?.step ?? 1), v] as [number, number])
      .filter(([m]) => m >= shown.from && m <= shown.to),
  );
  const speeds = $derived(traces ? [...within(traces.a), ...within(traces.b)].map(([, v]) => v) : []);
  const low = $derived(Math.min(...speeds));
  const high = $derived(Math.max(...speeds, low + 1));
  const y = $derived((v: number) => 96 - ((v - low) / (high - low)) * 82);
  const curve = $derived((values: number[]) => pathOf(within(values).map(([m, v]) => [x(m), y(v)])));
  const a = $derived(points(trial.a.entry));
  const b = $derived(points(trial.b.entry));
  const partner = (kind: string) => b.find((p) => p.kind === kind);
  /** Names of what moved, each only where it has room. */
  const names = $derived.by(() => {
    const out: { at: number; word: string }[] = [];
    let end = -Infinity;
    for (const p of a) {
      const other = partner(p.kind);
      if (!other || Math.abs(other.at - p.at) < 0.5) continue;
      const word = POINTS[p.kind].word;
      const middle = (x(p.at) + x(other.at)) / 2;
      if (middle - word.length * 3 < end) continue;
      out.push({ at: middle, word });
      end = middle + word.length * 3 + 4;
    }
    return out;
  });

  const all = $derived([...trial.secondsA, ...trial.secondsB]);
  const least = $derived(Math.min(...all));
  const most = $derived(Math.max(...all, least + 0.05));
  const tx = $derived((v: number) => right + 26 + ((v - least) / (most - least)) * (TIMES - 44));
  const mean = (v: number[]) => v.reduce((s, t) => s + t, 0) / Math.max(1, v.length);
</script>

<div bind:clientWidth={width}>
  <svg {width} height={HEIGHT} role="img" aria-label={tell('twoWays.both_ways_along_the_road')}>
    {#if traces && speeds.length}
      <text x="2" y={y(high) + 8} style="font-size: 10.5px; fill: var(--ink-soft)">{plain(inSpeed(high))}</text>
      <text x="2" y={y(low) + 3} style="font-size: 10.5px; fill: var(--ink-soft)">{plain(inSpeed(low))}</text>
      <text x="2" y="50" style="font-size: 10.5px; fill: var(--ink-soft)">{speedUnit()}</text>
      <path data-curve="A" d={curve(traces.a)} fill="none" stroke="var(--ink)" stroke-width="2" />
      <path
        data-curve="B"
        d={curve(traces.b)}
        fill="none"
        stroke="var(--turn)"
        stroke-width="2"
        stroke-dasharray="5 3"
      />
    {/if}
    {#if a.length || b.length}
      <path d="M34 {ROAD_A}H{right - 10}M34 {ROAD_B}H{right - 10}" stroke="var(--road)" stroke-width="8" />
      <text x="2" y={ROAD_A + 4} font-weight="700">{tell('twoWays.a')}</text>
      <text x="2" y={ROAD_B + 4} font-weight="700">B</text>
      {#each a as p (p.kind)}
        {@const other = partner(p.kind)}
        {#if other}
          <path
            d="M{x(p.at)} {ROAD_A}L{x(other.at)} {ROAD_B}"
            stroke={POINTS[p.kind].colour}
            stroke-width={Math.abs(other.at - p.at) >= 0.5 ? 1.5 : 0.5}
            opacity={Math.abs(other.at - p.at) >= 0.5 ? 1 : 0.4}
          />
        {/if}
        <circle data-way="A" cx={x(p.at)} cy={ROAD_A} r="4" fill={POINTS[p.kind].colour} />
      {/each}
      {#each names as n (n.word)}
        <text x={n.at} y={HEIGHT - 4} text-anchor="middle" style="font-size: 10.5px">{n.word}</text>
      {/each}
      {#each b as p (p.kind)}
        <circle
          data-way="B"
          cx={x(p.at)}
          cy={ROAD_B}
          r="3.5"
          fill="var(--paper, white)"
          stroke={POINTS[p.kind].colour}
          stroke-width="1.5"
        />
      {/each}
    {/if}
    {#if timed}
      <path d="M{right + 12} 12V{HEIGHT - 12}" stroke="var(--road)" />
      <text x={right + 22} y="16" style="font-size: 10.5px; fill: var(--ink-soft)"
        >{tell('twoWays.mean_of_a_stint_to', { hasStints: !!trial.stints })}</text
      >
      {#each [{ way: 'A', at: 50, values: trial.secondsA }, { way: 'B', at: 100, values: trial.secondsB }] as w (w.way)}
        <text x={right + 18} y={w.at + 4} text-anchor="middle" font-weight="700">{w.way}</text>
        {#each w.values as v, i (i)}
          {#if w.way === 'A'}<circle data-took="A" cx={tx(v)} cy={w.at} r="4" fill="var(--ink)" opacity="0.7" />{:else}
            <path
              data-took="B"
              d="M{tx(v)} {w.at - 5}l5 5l-5 5l-5 -5z"
              fill="none"
              stroke="var(--turn)"
              stroke-width="1.8"
            />{/if}
        {/each}
        {#if w.values.length}
          <path d="M{tx(mean(w.values))} {w.at - 12}v24" stroke="var(--ink)" stroke-width="1.5" />
          <text x={tx(mean(w.values))} y={w.at + 26} text-anchor="middle" style="font-size: 10.5px"
            >{plain(mean(w.values), 2)}</text
          >
        {/if}
      {/each}
    {/if}
  </svg>
</div>
