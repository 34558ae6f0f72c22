<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { Corner, CornerFinding, PointFinding } from '../../api/api';
  import { apart, POINTS } from '../../road/points';
  import { metres } from '../../words/units';
  import { textWidth } from '../../road/labels';

  /** Where each point was driven, lap for lap, on the road unrolled, against the flag of the reference. */
  interface Props {
    finding: CornerFinding;
    corner: Corner;
    length: number;
    /** Lap that stands out. */
    lap?: string;
    onlap?: (lap: string) => void;
    small?: boolean;
  }
  let { finding, corner, length, lap = '', onlap, small = false }: Props = $props();

  const ORDER = ['BRAKE', 'TURN_IN', 'RELEASE', 'FIRST_APEX', 'APEX', 'FIRST_THROTTLE', 'FULL_THROTTLE', 'EXIT'];
  let width = $state(300);
  const points = $derived(
    ORDER.map((k) => finding.points.find((p) => p.kind === k)).filter(
      (p): p is PointFinding => !!p && (!small || !['EXIT', 'FIRST_APEX'].includes(p.kind)),
    ),
  );
  const apex = $derived(corner.apexes[corner.apexes.length - 1] ?? corner.entry);
  const near = $derived((s: number) => apex + apart(apex, s, length));
  const range = $derived.by((): [number, number] => {
    const all = points.flatMap((p) => [near(p.planned), ...p.late.map((d) => near(p.planned) + d)]);
    return [Math.min(...all, near(corner.entry)) - 8, Math.max(...all, near(corner.exit)) + 8];
  });
  const NOTE = $derived(small ? 0 : 176);
  const NAME = $derived(small ? 52 : 64);
  const x = $derived(scaleLinear(range, [NAME + 6, width - NOTE - 6]));
  const ROW = $derived(small ? 21 : 46);
  const TOP = 18;
  const height = $derived(TOP + points.length * ROW + 6);
  const side = (p: PointFinding) =>
    Math.abs(p.median) < 0.5 ? 'on the flag' : `${metres(Math.abs(p.median))} ${p.median > 0 ? 'late' : 'early'}`;
</script>

<div bind:clientWidth={width} class="w-full">
  <svg {width} {height} class="block" role="group" aria-label="Corner {corner.number}: flags and where you did it">
    <rect
      x={x(near(corner.entry))}
      y="4"
      width={Math.max(0, x(near(corner.exit)) - x(near(corner.entry)))}
      height={height - 8}
      fill="var(--road)"
      opacity="0.7"
    />
    <text x={x(near(corner.entry)) + 3} y="13" style="font-size:10px;fill:var(--ink-soft)"
      >{corner.left ? '↰' : '↱'} {corner.number}</text
    >
    {#each points as p, i (p.kind)}
      {@const y = TOP + i * ROW + ROW / 2}
      {@const at = x(near(p.planned))}
      {@const style = POINTS[p.kind]}
      <g data-spread={p.kind} data-median={p.median.toFixed(1)}>
        <path d="M{NAME} {y}H{width - NOTE}" stroke="var(--road-quiet)" stroke-width="0.8" />
        <rect
          x={x(near(p.planned) - p.tolerance)}
          y={y - ROW * 0.3}
          width={Math.max(1, x(near(p.planned) + p.tolerance) - x(near(p.planned) - p.tolerance))}
          height={ROW * 0.6}
          fill="var(--color-base-100)"
          stroke="var(--road-quiet)"
          rx="2"
        />
        <path d="M{at} {y + ROW * 0.42}V{y - ROW * 0.42}h7l-3 3l3 3h-7" fill={style.colour} stroke={style.colour} />
        {#each p.late as late, k (p.laps[k])}
          {@const on = p.laps[k] === lap}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
          <circle
            cx={x(near(p.planned) + late)}
            cy={y + ((k % 3) - 1) * (small ? 2.4 : 4)}
            r={on ? 5 : small ? 2.4 : 3.2}
            fill={on ? 'var(--turn)' : p.told ? 'var(--ink)' : 'var(--color-base-200)'}
            stroke={p.told || on ? 'none' : 'var(--ink)'}
            opacity={on ? 1 : 0.62}
            class={onlap ? 'cursor-pointer' : ''}
            onclick={() => onlap?.(p.laps[k] ?? '')}
          />
        {/each}
        <path
          d="M{x(near(p.planned) + p.median)} {y - ROW * 0.36}v{ROW * 0.72}"
          stroke="var(--ink)"
          stroke-width={small ? 2 : 2.6}
        />
        <text x="0" y={y + 4} style="font-size:{small ? 11 : 13}px" font-weight={small ? 400 : 600}>{style.word}</text>
        {#if !small}
          <text x={width - NOTE + 4} y={y - 2} style="font-size:12px" font-weight="600"
            >{side(p)}{p.trendTells ? `, ${p.trend > 0 ? 'later' : 'sooner'} lap by lap` : ''}</text
          >
          <text x={width - NOTE + 4} y={y + 12} style="font-size:11px;fill:var(--ink-soft)">
            spread {metres(p.spread, 1)} · hit {Math.round(p.hits * p.late.length)} of {p.late.length}{p.told
              ? ''
              : ' · from speed'}
          </text>
        {:else if Math.abs(p.median) > p.tolerance}
          {@const words = side(p)}
          {@const last = x(near(p.planned) + Math.max(0, ...p.late)) + 8}
          {@const left = last + textWidth(words, 11) > width}
          <text
            x={left ? x(near(p.planned) + Math.min(0, ...p.late)) - 8 : last}
            y={y + 4}
            text-anchor={left ? 'end' : 'start'}
            style="font-size:11px"
            font-weight="700">{words}</text
          >
        {/if}
      </g>
    {/each}
  </svg>
</div>
