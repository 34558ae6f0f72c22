<script lang="ts">
  import type { Corner, PlannedLine, RoadView, SessionPlan } from '../../api/api';
  import { lapAcross, middleOf, pathOf, swing } from '../../road/strip';
  import { inLength, inSpeed, lengthUnit, plain, speedUnit } from '../../words/units';
  import { tell } from '../../words/tell';

  /**
   * The lap with what today changes: above each corner so many metres sooner, below it so many later; what
   * cold tyres ask besides stands on top, a step for each lap.
   */
  interface Props {
    road: RoadView;
    corners: Corner[];
    lines: PlannedLine[];
    focus: string[];
    /** Where one brakes for the pits. */
    pits?: SessionPlan['pits'];
    selected: string;
    onselect: (corner: string) => void;
  }
  let { road, corners, lines, focus, pits, selected, onselect }: Props = $props();

  const HEIGHT = 190;
  const MIDDLE = 128;
  const SWING = 12;
  let width = $state(900);
  const x = $derived(lapAcross(corners, road.length, width));
  const y = (s: number) => MIDDLE - SWING * swing(corners, road.length, s);
  const samples = $derived(Array.from({ length: 301 }, (_, i) => (i / 300) * road.length));
  const path = $derived(pathOf(samples.map((s) => [x(s), y(s)])));
  const most = $derived(Math.max(10, ...lines.map((l) => Math.abs(l.today.brake ?? 0) + (l.today.early[0] ?? 0))));
  const tall = $derived((metres: number) => (metres / most) * 78);
  const by = $derived(new Map(corners.map((c) => [c.id, c])));
  const gear = (l: PlannedLine) => l.today.differences.find((d) => d.when === 'ALL' && /^gear/.test(d.words));
</script>

<div bind:clientWidth={width}>
  <svg {width} height={HEIGHT} role="group" aria-label={tell('todayStrip.the_lap_today_metres_by')}>
    <path d={path} fill="none" stroke="var(--road)" stroke-width="9" stroke-linecap="round" />
    <path d={path} fill="none" stroke="var(--line)" stroke-width="1.2" />
    {#each lines as l (l.corner)}
      {@const c = by.get(l.corner)}
      {#if c}
        {@const cx = x(middleOf(c, road.length))}
        {@const cy = y(middleOf(c, road.length))}
        {@const sooner = -(l.today.brake ?? 0)}
        {@const up = Math.max(0, tall(sooner))}
        <g
          role="button"
          tabindex="0"
          data-today={l.called}
          aria-pressed={selected === l.corner}
          aria-label="{l.called}: {l.today.differences
            .filter((d) => d.when === 'ALL')
            .map((d) => d.words)
            .join(', ') || tell('todayStrip.as_in_the_reference')}"
          onclick={() => onselect(l.corner)}
          onkeydown={(e) => (e.key === 'Enter' || e.key === ' ') && onselect(l.corner)}
          style="cursor: pointer"
        >
          <rect x={cx - 14} y="4" width="28" height={HEIGHT - 8} fill="transparent" class="focus-ring" />
          {#if sooner >= 0.5}
            <rect x={cx - 4} y={cy - 8 - up} width="8" height={up} fill="var(--brake)" />
          {:else if sooner <= -0.5}
            <rect x={cx - 4} y={cy + 8} width="8" height={Math.min(26, tall(-sooner))} fill="var(--throttle)" />
          {/if}
          {#each l.today.early.filter((m) => m >= 1) as m, i (i)}
            <rect
              x={cx - 4}
              y={cy - 8 - up - tall(m)}
              width="8"
              height={Math.max(1, tall(m) - tall(l.today.early[i + 1] ?? 0))}
              fill="none"
              stroke="var(--brake)"
              stroke-width="1"
            />
          {/each}
          {#if sooner >= 1.5}
            <text
              x={cx}
              y={cy - 12 - up - tall(Math.max(0, l.today.early[0] ?? 0))}
              text-anchor="middle"
              style="font-size: 11px">{plain(inLength(sooner))}</text
            >
          {:else if sooner <= -1.5}
            <text x={cx + 6} y={cy + 19} style="font-size: 11px; fill: var(--throttle)">{plain(inLength(-sooner))}</text
            >
          {/if}
          {#if gear(l)}<text x={cx + 8} y={cy - 10} style="font-size: 11px; fill: var(--turn)"
              >{l.today.entry.gear}.</text
            >{/if}
          <text
            x={cx}
            y={HEIGHT - 8}
            text-anchor="middle"
            style="font-weight: {selected === l.corner || focus.includes(l.corner)
              ? 800
              : 500}; font-size: {selected === l.corner ? 15 : 12.5}px">{c.number}</text
          >
          {#if focus.includes(l.corner)}
            <path d="M {cx - 7} {HEIGHT - 4} h 14" stroke="var(--turn)" stroke-width="2.5" />
          {/if}
        </g>
      {/if}
    {/each}
    {#if pits}
      {@const out = pits.left ? -1 : 1}
      <g data-pits>
        <path
          d="M {x(pits.marker)} {y(pits.marker) + out * 9} L {x(pits.line)} {y(pits.line) + out * 9}"
          stroke="var(--brake)"
          stroke-width="3"
        />
        <path d="M {x(pits.line)} {y(pits.line) + out * 4} v {out * 12}" stroke="var(--ink)" stroke-width="2" />
        <text
          x={x(pits.line) + 4}
          y={y(pits.line) + (out < 0 ? -12 : 20)}
          style="font-size: 11px; fill: var(--ink-soft)">{tell('todayStrip.pits')}</text
        >
      </g>
    {/if}
    <text x="4" y="12" style="fill: var(--ink-soft); font-size: 11px"
      >{tell('todayStrip.sooner_below_the_road_later', { lengthUnit: lengthUnit(), speedUnit: speedUnit() })}</text
    >
    {#each lines as l (l.corner)}
      {@const c = by.get(l.corner)}
      {#if c}
        <text
          x={x(middleOf(c, road.length))}
          y={HEIGHT - 24}
          text-anchor="middle"
          style="font-size: 10.5px; fill: var(--ink-soft)">{plain(inSpeed(l.today.slowest))}</text
        >
      {/if}
    {/each}
  </svg>
</div>
