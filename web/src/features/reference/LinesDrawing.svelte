<script lang="ts">
  import type { Corner, CornerEntry, RoadView } from '../../api/api';
  import { pathOf } from '../../road/strip';
  import { apart, POINTS } from '../../road/points';
  import { metres } from '../../words/units';
  import { tell } from '../../words/tell';

  interface Props {
    road: RoadView;
    corner: Corner;
    /** Metres between the values of the lines. */
    step: number;
    before: number[];
    after: number[];
    entryBefore?: CornerEntry;
    entryAfter: CornerEntry;
  }
  /** Two lines through a corner, on the road laid straight and drawn wide. */
  let { road, corner, step, before, after, entryBefore, entryAfter }: Props = $props();
  const H = 128;
  const PAD = 14;
  let width = $state(700);

  const apex = $derived(corner.apexes[corner.apexes.length - 1] ?? corner.entry);
  const near = (s: number) => apex + apart(apex, s, road.length);
  const stations = $derived([...entryAfter.points, ...(entryBefore?.points ?? [])].map((p) => near(p.station)));
  const from = $derived(Math.min(near(corner.entry), ...stations) - 25);
  const to = $derived(Math.max(near(corner.exit), ...stations) + 25);
  const x = $derived((s: number) => ((s - from) / (to - from)) * width);

  const value = (column: number[], s: number, every: number) => {
    const n = column.length;
    const k = Math.floor(s / every);
    const share = s / every - k;
    const at = (i: number) => column[((i % n) + n) % n] ?? 0;
    return at(k) * (1 - share) + at(k + 1) * share;
  };
  const places = $derived(Array.from({ length: 161 }, (_, k) => from + (k * (to - from)) / 160));
  const widest = $derived(
    Math.max(...places.map((s) => Math.max(value(road.left, s, road.step), value(road.right, s, road.step)))),
  );
  /** Left of the road is up. */
  const y = $derived((offset: number) => H / 2 - (offset / widest) * (H / 2 - PAD));
  const band = $derived(
    pathOf(
      [
        ...places.map((s): [number, number] => [x(s), y(value(road.left, s, road.step))]),
        ...places.toReversed().map((s): [number, number] => [x(s), y(-value(road.right, s, road.step))]),
      ],
      true,
    ),
  );
  const line = $derived((column: number[]) =>
    pathOf(places.map((s): [number, number] => [x(s), y(value(column, s, step))])),
  );
  /** Where they lie farthest apart. */
  const widestApart = $derived(
    places.reduce(
      (most, s) => {
        const by = value(after, s, step) - value(before, s, step);
        return Math.abs(by) > Math.abs(most.by) ? { s, by } : most;
      },
      { s: from, by: 0 },
    ),
  );
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={H}
    class="block"
    role="img"
    aria-label={tell('linesDrawing.line_before_and_after_through', { number: corner.number })}
  >
    <path d={band} fill="var(--road)" stroke="var(--road-edge)" />
    <path d={line(before)} fill="none" stroke="var(--ink-soft)" stroke-width="1.5" stroke-dasharray="5 4" />
    <path d={line(after)} fill="none" stroke="var(--line)" stroke-width="2" />
    {#if Math.abs(widestApart.by) > 0.15}
      {@const px = x(widestApart.s)}
      <path
        d="M{px} {y(value(before, widestApart.s, step))}V{y(value(after, widestApart.s, step))}"
        stroke="var(--ink)"
        stroke-width="1.2"
      />
      <text
        x={px > width - 90 ? px - 6 : px + 6}
        y={(y(value(before, widestApart.s, step)) + y(value(after, widestApart.s, step))) / 2 + 4}
        text-anchor={px > width - 90 ? 'end' : 'start'}
        style="font-size:12px"
        font-weight="700">{metres(Math.abs(widestApart.by), 1)}</text
      >
    {/if}
    {#each entryBefore?.points ?? [] as p (p.kind)}
      <circle
        cx={x(near(p.station))}
        cy={y(value(before, p.station, step))}
        r="4"
        fill="var(--color-base-200)"
        stroke={POINTS[p.kind].colour}
        stroke-width="1.6"
      />
    {/each}
    {#each entryAfter.points as p (p.kind)}
      <circle cx={x(near(p.station))} cy={y(value(after, p.station, step))} r="4" fill={POINTS[p.kind].colour} />
    {/each}
    <text x="4" y="11" style="font-size:11px">{tell('linesDrawing.road_laid_straight_widened_dashed')}</text>
  </svg>
</div>
