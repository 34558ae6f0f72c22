<script lang="ts">
  import type { LapLine } from '../../api/api';
  import { lapTime } from '../../words/units';
  import { tell } from '../../words/tell';

  /** The laps of a run as marks: in the order driven from left to right, the quicker the higher. */
  interface Props {
    laps: LapLine[];
    first: string;
    second: string;
    onpick: (lap: LapLine, other: boolean) => void;
    marks?: Record<string, string>;
  }
  let { laps, first, second, onpick, marks = {} }: Props = $props();
  const H = 112;
  let width = $state(300);
  const whole = $derived(laps.filter((l) => !['OUT', 'IN', 'INCOMPLETE'].includes(l.kind)));
  const times = $derived(whole.map((l) => l.lapTime));
  const low = $derived(Math.min(...times));
  const high = $derived(Math.max(low + 0.4, Math.min(Math.max(...times), low * 1.04)));
  const x = $derived((i: number) => 22 + ((i + 0.5) * (width - 30)) / Math.max(1, whole.length));
  const y = $derived((t: number) => 20 + Math.min(1, (t - low) / (high - low)) * (H - 46));
  // The best time stands at the end of its line where its own lap is not.
  const atEnd = $derived(times.indexOf(low) > times.length / 2);
  const quickest = $derived(whole.filter((l) => l.counts).sort((a, b) => a.lapTime - b.lapTime)[0]);
  function onkeydown(event: KeyboardEvent, lap: LapLine) {
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onpick(lap, event.shiftKey);
    }
  }
</script>

<div bind:clientWidth={width} class="w-full">
  <svg {width} height={H} class="block select-none" role="group" aria-label={tell('lapDots.laps_in_the_order_driven')}>
    {#if whole.length}
      <path d="M18 {y(low)}H{width - 6}" stroke="var(--road-quiet)" stroke-dasharray="2 3" />
      <text x={atEnd ? 18 : width - 6} y={y(low) - 5} text-anchor={atEnd ? 'start' : 'end'} style="font-size:11px"
        >{lapTime(low)}</text
      >
      <path
        d={whole.map((l, i) => `${i ? 'L' : 'M'}${x(i).toFixed(1)},${y(l.lapTime).toFixed(1)}`).join('')}
        fill="none"
        stroke="var(--road-quiet)"
        stroke-width="1.5"
      />
    {/if}
    {#each whole as lap, i (lap.id)}
      {@const on = lap.id === first}
      {@const other = lap.id === second}
      <g
        role="button"
        tabindex="0"
        class="cursor-pointer"
        aria-label={tell('lapDots.lap_does_not_count', {
          number: lap.number,
          lapTime: lapTime(lap.lapTime),
          kindWords: lap.kindWords,
          hasCounts: !!lap.counts,
        })}
        aria-pressed={on || other}
        data-lap={lap.number}
        onclick={(e) => onpick(lap, e.shiftKey)}
        onkeydown={(e) => onkeydown(e, lap)}
      >
        <rect
          class="focus-ring"
          x={x(i) - 9}
          y="8"
          width="18"
          height={H - 12}
          fill="transparent"
          stroke="none"
          rx="3"
        />
        {#if other}
          <path
            d="M{x(i)} {y(lap.lapTime) - 7}l7 7l-7 7l-7 -7z"
            fill="none"
            stroke="var(--throttle)"
            stroke-width="2"
          />
        {/if}
        {#if on}<circle cx={x(i)} cy={y(lap.lapTime)} r="8" fill="none" stroke="var(--ink)" stroke-width="2" />{/if}
        {#if lap.counts}
          <circle cx={x(i)} cy={y(lap.lapTime)} r={lap.id === quickest?.id ? 5 : 4} fill="var(--ink)" />
        {:else}
          <circle
            cx={x(i)}
            cy={y(lap.lapTime)}
            r="3.5"
            fill="var(--color-base-200)"
            stroke="var(--ink-soft)"
            stroke-dasharray="2 1.5"
          />
        {/if}
        <text x={x(i)} y={H - 6} text-anchor="middle" style="font-size:11px" font-weight={on || other ? 700 : 400}
          >{marks[lap.id] ?? ''}{lap.number || '·'}</text
        >
      </g>
    {/each}
  </svg>
</div>
