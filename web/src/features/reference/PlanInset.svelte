<script lang="ts">
  import type { AnswerView, Corner, CornerEntry, RoadView } from '../../api/api';
  import { edges, pathOf } from '../../road/strip';
  import { apart, POINTS } from '../../road/points';
  import { tell } from '../../words/tell';

  interface Props {
    road: RoadView;
    corner: Corner;
    entry: CornerEntry;
    answer?: AnswerView;
    size?: number;
  }
  let { road, corner, entry, answer, size = 150 }: Props = $props();
  let approachUp = $state(false);

  const apex = $derived(corner.apexes[corner.apexes.length - 1] ?? corner.entry);
  const near = (s: number) => apex + apart(apex, s, road.length);
  const from = $derived(near(corner.entry) - 70);
  const to = $derived(Math.max(near(corner.exit) + 50, from + 60));
  const both = $derived(edges(road, from, to));
  const turn = $derived.by(() => {
    if (!approachUp) return 0;
    const i = ((Math.round(from / road.step) % road.heading.length) + road.heading.length) % road.heading.length;
    return Math.PI / 2 - (road.heading[i] ?? 0);
  });
  const spin = $derived(([px, py]: [number, number]): [number, number] => [
    px * Math.cos(turn) - py * Math.sin(turn),
    px * Math.sin(turn) + py * Math.cos(turn),
  ]);
  const fit = $derived.by(() => {
    const all = [...both.left, ...both.right].map(spin);
    const xs = all.map((p) => p[0]);
    const ys = all.map((p) => p[1]);
    const span = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 1);
    const k = (size - 30) / span;
    const cx = (Math.max(...xs) + Math.min(...xs)) / 2;
    const cy = (Math.max(...ys) + Math.min(...ys)) / 2;
    return (p: [number, number]): [number, number] => {
      const q = spin(p);
      return [size / 2 - 9 + (q[0] - cx) * k, size / 2 - (q[1] - cy) * k];
    };
  });
  const band = $derived(pathOf([...both.left, ...both.right.toReversed()].map(fit), true));

  function place(s: number, offset: number): [number, number] {
    const n = road.x.length;
    const i = ((Math.round(s / road.step) % n) + n) % n;
    const h = road.heading[i] ?? 0;
    return [(road.x[i] ?? 0) - offset * Math.sin(h), (road.y[i] ?? 0) + offset * Math.cos(h)];
  }
  const line = $derived.by(() => {
    const p = answer?.answer.profile;
    if (!p) return '';
    const points: [number, number][] = [];
    p.offset.forEach((offset, k) => {
      const s = near((p.from + k * p.step) % road.length);
      if (s >= from && s <= to) points.push(fit(place(s, offset)));
    });
    return pathOf(points);
  });
  const offsetAt = (s: number) => {
    const p = answer?.answer.profile;
    if (!p) return 0;
    const k = Math.round(((((s - p.from) % road.length) + road.length) % road.length) / p.step);
    return p.offset[k] ?? 0;
  };
</script>

<button
  type="button"
  class="block cursor-pointer"
  aria-label={tell('planInset.plan_of_corner_approach_north', { number: corner.number, hasApproachUp: !!approachUp })}
  onclick={() => (approachUp = !approachUp)}
>
  <svg width={size} height={size} class="block">
    <path d={band} fill="var(--road)" stroke="var(--road-edge)" stroke-width="1.2" />
    <path d={line} fill="none" stroke="var(--line)" stroke-width="1.8" />
    {#each entry.points as p (p.kind)}
      {@const at = fit(place(p.station, offsetAt(p.station)))}
      {#if near(p.station) >= from && near(p.station) <= to}
        <circle cx={at[0]} cy={at[1]} r="3.2" fill={POINTS[p.kind].colour} stroke="var(--color-base-200)" />
      {/if}
    {/each}
    <g transform="translate({size - 10} 16) rotate({(-turn * 180) / Math.PI})">
      <path d="M0 -9l3.2 10h-6.4z" fill="var(--ink-soft)" />
      <text y="11" text-anchor="middle" style="font-size:9px;fill:var(--ink-soft)">N</text>
    </g>
  </svg>
</button>
