<script lang="ts">
  import { tell } from '../../words/tell';
  import { follow } from '../../kit/drag';
  /** Wind as an arrow that is drawn: its direction is where from, its length how strong. */
  interface Props {
    speed: number;
    from: number;
    onset: (speed: number, from: number) => void;
  }
  let { speed, from, onset }: Props = $props();
  const SIZE = 92;
  const MID = SIZE / 2;
  const MOST = 20;
  const reach = $derived(10 + (Math.min(speed, MOST) / MOST) * (MID - 18));
  const rad = $derived((from * Math.PI) / 180);
  const tip = $derived({ x: MID + reach * Math.sin(rad), y: MID - reach * Math.cos(rad) });

  let svg: SVGSVGElement;
  function to(e: PointerEvent) {
    const box = svg.getBoundingClientRect();
    const dx = e.clientX - box.left - MID;
    const dy = e.clientY - box.top - MID;
    const r = Math.hypot(dx, dy);
    const strong = Math.max(0, Math.min(MOST, Math.round(((r - 10) / (MID - 18)) * MOST)));
    const angle = Math.round((((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360) / 5) * 5;
    onset(strong, angle % 360);
  }
  function key(e: KeyboardEvent) {
    const turn = e.key === 'ArrowRight' ? 5 : e.key === 'ArrowLeft' ? -5 : 0;
    const more = e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0;
    if (!turn && !more) return;
    e.preventDefault();
    onset(Math.max(0, Math.min(40, speed + more)), (from + turn + 360) % 360);
  }
</script>

<svg
  bind:this={svg}
  width={SIZE}
  height={SIZE}
  role="slider"
  tabindex="0"
  aria-label={tell('windRose.wind')}
  aria-valuenow={speed}
  aria-valuemin="0"
  aria-valuemax={MOST}
  aria-valuetext={tell('windRose.m_s_from', { speed, from })}
  onpointerdown={(e) => {
    to(e);
    follow(e, { onmove: to });
  }}
  onkeydown={key}
  style="touch-action: none; cursor: crosshair"
>
  <circle cx={MID} cy={MID} r={MID - 6} fill="none" stroke="var(--road-quiet)" />
  <text x={MID} y="12" text-anchor="middle" style="font-size: 10px">N</text>
  {#if speed > 0}
    <line x1={tip.x} y1={tip.y} x2={MID} y2={MID} stroke="var(--sky)" stroke-width="3" />
    <circle cx={MID} cy={MID} r="4" fill="var(--sky)" />
    <circle cx={tip.x} cy={tip.y} r="6" fill="var(--color-base-100)" stroke="var(--sky)" stroke-width="2" />
  {:else}
    <text x={MID} y={MID + 4} text-anchor="middle" style="font-size: 11px">{tell('windRose.calm')}</text>
  {/if}
</svg>
