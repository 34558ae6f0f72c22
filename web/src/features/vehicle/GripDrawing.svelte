<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { VehicleFigures } from '../../api/api';
  import { pathOf } from '../../road/strip';
  import { G, degrees, g, inSpeed, metres, plain, speedText, speedUnit } from '../../words/units';
  import { tell } from '../../words/tell';
  import Axis from '../../kit/Axis.svelte';

  let { figures }: { figures: VehicleFigures } = $props();
  let width = $state(640);
  const H = 196;

  const half = $derived(width / 2 - 10);
  const across = $derived(Math.max(...figures.envelopes.flatMap((e) => e.across)));
  const along = $derived(Math.max(...figures.envelopes.flatMap((e) => e.along), 2));
  const down = $derived(Math.min(...figures.envelopes.flatMap((e) => e.along)));
  const k = $derived(Math.min((half * 0.62) / (2 * across), (H - 30) / (along - down)));
  const cx = $derived(8 + across * k);
  const beside = $derived(2 * cx + 4);
  const cy = $derived(14 + along * k);
  const DASH = ['', '6 3', '2 3'];
  const ring = (e: VehicleFigures['envelopes'][number]): [number, number][] => [
    ...e.across.map((a, i): [number, number] => [cx + a * k, cy - (e.along[i] ?? 0) * k]),
    ...e.across.map((a, i): [number, number] => [cx - a * k, cy - (e.along[i] ?? 0) * k]).toReversed(),
  ];
  const fastest = $derived(figures.stops[figures.stops.length - 1]);
  const x = $derived(scaleLinear([0, fastest?.speed ?? 50], [width / 2 + 44, width - 12]));
  const y = $derived(scaleLinear([0, (fastest?.metres ?? 100) * 1.08], [H - 24, 12]));
  const shown = $derived(scaleLinear([0, inSpeed(fastest?.speed ?? 50)], [width / 2 + 44, width - 12]));
  const bike = $derived(figures.motorcycle);
</script>

<div bind:clientWidth={width} class="w-full min-w-0 overflow-hidden">
  <svg {width} height={H} class="block" role="img" aria-label={tell('gripDrawing.grip_at_three_speeds_and')}>
    <path d="M{cx} 6V{H - 6}M8 {cy}H{beside - 12}" stroke="var(--road-quiet)" />
    {#each figures.envelopes as e, i (e.speed)}
      <path
        d={pathOf(ring(e), true)}
        fill={i === 0 ? 'var(--road)' : 'none'}
        fill-opacity="0.5"
        stroke="var(--ink)"
        stroke-width="1.6"
        stroke-dasharray={DASH[i]}
      />
      <text x={beside + 22} y={H - 40 + i * 14} style="font-size:11px">
        {speedText(e.speed)}: {g(Math.max(...e.across))} g
      </text>
      <path d="M{beside - 4} {H - 44 + i * 14}h22" stroke="var(--ink)" stroke-width="1.6" stroke-dasharray={DASH[i]} />
    {/each}
    <text x={cx + 4} y="12" style="font-size:11px">{tell('gripDrawing.drive')}</text>
    <text x={cx + 4} y={H - 4} style="font-size:11px">{tell('gripDrawing.brake')}</text>
    {#if bike}
      {#each [[tell('gripDrawing.front_lifts'), bike.frontLift], [tell('gripDrawing.rear_lifts'), -bike.rearLift]] as const as [word, a] (word)}
        {@const py = cy - a * k}
        {#if py > 4 && py < H - 4}
          <path d="M8 {py}H{beside - 6}" stroke="var(--turn)" stroke-dasharray="4 3" />
        {/if}
        <text x={beside - 4} y={a > 0 ? 26 : 42} style="font-size:11px;fill:var(--turn)" data-lift={word}>
          {tell('gripDrawing.at_g', { word, g: plain(Math.abs(a) / G, 2) })}
        </text>
      {/each}
      <text x={beside - 4} y="58" style="font-size:11px" data-lean>
        {tell('gripDrawing.lean_of', {
          lean: Math.round(degrees(bike.lean)),
          leanLimit: Math.round(degrees(bike.leanLimit)),
        })}
      </text>
    {/if}

    <path
      d={pathOf(figures.stops.map((s) => [x(s.speed), y(s.metres)]))}
      fill="none"
      stroke="var(--brake)"
      stroke-width="2.2"
    />
    {#each figures.stops.filter((_, i) => i % 4 === 3) as s (s.speed)}
      <circle cx={x(s.speed)} cy={y(s.metres)} r="3" fill="var(--brake)" />
      <text x={x(s.speed) - 6} y={y(s.metres) - 5} text-anchor="end" style="font-size:11px">{metres(s.metres)}</text>
    {/each}
    <Axis scale={shown} values={shown.ticks(5)} at={H - 21} word={plain} />
    <text x={width / 2 + 48} y="22" font-weight="700" style="fill:var(--brake)"
      >{tell('gripDrawing.to_a_stop_from', { speedUnit: speedUnit() })}</text
    >
  </svg>
</div>
