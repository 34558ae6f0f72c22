<script lang="ts">
  import type { ScaleLinear } from 'd3-scale';
  import type { AnswerView, CornerEntry, Pedals, PointKind } from '../api/api';
  import { pathOf } from './strip';
  import { station } from './points';
  import { speedText } from '../words/units';
  import { tell } from '../words/tell';
  import { follow, onlyChooses } from '../kit/drag';

  interface Props {
    x: ScaleLinear<number, number>;
    near: (station: number) => number;
    entry: CornerEntry;
    answer?: AnswerView;
    throttle: [number, number][];
    brake: [number, number][];
    /** Share of the grip asked for, against station. */
    use: { s: number; v: number }[];
    top: number;
    middle: number;
    bottom: number;
    left: number;
    readonly?: boolean;
    onpedals?: (pedals: Pedals, settle: boolean) => void;
  }
  let { x, near, entry, answer, throttle, brake, use, top, middle, bottom, left, readonly, onpedals }: Props = $props();

  const at = (kind: PointKind) => {
    const s = station(entry, kind);
    return s === undefined ? null : near(s);
  };
  const pedals = $derived(entry.pedals ?? null);
  const peak = $derived(pedals?.peak ?? answer?.answer.pressing?.peak ?? entry.firstEffort);
  const down = $derived((v: number) => middle + v * (bottom - middle));
  const up = $derived((v: number) => middle - v * (middle - top));

  interface Handle {
    name: string;
    /** Whether its height is the peak of the brake, which is told beside it. */
    peak?: boolean;
    s: number;
    v: number;
    colour: string;
    up: boolean;
    drag: (s: number, v: number) => Pedals;
  }
  const clamp = (v: number, a: number, b: number) => Math.max(a, Math.min(b, v));

  const handles = $derived.by((): Handle[] => {
    const marker = at('BRAKE');
    const release = at('RELEASE');
    const turnIn = at('TURN_IN');
    const first = at('FIRST_THROTTLE');
    const full = at('FULL_THROTTLE');
    const out: Handle[] = [];
    if (pedals && marker !== null && release !== null && release > marker) {
      const way = release - marker;
      const share = (s: number) => clamp((s - marker) / way, 0, 1);
      out.push({
        name: tell('pedalLane.peak_of_the_brake'),
        peak: true,
        s: marker + pedals.rise * way,
        v: peak,
        colour: 'var(--brake)',
        up: false,
        drag: (s, v) => ({
          ...pedals,
          rise: Math.min(share(s), pedals.hold),
          peak: Math.abs(v - peak) > 0.02 || pedals.peak != null ? clamp(v, 0.05, 1.2) : undefined,
        }),
      });
      out.push({
        name: tell('pedalLane.hold_of_the_brake'),
        s: marker + pedals.hold * way,
        v: peak,
        colour: 'var(--brake)',
        up: false,
        drag: (s) => ({ ...pedals, hold: Math.max(share(s), pedals.rise) }),
      });
      if (turnIn !== null && turnIn > marker + pedals.hold * way && turnIn < release)
        out.push({
          name: tell('pedalLane.brake_left_at_turn_in'),
          s: turnIn,
          v: pedals.trail * peak,
          colour: 'var(--brake)',
          up: false,
          drag: (_, v) => ({ ...pedals, trail: clamp(v / Math.max(peak, 0.01), 0, 1) }),
        });
    }
    if (pedals && first !== null && full !== null && full > first)
      out.push({
        name: tell('pedalLane.throttle_held'),
        s: first + pedals.maintain * (full - first),
        v: entry.firstThrottle,
        colour: 'var(--throttle)',
        up: true,
        drag: (s) => ({ ...pedals, maintain: clamp((s - first) / (full - first), 0, 0.95) }),
      });
    return out;
  });

  let dragging = $state<string | null>(null);
  function grab(event: PointerEvent, h: Handle) {
    if (readonly || event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    const target = event.currentTarget as SVGGElement;
    const svg = target.ownerSVGElement;
    if (!svg || onlyChooses(event, target)) return;
    target.focus();
    dragging = h.name;
    const box = svg.getBoundingClientRect();
    const value = (clientY: number) => {
      const y = clientY - box.top;
      return h.up ? (middle - y) / (middle - top) : (y - middle) / (bottom - middle);
    };
    const apply = (e: PointerEvent, settle: boolean) =>
      onpedals?.(h.drag(x.invert(e.clientX - box.left), value(e.clientY)), settle);
    let last: PointerEvent | null = null;
    follow(event, {
      onmove: (e) => {
        last = e;
        apply(e, false);
      },
      onend: () => {
        if (last) apply(last, true);
        dragging = null;
      },
    });
  }

  function onkeydown(event: KeyboardEvent, h: Handle) {
    if (readonly) return;
    const along = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    const more = event.key === 'ArrowDown' ? (h.up ? -1 : 1) : event.key === 'ArrowUp' ? (h.up ? 1 : -1) : 0;
    if (!along && !more) return;
    event.preventDefault();
    onpedals?.(h.drag(h.s + along * (event.shiftKey ? 5 : 1), h.v + more * 0.05), true);
  }

  const over = $derived.by(() => {
    const runs: { from: number; to: number; most: number }[] = [];
    for (const p of use) {
      const last = runs[runs.length - 1];
      if (p.v <= 1.03) {
        if (last && last.to < 0) last.to = p.s;
        continue;
      }
      if (last && last.to < 0) last.most = Math.max(last.most, p.v);
      else runs.push({ from: p.s, to: -1, most: p.v });
    }
    const end = use[use.length - 1]?.s ?? 0;
    return runs.map((r) => ({ ...r, to: r.to < 0 ? end : r.to }));
  });
</script>

{#if throttle.length > 1}
  <path
    d={pathOf([[throttle[0]?.[0] ?? 0, middle], ...throttle, [throttle[throttle.length - 1]?.[0] ?? 0, middle]], true)}
    fill="var(--throttle-fill)"
    stroke="var(--throttle)"
    pointer-events="none"
  />
  <path
    d={pathOf([[brake[0]?.[0] ?? 0, middle], ...brake, [brake[brake.length - 1]?.[0] ?? 0, middle]], true)}
    fill="url(#hatch)"
    stroke="var(--brake)"
    pointer-events="none"
  />
{/if}
{#each answer?.answer.again ?? [] as again (again.station)}
  {@const px = x(near(again.station))}
  <g data-again-drawn pointer-events="none">
    <path d="M{px} {middle}V{bottom}" stroke="var(--brake)" stroke-width="2" stroke-dasharray="4 3" />
    <path d="M{px - 5} {middle}h10l-5 8z" fill="var(--brake)" />
    <text x={px + 6} y={bottom - 4} style="fill:var(--brake);font-size:11px" font-weight="700"
      >{tell('pedalLane.again_to', { from: speedText(again.from), to: speedText(again.to) })}</text
    >
  </g>
{/each}
{#each over as run (run.from)}
  <path d="M{x(run.from)} {middle}H{x(run.to)}" stroke="var(--turn)" stroke-width="5" data-over-asked />
  <text x={(x(run.from) + x(run.to)) / 2} y={middle - 6} text-anchor="middle" font-weight="700" style="fill:var(--turn)"
    >{tell('pedalLane.asks_of_the_grip', { most: Math.round(run.most * 100) })}</text
  >
{/each}
<text x={left} y={top + 10} style="fill:var(--throttle)" font-weight="700" pointer-events="none"
  >{tell('pedalLane.throttle')}</text
>
<text x={left} y={bottom - 4} style="fill:var(--brake)" font-weight="700" pointer-events="none"
  >{tell('pedalLane.brake')}</text
>
{#each handles as h (h.name)}
  {@const cy = h.up ? up(h.v) : down(Math.min(1.15, h.v))}
  <g
    role="slider"
    tabindex={readonly ? -1 : 0}
    aria-label={h.name}
    aria-valuenow={Math.round(h.v * 100)}
    aria-valuetext="{Math.round(h.v * 100)} %"
    class={readonly ? '' : 'cursor-move'}
    data-pedal={h.name}
    onpointerdown={(e) => grab(e, h)}
    onkeydown={(e) => onkeydown(e, h)}
  >
    <rect x={x(h.s) - 11} y={cy - 11} width="22" height="22" fill="transparent" class="focus-ring" rx="4" />
    <rect
      x={x(h.s) - 4.5}
      y={cy - 4.5}
      width="9"
      height="9"
      fill={dragging === h.name ? h.colour : 'var(--color-base-100)'}
      stroke={h.colour}
      stroke-width="2"
    />
    {#if h.peak || dragging === h.name}
      <text x={x(h.s) + 9} y={cy + 4} style="fill:{h.colour};font-size:11px" font-weight="700"
        >{tell('pedalLane.set', {
          v: Math.round(h.v * 100),
          hasPeak: !!(h.peak && pedals?.peak != null),
        })}</text
      >
    {/if}
  </g>
{/each}
