<script lang="ts">
  import type { ScaleLinear } from 'd3-scale';
  import type { Action, ScoredAction, Unwise } from '../api/api';
  import { metres } from '../words/units';
  import { textWidth } from './labels';
  import { amountOf, knotsOf, laneOf, mostOf, numeralOf, rimText, unitOf, unwiseOf } from './score';
  import { few } from '../words/few';
  import { tell } from '../words/tell';
  import { follow } from '../kit/drag';

  /** The actions of a corner on its pedals and gears: each with its place and its amount, to be moved by hand and keys. */
  interface Props {
    x: ScaleLinear<number, number>;
    near: (station: number) => number;
    score: ScoredAction[];
    top: number;
    middle: number;
    bottom: number;
    gearTop: number;
    gearHeight: number;
    topGear: number;
    rim: number;
    readonly?: boolean;
    /** Whether the amount of the first braking is drawn by something else. */
    shaped?: boolean;
    fingers?: boolean;
    inHand: string;
    typed: string;
    /** Where some actions are better not done. */
    unwise?: Unwise[];
    onhold: (id: string) => void;
    onput: (action: Action, moved: boolean) => void;
    onsettle: () => void;
    onkey: (event: KeyboardEvent, action: ScoredAction) => void;
    ondrag: (dragging: boolean) => void;
  }
  let {
    x,
    near,
    score,
    top,
    middle,
    bottom,
    gearTop,
    gearHeight,
    topGear,
    rim,
    readonly = false,
    shaped = false,
    fingers = false,
    inHand,
    typed,
    unwise = [],
    onhold,
    onput,
    onsettle,
    onkey,
    ondrag,
  }: Props = $props();

  const down = $derived((v: number) => middle + Math.min(1.15, v) * (bottom - middle));
  const up = $derived((v: number) => middle - v * (middle - top));

  /** Half of what a handle takes of the drawing: 44 pixels for a finger. */
  const reach = $derived(fingers ? 22 : 12);

  // What has a flag on the road and no amount needs no second handle.
  const PLAIN = ['release', 'full-throttle', 'turn-in', 'apex', 'first-apex'];
  const shown = $derived(
    score
      .filter((s) => laneOf(s.action.kind) && !PLAIN.includes(s.action.id) && !(shaped && s.action.id === 'brake'))
      .map((s) => {
        const a = s.action;
        const lane = laneOf(a.kind) ?? 'rim';
        const v = a.kind === 'FULL' ? 1 : (s.amount ?? 0);
        const cy =
          lane === 'brake'
            ? down(v)
            : lane === 'throttle'
              ? up(v)
              : lane === 'gears'
                ? gearTop + gearHeight - (6 + ((gearHeight - 8) * (a.gear ?? 1)) / topGear)
                : rim;
        return { s, a, lane, v, cx: x(near(a.station)), cy, numeral: numeralOf(score, a.id) };
      }),
  );
  /** Pixels of a letter, and of a sign on the rim. */
  const LETTER = 5.8;
  const SIGN = 26;
  /** What stands on the rim, as far as it fits before the next sign there. */
  function onRim(h: { a: Action; cx: number }): string {
    const all = rimText(h.a, score);
    const next = Math.min(...shown.filter((o) => o.lane === 'rim' && o.cx > h.cx).map((o) => o.cx));
    const room = Math.floor((next - h.cx - SIGN) / LETTER);
    return all.length <= room ? all : room > 3 ? `${all.slice(0, room - 1).trimEnd()}…` : '';
  }
  /** Handles so near to one another that they are one knot: only the one in hand, or the first, is written. */
  const written = $derived.by(() => {
    const out: Record<string, boolean> = {};
    const rank = shown.toSorted(
      (a, b) =>
        Number(b.a.id === inHand) - Number(a.a.id === inHand) ||
        Number(!b.s.made || !!b.s.trouble) - Number(!a.s.made || !!a.s.trouble) ||
        a.cx - b.cx,
    );
    const taken: { x: number; y: number; w: number }[] = [];
    for (const h of rank) {
      const w = h.lane === 'rim' ? 12 + onRim(h).length * LETTER : 34;
      const free = taken.every((t) => Math.abs(t.y - h.cy) > 13 || h.cx + w < t.x || t.x + t.w < h.cx);
      out[h.a.id] = free;
      if (free) taken.push({ x: h.cx, y: h.cy, w });
    }
    return out;
  });

  /** Handles that touch are one knot with their count; it opens as a column beside it that pushes nothing else. */
  const knots = $derived(knotsOf(shown.map((h) => ({ ...h, id: h.a.id, x: h.cx, y: h.cy }))));
  let opened = $state('');
  const COLUMN = 156;
  const ROW = 20;
  const knotId = (k: { id: string }[]) => k.map((h) => h.id).join(' ');
  const open = $derived(knots.find((k) => knotId(k) === opened));
  // A pointer on its way from the count to the column crosses what is neither.
  const CROSSING = 250;
  let leaving: ReturnType<typeof setTimeout> | undefined;
  function leave(event: PointerEvent) {
    if (event.pointerType === 'mouse') leaving = setTimeout(() => (opened = ''), CROSSING);
  }
  function enter(event: PointerEvent, id: string) {
    if (event.pointerType !== 'mouse') return;
    clearTimeout(leaving);
    opened = id;
  }
  function choose(id: string) {
    opened = '';
    onhold(id);
    focusOn(id);
  }
  /** Keys on what is pressed like a button: Enter and the space bar do it, Escape shuts the column. */
  function pressed(event: KeyboardEvent, act: () => void) {
    if (event.key === 'Enter' || event.key === ' ') act();
    else if (event.key === 'Escape') opened = '';
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  // An action moved past another by the keys changes its place in the page, and would lose them.
  let byKeys = '';
  $effect(() => {
    const stands = shown.some((h) => h.a.id === byKeys);
    if (stands && inHand === byKeys && document.activeElement === document.body) focusOn(byKeys);
  });
  const focusOn = (id: string) => document.querySelector<SVGGElement>(`[data-action="${CSS.escape(id)}"]`)?.focus();

  const held = $derived(score.find((s) => s.action.id === inHand));
  /** Hatched under the action in hand: where it is better not done. */
  const better = $derived(
    unwiseOf(unwise, held).map((u) => ({
      u,
      from: x(near(u.from)),
      to: x(near(u.to)),
      y: u.what === 'SHIFT' ? gearTop - 3 : middle,
    })),
  );

  const colour = (lane: string) =>
    lane === 'brake' ? 'var(--brake)' : lane === 'throttle' ? 'var(--throttle)' : 'var(--ink)';
  const text = (s: ScoredAction) =>
    s.action.id === inHand && typed
      ? typed
      : s.action.kind === 'EYES' || s.action.kind === 'BODY'
        ? onRim(shown.find((h) => h.s === s) ?? { a: s.action, cx: Infinity })
        : s.action.kind === 'FULL'
          ? 'all'
          : unitOf(s.action) === '%'
            ? `${amountOf(s)} %`
            : amountOf(s);

  const LOCK = 6;
  function grab(event: PointerEvent, h: (typeof shown)[number]) {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    const target = event.currentTarget as SVGGElement;
    const was = inHand === h.a.id;
    target.focus();
    onhold(h.a.id);
    // A first tap selects; a finger moves only what is selected, so that scrolling never edits.
    if (readonly || (event.pointerType === 'touch' && !was)) return;
    carry(event, h.a, h.lane, target.ownerSVGElement);
  }

  /** Follows the hand: along is place, up and down is amount; the larger direction locks, Shift frees both. */
  export function carry(event: PointerEvent, action: Action, lane: string, svg: SVGSVGElement | null) {
    if (!svg) return;
    const box = svg.getBoundingClientRect();
    const start = { px: event.clientX, py: event.clientY };
    const grip = x.invert(event.clientX - box.left) - near(action.station);
    let lock: 'along' | 'amount' | null = null;
    let last = action;
    ondrag(true);
    const apply = (wanted: PointerEvent) => {
      const dx = Math.abs(wanted.clientX - start.px);
      const dy = Math.abs(wanted.clientY - start.py);
      lock ??= dx >= dy ? 'along' : 'amount';
      const both = wanted.shiftKey;
      let next = action;
      let moved = false;
      if (lock === 'along' || both) {
        const to = Math.round((x.invert(wanted.clientX - box.left) - grip) * 2) / 2;
        const by = to - near(action.station);
        next = { ...next, station: to, until: action.until == null ? undefined : action.until + by };
        moved = true;
      }
      if (lock === 'amount' || both) next = atHeight(next, lane, wanted.clientY - box.top);
      last = next;
      onput(next, moved);
    };
    follow(event, {
      from: LOCK,
      onmove: apply,
      onend: () => {
        if (last !== action) onsettle();
        ondrag(false);
      },
    });
  }

  function atHeight(a: Action, lane: string, y: number): Action {
    if (lane === 'gears') {
      const gear = Math.round(((gearTop + gearHeight - y - 6) * topGear) / (gearHeight - 8));
      return { ...a, gear: Math.max(1, Math.min(topGear, gear)) };
    }
    if (unitOf(a) !== '%') return a;
    const v = lane === 'brake' ? (y - middle) / (bottom - middle) : (middle - y) / (middle - top);
    return { ...a, amount: Math.round(Math.max(0, Math.min(mostOf(a.kind), v)) * 50) / 50 };
  }

  function grabEnd(event: PointerEvent, h: (typeof shown)[number]) {
    if (readonly || event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    onhold(h.a.id);
    const svg = (event.currentTarget as SVGElement).ownerSVGElement;
    if (!svg) return;
    const left = svg.getBoundingClientRect().left;
    ondrag(true);
    follow(event, {
      onmove: (e) => {
        const to = Math.round(x.invert(e.clientX - left) * 2) / 2;
        if (to > near(h.a.station) + 1) onput({ ...h.a, until: to }, false);
      },
      onend: () => {
        onsettle();
        ondrag(false);
      },
    });
  }
</script>

{#each better as b (b.u.what + b.u.from)}
  {#if b.to > b.from}
    <path
      d="M{b.from} {b.y}H{b.to}"
      stroke="var(--turn)"
      stroke-width="4"
      stroke-dasharray="2 3"
      pointer-events="none"
      data-unwise={b.u.what}
    />
  {/if}
{/each}
{#each shown as h (h.a.id)}
  {@const c = colour(h.lane)}
  {@const on = h.a.id === inHand}
  {#if on && h.s.serves != null}
    <path
      d="M{h.cx} {middle + (h.lane === 'brake' ? 3 : -3)}H{x(near(h.s.serves))}"
      stroke={c}
      stroke-width="1"
      stroke-dasharray="1 3"
      data-serves
    />
    <circle cx={x(near(h.s.serves))} cy={middle} r="2.5" fill={c} />
  {/if}
  {@const ends = h.a.kind === 'LIFT' || h.a.kind === 'SHIFT'}
  {@const nub = h.a.kind === 'SHIFT' && h.a.until == null && on && !readonly}
  {#if (ends && h.a.until != null) || nub}
    {@const end = h.a.until != null ? x(near(h.a.until)) : h.cx + 18}
    <path d="M{h.cx} {h.cy}H{end}" stroke={c} stroke-width="2" stroke-dasharray={nub ? '2 2' : ''} />
    <rect
      x={end - 5}
      y={h.cy - 9}
      width="10"
      height="18"
      fill="transparent"
      class={readonly ? '' : 'cursor-ew-resize'}
      role="presentation"
      data-until={h.a.id}
      onpointerdown={(e) => grabEnd(e, h)}
    />
    <path d="M{end} {h.cy - 5}v10" stroke={c} stroke-width="2" pointer-events="none" />
  {/if}
  <g
    role="slider"
    tabindex={readonly ? -1 : 0}
    aria-label="{h.s.line}{h.numeral ? `, ${h.numeral}` : ''}"
    aria-valuenow={Math.round(h.a.kind === 'SHIFT' ? (h.a.gear ?? 0) : h.v * 100)}
    aria-valuetext={tell('scoreLane.solved_cannot_be_made', {
      line: h.s.line,
      hasSolved: !!h.s.solved,
      hasMade: !!h.s.made,
      trouble: h.s.trouble ? `, ${h.s.trouble}` : '',
    })}
    class={[readonly ? '' : 'cursor-move', fingers && on && 'touch-none']}
    data-action={h.a.id}
    data-station={h.a.station}
    onpointerdown={(e) => grab(e, h)}
    onfocus={() => onhold(h.a.id)}
    onkeydown={(e) => {
      byKeys = h.a.id;
      onkey(e, h.s);
    }}
  >
    <rect
      x={h.cx - reach}
      y={h.cy - reach}
      width={2 * reach}
      height={2 * reach}
      fill="transparent"
      class="focus-ring"
      rx="4"
    />
    {#if h.a.kind === 'SHIFT'}
      <path d="M{h.cx - 5} {h.cy - 4}h10l-5 8z" fill={on ? c : 'var(--color-base-100)'} stroke={c} stroke-width="1.6" />
    {:else if h.lane === 'rim'}
      <path
        d="M{h.cx - 7} {h.cy}q7 -8 14 0q-7 8 -14 0z"
        fill={on ? c : 'var(--color-base-100)'}
        stroke={c}
        stroke-width="1.5"
      />
      <circle cx={h.cx} cy={h.cy} r="2" fill={on ? 'var(--color-base-100)' : c} />
    {:else if h.a.kind === 'BRAKE'}
      <path
        d="M{h.cx - 5} {h.cy - 5}h10v6l-5 5l-5 -5z"
        fill={on ? c : 'var(--color-base-100)'}
        stroke={c}
        stroke-width="1.8"
        stroke-dasharray={h.s.solved ? '3 2' : undefined}
      />
    {:else if h.a.kind === 'EASE'}
      <path
        d="M{h.cx - 5} {h.cy + 5}L{h.cx - 5} {h.cy - 3}L{h.cx + 6} {h.cy - 3}z"
        fill={on ? c : 'var(--color-base-100)'}
        stroke={c}
        stroke-width="1.8"
      />
    {:else if h.a.kind === 'LIFT'}
      <path d="M{h.cx - 6} {h.cy - 5}l6 8l6 -8" fill="none" stroke={c} stroke-width={on ? 3.2 : 2.2} />
    {:else}
      <path
        d="M{h.cx - 6} {h.cy + 5}l6 -8l6 8z"
        fill={on ? c : 'var(--color-base-100)'}
        stroke={c}
        stroke-width="1.8"
      />
    {/if}
    {#if h.s.trouble || !h.s.made}
      <path d="M{h.cx + 8} {h.cy - 9}l8 0l-4 -8z" fill="var(--turn)" />
    {/if}
    {#if written[h.a.id] && (on || !h.s.solved || h.s.asked != null)}
      {@const hollow = h.s.solved && !(on && typed)}
      {@const said = text(h.s)}
      <rect
        x={h.cx + 8}
        y={h.cy - 8}
        width={textWidth(said, hollow ? 13 : 12) + 4}
        height="15"
        rx="2"
        fill="var(--color-base-200)"
        fill-opacity="0.85"
      />
      <text
        x={h.cx + 10}
        y={h.cy + 4}
        style="font-size:{hollow ? 13 : 12}px;fill:{hollow ? 'none' : c};stroke:{hollow ? c : 'none'};stroke-width:0.7"
        font-weight="700"
        data-amount>{said}</text
      >
    {/if}
    {#if h.numeral}
      <text x={h.cx + 3} y={middle + 12} style="font-size:11px;fill:{c}" font-weight="700">{h.numeral}</text>
    {/if}
  </g>
{/each}
<svelte:window
  onpointerdown={() => {
    opened = '';
    byKeys = '';
  }}
/>
{#each knots as k (knotId(k))}
  {@const first = k[0]}
  {@const last = k[k.length - 1]}
  {#if first && last}
    {@const kx = last.x + 13}
    {@const ky = Math.min(...k.map((h) => h.y)) - 11}
    <g
      role="button"
      tabindex="0"
      aria-label={tell('scoreLane.actions_at_one_place', { k: k.length })}
      aria-expanded={open === k}
      class="cursor-pointer"
      data-knot={k.length}
      onpointerdown={(e) => {
        e.stopPropagation();
        opened = e.pointerType !== 'mouse' && opened === knotId(k) ? '' : knotId(k);
      }}
      onpointerenter={(e) => enter(e, knotId(k))}
      onpointerleave={leave}
      onkeydown={(e) => pressed(e, () => (opened = opened ? '' : knotId(k)))}
    >
      <circle cx={kx} cy={ky} r="9" fill="transparent" class="focus-ring" />
      <circle cx={kx} cy={ky} r="7.5" fill="var(--ink)" />
      <text x={kx} y={ky + 4} text-anchor="middle" style="font-size:11px;fill:var(--color-base-100)" font-weight="700"
        >{k.length}</text
      >
    </g>
  {/if}
{/each}
{#if open}
  {@const last = open[open.length - 1]}
  {@const [from = 0, to = 0] = x.range()}
  {@const left = Math.max(from, Math.min(to - COLUMN, (last?.x ?? 0) + 22))}
  {@const head = Math.max(top, Math.min(...open.map((h) => h.y)) - 11)}
  <g
    role="list"
    aria-label={tell('scoreLane.actions_at_this_place')}
    data-knot-open
    onpointerenter={(e) => enter(e, opened)}
    onpointerleave={leave}
  >
    <rect x={left - 4} y={head - 4} width={COLUMN + 8} height={open.length * ROW + 8} fill="transparent" />
    <rect
      x={left}
      y={head}
      width={COLUMN}
      height={open.length * ROW}
      rx="3"
      fill="var(--color-base-100)"
      stroke="var(--ink)"
    />
    {#each open as h, i (h.id)}
      <g
        role="button"
        tabindex="0"
        aria-label={h.s.line}
        class="cursor-pointer"
        data-knot-row={h.id}
        onpointerdown={(e) => {
          e.stopPropagation();
          e.preventDefault();
          choose(h.id);
        }}
        onkeydown={(e) => pressed(e, () => choose(h.id))}
      >
        <rect
          x={left + 1}
          y={head + i * ROW + 1}
          width={COLUMN - 2}
          height={ROW - 2}
          fill={h.id === inHand ? 'var(--color-base-200)' : 'transparent'}
          class="focus-ring"
        />
        <text x={left + 6} y={head + i * ROW + 14} style="font-size:11px;fill:{colour(h.lane)}" font-weight="700"
          >{few(h.a.kind)} {text(h.s)} · {metres(h.a.station)}</text
        >
      </g>
    {/each}
  </g>
{/if}
