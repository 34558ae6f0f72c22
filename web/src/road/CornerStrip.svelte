<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type {
    KerbUse,
    Action,
    AnswerView,
    Corner,
    CornerEntry,
    Detail,
    DrivenView,
    Gate,
    Judgement,
    Landmark,
    LaidView,
    LapView,
    Pedals,
    PointKind,
    RoadView,
    ScoredAction,
    Things,
    Unwise,
  } from '../api/api';
  import { LANDMARKS } from './things';
  import { placeLabels, textWidth } from './labels';
  import { pathOf, sampleAt } from './strip';
  import { apart, POINTS, foundBy, station } from './points';
  import { inSpeed, metres, plain, speedUnit } from '../words/units';
  import DrivenBands from './DrivenBands.svelte';
  import GateLane from './GateLane.svelte';
  import KerbLane from './KerbLane.svelte';
  import FlagShape from './FlagShape.svelte';
  import LandmarkShape from './LandmarkShape.svelte';
  import PedalLane from './PedalLane.svelte';
  import RoadThings from './RoadThings.svelte';
  import ScoreLane from './ScoreLane.svelte';
  import { scoreOf, type Lane } from './score';
  import StripNotes from './StripNotes.svelte';
  import { few } from '../words/few';
  import { tell } from '../words/tell';
  import { follow } from '../kit/drag';
  import Axis from '../kit/Axis.svelte';

  interface Props {
    road: RoadView;
    corner: Corner;
    entry: CornerEntry;
    answer?: AnswerView;
    landmarks: Landmark[];
    things?: Things;
    /** Metres of each kerb that the tyre may use. */
    reach?: Record<string, number | null>;
    /** Points that were set on an older version of the layout. */
    doubts?: PointKind[];
    grades?: Partial<Record<PointKind, Judgement['grade']>>;
    lap?: LapView;
    before?: CornerEntry | null;
    readonly?: boolean;
    height?: number;
    held?: PointKind | null;
    onmove?: (kind: PointKind, to: number) => void;
    onnudge?: (kind: PointKind, by: number) => void;
    /** A point was let go of: which, and whether it was moved. */
    onsettle?: (kind: PointKind, moved: boolean) => void;
    onhold?: (kind: PointKind | null) => void;
    onlandmark?: (landmark: Landmark, to: number) => void;
    onpedals?: (pedals: Pedals, settle: boolean) => void;
    onpick?: (detail: Detail | null) => void;
    /** The same corner otherwise, drawn behind: its line and speed. */
    under?: AnswerView | null;
    /** The line laid anew, drawn beside the one at hand. */
    laid?: LaidView | null;
    /** What the laps did here, drawn behind the plan. */
    driven?: DrivenView | null;
    /** Whether actions are drawn. */
    written?: boolean;
    /** Whether they are only to be looked at, as on another day. */
    fixed?: boolean;
    inHand?: string;
    typed?: string;
    unwise?: Unwise[];
    /** The station that the keys place actions at. */
    pencil?: number | null;
    /** A lane was pressed where there is nothing: an action is wanted there. */
    onmake?: (lane: Lane, at: number, amount: number) => Action | null;
    onaction?: (action: Action, moved: boolean) => void;
    onactionsettle?: () => void;
    onactionhold?: (id: string) => void;
    onactionkey?: (event: KeyboardEvent, action: ScoredAction) => void;
    /** The use of a kerb that is in hand. */
    kerbHeld?: number | null;
    onkerb?: (use: KerbUse, index?: number) => void;
    onkerbsettle?: () => void;
    onkerbhold?: (index: number) => void;
    onkerbdrop?: (index: number) => void;
    /** Places across the road that the line passes. */
    gates?: Gate[];
    /** Metres of the vehicle across. */
    wide?: number;
    ongate?: (gate: Gate) => void;
    ongatesettle?: () => void;
    ongatedrop?: (id: string) => void;
    ongatehold?: (id: string) => void;
    gateCosts?: { id: string; nearer: number | null; farther: number | null } | null;
    ongatemake?: (at: number, left: boolean, off: number) => void;
  }
  let {
    road,
    corner,
    entry,
    answer,
    landmarks,
    things,
    reach = {},
    doubts = [],
    grades = {},
    lap,
    before = null,
    readonly = false,
    height = 452,
    held = null,
    onmove,
    onnudge,
    onsettle,
    onhold,
    onlandmark,
    onpedals,
    onpick,
    under = null,
    laid = null,
    driven = null,
    written = false,
    fixed = false,
    inHand = '',
    typed = '',
    unwise = [],
    pencil = null,
    onmake,
    onaction,
    onactionsettle,
    onactionhold,
    onactionkey,
    kerbHeld = null,
    onkerb,
    onkerbsettle,
    onkerbhold,
    onkerbdrop,
    gates = [],
    wide = 1.9,
    ongate,
    ongatesettle,
    ongatedrop,
    ongatehold,
    gateCosts = null,
    ongatemake,
  }: Props = $props();

  const GRADES: Record<Judgement['grade'], string> = { SOLID: '●', USABLE: '◐', WEAK: '○', NOT_TO_BE_RELIED_ON: '×' };
  const ROWS = 3;
  const ROW = 30;
  // Notes stand in two rows above the road.
  const WORDS = 110;
  // Places on the left stand above the road.
  const above = $derived(things?.places.some((p) => p.left && near(p.to) > domain[0] && near(p.from) < domain[1]));
  const TOP = $derived(Object.keys(entry.details).length ? 62 : above ? 50 : 36);
  const WIDEST = 88;
  const PADS = 10;
  const AXIS = 18;
  const SPEED = 62;
  const GEARS = 24;

  let width = $state(900);
  let svg: SVGSVGElement;

  const apex = $derived(corner.apexes[corner.apexes.length - 1] ?? corner.entry);
  /** A station unrolled next to the apex, so that a corner across the line stays in one piece. */
  const near = $derived.by(() => {
    const middle = apex;
    const length = road.length;
    return (s: number) => middle + apart(middle, s, length);
  });

  const wrapped = (s: number) => ((s % road.length) + road.length) % road.length;

  const windowOf = (e: CornerEntry): [number, number] => {
    const all = [...e.points, ...e.actions].map((p) => near(p.station));
    const first = Math.min(near(corner.entry), ...all);
    const last = Math.max(near(corner.exit), ...all);
    const lead = Math.max(45, Math.min(110, (last - first) * 0.28));
    return [Math.floor((first - lead) / 10) * 10, Math.ceil((last + 35) / 10) * 10];
  };
  // The window holds still while a flag is dragged, and follows afterwards.
  let frozen = $state.raw<[number, number] | null>(null);
  // As two numbers, so that nothing is drawn anew while they stay the same.
  const domainFrom = $derived((frozen ?? windowOf(entry))[0]);
  const domainTo = $derived((frozen ?? windowOf(entry))[1]);
  const domain = $derived<[number, number]>([domainFrom, domainTo]);
  const x = $derived(scaleLinear([domain[0], domain[1]], [PADS, width - PADS]));

  const roadMiddle = $derived(TOP + WIDEST / 2);
  const steps = $derived.by(() => {
    const out: number[] = [];
    for (let s = domain[0]; s <= domain[1]; s += Math.max(2, (domain[1] - domain[0]) / 240)) out.push(s);
    out.push(domain[1]);
    return out;
  });
  const widest = $derived(
    Math.max(
      ...steps.map(
        (s) => sampleAt(road.left, road.step, road.length, s) + sampleAt(road.right, road.step, road.length, s),
      ),
    ),
  );
  const lateral = $derived(WIDEST / widest);
  const y = $derived.by(() => {
    const middle = roadMiddle;
    const by = lateral;
    return (offset: number) => middle - offset * by;
  });
  const leftEdge = $derived(
    steps.map((s): [number, number] => [x(s), y(sampleAt(road.left, road.step, road.length, s))]),
  );
  const rightEdge = $derived(
    steps.map((s): [number, number] => [x(s), y(-sampleAt(road.right, road.step, road.length, s))]),
  );

  const profile = $derived(answer?.answer.profile);
  const profileFrom = $derived.by(() => {
    if (!profile) return 0;
    // The stretch may begin before the line: unroll it so that it ends near the apex.
    let from = profile.from;
    while (from > apex) from -= road.length;
    while (from + road.length < apex && from + profile.step * profile.speed.length < apex) from += road.length;
    return from;
  });
  type Column = 'speed' | 'throttle' | 'brake' | 'offset';
  /** What is planned here; beyond the stretch of this corner, what the computed lap does. */
  const valueAt = $derived.by(() => {
    const planned = profile;
    const from = profileFrom;
    const beyond = lap;
    const length = road.length;
    return (column: Column, s: number): number | null => {
      if (!planned) return null;
      const values = planned[column];
      const k = (s - from) / planned.step;
      const i = Math.floor(k);
      if (i < 0 || i >= values.length - 1) return beyond ? sampleAt(beyond[column], beyond.step, length, s) : null;
      const a = values[i] ?? 0;
      return a + ((values[i + 1] ?? a) - a) * (k - i);
    };
  });
  const curve = $derived.by(() => {
    const value = valueAt;
    const toX = x;
    return (column: Column, toY: (v: number) => number): [number, number][] =>
      steps.flatMap((s): [number, number][] => {
        const v = value(column, s);
        return v === null ? [] : [[toX(s), toY(v)]];
      });
  });
  const path = $derived(profile ? curve('offset', y) : []);
  // Words beside a place stand in that half of the road in which the path is not, clear of "bends left".
  const beside = (at: number) => {
    const there = path.filter(([px]) => px > x(at) - 5 && px < x(at) + WORDS);
    const middle = there.reduce((sum, [, py]) => sum + py, 0) / Math.max(1, there.length);
    const below = there.length > 0 && middle < y(0);
    const apart = below === corner.left && Math.abs(x(at) - x(near(corner.entry))) < WORDS ? 14 : 0;
    return below ? y(-widest / 2) - 6 - apart : y(widest / 2) + 13 + apart;
  };
  const asked = $derived.by(() => {
    const planned = profile;
    if (!planned || !answer?.answer.pressing) return [];
    const first = profileFrom;
    const from = near(station(entry, 'BRAKE') ?? 0);
    const to = near(station(entry, 'RELEASE') ?? 0);
    return steps.flatMap((s) => {
      const v = planned.use[Math.round((s - first) / planned.step)];
      return v === undefined || s < from || s > to ? [] : [{ s, v }];
    });
  });
  /** Line and speed of the same corner otherwise. */
  const behind = $derived.by(() => {
    const p = under?.answer.profile;
    if (!p) return null;
    const line: [number, number][] = [];
    const speed: [number, number][] = [];
    const [from, to] = domain;
    const [toX, toY, toSpeed, unrolled] = [x, y, speedY, near];
    p.speed.forEach((v, k) => {
      const s = unrolled((p.from + k * p.step + road.length) % road.length);
      if (s < from || s > to) return;
      line.push([toX(s), toY(p.offset[k] ?? 0)]);
      speed.push([toX(s), toSpeed(v)]);
    });
    return { line, speed };
  });
  const anew = $derived.by(() => {
    if (!laid) return [];
    const [from, to] = domain;
    const [toX, toY, unrolled] = [x, y, near];
    return laid.after.flatMap((offset, k): [number, number][] => {
      const s = unrolled((laid.from + k * laid.step) % road.length);
      return s < from || s > to ? [] : [[toX(s), toY(offset)]];
    });
  });
  const offsetAt = $derived((s: number) => valueAt('offset', s) ?? 0);

  const labelTop = $derived(TOP + WIDEST + 38);
  const axisY = $derived(labelTop + ROWS * ROW + 6);
  const speedTop = $derived(axisY + AXIS);
  const pedalTop = $derived(speedTop + SPEED + 4);
  const gearTop = $derived(height - GEARS - 2);
  const pedalMid = $derived(pedalTop + (gearTop - 6 - pedalTop) * 0.45);

  const throttleY = $derived.by(() => {
    const [middle, reach] = [pedalMid, pedalMid - pedalTop - 4];
    return (v: number) => middle - v * reach;
  });
  const brakeY = $derived.by(() => {
    const [middle, reach] = [pedalMid, gearTop - 8 - pedalMid];
    return (v: number) => middle + Math.min(1.15, v) * reach;
  });

  const shown = $derived(steps.map((s) => valueAt('speed', s)).filter((v): v is number => v !== null));
  // In whole steps, so that the scale holds still under small changes.
  const slowest = $derived(Math.floor(Math.min(...shown, 200) * 0.92));
  const quickest = $derived(Math.ceil(Math.max(...shown, 1)));
  const speedY = $derived(scaleLinear([slowest, quickest], [speedTop + SPEED - 6, speedTop + 14]));
  const speedLine = $derived(curve('speed', speedY));

  const flags = $derived(
    entry.points.map((p) => {
      const s = near(p.station);
      const style = POINTS[p.kind];
      const tie = foundBy(p, metres);
      const extra =
        p.kind === 'BRAKE'
          ? ` · ${plain(entry.firstEffort * 100)} %`
          : p.kind === 'FIRST_THROTTLE'
            ? ` ${plain(entry.firstThrottle * 100)} %`
            : p.kind === 'APEX'
              ? `, ${few(entry.apexType)}`
              : '';
      const unsure = p.sure === 'UNSURE' || p.sure === 'CARRIED';
      const doubt = doubts.includes(p.kind) || unsure ? ' ?' : '';
      const grade = grades[p.kind];
      const title = style.word + (p.kind === 'BRAKE' ? '' : extra) + doubt;
      const detail =
        (tie ?? metres(p.station)) + (p.kind === 'BRAKE' ? extra : '') + (grade ? ` ${GRADES[grade]}` : '');
      return { kind: p.kind, s, station: p.station, title, detail, colour: style.colour, unsure };
    }),
  );
  const placed = $derived(
    placeLabels(
      flags.map((f) => ({ x: x(f.s), width: Math.max(textWidth(f.title, 13), textWidth(f.detail)) })),
      ROWS,
      width - 4,
    ),
  );
  const ghosts = $derived(
    (before?.points ?? []).filter((p) => {
      const now = station(entry, p.kind);
      return now === undefined || Math.abs(apart(p.station, now, road.length)) >= 0.25;
    }),
  );
  const seen = $derived(
    landmarks.map((l) => ({ ...l, at: near(l.station) })).filter((l) => l.at > domain[0] + 2 && l.at < domain[1] - 2),
  );
  const ticks = $derived(x.ticks(Math.max(4, Math.floor(width / 110))).filter((t) => x(t) < width - 24 && x(t) > 22));

  const gearRuns = $derived.by(() => {
    if (!profile) return [];
    const runs: { gear: number; from: number; to: number }[] = [];
    for (const s of steps) {
      const i = Math.round((s - profileFrom) / profile.step);
      const gear = profile.gear[i] ?? lap?.gear[Math.round(wrapped(s) / lap.step) % lap.gear.length];
      if (gear === undefined) continue;
      const last = runs[runs.length - 1];
      if (last && last.gear === gear) last.to = s;
      else runs.push({ gear, from: last ? last.to : s, to: s });
    }
    return runs;
  });
  const topGear = $derived(Math.max(6, ...gearRuns.map((r) => r.gear)));
  const limit = $derived(answer?.answer.braking ? near(answer.answer.braking.limitStation) : null);

  function drag(event: PointerEvent, from: number, move: (to: number) => void, done: (moved: boolean) => void) {
    if (readonly || event.button !== 0) return;
    event.preventDefault();
    (event.currentTarget as SVGGElement).focus();
    frozen = domain;
    const left = svg.getBoundingClientRect().left;
    const stationAt = (clientX: number) => x.invert(clientX - left);
    const grip = stationAt(event.clientX) - from;
    follow(event, {
      onmove: (e) => move(Math.round((stationAt(e.clientX) - grip) * 2) / 2),
      onend: (moved) => {
        frozen = null;
        done(moved);
      },
    });
  }

  /** The point that the keys have moved and that was not let go of yet. */
  let nudged: PointKind | null = null;
  function onkeydown(event: KeyboardEvent, kind: PointKind) {
    if (readonly) return;
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by) {
      event.preventDefault();
      onnudge?.(kind, by * (event.shiftKey ? 5 : 1));
      nudged = kind;
    } else if (event.key === 'Enter') {
      event.preventDefault();
      onsettle?.(kind, nudged === kind);
      nudged = null;
    } else if (event.key === 'Escape') {
      (event.currentTarget as SVGGElement).blur();
    }
  }

  const score = $derived(scoreOf(answer));
  let lane = $state<ReturnType<typeof ScoreLane>>();
  /** A press where there is nothing makes the likeliest action of that lane, and holds it. */
  function press(event: PointerEvent, where: Lane) {
    if (readonly || fixed || event.button !== 0 || !onmake) return;
    const box = svg.getBoundingClientRect();
    const at = Math.round(x.invert(event.clientX - box.left) * 2) / 2;
    const py = event.clientY - box.top;
    const share =
      where === 'throttle'
        ? (pedalMid - py) / (pedalMid - pedalTop - 4)
        : where === 'brake'
          ? (py - pedalMid) / (gearTop - 8 - pedalMid)
          : 0;
    const amount = Math.max(0.05, Math.min(1, Math.round(share * 20) / 20));
    if (event.pointerType === 'touch') {
      // A finger that goes on to scroll makes nothing.
      follow(event, {
        from: 8,
        onmove: () => {},
        onend: (moved, taken) => {
          if (!moved && !taken) onmake(where, wrapped(at), amount);
        },
      });
      return;
    }
    event.preventDefault();
    const made = onmake(where, wrapped(at), amount);
    if (made) lane?.carry(event, made, where, svg);
  }

  /** A press beside an edge makes a gate there, told from that edge. */
  function pressEdge(event: PointerEvent, left: boolean) {
    if (readonly || event.button !== 0 || !ongatemake) return;
    event.preventDefault();
    const box = svg.getBoundingClientRect();
    const at = Math.round(x.invert(event.clientX - box.left));
    const edge = left
      ? y(sampleAt(road.left, road.step, road.length, at))
      : y(-sampleAt(road.right, road.step, road.length, at));
    const off = Math.abs(event.clientY - box.top - edge) / Math.abs(y(1) - y(0));
    ongatemake(wrapped(at), left, Math.round(off * 10) / 10);
  }

  let dragged = $state<{ id: string; at: number } | null>(null);
  const landmarkAt = $derived((l: Landmark & { at: number }) => (dragged?.id === l.id ? dragged.at : l.at));

  function dragLandmark(event: PointerEvent, l: Landmark & { at: number }) {
    drag(
      event,
      l.at,
      (to) => (dragged = { id: l.id, at: to }),
      (moved) => {
        if (moved && dragged) onlandmark?.(l, dragged.at);
        dragged = null;
      },
    );
  }

  function landmarkKey(event: KeyboardEvent, l: Landmark & { at: number }) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by && !readonly) {
      event.preventDefault();
      onlandmark?.(l, l.at + by * (event.shiftKey ? 5 : 1));
    }
  }
</script>

<div bind:clientWidth={width} class="w-full">
  <svg
    bind:this={svg}
    {width}
    {height}
    class="block touch-none select-none"
    role="group"
    aria-label={tell('cornerStrip.corner_unrolled', { number: corner.number })}
  >
    <defs>
      <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V6" stroke="var(--brake)" stroke-width="1.6" />
      </pattern>
      <clipPath id="strip-window"><rect x="0" y="0" {width} {height} /></clipPath>
    </defs>
    <path d={pathOf([...leftEdge, ...rightEdge.toReversed()], true)} fill="var(--road)" />
    <rect
      x={x(near(corner.entry))}
      y={y(widest / 2)}
      width={Math.max(0, x(near(corner.exit)) - x(near(corner.entry)))}
      height={WIDEST}
      fill="var(--road-quiet)"
      opacity="0.55"
    />
    <text
      x={x(near(corner.entry)) + 4}
      y={corner.left ? y(-widest / 2) - 5 : y(widest / 2) + 13}
      style="fill:var(--ink-soft)"
    >
      {tell('cornerStrip.bends_left_bends_right', { hasLeft: !!corner.left })}
    </text>
    {#if written && ongatemake && !readonly}
      <path
        d={pathOf([...leftEdge, ...leftEdge.map(([px, py]): [number, number] => [px, py + 16]).toReversed()], true)}
        fill="transparent"
        class="cursor-crosshair"
        role="presentation"
        data-lane="left-edge"
        onpointerdown={(e) => pressEdge(e, true)}
      />
      <path
        d={pathOf([...rightEdge, ...rightEdge.map(([px, py]): [number, number] => [px, py - 16]).toReversed()], true)}
        fill="transparent"
        class="cursor-crosshair"
        role="presentation"
        data-lane="right-edge"
        onpointerdown={(e) => pressEdge(e, false)}
      />
    {/if}
    <path d={pathOf(leftEdge)} fill="none" stroke="var(--road-edge)" stroke-width="1.8" />
    <path d={pathOf(rightEdge)} fill="none" stroke="var(--road-edge)" stroke-width="1.8" />

    {#if written}
      <!-- Under what stands beside the road, so that boards stay to be taken. -->
      <rect
        x={PADS}
        y={TOP - 16}
        width={Math.max(0, width - 2 * PADS)}
        height="15"
        fill="transparent"
        role="presentation"
        class={readonly || fixed ? '' : 'cursor-crosshair'}
        data-lane="rim"
        onpointerdown={(e) => press(e, 'rim')}
      />
    {/if}
    <StripNotes {x} {near} {domain} {corner} {entry} {width} {onpick} />
    {#if things}
      <RoadThings {road} {things} {near} {domain} {x} {y} {reach} words={false} />
    {/if}
    {#each seen.filter((l) => l.length > 0) as l (l.id)}
      {@const end = Math.min(domain[1], l.at + l.length)}
      {@const edge = (s: number) =>
        l.left
          ? y(sampleAt(road.left, road.step, road.length, s)) - 4
          : y(-sampleAt(road.right, road.step, road.length, s)) + 4}
      <path
        d={pathOf([l.at, (l.at + end) / 2, end].map((s): [number, number] => [x(s), edge(s)]))}
        fill="none"
        stroke="var(--ink)"
        stroke-width="3"
        stroke-dasharray={l.kind === 'HEDGE' ? '5 2' : undefined}
        opacity="0.7"
        data-extent={l.id}
      />
    {/each}
    {#each seen as l (l.id)}
      {@const at = landmarkAt(l)}
      <g
        transform="translate({x(at)} {l.left
          ? y(sampleAt(road.left, road.step, road.length, at))
          : y(-sampleAt(road.right, road.step, road.length, at))})"
        role="slider"
        tabindex={readonly ? -1 : 0}
        aria-label="{l.label} {LANDMARKS[l.kind].word}"
        aria-valuenow={Math.round(l.station)}
        aria-valuetext={metres(l.station)}
        class={readonly ? '' : 'cursor-ew-resize'}
        data-landmark={l.label}
        onpointerdown={(e) => dragLandmark(e, l)}
        onkeydown={(e) => landmarkKey(e, l)}
      >
        <LandmarkShape landmark={l} />
      </g>
    {/each}

    {#if behind}
      <path
        d={pathOf(behind.line)}
        fill="none"
        stroke="var(--ink-soft)"
        stroke-width="1.6"
        stroke-dasharray="5 4"
        data-under
      />
      <path d={pathOf(behind.speed)} fill="none" stroke="var(--ink-soft)" stroke-width="1.4" stroke-dasharray="5 4" />
    {/if}
    {#if anew.length}
      <path
        d={pathOf(anew)}
        fill="none"
        stroke="var(--line)"
        stroke-width="2"
        stroke-dasharray="2 5"
        stroke-linecap="round"
        data-laid-anew
      />
    {/if}
    <path d={pathOf(path)} fill="none" stroke="var(--line)" stroke-width="2.5" clip-path="url(#strip-window)" />
    {#if things && onkerb}
      <KerbLane
        {road}
        {corner}
        {x}
        {y}
        {near}
        {domain}
        kerbs={things.kerbs}
        uses={entry.kerbs}
        held={kerbHeld}
        {readonly}
        onmake={(part) => onkerb?.({ part, how: 'TOUCH', why: '' })}
        onchange={(use, i) => onkerb?.(use, i)}
        onsettle={() => onkerbsettle?.()}
        onhold={(i) => onkerbhold?.(i)}
        ondrop={(i) => onkerbdrop?.(i)}
      />
    {/if}
    <GateLane
      {road}
      {x}
      {y}
      {near}
      {domain}
      {gates}
      {wide}
      readonly={readonly || !ongate}
      onmove={(g) => ongate?.(g)}
      onsettle={() => ongatesettle?.()}
      ondrop={(id) => ongatedrop?.(id)}
      onhold={(id) => ongatehold?.(id)}
      costs={gateCosts}
    />
    {#if limit !== null && limit > domain[0] && limit < domain[1] && !readonly}
      <path
        d="M{x(limit)} {y(widest / 2)}V{y(-widest / 2)}"
        stroke="var(--brake)"
        stroke-width="1.5"
        stroke-dasharray="3 3"
      />
      <text x={x(limit) + 4} y={beside(limit)} style="fill:var(--brake);font-size:11px"
        >{tell('cornerStrip.last_place_to_brake')}</text
      >
    {/if}

    <Axis scale={x} values={ticks} at={axisY} line={[PADS, width - PADS]} word={(t) => metres(wrapped(t))} />

    {#if profile}
      <path d={pathOf(speedLine)} fill="none" stroke="var(--ink)" stroke-width="1.8" />
      {@const arrives = valueAt('speed', flags.find((f) => f.kind === 'BRAKE')?.s ?? domain[0] + 5)}
      {#if arrives !== null}
        <text
          x={Math.max(PADS, x(flags.find((f) => f.kind === 'BRAKE')?.s ?? domain[0]) - 30)}
          y={speedY(arrives) - 5}
          font-weight="700">{plain(inSpeed(arrives))}</text
        >
      {/if}
      {@const low = answer ? near(answer.answer.minimumStation) : apex}
      <text
        x={x(low)}
        y={Math.min(speedTop + SPEED + 2, speedY(valueAt('speed', low) ?? 0) + 14)}
        text-anchor="middle"
        font-weight="700"
      >
        {plain(inSpeed(answer?.answer.minimumSpeed ?? 0))}
        {speedUnit()}
      </text>

      {#if written}
        {@const wide = Math.max(0, width - 2 * PADS)}
        <g data-lanes class={readonly || fixed ? '' : 'cursor-crosshair'}>
          <rect
            x={PADS}
            y={pedalTop}
            width={wide}
            height={pedalMid - pedalTop}
            fill="transparent"
            role="presentation"
            data-lane="throttle"
            onpointerdown={(e) => press(e, 'throttle')}
          />
          <rect
            x={PADS}
            y={pedalMid}
            width={wide}
            height={gearTop - 8 - pedalMid}
            fill="transparent"
            role="presentation"
            data-lane="brake"
            onpointerdown={(e) => press(e, 'brake')}
          />
        </g>
      {/if}
      <PedalLane
        {x}
        {near}
        {entry}
        {answer}
        throttle={curve('throttle', throttleY)}
        brake={curve('brake', brakeY)}
        use={asked}
        top={pedalTop + 4}
        middle={pedalMid}
        bottom={gearTop - 8}
        left={PADS + 4}
        {readonly}
        {onpedals}
      />

      {#if driven?.laps}
        <g pointer-events="none"
          ><DrivenBands
            {driven}
            {x}
            {near}
            {domain}
            speed={speedY}
            brake={brakeY}
            throttle={throttleY}
            axis={axisY}
            kinds={entry.points.map((p) => p.kind)}
          /></g
        >
      {/if}

      {#each gearRuns as run (run.from)}
        {@const h = 6 + ((GEARS - 8) * run.gear) / topGear}
        {@const w = Math.max(0, x(run.to) - x(run.from) - 1)}
        <rect x={x(run.from)} y={gearTop + GEARS - h} width={w} height={h} fill="var(--road-quiet)" />
        {#if w > 9}
          <text x={x(run.from) + w / 2} y={gearTop + GEARS - 3} text-anchor="middle" font-weight="700">{run.gear}</text>
        {/if}
      {/each}
      {#if written}
        <rect
          x={PADS}
          y={gearTop}
          width={Math.max(0, width - 2 * PADS)}
          height={GEARS}
          fill="transparent"
          role="presentation"
          class={readonly || fixed ? '' : 'cursor-crosshair'}
          data-lane="gears"
          onpointerdown={(e) => press(e, 'gears')}
        />
        {#if pencil !== null}
          <path
            d="M{x(near(pencil))} {speedTop}V{gearTop + GEARS}"
            stroke="var(--ink)"
            stroke-width="1"
            stroke-dasharray="2 3"
            pointer-events="none"
            data-pencil={pencil}
          />
        {/if}
        <ScoreLane
          bind:this={lane}
          {x}
          {near}
          {score}
          top={pedalTop + 4}
          middle={pedalMid}
          bottom={gearTop - 8}
          {gearTop}
          gearHeight={GEARS}
          {topGear}
          rim={TOP - 8}
          readonly={readonly || fixed}
          shaped={!!entry.pedals && !!answer?.answer.pressing}
          {inHand}
          {typed}
          {unwise}
          onhold={(id) => onactionhold?.(id)}
          onput={(a, moved) => onaction?.(a, moved)}
          onsettle={() => onactionsettle?.()}
          onkey={(e, s) => onactionkey?.(e, s)}
          ondrag={(is) => (frozen = is ? domain : null)}
        />
      {/if}
    {/if}

    {#each ghosts as p (p.kind)}
      {@const s = near(p.station)}
      <g transform="translate({x(s)} {y(offsetAt(s))})" aria-hidden="true">
        <FlagShape kind={p.kind} ghost left={corner.left} />
      </g>
      {@const now = station(entry, p.kind)}
      {#if now !== undefined}
        <path d="M{x(s)} {y(widest / 2) - 6}H{x(near(now))}" stroke={POINTS[p.kind].colour} stroke-width="2" />
        <circle cx={x(near(now))} cy={y(widest / 2) - 6} r="3" fill={POINTS[p.kind].colour} />
      {/if}
    {/each}

    {#each flags as f, i (f.kind)}
      {@const end = labelTop + (placed[i]?.row ?? 0) * ROW + 22}
      <path d="M{x(f.s)} {y(offsetAt(f.s))}V{end}" stroke={f.colour} stroke-width="1.4" />
    {/each}
    {#each flags as f, i (f.kind)}
      {@const at = placed[i] ?? { row: 0, x: 0 }}
      {@const top = labelTop + at.row * ROW}
      <g
        role="slider"
        tabindex={readonly ? -1 : 0}
        aria-label={POINTS[f.kind].word}
        aria-valuenow={Math.round(f.station)}
        aria-valuetext="{f.title}, {f.detail}"
        aria-disabled={readonly}
        data-flag={f.kind}
        data-station={f.station}
        class={readonly ? '' : 'cursor-ew-resize'}
        onpointerdown={(e) =>
          drag(
            e,
            f.s,
            (to) => onmove?.(f.kind, to),
            (moved) => onsettle?.(f.kind, moved),
          )}
        onkeydown={(e) => onkeydown(e, f.kind)}
        onfocus={() => onhold?.(f.kind)}
        onblur={() => {
          onhold?.(null);
          onsettle?.(f.kind, nudged === f.kind);
          nudged = null;
        }}
      >
        <rect
          class="focus-ring"
          x={at.x - 3}
          y={top - 2}
          width={Math.max(textWidth(f.title, 13), textWidth(f.detail)) + 4}
          height="29"
          rx="3"
          fill="var(--color-base-200)"
          fill-opacity="0.85"
          stroke={held === f.kind || f.unsure ? f.colour : 'none'}
          stroke-width="1.5"
          stroke-dasharray={f.unsure && held !== f.kind ? '3 3' : undefined}
          data-unsure={f.unsure ? '' : undefined}
        />
        <g transform="translate({x(f.s)} {y(offsetAt(f.s))})">
          <rect x="-14" y="-14" width="28" height="28" fill="transparent" data-grip />
          <FlagShape kind={f.kind} left={corner.left} />
        </g>
        <text x={at.x} y={top + 11} font-weight="700" style="fill:{f.colour};font-size:13px">{f.title}</text>
        <text x={at.x} y={top + 24}>{f.detail}</text>
      </g>
    {/each}
  </svg>
</div>
