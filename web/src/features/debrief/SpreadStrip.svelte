<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { Corner, CornerFinding } from '../../api/api';
  import { apart } from '../../road/points';
  import { textWidth } from '../../road/labels';
  import { rowsOf } from './rows';
  import ShareGauge from './ShareGauge.svelte';
  import { tell } from '../../words/tell';

  /** Where everything that is written was done, lap for lap, on the road unrolled, against the flag of the reference. */
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

  let width = $state(300);
  const apex = $derived(corner.apexes[corner.apexes.length - 1] ?? corner.entry);
  const near = $derived((s: number) => apex + apart(apex, s, length));
  const rows = $derived(rowsOf(finding, near, small));
  const range = $derived.by((): [number, number] => {
    const all = rows.flatMap((p) => [
      near(p.planned),
      near(p.planned) - p.tolerance,
      near(p.planned) + p.tolerance,
      ...p.dots.map((d) => near(p.planned) + d.late),
    ]);
    return [Math.min(...all, near(corner.entry)) - 8, Math.max(...all, near(corner.exit)) + 8];
  });
  const NOTE = $derived(small ? 0 : 196);
  const NAME = $derived(small ? 68 : 84);
  const x = $derived(scaleLinear(range, [NAME + 6, width - NOTE - (small ? 6 : 30)]));
  const ROW = $derived(small ? 21 : 46);
  const TOP = 18;
  const height = $derived(TOP + rows.length * ROW + 6);
</script>

<div bind:clientWidth={width} class="w-full">
  <svg
    {width}
    {height}
    class="block"
    role="group"
    aria-label={tell('spreadStrip.corner_flags_and_where_you', { number: corner.number })}
  >
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
    {#each rows as p, i (p.id)}
      {@const y = TOP + i * ROW + ROW / 2}
      {@const at = x(near(p.planned))}
      <g data-spread={p.id} data-median={p.median?.toFixed(1)}>
        <path d="M{NAME} {y}H{width - NOTE - (small ? 0 : 24)}" stroke="var(--road-quiet)" stroke-width="0.8" />
        <rect
          x={x(near(p.planned) - p.tolerance)}
          y={y - ROW * 0.3}
          width={Math.max(1, x(near(p.planned) + p.tolerance) - x(near(p.planned) - p.tolerance))}
          height={ROW * 0.6}
          fill="var(--color-base-100)"
          stroke="var(--road-quiet)"
          rx="2"
        />
        <path d="M{at} {y + ROW * 0.42}V{y - ROW * 0.42}h7l-3 3l3 3h-7" fill={p.colour} stroke={p.colour} />
        {#each p.dots as d, k (d.lap)}
          {@const on = d.lap === lap}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
          <circle
            cx={x(near(p.planned) + d.late)}
            cy={y + ((k % 3) - 1) * (small ? 2.4 : 4)}
            r={on ? 5 : small ? 2.4 : 3.2}
            fill={on ? 'var(--turn)' : p.told ? 'var(--ink)' : 'var(--color-base-200)'}
            stroke={p.told || on ? 'none' : 'var(--ink)'}
            opacity={on ? 1 : 0.62}
            class={onlap ? 'cursor-pointer' : ''}
            onclick={() => onlap?.(d.lap)}
          />
        {/each}
        {#if p.median !== null}
          <path
            d="M{x(near(p.planned) + p.median)} {y - ROW * 0.36}v{ROW * 0.72}"
            stroke="var(--ink)"
            stroke-width={small ? 2 : 2.6}
          />
        {/if}
        {#if !small && p.written !== null && p.driven !== null}
          <ShareGauge
            x={width - NOTE - 16}
            {y}
            height={ROW * 0.7}
            written={p.written}
            driven={p.driven}
            shares={p.shares}
            {lap}
          />
        {/if}
        <text x="0" y={y + 4} style="font-size:{small ? 11 : 13}px" font-weight={small ? 400 : 600}>{p.word}</text>
        {#if !small}
          <text x={width - NOTE + 4} y={y - 2} style="font-size:12px" font-weight="600">{p.head}</text>
          <text x={width - NOTE + 4} y={y + 12} style="font-size:11px;fill:var(--ink-soft)">{p.foot}</text>
        {:else if p.off}
          {@const words = p.head}
          {@const last = x(near(p.planned) + Math.max(0, ...p.dots.map((d) => d.late))) + 8}
          {@const left = last + textWidth(words, 11) > width}
          <text
            x={left ? x(near(p.planned) + Math.min(0, ...p.dots.map((d) => d.late))) - 8 : last}
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
