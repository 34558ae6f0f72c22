<script lang="ts">
  import type { Kerb, RoadView, Things, Zone } from '../api/api';
  import { pathOf, sampleAt } from './strip';
  import { DOES, PLACES, ZONES } from './things';
  import { few } from '../words/few';
  import { tell } from '../words/tell';

  /** Kerbs along the edges, zones across the road and places, drawn on an unrolled road. */
  interface Props {
    road: RoadView;
    things: Things;
    /** Station unrolled next to the drawing's middle. */
    near: (station: number) => number;
    domain: [number, number];
    x: (station: number) => number;
    y: (offset: number) => number;
    selected?: string;
    words?: boolean;
    /** Metres of kerb that the tyre may use, by kerb. */
    reach?: Record<string, number | null>;
    /** Whether a zone acts on the day looked at; those that do not are only outlined. */
    felt?: (zone: Zone) => boolean;
    onpick?: (event: PointerEvent, sort: 'kerbs' | 'zones' | 'places', id: string) => void;
  }
  let {
    road,
    things,
    near,
    domain,
    x,
    y,
    selected = '',
    words = true,
    reach = {},
    felt = () => true,
    onpick,
  }: Props = $props();

  const KERB = 9;
  // Metres beyond the edge that a drawing has room for.
  const DRAWN = 2;
  const edge = $derived((s: number, left: boolean) =>
    left ? sampleAt(road.left, road.step, road.length, s) : -sampleAt(road.right, road.step, road.length, s),
  );
  const spanOf = (from: number, to: number) => (((to - from) % road.length) + road.length) % road.length;
  const shown = <T extends { from: number; to: number }>(list: T[]): (T & { a: number; b: number })[] =>
    list.flatMap((t) => {
      const span = spanOf(t.from, t.to);
      // A stretch may start far before the drawing's middle and still reach into it.
      const start = near(t.from);
      return [start, start - road.length, start + road.length]
        .map((a) => ({ ...t, a, b: a + span }))
        .filter((k) => k.b > domain[0] && k.a < domain[1]);
    });
  const kerbs = $derived(shown(things.kerbs));
  const zones = $derived(shown(things.zones));
  const places = $derived(shown(things.places));

  function along(a: number, b: number, offset: (s: number) => number): [number, number][] {
    const from = Math.max(a, domain[0]);
    const to = Math.min(b, domain[1]);
    const steps = Math.max(1, Math.min(60, Math.ceil((to - from) / 5)));
    return Array.from({ length: steps + 1 }, (_, i) => {
      const s = from + ((to - from) * i) / steps;
      return [x(s), y(offset(s))];
    });
  }
  function band(z: Zone & { a: number; b: number }): string {
    if (z.kind === 'BEYOND') {
      // It lies beside the road; how wide it is, is drawn as far as there is room.
      const out = (z.side === 'RIGHT' ? -1 : 1) * Math.min(DRAWN, z.amount ?? 1);
      const at = (s: number) => edge(s, z.side !== 'RIGHT');
      return pathOf([...along(z.a, z.b, at), ...along(z.a, z.b, (s) => at(s) + out).reverse()], true);
    }
    const strip = z.across;
    if (strip && z.side !== 'BOTH') {
      const out = z.side === 'RIGHT' ? 1 : -1;
      const at = (metres: number) => (s: number) => edge(s, z.side === 'LEFT') + out * metres;
      return pathOf([...along(z.a, z.b, at(strip.near)), ...along(z.a, z.b, at(strip.far)).reverse()], true);
    }
    const outer = (s: number) => (z.side === 'RIGHT' ? edge(s, false) : edge(s, true));
    const inner = (s: number) => (z.side === 'BOTH' ? edge(s, false) : 0);
    const dirty = z.kind === 'DIRTY_EDGE';
    const near_ = (s: number) => (dirty ? outer(s) - Math.sign(outer(s)) * 2 : inner(s));
    if (dirty && z.side === 'BOTH') {
      return (
        pathOf(
          [...along(z.a, z.b, (s) => edge(s, true)), ...along(z.a, z.b, (s) => edge(s, true) - 2).reverse()],
          true,
        ) +
        pathOf(
          [...along(z.a, z.b, (s) => edge(s, false)), ...along(z.a, z.b, (s) => edge(s, false) + 2).reverse()],
          true,
        )
      );
    }
    return pathOf([...along(z.a, z.b, outer), ...along(z.a, z.b, near_).reverse()], true);
  }
  /** The kerb's far edge in pixels outwards: by profile, so that no two look alike. */
  function teeth(k: Kerb & { a: number; b: number }): string {
    const out = k.left ? -1 : 1;
    const base = along(k.a, k.b, (s) => edge(s, k.left));
    const first = base[0];
    const last = base[base.length - 1];
    if (!first || !last) return '';
    const top = base.map(([px, py], i): [number, number] => {
      const t = i / Math.max(1, base.length - 1);
      const bump = k.profile === 'CROWN' ? 0.75 + 0.5 * Math.sin(Math.PI * t) : 1;
      return [px, py + out * KERB * bump];
    });
    return pathOf([...base, ...top.reverse()], true);
  }
  function marks(k: Kerb & { a: number; b: number }): string {
    const out = k.left ? -1 : 1;
    const gap = k.profile === 'SERRATED' ? 4 : k.profile === 'FLAT' ? 14 : 8;
    const from = x(Math.max(k.a, domain[0]));
    const to = x(Math.min(k.b, domain[1]));
    let d = '';
    for (let px = from + gap / 2; px < to; px += gap) {
      const s = k.a + ((k.b - k.a) * (px - x(k.a))) / Math.max(1e-6, x(k.b) - x(k.a));
      const py = y(edge(s, k.left));
      if (k.profile === 'RAMP') d += `M${px} ${py}l3 ${out * KERB}`;
      else if (k.profile === 'SERRATED') d += `M${px - 2} ${py}l2 ${out * KERB}l2 ${-out * KERB}`;
      else if (k.profile === 'SAUSAGE') d += `M${px - 3} ${py + out * 6}a3 3 0 0 ${out < 0 ? 1 : 0} 6 0`;
      else if (k.profile === 'STEP') d += `M${px - 4} ${py + out * 4}h4v${out * 5}`;
      else d += `M${px} ${py}v${out * KERB}`;
    }
    return d;
  }

  /** Kinds of ground with a pattern of their own; any other has the plain one. */
  const OWN = ['DAMP', 'STANDING_WATER', 'SHADE', 'POLISHED', 'SURFACE_CHANGE', 'DIRTY_EDGE', 'DRAIN'];
</script>

<g>
  <defs>
    <pattern id="zone-DAMP" width="9" height="9" patternUnits="userSpaceOnUse">
      <path d="M2 6q1.5 -4 2.5 0a1.3 1.3 0 0 1 -2.5 0" fill="none" stroke="var(--sky)" stroke-width="1.1" />
    </pattern>
    <pattern id="zone-STANDING_WATER" width="12" height="7" patternUnits="userSpaceOnUse">
      <path d="M0 4q3 -3 6 0t6 0" fill="none" stroke="var(--sky)" stroke-width="1.5" />
    </pattern>
    <pattern id="zone-SHADE" width="5" height="5" patternUnits="userSpaceOnUse">
      <circle cx="1.5" cy="1.5" r="1" fill="var(--ink-soft)" />
    </pattern>
    <pattern id="zone-POLISHED" width="14" height="10" patternUnits="userSpaceOnUse">
      <path d="M2 8L8 2" stroke="var(--color-base-100)" stroke-width="2.2" />
    </pattern>
    <pattern id="zone-SURFACE_CHANGE" width="8" height="8" patternUnits="userSpaceOnUse">
      <path d="M0 4h8M4 0v8" stroke="var(--ink-soft)" stroke-width="0.7" />
    </pattern>
    <pattern id="zone-DIRTY_EDGE" width="7" height="6" patternUnits="userSpaceOnUse">
      <path d="M1 2h1.6M4 5h1.6" stroke="var(--ink)" stroke-width="1.5" />
    </pattern>
    <pattern id="zone-DRAIN" width="6" height="10" patternUnits="userSpaceOnUse">
      <path d="M3 0v10M0 5h6" stroke="var(--sky)" stroke-width="0.9" />
    </pattern>
    <pattern id="zone-ground" width="8" height="8" patternUnits="userSpaceOnUse">
      <path d="M0 4h3M5 0v3" stroke="var(--ink-soft)" stroke-width="1" />
    </pattern>
    <pattern id="zone-hazard" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <path d="M0 0V7" stroke="var(--turn)" stroke-width="1.6" />
    </pattern>
  </defs>

  {#each zones as z, i (z.id + z.a)}
    {@const pattern = ZONES[z.kind].ground ? (OWN.includes(z.kind) ? z.kind : 'ground') : 'hazard'}
    {@const on = z.id === selected}
    {@const acts = felt(z)}
    {@const wall = z.kind === 'WALL' || z.kind === 'NO_RUN_OFF' || z.kind === 'LOOSE' || z.kind === 'GO_OFF'}
    {#if wall}
      {#each z.side === 'BOTH' ? [true, false] : [z.side === 'LEFT'] as left (left)}
        {@const line = along(z.a, z.b, (s) => edge(s, left) + (left ? 1.6 : -1.6))}
        <path
          d={pathOf(line)}
          fill="none"
          stroke="var(--turn)"
          stroke-width={on ? 7 : 5}
          stroke-dasharray={z.kind === 'WALL'
            ? '10 2'
            : z.kind === 'LOOSE'
              ? '2 6'
              : z.kind === 'GO_OFF'
                ? '1 4'
                : '5 5'}
          class={onpick ? 'cursor-pointer' : ''}
          role={onpick ? 'button' : 'img'}
          tabindex="-1"
          aria-label={ZONES[z.kind].word}
          onpointerdown={(e) => onpick?.(e, 'zones', z.id)}
        />
      {/each}
    {:else}
      <path
        d={band(z)}
        fill={acts ? `url(#zone-${pattern})` : 'transparent'}
        stroke={on ? 'var(--ink)' : acts ? 'none' : 'var(--ink-soft)'}
        stroke-width={on || acts ? 1.5 : 0.8}
        stroke-dasharray={acts ? undefined : '2 4'}
        opacity={acts ? 0.45 + 0.18 * z.severity : 0.7}
        data-zone={z.id}
        data-felt={acts}
        class={onpick ? 'cursor-pointer' : ''}
        role={onpick ? 'button' : 'img'}
        tabindex="-1"
        aria-label={ZONES[z.kind].word}
        onpointerdown={(e) => onpick?.(e, 'zones', z.id)}
      />
    {/if}
    {#if words}
      {@const at = Math.max(z.a, domain[0]) + Math.min(4, (z.b - z.a) / 3)}
      <text
        x={Math.max(12, x(at))}
        y={z.side === 'RIGHT'
          ? y(edge(at, false)) - 6
          : z.side === 'LEFT'
            ? y(edge(at, true)) + 13
            : y(0) + 4 + ((i % 3) - 1) * 16}
        style="font-size:11px;paint-order:stroke;stroke:var(--road);stroke-width:3px"
        opacity={acts ? 1 : 0.65}
        pointer-events="none"
      >
        {ZONES[z.kind].word}{'·'.repeat(z.severity)}
      </text>
    {/if}
  {/each}

  {#each kerbs as k (k.id + k.a)}
    {@const on = k.id === selected}
    {@const may = reach[k.id]}
    <path
      d={teeth(k)}
      fill={k.slippery ? 'var(--throttle-fill)' : 'var(--color-base-100)'}
      stroke="var(--ink)"
      stroke-width={on ? 2.4 : 1}
      class={onpick ? 'cursor-pointer' : ''}
      role={onpick ? 'button' : 'img'}
      tabindex="-1"
      aria-label={tell('roadThings.kerb', { part: few(k.part) })}
      onpointerdown={(e) => onpick?.(e, 'kerbs', k.id)}
    />
    <path
      d={marks(k)}
      fill="none"
      stroke="var(--ink)"
      stroke-width={k.profile === 'RAMP' ? 2.4 : 1.4}
      pointer-events="none"
    />
    {#if k.bites}
      {@const line = along(k.a, Math.min(k.b, k.a + k.bites), (s) => edge(s, k.left))}
      <path
        d={pathOf(line.map(([px, py]): [number, number] => [px, py + ((k.left ? -1 : 1) * KERB) / 2]))}
        fill="none"
        stroke="var(--turn)"
        stroke-width={KERB}
        stroke-dasharray="3 2"
        pointer-events="none"
        data-bites={k.id}><title>{tell('roadThings.its_front_edge_bites_here')}</title></path
      >
    {/if}
    {#if words && k.does?.length}
      <text
        x={x(Math.max(k.a, domain[0])) + 4}
        y={y(edge(Math.max(k.a, domain[0]), k.left)) + (k.left ? 13 : -6)}
        style="font-size:10px;paint-order:stroke;stroke:var(--road);stroke-width:3px"
        pointer-events="none">{k.does.map((d) => DOES[d]).join(', ')}</text
      >
    {/if}
    {#if k.verdict === 'KEEP_OFF'}
      {@const line = along(k.a, k.b, (s) => edge(s, k.left))}
      <path d={pathOf(line)} fill="none" stroke="var(--turn)" stroke-width="3" pointer-events="none" />
    {/if}
    {#if may !== undefined && may !== null && may < k.width}
      {@const out = k.left ? -1 : 1}
      {@const line = along(k.a, k.b, (s) => edge(s, k.left))}
      <path
        d={pathOf(line.map(([px, py]) => [px, py + out * KERB * (may / k.width)]))}
        fill="none"
        stroke="var(--turn)"
        stroke-width="1.6"
        stroke-dasharray="4 2"
        pointer-events="none"
      />
    {/if}
  {/each}

  {#each places as p (p.id + p.a)}
    {@const on = p.id === selected}
    {@const py = y(edge(p.a, p.left)) + (p.left ? -36 : 34)}
    {@const wide = Math.max(0, x(Math.min(p.b, domain[1])) - x(Math.max(p.a, domain[0])))}
    <g
      class={onpick ? 'cursor-pointer' : ''}
      role={onpick ? 'button' : 'img'}
      tabindex="-1"
      aria-label={PLACES[p.kind]}
      onpointerdown={(e) => onpick?.(e, 'places', p.id)}
    >
      <rect
        x={x(Math.max(p.a, domain[0])) - 3}
        y={py - 8}
        width={Math.max(wide, 6) + 6}
        height="16"
        fill="transparent"
      />
      {#if p.kind === 'PIT_ENTRY' || p.kind === 'PIT_EXIT'}
        {@const dir = p.kind === 'PIT_ENTRY' ? 1 : -1}
        {@const out = p.left ? -1 : 1}
        <path
          d="M{x(p.a) - dir * 22} {y(edge(p.a, p.left))}q{dir * 14} 0 {dir * 24} {out * 14}"
          fill="none"
          stroke="var(--ink)"
          stroke-width={on ? 3 : 2}
          stroke-dasharray="5 3"
        />
      {:else if p.kind === 'MARSHAL_POST'}
        <path
          d="M{x(p.a)} {py - 7}v14m0 -14h9v7h-9"
          fill="var(--color-base-100)"
          stroke="var(--ink)"
          stroke-width={on ? 2.4 : 1.2}
        />
      {:else}
        <path
          d="M{x(Math.max(p.a, domain[0]))} {py - 4}v4h{Math.max(wide, 6)}v-4"
          fill="none"
          stroke="var(--sky)"
          stroke-width={on ? 3 : 1.8}
        />
      {/if}
      {#if words}
        <text
          x={x(Math.max(p.a, domain[0])) + (p.kind === 'MARSHAL_POST' ? 12 : 4)}
          y={py + (p.left ? -6 : -4)}
          style="font-size:10.5px"
        >
          {p.label || PLACES[p.kind]}
        </text>
      {/if}
    </g>
  {/each}
</g>
