<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { Corner, Judgement, Kerb, Landmark, LayoutView, Place, RoadView, Zone } from '../../api/api';
  import { pathOf, sampleAt } from '../../road/strip';
  import { apart } from '../../road/points';
  import type { SurveyDesk } from './survey.svelte';
  import {
    cornerAt,
    LIMIT_LINES,
    nameOf,
    newKerb,
    newLandmark,
    newLimit,
    newPlace,
    newZone,
    type LandmarkKind,
    type PlaceKind,
    type Sort,
    type ZoneKind,
  } from '../../road/things';
  import { cornerWord } from '../../words/words';
  import { metres } from '../../words/units';
  import LandmarkShape from '../../road/LandmarkShape.svelte';
  import RoadThings from '../../road/RoadThings.svelte';
  import { tell } from '../../words/tell';
  import { follow } from '../../kit/drag';
  import Axis from '../../kit/Axis.svelte';

  export type Tool =
    | { kind: 'look' }
    | { kind: 'landmark'; of: LandmarkKind }
    | { kind: 'kerb' }
    | { kind: 'zone'; of: ZoneKind }
    | { kind: 'place'; of: PlaceKind }
    | { kind: 'limit' }
    | { kind: 'corner' };

  interface Props {
    road: RoadView;
    desk: SurveyDesk;
    tool: Tool;
    relief: LayoutView['relief'];
    middle: number;
    span: number;
    selected: string;
    grades?: Record<string, Judgement['grade']>;
    reach?: Record<string, number | null>;
    felt?: (zone: Zone) => boolean;
    height?: number;
    onselect: (sort: Sort | 'corners' | null, id: string) => void;
    onwindow: (middle: number, span: number) => void;
  }
  let {
    road,
    desk,
    tool,
    relief,
    middle,
    span,
    selected,
    grades = {},
    reach = {},
    felt,
    height = 300,
    onselect,
    onwindow,
  }: Props = $props();

  const PADS = 10;
  const ROAD = 116;
  const AXIS = 22;
  let width = $state(1200);
  let svg: SVGSVGElement;

  const near = $derived((s: number) => middle + apart(middle, s, road.length));
  const domain = $derived<[number, number]>([middle - span / 2, middle + span / 2]);
  const x = $derived(scaleLinear(domain, [PADS, width - PADS]));
  const roadMiddle = $derived(28 + (height - AXIS - 28) / 2);
  const steps = $derived(Array.from({ length: 81 }, (_, i) => domain[0] + ((domain[1] - domain[0]) * i) / 80));
  const widest = $derived(
    Math.max(...steps.map((s) => sampleAt(road.left, road.step, road.length, s))) +
      Math.max(...steps.map((s) => sampleAt(road.right, road.step, road.length, s))),
  );
  const lateral = $derived(ROAD / widest);
  const y = $derived((offset: number) => roadMiddle - offset * lateral);
  const edge = $derived((s: number, left: boolean) =>
    left ? sampleAt(road.left, road.step, road.length, s) : -sampleAt(road.right, road.step, road.length, s),
  );
  const leftEdge = $derived(steps.map((s): [number, number] => [x(s), y(edge(s, true))]));
  const rightEdge = $derived(steps.map((s): [number, number] => [x(s), y(edge(s, false))]));
  const ticks = $derived(x.ticks(Math.max(4, Math.floor(width / 120))).filter((t) => x(t) < width - 24 && x(t) > 22));
  const wrap = (s: number) => ((s % road.length) + road.length) % road.length;

  const corners = $derived(
    desk.corners
      .map((c) => {
        const at = near(c.apexes[c.apexes.length - 1] ?? c.entry);
        return { corner: c, entry: at + apart(at, c.entry, road.length), exit: at + apart(at, c.exit, road.length) };
      })
      .filter((c) => c.exit > domain[0] && c.entry < domain[1]),
  );
  const landmarks = $derived(
    desk.things.landmarks
      .map((l) => ({ ...l, at: near(l.station) }))
      .filter((l) => l.at > domain[0] && l.at < domain[1])
      .sort((a, b) => a.at - b.at),
  );
  /** Landmarks that stand too close to the one before them are drawn a step further out. */
  const steppedOut = $derived.by(() => {
    const out: Record<string, number> = {};
    for (const left of [true, false]) {
      let last = -Infinity;
      let level = 0;
      for (const l of landmarks.filter((k) => k.left === left)) {
        level = x(l.at) - last < 34 ? (level + 1) % 3 : 0;
        out[l.id] = level * 26;
        last = x(l.at);
      }
    }
    return out;
  });
  const reliefSpans = $derived(
    relief.spans
      .map((r) => {
        const a = near(r.from);
        const length = wrap(r.to - r.from);
        return { ...r, a, b: a + length };
      })
      .filter((r) => r.b > domain[0] && r.a < domain[1]),
  );
  const limits = $derived(
    desk.things.limits.flatMap((l) => {
      const c = corners.find((k) => k.corner.id === l.corner);
      if (!c) return [];
      const third = (c.exit - c.entry) / 3;
      const from = l.part === 'ENTRY' ? c.entry - 15 : l.part === 'APEX' ? c.entry + third : c.exit - third;
      const to = l.part === 'ENTRY' ? c.entry + third : l.part === 'APEX' ? c.exit - third : c.exit + 40;
      return [{ limit: l, from, to }];
    }),
  );

  // What is drawn by a press that has not been let go.
  let making = $state<{ from: number; to: number; left: boolean; offset: number } | null>(null);
  let shift = $state<{ id: string; end: 'whole' | 'from' | 'to'; by: number } | null>(null);

  function place(event: PointerEvent): { station: number; offset: number } {
    const box = svg.getBoundingClientRect();
    return { station: x.invert(event.clientX - box.left), offset: (roadMiddle - (event.clientY - box.top)) / lateral };
  }
  const rounded = (s: number) => Math.round(s * 2) / 2;

  function down(event: PointerEvent) {
    if (event.button !== 0) return;
    const at = place(event);
    const left = at.offset >= 0;
    if (tool.kind === 'look' || tool.kind === 'corner') {
      const start = at.station;
      const from = middle;
      let moved = false;
      follow(event, {
        onmove: (e) => {
          const box = svg.getBoundingClientRect();
          const now = scaleLinear([from - span / 2, from + span / 2], [PADS, width - PADS]).invert(
            e.clientX - box.left,
          );
          if (Math.abs(now - start) > span / 200) moved = true;
          if (moved) onwindow(from + (start - now), span);
        },
        onend: () => {
          if (!moved) onselect(null, '');
        },
      });
      return;
    }
    if (tool.kind === 'landmark') {
      const s = rounded(wrap(at.station));
      const made = newLandmark(tool.of, s, left, cornerAt(desk.corners, road.length, s)?.id ?? '');
      if (tool.of !== 'BRIDGE') {
        const out = Math.abs(at.offset) - Math.abs(edge(s, left));
        if (made.out < 0 !== out < 0 && (out < 0 || made.out < 0)) made.out = Math.round(out * 2) / 2;
      }
      desk.put('landmarks', [made]);
      onselect('landmarks', made.id);
      return;
    }
    if (tool.kind === 'limit') {
      const corner = cornerAt(desk.corners, road.length, wrap(at.station));
      if (!corner) return;
      const made = newLimit(corner.id, left);
      desk.put('limits', [made]);
      onselect('limits', made.id);
      return;
    }
    making = { from: at.station, to: at.station, left, offset: at.offset };
    follow(event, {
      onmove: (e) => {
        if (making) making = { ...making, to: place(e).station };
      },
      onend: finish,
    });
  }

  function finish() {
    const m = making;
    making = null;
    if (!m) return;
    let [a, b] = m.from < m.to ? [m.from, m.to] : [m.to, m.from];
    // A click without a drag still makes something that can be seen and then drawn out.
    if (b - a < 3 && tool.kind !== 'place') [a, b] = [a - 10, a + 10];
    const from = rounded(wrap(a));
    const to = rounded(wrap(b));
    if (tool.kind === 'kerb') {
      const corner = cornerAt(desk.corners, road.length, wrap((a + b) / 2));
      const made = newKerb(from, to, m.left, corner, road.length);
      desk.put('kerbs', [made]);
      onselect('kerbs', made.id);
    } else if (tool.kind === 'zone') {
      const half = Math.abs(m.offset) > Math.abs(edge(a, m.left)) * 0.4;
      const made = newZone(tool.of, from, to, half || tool.of === 'BEYOND' ? (m.left ? 'LEFT' : 'RIGHT') : 'BOTH');
      desk.put('zones', [made]);
      onselect('zones', made.id);
    } else if (tool.kind === 'place') {
      const point = tool.of === 'PIT_ENTRY' || tool.of === 'PIT_EXIT' || tool.of === 'MARSHAL_POST';
      const made = newPlace(tool.of, from, point || b - a < 3 ? from : to, m.left);
      desk.put('places', [made]);
      onselect('places', made.id);
    }
  }

  function pick(event: PointerEvent, sort: 'kerbs' | 'zones' | 'places', id: string) {
    if (tool.kind !== 'look') return;
    event.stopPropagation();
    onselect(sort, id);
    if (selected === id) dragSpan(event, sort, id, 'whole');
  }

  function dragSpan(event: PointerEvent, sort: 'kerbs' | 'zones' | 'places', id: string, end: 'whole' | 'from' | 'to') {
    event.stopPropagation();
    event.preventDefault();
    const start = place(event).station;
    follow(event, {
      onmove: (e) => (shift = { id, end, by: rounded(place(e).station - start) }),
      onend: () => {
        const s = shift;
        shift = null;
        const thing = (desk.things[sort] as (Kerb | Zone | Place)[]).find((t) => t.id === id);
        if (s && s.by && thing) {
          desk.put(sort, [
            {
              ...thing,
              from: s.end === 'to' ? thing.from : wrap(thing.from + s.by),
              to: s.end === 'from' ? thing.to : wrap(thing.to + s.by),
            },
          ]);
        }
      },
    });
  }

  function dragLandmark(event: PointerEvent, l: Landmark & { at: number }) {
    if (tool.kind !== 'look' || event.button !== 0) return;
    event.stopPropagation();
    (event.currentTarget as SVGGElement).focus();
    onselect('landmarks', l.id);
    const start = place(event).station;
    follow(event, {
      onmove: (e) => (shift = { id: l.id, end: 'whole', by: rounded(place(e).station - start) }),
      onend: () => {
        const s = shift;
        shift = null;
        const thing = desk.things.landmarks.find((t) => t.id === l.id);
        if (s && s.by && thing) desk.put('landmarks', [{ ...thing, station: wrap(thing.station + s.by) }]);
      },
    });
  }

  type CornerEnd = 'entry' | 'exit' | number;
  let bend = $state<{ id: string; end: CornerEnd; to: number } | null>(null);
  function dragCorner(event: PointerEvent, c: Corner, end: CornerEnd) {
    event.stopPropagation();
    event.preventDefault();
    (event.currentTarget as SVGGElement).focus();
    follow(event, {
      onmove: (e) => (bend = { id: c.id, end, to: rounded(place(e).station) }),
      onend: () => {
        const b = bend;
        bend = null;
        if (b) moveCorner(c, end, wrap(b.to));
      },
    });
  }
  function moveCorner(c: Corner, end: CornerEnd, to: number) {
    desk.arrange(
      desk.corners.map((k) => {
        if (k.id !== c.id) return k;
        if (end === 'entry') return { ...k, entry: to };
        if (end === 'exit') return { ...k, exit: to };
        return { ...k, apexes: k.apexes.map((a, i) => (i === end ? to : a)) };
      }),
      `corner ${c.id} ${end}`,
    );
  }
  function cornerKey(event: KeyboardEvent, c: Corner, end: CornerEnd) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const from = end === 'entry' ? c.entry : end === 'exit' ? c.exit : (c.apexes[end] ?? c.entry);
    moveCorner(c, end, wrap(from + by * (event.shiftKey ? 5 : 1)));
  }

  function wheel(event: WheelEvent) {
    event.preventDefault();
    if (event.ctrlKey || Math.abs(event.deltaY) > Math.abs(event.deltaX)) {
      const at = x.invert(event.clientX - svg.getBoundingClientRect().left);
      const next = Math.max(60, Math.min(Math.min(1600, road.length), span * (event.deltaY > 0 ? 1.2 : 1 / 1.2)));
      onwindow(at + ((middle - at) * next) / span, next);
    } else {
      onwindow(middle + (event.deltaX * span) / width, span);
    }
  }

  const shownThings = $derived.by(() => {
    const s = shift;
    if (!s) return desk.things;
    const moved = <T extends { id: string; from: number; to: number }>(list: T[]): T[] =>
      list.map((t) =>
        t.id === s.id
          ? {
              ...t,
              from: s.end === 'to' ? t.from : wrap(t.from + s.by),
              to: s.end === 'from' ? t.to : wrap(t.to + s.by),
            }
          : t,
      );
    return {
      ...desk.things,
      kerbs: moved(desk.things.kerbs),
      zones: moved(desk.things.zones),
      places: moved(desk.things.places),
    };
  });
  const held = $derived.by(() => {
    for (const sort of ['kerbs', 'zones', 'places'] as const) {
      const t = (shownThings[sort] as (Kerb | Zone | Place)[]).find((k) => k.id === selected);
      if (t) {
        const a = near(t.from);
        return { sort, id: t.id, a, b: a + wrap(t.to - t.from) };
      }
    }
    return null;
  });
  const GRADE: Record<Judgement['grade'], string> = { SOLID: '●', USABLE: '◐', WEAK: '○', NOT_TO_BE_RELIED_ON: '×' };
</script>

<div bind:clientWidth={width} class="w-full">
  <svg
    bind:this={svg}
    {width}
    {height}
    class={[
      'block touch-none select-none',
      tool.kind === 'look' || tool.kind === 'corner' ? 'cursor-grab' : 'cursor-crosshair',
    ]}
    role="group"
    aria-label={tell('surveyStrip.the_road_unrolled_to', {
      domain: metres(wrap(domain[0])),
      domain2: metres(wrap(domain[1])),
    })}
    data-strip
    data-from={domain[0]}
    data-to={domain[1]}
    onpointerdown={down}
    onwheel={wheel}
  >
    <defs>
      <clipPath id="survey-window"><rect x="0" y="0" {width} {height} /></clipPath>
    </defs>
    <g clip-path="url(#survey-window)">
      <path d={pathOf([...leftEdge, ...rightEdge.toReversed()], true)} fill="var(--road)" />
      {#each corners as c (c.corner.id)}
        {@const entry = bend?.id === c.corner.id && bend.end === 'entry' ? bend.to : c.entry}
        {@const exit = bend?.id === c.corner.id && bend.end === 'exit' ? bend.to : c.exit}
        {@const on = c.corner.id === selected}
        <path
          d={pathOf(
            [
              [x(entry), y(edge(entry, true))],
              [x(exit), y(edge(exit, true))],
              [x(exit), y(edge(exit, false))],
              [x(entry), y(edge(entry, false))],
            ],
            true,
          )}
          fill="var(--road-quiet)"
          opacity={c.corner.uncounted ? 0.25 : 0.6}
        />
        <g
          role="button"
          tabindex="0"
          aria-label={tell('surveyStrip.corner_2', { corner: cornerWord(c.corner) })}
          aria-pressed={on}
          class="cursor-pointer"
          data-strip-corner={c.corner.id}
          onpointerdown={(e) => {
            e.stopPropagation();
            onselect('corners', c.corner.id);
          }}
          onkeydown={(e) => e.key === 'Enter' && onselect('corners', c.corner.id)}
        >
          {#if c.corner.complex}
            <path d="M{x(entry)} 24V20H{x(exit)}v4" fill="none" stroke="var(--ink-soft)" />
          {/if}
          <rect
            x={x((entry + exit) / 2) - 40}
            y="1"
            width="80"
            height="18"
            rx="3"
            fill={on ? 'var(--ink)' : 'transparent'}
            class="focus-ring"
          />
          <text
            x={x((entry + exit) / 2)}
            y="14"
            text-anchor="middle"
            font-weight="700"
            style={on ? 'fill:var(--color-base-100)' : c.corner.uncounted ? 'fill:var(--ink-soft)' : undefined}
          >
            {c.corner.left ? '↰' : '↱'}
            {cornerWord(c.corner)}
          </text>
        </g>
      {/each}
      <path d={pathOf(leftEdge)} fill="none" stroke="var(--road-edge)" stroke-width="1.8" />
      <path d={pathOf(rightEdge)} fill="none" stroke="var(--road-edge)" stroke-width="1.8" />

      {#each reliefSpans as r (r.kind + r.from)}
        {@const a = Math.max(r.a, domain[0])}
        {@const b = Math.min(r.b, domain[1])}
        {@const py = height - AXIS - 8}
        {@const w = x(b) - x(a)}
        <g aria-hidden="true">
          {#if r.kind === 'CREST' || r.kind === 'COMPRESSION'}
            {@const dir = r.kind === 'CREST' ? -1 : 1}
            <path d="M{x(a)} {py}q{w / 2} {dir * 14} {w} 0" fill="none" stroke="var(--ink-soft)" stroke-width="2" />
            {#if w > 80}
              <text x={x((a + b) / 2)} y={py + 4} text-anchor="middle" style="fill:var(--ink-soft);font-size:10px">
                {tell('surveyStrip.crest_dip_r_m', { isCrest: r.kind === 'CREST', r: Math.round(r.value) })}
              </text>
            {/if}
          {:else if w > 50}
            <text x={x((a + b) / 2)} y={py + 5} text-anchor="middle" style="fill:var(--ink-soft);font-size:10px">
              {r.value > 0 ? '▲' : '▼'}
              {Math.abs(r.value * 100).toFixed(1)} %
            </text>
          {/if}
        </g>
      {/each}
      {#each relief.blind as b (b.corner)}
        {@const at = near(b.from + b.sight)}
        {#if at > domain[0] && at < domain[1]}
          <path
            d="M{x(at)} {y(edge(at, true))}V{y(edge(at, false))}"
            stroke="var(--turn)"
            stroke-dasharray="2 4"
            stroke-width="2"
          />
          <text x={x(at) - 4} y={y(edge(at, false)) + 12} text-anchor="end" style="fill:var(--turn);font-size:10.5px">
            {tell('surveyStrip.blind_past_here_seen_from', { sight: Math.round(b.sight) })}
          </text>
        {/if}
      {/each}

      <RoadThings {road} things={shownThings} {near} {domain} {x} {y} {selected} {reach} {felt} onpick={pick} />

      {#each limits as l (l.limit.id)}
        {@const on = l.limit.id === selected}
        {@const out = l.limit.left ? -1 : 1}
        {@const py = y(edge((l.from + l.to) / 2, l.limit.left)) + out * 16}
        <g
          role="button"
          tabindex="0"
          aria-label={tell('surveyStrip.track_limit', { limit: nameOf('limits', l.limit) })}
          class="cursor-pointer"
          onpointerdown={(e) => {
            e.stopPropagation();
            onselect('limits', l.limit.id);
          }}
          onkeydown={(e) => e.key === 'Enter' && onselect('limits', l.limit.id)}
        >
          <path
            d="M{x(l.from)} {py - out * 4}v{out * 4}H{x(l.to)}v{-out * 4}"
            fill="none"
            stroke="var(--turn)"
            stroke-width={on ? 3 : 1.6}
          />
          <text x={x(l.from) + 3} y={py + (out < 0 ? -4 : 11)} style="font-size:10px;fill:var(--turn)">
            {tell('surveyStrip.wheels_in_mine', {
              line: LIMIT_LINES[l.limit.line],
              wheelsInside: l.limit.wheelsInside,
              hasBreaches: !!l.limit.breaches.length,
              breaches: l.limit.breaches.length,
            })}
          </text>
        </g>
      {/each}

      {#each landmarks.filter((l) => l.length > 0) as l (l.id)}
        {@const at = shift?.id === l.id ? l.at + shift.by : l.at}
        {@const side = l.left ? -4 : 4}
        <path
          d="M{x(at)} {y(edge(at, l.left)) + side}L{x(at + l.length)} {y(edge(at + l.length, l.left)) + side}"
          stroke="var(--ink)"
          stroke-width="3"
          stroke-dasharray={l.kind === 'HEDGE' ? '5 2' : undefined}
          opacity="0.7"
          data-extent={l.id}
        />
      {/each}
      {#each landmarks as l (l.id)}
        {@const at = shift?.id === l.id ? l.at + shift.by : l.at}
        {@const on = l.id === selected}
        {@const py = y(edge(at, l.left))}
        {@const grade = grades[l.id]}
        {@const far = steppedOut[l.id] ?? 0}
        <g
          transform="translate({x(at)} {py + (l.left ? -far : far)})"
          role="slider"
          tabindex="0"
          aria-label={tell('surveyStrip.left_right', { nameOf: nameOf('landmarks', l), hasLeft: !!l.left })}
          aria-valuenow={Math.round(l.station)}
          aria-valuetext={metres(l.station)}
          class="cursor-ew-resize"
          data-landmark={l.id}
          onpointerdown={(e) => dragLandmark(e, l)}
          onfocus={() => onselect('landmarks', l.id)}
        >
          {#if far}<path d="M0 {l.left ? far : -far}V0" stroke="var(--ink-soft)" stroke-dasharray="2 2" />{/if}
          {#if on}<circle cy={l.left ? -14 : 14} r="20" fill="var(--throttle-fill)" opacity="0.6" />{/if}
          <LandmarkShape landmark={l} />
          {#if grade}
            <text x="12" y={l.left ? -4 : 12} style="font-size:11px" aria-hidden="true">{GRADE[grade]}</text>
          {/if}
        </g>
      {/each}

      {#if held}
        {#each ['from', 'to'] as const as end (end)}
          {@const s = end === 'from' ? held.a : held.b}
          <g
            transform="translate({x(s)} {roadMiddle})"
            class="cursor-ew-resize"
            role="slider"
            tabindex="0"
            aria-label={tell('surveyStrip.start_end', { isFrom: end === 'from' })}
            aria-valuenow={Math.round(wrap(s))}
            data-end={end}
            onpointerdown={(e) => dragSpan(e, held.sort, held.id, end)}
          >
            <rect x="-8" y={-ROAD / 2 - 12} width="16" height={ROAD + 24} fill="transparent" />
            <path
              d="M0 {-ROAD / 2 - 10}V{ROAD / 2 + 10}"
              stroke="var(--ink)"
              stroke-width="1.5"
              stroke-dasharray="3 3"
            />
            <rect
              x="-5"
              y="-9"
              width="10"
              height="18"
              rx="3"
              fill="var(--color-base-100)"
              stroke="var(--ink)"
              class="focus-ring"
            />
          </g>
        {/each}
      {/if}

      {#each corners.filter((c) => c.corner.id === selected) as c (c.corner.id)}
        {@const ends = [
          { end: 'entry' as CornerEnd, s: c.entry, word: tell('surveyStrip.entry') },
          ...c.corner.apexes.map((a, i) => ({ end: i as CornerEnd, s: near(a), word: tell('surveyStrip.apex') })),
          { end: 'exit' as CornerEnd, s: c.exit, word: tell('surveyStrip.exit') },
        ]}
        {#each ends as e (e.end)}
          {@const s = bend?.id === c.corner.id && bend.end === e.end ? bend.to : e.s}
          {@const inside = c.corner.left ? y(edge(s, true)) : y(edge(s, false))}
          <g
            transform="translate({x(s)} {e.word === 'apex' ? inside : roadMiddle})"
            class="cursor-ew-resize"
            role="slider"
            tabindex="0"
            aria-label={tell('surveyStrip.of_corner', { word: e.word, corner: cornerWord(c.corner) })}
            aria-valuenow={Math.round(wrap(s))}
            aria-valuetext={metres(wrap(s))}
            data-corner-end={e.end}
            onpointerdown={(ev) => dragCorner(ev, c.corner, e.end)}
            onkeydown={(ev) => cornerKey(ev, c.corner, e.end)}
          >
            {#if e.word !== 'apex'}
              <path d="M0 {-ROAD / 2}V{ROAD / 2}" stroke="var(--ink)" stroke-width="2" />
            {/if}
            <rect
              x="-17"
              y="-9"
              width="34"
              height="18"
              rx="9"
              fill="var(--color-base-100)"
              stroke="var(--ink)"
              class="focus-ring"
            />
            <text y="4" text-anchor="middle" style="font-size:11px">{e.word}</text>
          </g>
        {/each}
      {/each}

      {#if making}
        {@const a = Math.min(making.from, making.to)}
        {@const b = Math.max(making.from, making.to)}
        <rect
          x={x(a)}
          y={making.left ? y(edge(a, true)) - 12 : y(0)}
          width={Math.max(1, x(b) - x(a))}
          height={Math.abs(y(0) - y(edge(a, making.left))) + 12}
          fill="var(--throttle-fill)"
          stroke="var(--throttle)"
          opacity="0.7"
        />
        <text x={x(b) + 6} y={making.left ? y(edge(a, true)) - 2 : y(edge(a, false)) + 10} font-weight="700">
          {metres(b - a)}
        </text>
      {/if}

      <Axis scale={x} values={ticks} at={height - AXIS} line={[PADS, width - PADS]} word={(t) => metres(wrap(t))} />
      <text x={PADS} y={height - 5} style="fill:var(--ink-soft);font-size:11px" aria-hidden="true">→</text>
    </g>
  </svg>
</div>
