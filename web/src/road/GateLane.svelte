<script lang="ts">
  import type { ScaleLinear } from 'd3-scale';
  import type { Gate, RoadView } from '../api/api';
  import { metres, signed } from '../words/units';
  import { pathOf, sampleAt } from './strip';
  import { tell } from '../words/tell';
  import { follow, onlyChooses } from '../kit/drag';

  /** Places that the line passes: two posts with the gap between them, tied to the edge that they are told from. */
  interface Props {
    road: RoadView;
    x: ScaleLinear<number, number>;
    y: (offset: number) => number;
    near: (station: number) => number;
    domain: [number, number];
    gates: Gate[];
    /** Metres of the vehicle across. */
    wide: number;
    readonly?: boolean;
    /** Whether it is worked on with fingers. */
    fingers?: boolean;
    onmove: (gate: Gate) => void;
    onsettle: () => void;
    /** A gate was taken in hand. */
    onhold?: (id: string) => void;
    /** Seconds a lap for half a metre either way at the gate in hand. */
    costs?: { id: string; nearer: number | null; farther: number | null } | null;
    ondrop: (id: string) => void;
  }
  let {
    road,
    x,
    y,
    near,
    domain,
    gates,
    wide,
    readonly = false,
    fingers = false,
    onmove,
    onsettle,
    onhold,
    costs = null,
    ondrop,
  }: Props = $props();
  /** Metres that one can be held at most, and that a key adds. */
  const MOST = 500;
  const MORE = 5;
  const reach = $derived(fingers ? 22 : 9);

  const edgeAt = (s: number, left: boolean) =>
    left ? sampleAt(road.left, road.step, road.length, s) : -sampleAt(road.right, road.step, road.length, s);
  const middleAt = (g: Gate, s: number) => {
    const inwards = g.metres + wide / 2;
    return edgeAt(s, g.left) + (g.left ? -inwards : inwards);
  };
  /** The two rails between which it is held, from where that begins to the posts. */
  const rails = (g: Gate, s: number) => {
    const steps = Math.max(1, Math.ceil(g.over / 4));
    const at = Array.from({ length: steps + 1 }, (_, k) => s - g.over + (k * g.over) / steps);
    return [-1, 1].map((side) => pathOf(at.map((m): [number, number] => [x(m), y(middleAt(g, m)) + side * gapOf(g)])));
  };
  const gapOf = (g: Gate) => Math.max(4, Math.abs(y(g.tolerance) - y(0)));
  const held = (to: number) => Math.max(0, Math.min(MOST, Math.round(to)));
  const shown = $derived(
    gates
      .map((g) => ({ g, s: near(g.station), middle: middleAt(g, g.station) }))
      .filter((g) => g.s > domain[0] && g.s - g.g.over < domain[1]),
  );
  const cost = (seconds: number | null) => (seconds === null ? tell('gateLane.not_met') : `${signed(seconds, 2)} s`);
  const costWords = (c: { nearer: number | null; farther: number | null }) =>
    tell('gateLane.0_5_m_nearer_farther', { nearer: cost(c.nearer), farther: cost(c.farther) });
  /** Pixels for seconds: a tenth of a second is 14. */
  const long = (seconds: number | null) => (seconds === null ? 0 : Math.max(2, Math.min(30, Math.abs(seconds) * 140)));
  const tenth = (v: number) => Math.round(v * 10) / 10;

  function grab(event: PointerEvent, g: Gate, part: 'all' | 'post' | 'begin') {
    if (readonly || event.button !== 0) return;
    event.stopPropagation();
    const target = event.currentTarget as SVGGElement;
    const whole = target.closest<SVGGElement>('[data-place-across]') ?? target;
    if (onlyChooses(event, whole)) return;
    event.preventDefault();
    whole.focus();
    const svg = target.ownerSVGElement;
    if (!svg) return;
    const box = svg.getBoundingClientRect();
    const perMetre = Math.abs(y(1) - y(0));
    const start = { x: event.clientX, y: event.clientY };
    let lock: 'along' | 'across' | null = null;
    const move = (e: PointerEvent) => {
      const dx = Math.abs(e.clientX - start.x);
      const dy = Math.abs(e.clientY - start.y);
      lock ??= part === 'begin' ? 'along' : part === 'post' || dy > dx ? 'across' : 'along';
      if (lock === 'along') {
        const by = x.invert(e.clientX - box.left) - x.invert(start.x - box.left);
        const to = Math.round(near(g.station) + by);
        if (part === 'begin') {
          onmove({ ...g, over: held(g.over - by) });
          return;
        }
        onmove({ ...g, station: ((to % road.length) + road.length) % road.length });
      } else {
        // Up on the drawing is to the left of the road.
        const by = (start.y - e.clientY) / perMetre;
        if (part === 'post') onmove({ ...g, tolerance: tenth(Math.max(0, Math.min(20, g.tolerance + Math.abs(by)))) });
        else onmove({ ...g, metres: tenth(g.metres + (g.left ? -by : by)) });
      }
    };
    follow(event, {
      from: 6,
      onmove: move,
      onend: (moved) => {
        if (moved) onsettle();
      },
    });
  }

  let typed = $state('');
  /** The place that the keys have moved and that was not let go of yet. */
  let nudged = '';
  function onkeydown(event: KeyboardEvent, g: Gate) {
    if (readonly || event.ctrlKey || event.metaKey || event.altKey) return;
    const along = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    const across = event.key === 'ArrowUp' ? 0.1 : event.key === 'ArrowDown' ? -0.1 : 0;
    const number = Number(typed);
    const more = event.key === '+' ? MORE : event.key === '-' ? -MORE : 0;
    if (along || across || more) nudged = g.id;
    if (along) onmove({ ...g, station: (g.station + along * (event.shiftKey ? 5 : 1) + road.length) % road.length });
    else if (across) onmove({ ...g, metres: tenth(g.metres + (g.left ? -across : across)) });
    else if (more) onmove({ ...g, over: held(g.over + more) });
    else if (/^[0-9.]$/.test(event.key)) typed += event.key;
    else if (event.key === 'Enter' && typed) {
      typed = '';
      if (!Number.isNaN(number) && number <= 30) onmove({ ...g, metres: number });
      onsettle();
    } else if (event.key === 'Enter' && nudged === g.id) {
      nudged = '';
      onsettle();
    } else if (event.key === 'Escape' && typed) typed = '';
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      if (typed) typed = typed.slice(0, -1);
      else ondrop(g.id);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

{#each shown as gate (gate.g.id)}
  {@const px = x(gate.s)}
  {@const edge = y(edgeAt(gate.g.station, gate.g.left))}
  {@const middle = y(gate.middle)}
  {@const gap = gapOf(gate.g)}
  {@const begin = x(gate.s - gate.g.over)}
  {@const first = y(middleAt(gate.g, gate.s - gate.g.over))}
  <g
    role="slider"
    tabindex={readonly ? -1 : 0}
    aria-label={tell('gateLane.place_across_off_the_left', { gate: metres(gate.g.metres, 1), hasLeft: !!gate.g.left })}
    aria-valuenow={gate.g.metres}
    aria-valuetext={tell('gateLane.off_the_left_right_edge', {
      gate: metres(gate.g.metres, 1),
      hasLeft: !!gate.g.left,
      tolerance: metres(gate.g.tolerance, 1),
      isHeld: gate.g.over > 0,
      over: metres(gate.g.over),
    })}
    class={[readonly ? '' : 'cursor-move', fingers && 'focus:touch-none']}
    data-place-across={gate.g.id}
    onfocus={() => onhold?.(gate.g.id)}
    onkeydown={(e) => onkeydown(e, gate.g)}
    onpointerdown={(e) => grab(e, gate.g, 'all')}
  >
    <rect
      x={px - reach}
      y={middle - gap - 4}
      width={2 * reach}
      height={2 * gap + 8}
      fill="transparent"
      class="focus-ring"
      rx="3"
    />
    <path d="M{px} {edge}V{middle + (edge < middle ? -gap : gap)}" stroke="var(--line)" stroke-dasharray="2 2" />
    {#if gate.g.over > 0}
      {#each rails(gate.g, gate.s) as rail, side (side)}
        <path d={rail} fill="none" stroke="var(--line)" stroke-width="1.5" stroke-dasharray="6 3" data-held-alongside />
      {/each}
    {/if}
    <path d="M{px - 5} {middle - gap}h10M{px - 5} {middle + gap}h10" stroke="var(--line)" stroke-width="3" />
    {#if costs?.id === gate.g.id}
      {@const toEdge = edge < middle ? -1 : 1}
      {#each [{ which: tell('gateLane.nearer'), seconds: costs.nearer, way: toEdge }, { which: tell('gateLane.farther'), seconds: costs.farther, way: -toEdge }] as side (side.which)}
        {@const at = middle + side.way * (gap + 7)}
        <g data-gate-cost={side.which}>
          <title
            >{side.seconds === null
              ? tell('gateLane.half_a_metre_cannot_be', { which: side.which })
              : tell('gateLane.half_a_metre_s_a', { which: side.which, seconds: signed(side.seconds, 3) })}</title
          >
          <path
            d="M{px - 5} {at}h{long(side.seconds)}"
            stroke={(side.seconds ?? 0) > 0 ? 'var(--turn)' : 'var(--sky)'}
            stroke-width="5"
          />
        </g>
      {/each}
    {/if}
    <text x={px + 8} y={(edge + middle) / 2 + 4} style="font-size:11px;fill:var(--ink)" font-weight="700"
      >{typed && document.activeElement?.getAttribute('data-place-across') === gate.g.id
        ? typed
        : metres(gate.g.metres, 1) +
          (gate.g.over > 0 ? tell('gateLane.held', { over: metres(gate.g.over) }) : '') +
          (costs?.id === gate.g.id ? costWords(costs) : '')}</text
    >
    {#if !readonly}
      <g role="presentation" class="cursor-ew-resize" data-begin onpointerdown={(e) => grab(e, gate.g, 'begin')}>
        <title>{tell('gateLane.drag_back_to_hold')}</title>
        <rect
          x={begin - reach - (fingers ? 44 : 14)}
          y={first - (fingers ? 22 : 7)}
          width={fingers ? 44 : 14}
          height={fingers ? 44 : 14}
          fill="transparent"
        />
        <path d="M{begin - reach - 10} {first}l6 -4.5v9z" fill="var(--line)" opacity={gate.g.over > 0 ? 1 : 0.45} />
      </g>
    {/if}
    <g role="presentation" class="cursor-ns-resize" onpointerdown={(e) => grab(e, gate.g, 'post')}>
      <rect x={px - 7} y={middle - gap - 5} width="14" height="6" fill="transparent" />
      <rect x={px - 7} y={middle + gap - 1} width="14" height="6" fill="transparent" />
    </g>
  </g>
{/each}
