<script lang="ts">
  import type {
    KerbUse,
    Action,
    AnswerView,
    Corner,
    CornerEntry,
    Cue,
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
  import Axis from '../kit/Axis.svelte';
  import { tell } from '../words/tell';
  import { metres } from '../words/units';
  import { CornerView, GEARS, PADS } from './cornerView.svelte';
  import CueLayer from './CueLayer.svelte';
  import { dragsAlong } from './drags';
  import DrivenBands from './DrivenBands.svelte';
  import FlagLayer from './FlagLayer.svelte';
  import GateLane from './GateLane.svelte';
  import GearLayer from './GearLayer.svelte';
  import KerbLane from './KerbLane.svelte';
  import LandmarkLayer from './LandmarkLayer.svelte';
  import LineLayer from './LineLayer.svelte';
  import PedalLane from './PedalLane.svelte';
  import PressLanes from './PressLanes.svelte';
  import RoadLayer from './RoadLayer.svelte';
  import RoadThings from './RoadThings.svelte';
  import { scoreOf, type Lane } from './score';
  import ScoreLane from './ScoreLane.svelte';
  import SpeedLayer from './SpeedLayer.svelte';
  import StripNotes from './StripNotes.svelte';

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
    /** Whether it is worked on with fingers: what is not in hand scrolls, and handles are wide. */
    fingers?: boolean;
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
    /** A cue that is pointed at, and all that it can hang on. */
    pointed?: { cue: Cue; station: number } | null;
    cueThings?: Landmark[];
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
    fingers = false,
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
    pointed = null,
    cueThings = [],
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

  // What this screen is drawn from, read where it is used: a part that does not change is not drawn anew.
  const view = new CornerView({
    get road() {
      return road;
    },
    get corner() {
      return corner;
    },
    get entry() {
      return entry;
    },
    get answer() {
      return answer;
    },
    get lap() {
      return lap;
    },
    get things() {
      return things;
    },
    get height() {
      return height;
    },
  });
  const drag = dragsAlong(view, () => readonly);
  const { x, y, near, domain } = $derived(view);
  const limit = $derived(answer?.answer.braking ? near(answer.answer.braking.limitStation) : null);
  const ticks = $derived(
    x.ticks(Math.max(4, Math.floor(view.width / 110))).filter((t) => x(t) < view.width - 24 && x(t) > 22),
  );
  const score = $derived(scoreOf(answer));
  let scored = $state<ReturnType<typeof ScoreLane>>();
  const lanes = $derived({
    view,
    fixed: readonly || fixed,
    onmake,
    oncarry: (event: PointerEvent, action: Action, lane: Lane, svg: SVGSVGElement) =>
      scored?.carry(event, action, lane, svg),
  });
</script>

<div bind:clientWidth={view.width} class="w-full">
  <svg
    width={view.width}
    {height}
    class={['block select-none', fingers ? 'touch-pan-x touch-pan-y' : 'touch-none']}
    role="group"
    aria-label={tell('cornerStrip.corner_unrolled', { number: corner.number })}
  >
    <defs>
      <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V6" stroke="var(--brake)" stroke-width="1.6" />
      </pattern>
      <clipPath id="strip-window"><rect x="0" y="0" width={view.width} {height} /></clipPath>
    </defs>
    <RoadLayer {view} {corner} onedge={written && !readonly ? ongatemake : undefined} />
    {#if written}
      <!-- Under what stands beside the road, so that boards stay to be taken. -->
      <PressLanes {...lanes} lanes={['rim']} />
    {/if}
    <StripNotes {x} {near} {domain} {corner} {entry} width={view.width} {onpick} />
    {#if things}
      <RoadThings {road} {things} {near} {domain} {x} {y} {reach} words={false} />
    {/if}
    <LandmarkLayer {view} {landmarks} {readonly} {drag} {onlandmark} />
    <LineLayer {view} {under} {laid} />
    {#if pointed}<CueLayer {view} cue={pointed.cue} station={pointed.station} things={cueThings} {score} />{/if}
    {#if things && onkerb}
      <KerbLane
        {fingers}
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
      {fingers}
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
    {#if limit !== null && view.inside(limit) && !readonly}
      <path
        d="M{x(limit)} {y(view.widest / 2)}V{y(-view.widest / 2)}"
        stroke="var(--brake)"
        stroke-width="1.5"
        stroke-dasharray="3 3"
      />
      <text x={x(limit) + 4} y={view.beside(limit)} style="fill:var(--brake);font-size:11px"
        >{tell('cornerStrip.last_place_to_brake')}</text
      >
    {/if}

    <Axis
      scale={x}
      values={ticks}
      at={view.axisY}
      line={[PADS, view.width - PADS]}
      word={(t) => metres(view.wrapped(t))}
    />

    {#if view.profile}
      <SpeedLayer {view} {entry} {answer} />
      {#if written}
        <PressLanes {...lanes} lanes={['throttle', 'brake']} />
      {/if}
      <PedalLane
        {x}
        {near}
        {entry}
        {answer}
        throttle={view.curve('throttle', view.throttleY)}
        brake={view.curve('brake', view.brakeY)}
        use={view.asked}
        top={view.pedalTop + 4}
        middle={view.pedalMid}
        bottom={view.gearTop - 8}
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
            speed={view.speedY}
            brake={view.brakeY}
            throttle={view.throttleY}
            axis={view.axisY}
            kinds={entry.points.map((p) => p.kind)}
          /></g
        >
      {/if}

      <GearLayer {view} />
      {#if written}
        <PressLanes {...lanes} lanes={['gears']} />
        {#if pencil !== null}
          <path
            d="M{x(near(pencil))} {view.speedTop}V{view.gearTop + GEARS}"
            stroke="var(--ink)"
            stroke-width="1"
            stroke-dasharray="2 3"
            pointer-events="none"
            data-pencil={pencil}
          />
        {/if}
        <ScoreLane
          bind:this={scored}
          {x}
          {near}
          {score}
          top={view.pedalTop + 4}
          middle={view.pedalMid}
          bottom={view.gearTop - 8}
          gearTop={view.gearTop}
          gearHeight={GEARS}
          topGear={view.topGear}
          rim={view.top - 8}
          readonly={readonly || fixed}
          shaped={!!entry.pedals && !!answer?.answer.pressing}
          {fingers}
          {inHand}
          {typed}
          {unwise}
          onhold={(id) => onactionhold?.(id)}
          onput={(a, moved) => onaction?.(a, moved)}
          onsettle={() => onactionsettle?.()}
          onkey={(e, s) => onactionkey?.(e, s)}
          ondrag={(is) => view.hold(is)}
        />
      {/if}
    {/if}

    <FlagLayer
      {view}
      {fingers}
      length={road.length}
      {corner}
      {entry}
      {before}
      {doubts}
      {grades}
      {readonly}
      {held}
      {drag}
      {onmove}
      {onnudge}
      {onsettle}
      {onhold}
    />
  </svg>
</div>
