<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { Vehicle } from '../../api/api';
  import { pathOf } from '../../road/strip';
  import { tell } from '../../words/tell';

  let { vehicle }: { vehicle: Vehicle } = $props();
  const W = 190;
  const H = 62;
  const curve = $derived(vehicle.engine.curve);
  const x = $derived(scaleLinear([0, vehicle.engine.limitRevs], [0, W]));
  const y = $derived(scaleLinear([0, Math.max(...curve.map((p) => p.torque))], [H - 4, 6]));
  const inside = $derived(curve.filter((p) => p.revs <= vehicle.engine.limitRevs));
</script>

<svg viewBox="0 0 {W} {H}" class="w-full" role="img" aria-label={tell('torqueSketch.torque_against_revs')}>
  <path
    d={pathOf(
      [
        [x(inside[0]?.revs ?? 0), H],
        ...inside.map((p): [number, number] => [x(p.revs), y(p.torque)]),
        [x(inside[inside.length - 1]?.revs ?? 0), H],
      ],
      true,
    )}
    fill="var(--throttle-fill)"
  />
  <path d={pathOf(inside.map((p) => [x(p.revs), y(p.torque)]))} fill="none" stroke="var(--throttle)" stroke-width="2" />
  <path d="M{x(vehicle.engine.shiftRevs)} 4V{H}" stroke="var(--ink)" stroke-dasharray="3 3" />
</svg>
