<script lang="ts">
  import type { ScaleLinear } from 'd3-scale';
  import type { Corner, Kerb, KerbUse, RoadView } from '../api/api';
  import { metres } from '../words/units';
  import { KERB_USES, nameOf, reachOf, USES } from './kerbUse';
  import { apart } from './points';
  import { sampleAt } from './strip';
  import { few } from '../words/few';
  import { tell } from '../words/tell';
  import { follow, onlyChooses } from '../kit/drag';

  /** What is done with kerbs, on the kerbs: a foot where one is joined and left, a stroke a wheel on it. */
  interface Props {
    road: RoadView;
    corner: Corner;
    x: ScaleLinear<number, number>;
    y: (offset: number) => number;
    near: (station: number) => number;
    domain: [number, number];
    kerbs: Kerb[];
    uses: KerbUse[];
    /** Which use is in hand. */
    held?: number | null;
    readonly?: boolean;
    /** Whether it is worked on with fingers. */
    fingers?: boolean;
    onmake: (part: KerbUse['part']) => void;
    onchange: (use: KerbUse, i: number) => void;
    onsettle: () => void;
    onhold: (i: number) => void;
    ondrop: (i: number) => void;
  }
  let {
    road,
    corner,
    x,
    y,
    near,
    domain,
    kerbs,
    uses,
    held = null,
    readonly = false,
    fingers = false,
    onmake,
    onchange,
    onsettle,
    onhold,
    ondrop,
  }: Props = $props();
  const reach = $derived(fingers ? 22 : 8);

  const KERB = 9;
  const edge = (s: number, left: boolean) =>
    y(left ? sampleAt(road.left, road.step, road.length, s) : -sampleAt(road.right, road.step, road.length, s));
  /** Kerbs of the corner that nothing is said of yet: a press says it. */
  const free = $derived(
    kerbs
      .filter((k) => k.corner === corner.id && !uses.some((u) => u.part === k.part))
      .map((k) => ({ k, a: near(k.from), b: near(k.from) + Math.abs(apart(k.from, k.to, road.length)) }))
      .filter((k) => k.b > domain[0] && k.a < domain[1]),
  );
  const shown = $derived(
    uses
      .map((use, i) => {
        const r = reachOf(use, kerbs, corner);
        const a = near(r.from);
        return { use, i, r, a, b: a + apart(r.from, r.to, road.length) };
      })
      .filter((u) => u.b > domain[0] && u.a < domain[1]),
  );
  const inside = (s: number) => x(Math.max(domain[0], Math.min(domain[1], s)));
  type End = 'join' | 'leave';
  const wrap = (s: number) => ((s % road.length) + road.length) % road.length;

  function put(use: KerbUse, i: number, end: End, at: number) {
    const r = reachOf(use, kerbs, corner);
    const other = end === 'join' ? r.to : r.from;
    const kept = r.kerb
      ? near(r.kerb.from) +
        Math.max(0, Math.min(apart(r.kerb.from, r.kerb.to, road.length), apart(r.kerb.from, wrap(at), road.length)))
      : at;
    const length = end === 'join' ? apart(wrap(kept), other, road.length) : apart(other, wrap(kept), road.length);
    if (length < 1) return;
    onchange({ ...use, [end]: Math.round(wrap(kept) * 10) / 10 }, i);
  }
  function grab(event: PointerEvent, use: KerbUse, i: number, end: End, start: number) {
    onhold(i);
    if (readonly) return;
    const foot = event.currentTarget as SVGGElement;
    if (onlyChooses(event, foot)) return;
    event.preventDefault();
    foot.focus();
    follow(event, {
      from: 4,
      onmove: (e) => put(use, i, end, start + x.invert(e.clientX - event.clientX) - x.invert(0)),
      onend: (moved) => {
        if (moved) onsettle();
      },
    });
  }
  function key(event: KeyboardEvent, use: KerbUse, i: number, end: End, at: number) {
    onhold(i);
    if (readonly) return;
    const by = event.shiftKey ? 5 : 1;
    const how = USES.indexOf(use.how as (typeof USES)[number]);
    if (event.key === 'ArrowLeft' || event.key === 'ArrowRight')
      put(use, i, end, at + (event.key === 'ArrowLeft' ? -by : by));
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      const next = USES[Math.max(0, Math.min(USES.length - 1, how + (event.key === 'ArrowUp' ? 1 : -1)))];
      if (next) onchange({ ...use, how: next }, i);
    } else if (event.key === 'Delete') ondrop(i);
    else return;
    event.preventDefault();
    event.stopPropagation();
    onsettle();
  }
</script>

{#each free as { k, a, b } (k.id)}
  {#if !readonly}
    <path
      d="M{x(Math.max(a, domain[0]))} {edge(a, k.left) + (k.left ? -KERB / 2 : KERB / 2)}H{x(Math.min(b, domain[1]))}"
      stroke="transparent"
      stroke-width="18"
      class="cursor-pointer"
      role="button"
      tabindex="-1"
      aria-label={tell('kerbLane.say_what_is_done_with', { part: few(k.part) })}
      data-kerb-free={k.part}
      onpointerdown={(e) => {
        e.preventDefault();
        onmake(k.part);
      }}><title>{tell('kerbLane.press_what_is_done_with', { part: few(k.part) })}</title></path
    >
  {/if}
{/each}
{#each shown as { use, i, r, a, b } (i)}
  {@const out = r.left ? -1 : 1}
  {@const wheels = KERB_USES[use.how].wheels}
  {@const on = held === i}
  <g data-kerb-use={use.part} data-how={use.how}>
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <path
      d="M{inside(a)} {edge(a, r.left) + (out * KERB) / 2}L{inside(b)} {edge(b, r.left) + (out * KERB) / 2}"
      stroke={on ? 'var(--turn)' : 'transparent'}
      stroke-opacity="0.25"
      stroke-width="16"
      class="cursor-pointer"
      onclick={() => onhold(i)}
    />
    {#if use.how === 'KEEP_OFF'}
      <path
        d="M{x((a + b) / 2) - 5} {edge((a + b) / 2, r.left) + out * 2}l10 {out * 8}m0 {-out * 8}l-10 {out * 8}"
        stroke="var(--turn)"
        stroke-width="2.4"
        fill="none"
        pointer-events="none"
      />
    {/if}
    {#each Array.from({ length: wheels }, (_, w) => w) as w (w)}
      <path
        d="M{inside(a) + 4} {edge(a, r.left) + out * (2 + w * 2.6)}L{inside(b) - 4} {edge(b, r.left) +
          out * (2 + w * 2.6)}"
        stroke="var(--turn)"
        stroke-width="1.4"
        pointer-events="none"
      />
    {/each}
    {#each ([['join', a], ['leave', b]] as [End, number][]).filter(([, s]) => s >= domain[0] && s <= domain[1]) as [end, s] (end)}
      <g
        role="slider"
        tabindex={on ? 0 : -1}
        aria-label={tell('kerbLane.joined_left', { use: nameOf(use), isJoin: end === 'join' })}
        aria-valuenow={Math.round(wrap(s) * 10) / 10}
        aria-valuetext={tell('kerbLane.long', { word: KERB_USES[use.how].word, length: metres(Math.abs(b - a)) })}
        class={['cursor-ew-resize', fingers && 'focus:touch-none']}
        data-kerb-foot="{use.part}-{end}"
        onpointerdown={(e) => grab(e, use, i, end, s)}
        onkeydown={(e) => key(e, use, i, end, s)}
      >
        <rect
          x={x(s) - reach}
          y={edge(s, r.left) + (out > 0 ? -3 : -15)}
          width={2 * reach}
          height="18"
          fill="transparent"
        />
        <path
          d="M{x(s)} {edge(s, r.left) - out * 2}v{out * 13}h{end === 'join' ? 5 : -5}"
          fill="none"
          stroke={on ? 'var(--turn)' : 'var(--ink)'}
          stroke-width="2"
        />
      </g>
    {/each}
  </g>
{/each}
