<script lang="ts">
  import type { ScaleLinear } from 'd3-scale';
  import type { DrivenView, PointKind } from '../api/api';
  import { bandPoints } from './runs';
  import { POINTS } from './points';
  import { pathOf } from './strip';

  /** What the laps did, behind the plan: eight of ten laps lie in the band, its line is the middle one. */
  interface Props {
    driven: DrivenView;
    x: ScaleLinear<number, number>;
    near: (station: number) => number;
    domain: [number, number];
    speed: (v: number) => number;
    brake: (v: number) => number;
    throttle: (v: number) => number;
    /** Where the marks of the points stand. */
    axis: number;
    kinds: PointKind[];
  }
  let { driven, x, near, domain, speed, brake, throttle, axis, kinds }: Props = $props();

  const lanes = $derived(
    [
      { name: 'speed', band: driven.speed, y: speed },
      { name: 'brake', band: driven.brake, y: brake },
      { name: 'throttle', band: driven.throttle, y: throttle },
    ].flatMap(({ name, band, y }) => {
      if (!band) return [];
      const at = bandPoints(driven, band, near, domain);
      return [
        {
          name,
          area: pathOf(
            [
              ...at.map((p): [number, number] => [x(p.s), y(p.high)]),
              ...at.map((p): [number, number] => [x(p.s), y(p.low)]).reverse(),
            ],
            true,
          ),
          middle: pathOf(at.map((p): [number, number] => [x(p.s), y(p.middle)])),
        },
      ];
    }),
  );
  const marks = $derived(
    kinds.flatMap((kind) =>
      (driven.points[kind] ?? [])
        .map(near)
        .filter((s) => s > domain[0] && s < domain[1])
        .map((s) => ({ kind, s })),
    ),
  );
</script>

<g data-driven={driven.laps} aria-hidden="true" pointer-events="none">
  {#each lanes as lane (lane.name)}
    <path d={lane.area} fill="var(--ink)" opacity="0.22" />
    <path d={lane.middle} fill="none" stroke="var(--ink)" stroke-width="1.3" stroke-dasharray="2 2.5" />
  {/each}
  {#each marks as m, i (i)}
    <path
      d="M{x(m.s)} {axis - 9}v9"
      stroke={POINTS[m.kind].colour}
      stroke-width="1.6"
      opacity="0.7"
      data-driven-at={m.kind}
    />
  {/each}
</g>
