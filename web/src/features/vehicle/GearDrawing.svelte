<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { Vehicle, VehicleFigures } from '../../api/api';
  import { pathOf } from '../../road/strip';
  import { inSpeed, plain, speedUnit } from '../../words/units';
  import { tell } from '../../words/tell';
  import Axis from '../../kit/Axis.svelte';

  let { vehicle, figures }: { vehicle: Vehicle; figures: VehicleFigures } = $props();
  let width = $state(640);
  const H1 = 148;
  const H2 = 168;
  const PAD = { left: 44, right: 14 };

  const top = $derived(Math.max(figures.topSpeed * 1.06, 20));
  const x = $derived(scaleLinear([0, top], [PAD.left, width - PAD.right]));
  const revs = $derived(scaleLinear([0, vehicle.engine.limitRevs * 1.05], [H1 - 22, 8]));
  const most = $derived(vehicle.mass);
  const strongest = $derived(
    Math.max(
      ...figures.points.map((p) => Math.max(p.drive, p.resistance) * most),
      ...figures.pulls.flatMap((p) => p.force),
      1,
    ),
  );
  const force = $derived(scaleLinear([0, strongest * 1.08], [H2 - 24, 10]));
  const shown = $derived(scaleLinear([0, inSpeed(top)], [PAD.left, width - PAD.right]));
  const ticks = $derived(shown.ticks(8));
</script>

<div bind:clientWidth={width} class="w-full">
  <svg {width} height={H1} class="block" role="img" aria-label={tell('gearDrawing.revs_against_speed_in_each')}>
    {#each figures.gears as gear, i (gear.gear)}
      {@const next = figures.gears[i + 1]}
      {@const dropped = next ? (vehicle.engine.shiftRevs * gear.atShift) / next.atShift : 0}
      <path
        d="M{x(0)} {revs(0)}L{x(Math.min(top, gear.atShift))} {revs(
          vehicle.engine.shiftRevs * Math.min(1, top / gear.atShift),
        )}"
        stroke="var(--road-quiet)"
        stroke-width="1.5"
      />
      {#if next && gear.atShift < top}
        <path
          d="M{x(gear.atShift)} {revs(vehicle.engine.shiftRevs)}V{revs(dropped)}"
          stroke="var(--ink)"
          stroke-width="1.2"
          stroke-dasharray="2 3"
        />
        <text x={x(gear.atShift)} y={revs(dropped) + 14} text-anchor="middle" style="font-size:11px">
          {plain(Math.round(dropped / 10) * 10)}
        </text>
      {/if}
      {@const from = i === 0 ? 0 : (figures.gears[i - 1]?.atShift ?? 0)}
      {@const to = Math.min(top, gear.atShift)}
      {#if to > from}
        <path
          d="M{x(from)} {revs((vehicle.engine.shiftRevs * from) / gear.atShift)}L{x(to)} {revs(
            (vehicle.engine.shiftRevs * to) / gear.atShift,
          )}"
          stroke="var(--ink)"
          stroke-width="2.5"
        />
        <text
          x={x((from + to) / 2)}
          y={revs((vehicle.engine.shiftRevs * (from + to)) / 2 / gear.atShift) + 18}
          text-anchor="middle"
          font-weight="700"
        >
          {gear.gear}
        </text>
      {/if}
    {/each}
    <path
      d="M{PAD.left} {revs(vehicle.engine.shiftRevs)}H{width - PAD.right}"
      stroke="var(--throttle)"
      stroke-dasharray="5 4"
    />
    <text x={PAD.left - 4} y={revs(vehicle.engine.shiftRevs) + 4} text-anchor="end" style="font-size:11px">
      {plain(vehicle.engine.shiftRevs)}
    </text>
    <text x={PAD.left + 4} y={revs(vehicle.engine.shiftRevs) - 5} style="font-size:11px;fill:var(--throttle)"
      >{tell('gearDrawing.shift')}</text
    >
    <Axis scale={shown} values={ticks} at={H1 - 20} word={plain} />
  </svg>
  <svg {width} height={H2} class="block" role="img" aria-label={tell('gearDrawing.tractive_force_of_each_gear')}>
    <path
      d={pathOf(
        [
          [x(figures.points[0]?.speed ?? 0), force(0)],
          ...figures.points.map((p): [number, number] => [x(p.speed), force(p.drive * most)]),
          [x(figures.points[figures.points.length - 1]?.speed ?? 0), force(0)],
        ],
        true,
      )}
      fill="var(--throttle-fill)"
    />
    <path
      d={pathOf(figures.points.map((p) => [x(p.speed), force(p.drive * most)]))}
      fill="none"
      stroke="var(--throttle)"
      stroke-width="2"
    />
    <path
      d={pathOf(figures.points.map((p) => [x(p.speed), force(p.resistance * most)]))}
      fill="none"
      stroke="var(--sky)"
      stroke-width="2"
    />
    {#each figures.pulls as pull (pull.gear)}
      <path
        d={pathOf(
          pull.speed.map((v, i): [number, number] => [x(v), force(pull.force[i] ?? 0)]).filter(([px]) => px <= width),
        )}
        fill="none"
        stroke="var(--ink)"
        stroke-width="1"
      />
      <text x={x(pull.speed[8] ?? 0)} y={force(pull.force[8] ?? 0) - 4} style="font-size:10.5px">{pull.gear}</text>
    {/each}
    <path d="M{x(figures.topSpeed)} 10V{force(0)}" stroke="var(--ink)" stroke-dasharray="3 3" />
    <text x={x(figures.topSpeed) - 5} y="22" text-anchor="end" font-weight="700">
      {plain(inSpeed(figures.topSpeed))}
      {speedUnit()}
    </text>
    <text x={x(top * 0.1)} y={force(strongest * 0.35)} style="fill:var(--throttle)" font-weight="700"
      >{tell('gearDrawing.at_the_road')}</text
    >
    <text
      x={x(top * 0.55)}
      y={force((figures.points[Math.floor(figures.points.length * 0.6)]?.resistance ?? 0) * most) - 12}
      style="fill:var(--sky)"
      font-weight="700"
    >
      {tell('gearDrawing.air_and_rolling')}
    </text>
    <Axis scale={force} values={force.ticks(4)} at={PAD.left} up word={(t) => `${plain(t / 1000, 1)} kN`} />
    <Axis scale={shown} values={ticks} at={H2 - 21} word={plain} />
  </svg>
</div>
