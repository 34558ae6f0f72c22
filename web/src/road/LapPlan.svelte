<script lang="ts">
  import type { RoadView, TraceView } from '../api/api';
  import { edges, pathOf, sampleAt } from './strip';
  import { tell } from '../words/tell';

  /** The circuit on the ground, with where two laps are at the same moment. */
  interface Props {
    road: RoadView;
    window: [number, number];
    laps: { trace: TraceView; station: number; colour: string; name: string }[];
    width: number;
    height: number;
  }
  let { road, window: shown, laps, width, height }: Props = $props();

  const border = $derived(edges(road, shown[0], shown[1]));
  const box = $derived.by(() => {
    const all = [...border.left, ...border.right];
    const xs = all.map((p) => p[0]);
    const ys = all.map((p) => p[1]);
    const [a, b, c, d] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const scale = Math.min((width - 16) / Math.max(1, b - a), (height - 16) / Math.max(1, d - c));
    return { x: (a + b) / 2, y: (c + d) / 2, scale };
  });
  const place = $derived(([x, y]: [number, number]): [number, number] => [
    width / 2 + (x - box.x) * box.scale,
    height / 2 - (y - box.y) * box.scale,
  ]);
  function at(trace: TraceView, station: number): [number, number] {
    const n = trace.offset.length ? sampleAt(trace.offset, trace.step, road.length, station) : 0;
    const x = sampleAt(road.x, road.step, road.length, station);
    const y = sampleAt(road.y, road.step, road.length, station);
    const i = Math.round(station / road.step) % road.heading.length;
    const h = road.heading[i] ?? 0;
    return place([x - n * Math.sin(h), y + n * Math.cos(h)]);
  }
</script>

<svg {width} {height} class="block" role="img" aria-label={tell('lapPlan.where_the_laps_are_on')} data-plan>
  <path d={pathOf([...border.left, ...border.right.toReversed()].map(place), true)} fill="var(--road)" />
  {#each laps as lap, k (lap.name)}
    {@const [x, y] = at(lap.trace, lap.station)}
    {#if k === 0}
      <circle cx={x} cy={y} r="5" fill={lap.colour} data-dot={k}><title>{lap.name}</title></circle>
    {:else}
      <path
        d="M{x} {y - 6}l6 6l-6 6l-6 -6z"
        fill="var(--color-base-100)"
        stroke={lap.colour}
        stroke-width="2"
        data-dot={k}><title>{lap.name}</title></path
      >
    {/if}
  {/each}
</svg>
