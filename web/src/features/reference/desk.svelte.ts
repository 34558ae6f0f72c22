import {
  api,
  ask,
  asProblem,
  type Action,
  type ActionKind,
  type AnswerView,
  type CornerEntry,
  type Cue,
  type CueOffer,
  type Dear,
  type Gate,
  type OtherGates,
  type Judgement,
  type KerbUse,
  type Landmark,
  type LaidView,
  type LapView,
  type AmountCurve,
  type MistakeCurve,
  Problem,
  type PointKind,
  type OwnPace,
  type ReferenceContent,
  type ReferenceView,
  type RoadView,
  type School,
  type Variant,
  type Unwise,
  type VariantView,
  type WhatIf,
  type Wish,
} from '../../api/api';
import { clashes, mixedCorners, takenOver, together, type Conflict } from './clash';
import { catalogue } from '../../api/catalogue.svelte';
import { History } from '../../kit/history';
import { apart, moved, sameDecisions, station } from '../../road/points';
import { freeId, laneOf, made, mostOf, pointOf, scoreOf, withAction, withoutAction } from '../../road/score';
import { stepBetween } from '../../road/steps';
import { cornerWord } from '../../words/words';
import { newId } from '../../kit/id';
import { newLandmark, nothing } from '../../road/things';
import { few } from '../../words/few';
import { tell } from '../../words/tell';

interface Kept {
  version: number;
  content: ReferenceContent;
  /** What the last writing that was sent is called, whether or not its answer came. */
  sent?: string | undefined;
  basis?: ReferenceContent | null;
}

const SAVE_AFTER = 700;
// Milliseconds of rest before a gate is costed, and metres either way.
const GATE_REST = 500;
const HALF = 0.5;

/** Seconds a lap for half a metre nearer to the edge and farther from it. */
export interface GateCosts {
  id: string;
  nearer: number | null;
  farther: number | null;
}

const REMEMBER_AFTER = 150;
// Between two questions of one drag, so that the drawing keeps its frames.
const BREATH = 20;
// Milliseconds of rest after which the rest is asked for.
const AT_REST = 400;
// Seconds that a new lift lasts (common practice, no source).
const A_LIFT = 0.5;

/** A reference being worked on: its working copy, undo, answers, and keeping it safe. */
export class Desk {
  view = $state.raw<ReferenceView>() as ReferenceView;
  road = $state.raw<RoadView>() as RoadView;
  lap = $state.raw<LapView>() as LapView;
  content = $state.raw<ReferenceContent>() as ReferenceContent;
  // Replaced as wholes: drawings read thousands of values from them at every move.
  answers = $state.raw<Record<string, AnswerView>>({});
  landmarks = $state.raw<Landmark[]>([]);
  /** The version of each thing of the survey, as it was last seen. */
  private thingVersions: Record<string, number> = {};
  reach = $state.raw<Record<string, number | null>>({});
  grades = $state.raw<Record<string, Partial<Record<PointKind, Judgement['grade']>>>>({});
  selected = $state('');
  problem = $state.raw<Problem | null>(null);
  /** What two windows changed, each in its way; the driver chooses. */
  conflict = $state.raw<Conflict | null>(null);
  keeping = $state<'kept' | 'waiting' | 'offline'>('kept');
  restored = $state(false);
  /** How many changes of another window were put beside those of this one. */
  joined = $state(0);
  /** Ids of corners that are driven by something of each window, until they have been opened. */
  mixed = $state.raw<string[]>([]);
  steps = $state(0);
  /** Id of the variant that is worked on, or empty for the reference itself. */
  day = $state('');
  dayViews = $state.raw<Record<string, VariantView>>({});
  /** Whether the server was asked for something that takes a while. */
  busy = $state(false);
  /** Whether the corner drafted anew is drawn beside the driver's. */
  showDraft = $state(false);

  /** A line laid anew on a stretch, to be looked at, and what it was laid for. */
  laid = $state.raw<{ wish: Wish; view: LaidView } | null>(null);
  private laying = 0;
  /** The working copy as it was when a line laid anew was taken: undoing that brings both back. */
  private laidAt: ReferenceContent | null = null;

  /** Id of the action that is worked on, or empty. */
  inHand = $state('');
  /** What was typed on it and not taken yet. */
  typed = $state('');
  /** Cues in reach of the action in hand, the best first. */
  offers = $state.raw<CueOffer[]>([]);
  /** The cue that is pointed at, to be seen on the road. */
  pointed = $state.raw<{ cue: Cue; station: number } | null>(null);
  /** What each action of the corner would cost otherwise. */
  whatIfs = $state.raw<WhatIf[]>([]);
  /** Where some actions are better not done. */
  unwise = $state.raw<Unwise[]>([]);
  /** What missing the place of the action in hand costs. */
  curve = $state.raw<MistakeCurve | null>(null);
  amounts = $state.raw<AmountCurve | null>(null);
  /** The dearest mistakes of the corner. */
  dearest = $state.raw<Dear[]>([]);
  /** Where laps did each action of the corner, as far as any are laid behind it. */
  laps: Partial<Record<string, number[]>> = {};
  /** The station that the keys place actions at; null before they moved it. */
  pencil = $state<number | null>(null);
  private movedByHand: string | undefined;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private restAsked = 0;

  private history = new History<ReferenceContent>();
  private version = 0;
  /** What the last writing that was sent is called: its answer may be lost on the way. */
  private sent: string | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private remembering: ReturnType<typeof setTimeout> | undefined;
  private asking = false;
  private askAgain: string | null = null;
  private storing: Promise<void> | null = null;

  static async open(id: string): Promise<Desk> {
    const desk = new Desk();
    const path = { path: { id } };
    const [view, lap] = await Promise.all([
      ask(api.GET('/api/references/{id}', { params: path })),
      ask(api.GET('/api/references/{id}/lap', { params: path })),
    ]);
    desk.road = await ask(api.GET('/api/references/{id}/road', { params: path }));
    void catalogue.load().catch(() => undefined);
    desk.lap = lap;
    desk.take(view);
    desk.restore();
    void desk.judge();
    await desk.select(view.corners[0]?.id ?? '');
    return desk;
  }

  /** What kerbs let this vehicle do, and how good the markers in use are, light left out. */
  private async judge() {
    const path = { params: { path: { id: this.view.id } } };
    try {
      const [kerbs, review] = await Promise.all([
        ask(api.GET('/api/references/{id}/kerbs', path)),
        ask(api.GET('/api/references/{id}/markers', path)),
      ]);
      this.reach = Object.fromEntries(kerbs.map((k) => [k.kerb, k.clearance.reach ?? null]));
      const grades: Record<string, Partial<Record<PointKind, Judgement['grade']>>> = {};
      for (const p of review.points) {
        if (p.judgement) grades[p.corner] = { ...grades[p.corner], [p.kind]: p.judgement.grade };
      }
      this.grades = grades;
    } catch {
      // The reference can be worked on without them.
    }
  }

  /** Takes what the server holds after something around the reference changed. */
  async reload() {
    const path = { path: { id: this.view.id } };
    const [view, lap] = await Promise.all([
      ask(api.GET('/api/references/{id}', { params: path })),
      ask(api.GET('/api/references/{id}/lap', { params: path })),
    ]);
    this.lap = lap;
    this.take(view);
    this.answers = {};
    void this.judge();
    await this.askFor(this.selected);
  }

  /** The working copy as the server has it at this version: what two windows both start from. */
  private basis: ReferenceContent | null = null;

  private take(view: ReferenceView) {
    this.view = view;
    this.landmarks = view.things.landmarks;
    this.thingVersions = view.thingVersions;
    this.content = view.working.content;
    this.version = view.working.version;
    this.basis = this.content;
  }

  private get key() {
    return `marvek.reference.${this.view.id}`;
  }

  /** What was edited but never reached the server comes back after a reload. */
  private restore() {
    if (!this.mine) return;
    const text = localStorage.getItem(this.key);
    if (!text) return;
    const kept = JSON.parse(text) as Kept;
    this.sent = kept.sent;
    // Where the last writing arrived and only its answer was lost, nobody else was here.
    if (kept.version === this.version || this.wrote(this.view.working)) {
      this.history.remember(this.content);
      this.content = kept.content;
      this.restored = true;
      this.changed();
    } else if (JSON.stringify(kept.content) === JSON.stringify(this.content)) {
      localStorage.removeItem(this.key);
    } else {
      this.meet({ mine: kept.content, theirs: this.content, base: kept.basis ?? null, version: this.version });
    }
  }

  /** Whether what the server holds is what was sent from here last. */
  private wrote(working: { write?: string | null | undefined }) {
    return this.sent !== undefined && working.write === this.sent;
  }

  /** The selected corner as the reference itself has it. */
  get base(): CornerEntry | undefined {
    return this.content.corners.find((e) => e.corner === this.selected);
  }

  /** The selected corner on the day that is worked on. */
  get entry(): CornerEntry | undefined {
    return this.day ? (this.dayView?.adjusted.entry ?? this.base) : this.base;
  }

  get variant(): Variant | undefined {
    return this.content.variants.find((v) => v.id === this.day);
  }

  get dayView(): VariantView | undefined {
    return this.day ? this.dayViews[this.selected] : undefined;
  }

  /** Whether edits are kept: only the driver's own are. */
  get mine() {
    return this.view.role === 'OWNER';
  }

  /** Whether flags can be moved: the driver works, a coach tries a proposal. */
  get movable() {
    return this.view.role !== 'VIEWER';
  }

  /** Corners that a coach has tried otherwise than the driver has them. */
  get tried(): boolean {
    const stored = this.view.working.content.corners.find((e) => e.corner === this.selected);
    return !this.mine && !sameDecisions(stored, this.base);
  }

  get corner() {
    return this.view.corners.find((c) => c.id === this.selected);
  }

  get answer(): AnswerView | undefined {
    return this.day ? this.dayView?.answer : this.answers[this.selected];
  }

  get canUndo() {
    return this.steps >= 0 && (this.history.canUndo || this.content === this.laidAt);
  }

  get canRedo() {
    return this.steps >= 0 && this.history.canRedo;
  }

  /** What the last step did, in a few words; empty without one. */
  get undoes(): string {
    const before = this.steps >= 0 ? this.history.before : undefined;
    return before ? this.between(before, this.content) : '';
  }

  /** What the step that was undone last did. */
  get redoes(): string {
    const after = this.steps >= 0 ? this.history.after : undefined;
    return after ? this.between(this.content, after) : '';
  }

  private between(was: ReferenceContent, is: ReferenceContent): string {
    return stepBetween(was, is, this.view.length, (id) => {
      const corner = this.view.corners.find((c) => c.id === id);
      return corner ? cornerWord(corner) : id;
    });
  }

  /** Corners whose entry differs from the revision that the work started from, or else the draft. */
  readonly changes: string[] = $derived.by(() => {
    const saved = this.view.saved ?? this.view.draft;
    return this.content.corners
      .filter((e) => {
        const before = saved.corners.find((b) => b.corner === e.corner);
        return !sameDecisions(before, e);
      })
      .map((e) => e.corner);
  });

  async select(corner: string) {
    if (corner !== this.selected) {
      this.leaveLaid();
      this.letGo();
      this.pencil = null;
    }
    this.selected = corner;
    if (!this.answers[corner]) await this.askFor(corner);
    if (this.day && !this.dayViews[corner]) await this.askDay();
  }

  /** Goes to a corner that is driven by something of each window. */
  async lookAt(corner: string) {
    this.mixed = this.mixed.filter((id) => id !== corner);
    await this.select(corner);
  }

  /** Goes to a variant, or back to the reference itself. */
  async go(day: string) {
    this.day = day;
    this.dayViews = {};
    if (day) await this.askDay();
  }

  /** Puts a variant in, in place of the one with its id. */
  putVariant(variant: Variant, key: string | null = null) {
    this.history.remember(this.content, key);
    const others = this.content.variants.filter((v) => v.id !== variant.id);
    const at = this.content.variants.findIndex((v) => v.id === variant.id);
    const variants =
      at < 0 ? [...others, variant] : this.content.variants.map((v) => (v.id === variant.id ? variant : v));
    this.content = { ...this.content, variants };
    this.changed();
    if (this.day === variant.id) {
      this.dayViews = {};
      void this.askDay();
    }
  }

  /** Takes a pace of the driver's own; null for all of the grip. */
  putPace(pace: OwnPace | null, key: string | null = null) {
    this.history.remember(this.content, key);
    this.content = { ...this.content, pace: pace ?? undefined };
    this.changed();
  }

  dropVariant(id: string) {
    this.history.remember(this.content);
    if (this.day === id) this.day = '';
    this.content = { ...this.content, variants: this.content.variants.filter((v) => v.id !== id) };
    this.changed();
  }

  private dayAsking = false;
  private dayNext: CornerEntry | null | undefined;

  /** Asks for the corner on its day, with an edit or without; only the latest edit waits. */
  private async askDay(edited: CornerEntry | null = null) {
    const variant = this.variant;
    const base = this.base;
    if (!variant || !base) return;
    if (this.dayAsking) {
      this.dayNext = edited;
      return;
    }
    this.dayAsking = true;
    const day = this.day;
    try {
      const view = await ask(
        api.POST('/api/references/{id}/variants/answer', {
          params: { path: { id: this.view.id } },
          body: edited ? { variant, entry: base, edited } : { variant, entry: base },
        }),
      );
      this.problem = null;
      if (this.day === day) {
        this.dayViews = { ...this.dayViews, [base.corner]: view };
        if (edited && JSON.stringify(view.variant) !== JSON.stringify(variant)) {
          this.content = {
            ...this.content,
            variants: this.content.variants.map((v) => (v.id === day ? view.variant : v)),
          };
          this.changed();
        }
      }
    } catch (e) {
      this.problem = asProblem(e);
    } finally {
      this.dayAsking = false;
      const next = this.dayNext;
      this.dayNext = undefined;
      if (next !== undefined) setTimeout(() => void this.askDay(next), BREATH);
    }
  }

  /** Takes a school's answer, here or on as far as a corner: the entries that it changes, one step of undo, are counted. */
  async takeSchool(school: School, through?: string): Promise<number> {
    this.busy = true;
    try {
      const [entry, day] = [this.entry, this.variant?.day];
      const entries = this.content.corners.map((e) => (day && entry && e.corner === this.selected ? entry : e));
      const changed = await ask(
        api.POST('/api/references/{id}/choices/taken', {
          params: { path: { id: this.view.id } },
          body: { entries, corner: this.selected, school, day, through },
        }),
      );
      if (day) {
        const own = changed.find((e) => e.corner === this.selected);
        if (own && this.entry === entry) this.edit(() => own);
        this.settle();
        return changed.length;
      }
      this.history.remember(this.content);
      this.content = {
        ...this.content,
        corners: this.content.corners.map((e) => changed.find((c) => c.corner === e.corner) ?? e),
      };
      const gone = changed.map((e) => e.corner);
      this.answers = Object.fromEntries(Object.entries(this.answers).filter(([corner]) => !gone.includes(corner)));
      this.problem = null;
      this.changed();
      await this.askFor(this.selected);
      return changed.length;
    } catch (e) {
      this.problem = asProblem(e);
      return 0;
    } finally {
      this.busy = false;
    }
  }

  /** Takes content that the server stored for us, as a step that can be undone. */
  stored(working: { version: number; content: ReferenceContent }) {
    this.history.remember(this.content);
    this.version = working.version;
    this.content = working.content;
    this.answers = {};
    this.dayViews = {};
    this.steps++;
    void this.askFor(this.selected);
  }

  get workingVersion() {
    return this.version;
  }

  /** Gives up what a coach has tried. */
  giveUp() {
    this.content = this.view.working.content;
    this.answers = {};
    void this.askFor(this.selected);
  }

  async step(by: number) {
    const corners = this.view.corners;
    const at = corners.findIndex((c) => c.id === this.selected);
    const next = corners[(at + by + corners.length) % corners.length];
    if (next) await this.select(next.id);
  }

  /** Changes the selected corner; changes with the same key in a row are one step of undo. */
  edit(change: (entry: CornerEntry) => CornerEntry, key: string | null = null) {
    const entry = this.entry;
    if (!entry || !this.movable) return;
    if (this.laid) this.leaveLaid();
    this.history.remember(this.content, key);
    if (this.day) {
      const view = this.dayView;
      const edited = change(entry);
      if (view)
        this.dayViews = {
          ...this.dayViews,
          [entry.corner]: { ...view, adjusted: { ...view.adjusted, entry: edited } },
        };
      void this.askDay(edited);
      return;
    }
    this.put(change(entry));
    this.changed();
    void this.askFor(entry.corner);
  }

  settle() {
    this.history.settle();
  }

  /** Everything done in the selected corner, in driving order. */
  get score() {
    return scoreOf(this.answer);
  }

  /** The action in hand as it was driven. */
  get held() {
    return this.score.find((s) => s.action.id === this.inHand);
  }

  /** Whether actions can be written, on the reference itself or for the day that is worked on. */
  get writes() {
    return this.movable;
  }

  /** Whether a cue can be chosen: what a day proposes is found as in the reference, by another number. */
  findable(id: string): boolean {
    if (!this.day) return true;
    const proposed = this.dayView?.adjusted.proposed;
    return !pointOf(id) && !proposed?.actions.some((a) => a.id === id);
  }

  /** All that a cue can hang on: landmarks, and kerbs from their beginning to their end. */
  get cueThings(): Landmark[] {
    const kerbs = this.view.things.kerbs.map((k) => ({
      ...newLandmark('KERB', k.from, k.left, k.corner, tell('desk.kerb', { part: few(k.part) })),
      id: k.id,
      length: Math.max(0, k.to - k.from),
    }));
    return [...this.landmarks, ...kerbs];
  }

  /** What the eyes in hand are on, drawn as something that is in view. */
  get sight(): { cue: Cue; station: number } | null {
    const held = this.held?.action;
    return held?.target ? { cue: { ...held.target, kind: 'INTO_VIEW' }, station: held.station } : null;
  }

  takeInHand(id: string) {
    if (id === this.inHand) return;
    this.inHand = id;
    this.typed = '';
    this.offers = [];
    this.curve = null;
    this.amounts = null;
    if (id) this.rest();
  }

  letGo() {
    this.inHand = '';
    this.typed = '';
    this.offers = [];
    this.unwise = [];
    this.curve = null;
    this.amounts = null;
    this.dearest = [];
  }

  /** Writes an action; one that was moved by hand takes its cue along. */
  putAction(action: Action, moved: boolean, key: string | null = null) {
    if (!this.writes) return;
    if (moved && !this.day) this.movedByHand = action.id;
    this.edit((e) => withAction(e, action, this.view.length), key);
  }

  /** Adds an action and takes it in hand. */
  makeAction(kind: ActionKind, at: number, amount?: number): Action | null {
    const entry = this.entry;
    if (!entry || !this.writes) return null;
    if (kind === 'BRAKE' && !entry.points.some((p) => p.kind === 'BRAKE')) return this.brakeHere(at, amount);
    const action = made(kind, at, freeId(entry, kind), entry.gear);
    if (amount !== undefined && action.amount != null) action.amount = Math.min(mostOf(kind), amount);
    if (kind === 'LIFT') {
      // Half a second long, where nothing else comes before.
      const lasts = A_LIFT * (this.speedAt(at) ?? 40);
      const next = this.score.some((s) => {
        const ahead = apart(at, s.action.station, this.view.length);
        return laneOf(s.action.kind) && ahead > 0 && ahead <= lasts;
      });
      if (!next) action.until = (at + lasts) % this.view.length;
    }
    // A corner driven flat that is lifted for is one that is lifted for.
    const slowing = kind === 'LIFT' && entry.slowing === 'FLAT' ? 'LIFT' : entry.slowing;
    this.edit((e) => withAction({ ...e, slowing }, action, this.view.length));
    this.settle();
    this.takeInHand(action.id);
    return action;
  }

  /** The first braking of a corner that had none is its marker, with all that a braked corner needs. */
  private brakeHere(at: number, amount: number | undefined): Action {
    const action: Action = { ...made('BRAKE', at, 'brake', 1), amount: amount ?? 0.3 };
    this.edit((e) => withAction(this.slowed(e, 'BRAKE'), action, this.view.length));
    this.settle();
    this.takeInHand(action.id);
    return action;
  }

  /** m/s planned at a station of the selected corner. */
  speedAt(at: number): number | undefined {
    const p = this.answer?.answer.profile;
    if (!p) return undefined;
    const k =
      Math.round((((at - p.from) % this.view.length) + this.view.length) / p.step) %
      Math.round(this.view.length / p.step);
    return p.speed[k] ?? this.lap.speed[Math.round(at / this.lap.step) % this.lap.speed.length];
  }

  /** Says what is done with a kerb: another, or one that there is; returns which it is. */
  useKerb(use: KerbUse, index = this.entry?.kerbs.length ?? 0): number {
    this.edit(
      (e) => ({ ...e, kerbs: [...e.kerbs.slice(0, index), use, ...e.kerbs.slice(index + 1)] }),
      `kerb ${this.selected} ${index}`,
    );
    return index;
  }

  dropKerb(index: number) {
    this.edit((e) => ({ ...e, kerbs: e.kerbs.filter((_, i) => i !== index) }));
  }

  /** Takes an action out; what every corner needs stays. */
  dropAction(id: string) {
    if (!this.writes || ['turn-in', 'apex', 'brake', 'release', 'first-throttle', 'full-throttle'].includes(id)) return;
    this.edit((e) => withoutAction(e, id));
    this.settle();
    if (this.inHand === id) this.letGo();
  }

  /** Asks for cues and costs once the hand has been still for a while. */
  private rest() {
    clearTimeout(this.resting);
    this.resting = setTimeout(() => void this.askRest(), AT_REST);
  }

  private async askRest() {
    const entry = this.entry;
    const id = this.inHand;
    if (!entry || !id) return;
    const asked = ++this.restAsked;
    const path = { path: { id: this.view.id } };
    const day = this.variant?.day;
    try {
      const [offers, costs] = await Promise.all([
        ask(api.POST('/api/references/{id}/score/cues', { params: path, body: { entry, action: id, day } })),
        ask(
          api.POST('/api/references/{id}/score/costs', {
            params: path,
            body: { entry, action: id, driven: this.day ? [] : (this.laps[id] ?? []), day },
          }),
        ),
      ]);
      if (asked !== this.restAsked || id !== this.inHand) return;
      this.offers = offers;
      this.whatIfs = costs.costs;
      this.unwise = costs.unwise;
      this.curve = costs.curve ?? null;
      this.amounts = costs.amounts ?? null;
      this.dearest = costs.dearest;
    } catch {
      // The action can be worked on without them.
    }
  }

  move(kind: PointKind, to: number, key: string | null = null) {
    const play = this.entry?.points.find((p) => p.kind === kind)?.play;
    if (play && !this.day) this.movedByHand = play.id;
    this.edit((e) => moved(e, kind, to, this.view.length), key);
  }

  nudge(kind: PointKind, by: number) {
    const at = this.entry && station(this.entry, kind);
    if (at !== undefined) this.move(kind, at + by, `nudge ${this.selected} ${kind}`);
  }

  /** Changes how the corner is slowed for; points that the new way needs come from the draft. */
  slowBy(way: CornerEntry['slowing']) {
    this.edit((e) => this.slowed(e, way));
  }

  private slowed(e: CornerEntry, way: CornerEntry['slowing']): CornerEntry {
    const draft = this.view.draft.corners.find((e) => e.corner === this.selected);
    const length = this.view.length;
    const needs: PointKind[] =
      way === 'BRAKE'
        ? ['BRAKE', 'RELEASE', 'FIRST_THROTTLE', 'FULL_THROTTLE']
        : way === 'LIFT'
          ? ['FIRST_THROTTLE', 'FULL_THROTTLE']
          : [];
    const drops: PointKind[] =
      way === 'FLAT'
        ? ['BRAKE', 'RELEASE', 'FIRST_THROTTLE', 'FULL_THROTTLE']
        : way === 'LIFT'
          ? ['BRAKE', 'RELEASE']
          : [];
    const turnIn = station(e, 'TURN_IN') ?? 0;
    const apex = station(e, 'APEX') ?? turnIn;
    const usual: Partial<Record<PointKind, number>> = {
      BRAKE: turnIn - 20,
      RELEASE: apex,
      FIRST_THROTTLE: apex + 2,
      FULL_THROTTLE: apex + 20,
    };
    const kept = e.points.filter((p) => !drops.includes(p.kind));
    const added = needs
      .filter((kind) => !kept.some((p) => p.kind === kind))
      .map((kind) => ({
        kind,
        station: (((draft && station(draft, kind)) ?? usual[kind] ?? apex) + length) % length,
      }));
    const effort = way === 'BRAKE' ? e.firstEffort || draft?.firstEffort || 0.3 : 0;
    return { ...e, slowing: way, firstEffort: effort, points: [...kept, ...added] };
  }

  /** Has the line laid anew for a wish, to look at; where it is laid for that already there is nothing to see. */
  async layAnew(wish: Wish, quiet = false) {
    const asked = ++this.laying;
    this.laid = null;
    try {
      await this.ensureKept();
      const view = await ask(
        api.POST('/api/references/{id}/laid-anew', { params: { path: { id: this.view.id } }, body: wish }),
      );
      if (asked === this.laying) this.laid = { wish, view };
    } catch (e) {
      if (!quiet) this.problem = asProblem(e);
    }
  }

  /** A gate being moved, before the line is laid anew for it. */
  moving = $state.raw<Gate | null>(null);

  /** Places that the line is to pass: those of a line being looked at, or else those in use on the day. */
  get gates(): Gate[] {
    const use = this.laid?.wish.use ?? this.content.use;
    const other = this.variant?.day.gates;
    const there = (use?.gates ?? [])
      .filter((g) => !other?.without.includes(g.id) && !other?.gates.some((o) => o.id === g.id))
      .concat(other?.gates ?? []);
    const one = this.moving;
    if (!one) return there;
    return there.some((g) => g.id === one.id) ? there.map((g) => (g.id === one.id ? one : g)) : [...there, one];
  }

  /** Has the line laid anew through a gate that was moved or made. */
  async settleGate() {
    if (!this.moving) return;
    if (this.variant) {
      const { gates = [], without = [] } = this.variant.day.gates ?? {};
      const one = this.moving;
      this.moving = null;
      this.passOnDay({ gates: [...gates.filter((g) => g.id !== one.id), one], without });
      return;
    }
    const use = this.laid?.wish.use ?? this.content.use;
    const gates = this.gates;
    const id = this.moving.id;
    await this.layAnew({ use: { opened: use?.opened ?? [], gates } });
    this.moving = null;
    this.costGate(id);
  }

  /** What half a metre more on either side of the gate in hand costs a lap; null where it cannot be met. */
  gateCosts = $state.raw<GateCosts | null>(null);
  private costing = 0;
  private costTimer: ReturnType<typeof setTimeout> | undefined;

  /** Asks after a rest what half a metre either way costs at a gate. */
  costGate(id: string) {
    if (this.day) return;
    clearTimeout(this.costTimer);
    const asked = ++this.costing;
    if (this.gateCosts?.id !== id) this.gateCosts = null;
    this.costTimer = setTimeout(() => void this.askGateCosts(id, asked), GATE_REST);
  }

  private async askGateCosts(id: string, asked: number) {
    if (this.moving) return;
    const use = this.laid?.wish.use ?? this.content.use;
    const base = this.laid?.view.lapAfter;
    const gate = use?.gates.find((g) => g.id === id);
    if (!gate) return;
    const at = async (by: number) => {
      const gates = (use?.gates ?? []).map((g) => (g.id === id ? { ...g, metres: g.metres + by } : g));
      try {
        const view = await ask(
          api.POST('/api/references/{id}/laid-anew', {
            params: { path: { id: this.view.id } },
            body: { use: { opened: use?.opened ?? [], gates } },
          }),
        );
        return view.lapAfter - (base ?? view.lapBefore);
      } catch (e) {
        // What is refused cannot be met; without an answer nothing is known.
        const status = asProblem(e).status;
        return status >= 400 && status < 500 ? null : undefined;
      }
    };
    const nearer = gate.metres >= HALF ? await at(-HALF) : null;
    if (asked !== this.costing || nearer === undefined) return;
    const farther = await at(HALF);
    if (asked === this.costing && farther !== undefined) this.gateCosts = { id, nearer, farther };
  }

  makeGate(at: number, left: boolean, off: number) {
    this.moving = { id: newId(), station: at, left, metres: off, tolerance: 0.3, over: 0 };
    void this.settleGate();
  }

  /** Has the day that is worked on pass other places than the reference. */
  private passOnDay(other: OtherGates) {
    const now = this.variant;
    if (!now) return;
    const says = other.gates.length > 0 || other.without.length > 0;
    this.putVariant({ ...now, day: { ...now.day, gates: says ? other : undefined } });
  }

  async dropGate(id: string) {
    if (this.variant) {
      const { gates = [], without = [] } = this.variant.day.gates ?? {};
      const own = gates.filter((g) => g.id !== id);
      // What the day has by itself goes first; the reference's own is then left out of it.
      const reference = own.length === gates.length && (this.content.use?.gates ?? []).some((g) => g.id === id);
      this.passOnDay({ gates: own, without: reference ? [...without, id] : without });
      return;
    }
    const use = this.laid?.wish.use ?? this.content.use;
    const gates = (use?.gates ?? []).filter((g) => g.id !== id);
    const had = (this.content.use?.gates ?? []).some((g) => g.id === id);
    // One that was only tried is left with its line.
    if (had) await this.layAnew({ use: { opened: use?.opened ?? [], gates } });
    else this.leaveLaid();
  }

  /** Leaves the line as it is. */
  leaveLaid() {
    this.gateCosts = null;
    this.costing++;
    this.laying++;
    this.laid = null;
  }

  /** Takes the line laid anew; undo brings line and points back. */
  async takeLaid() {
    const laid = this.laid;
    if (!laid) return;
    this.busy = true;
    try {
      await this.ensureKept();
      await ask(
        api.POST('/api/references/{id}/laid-anew/taken', {
          params: { path: { id: this.view.id } },
          body: { version: this.version, wish: laid.wish },
        }),
      );
      this.laid = null;
      await this.reload();
      this.laidAt = this.content;
      this.steps++;
    } catch (e) {
      this.problem = asProblem(e);
    } finally {
      this.busy = false;
    }
  }

  private async undoLaid() {
    this.busy = true;
    try {
      await ask(
        api.POST('/api/references/{id}/recomputation/undone', {
          params: { path: { id: this.view.id } },
          body: { version: this.version },
        }),
      );
      this.laidAt = null;
      await this.reload();
      this.steps++;
    } catch (e) {
      this.problem = asProblem(e);
    } finally {
      this.busy = false;
    }
  }

  undo() {
    if (this.content === this.laidAt) {
      void this.undoLaid();
      return;
    }
    this.travel(this.history.undo(this.content));
  }

  redo() {
    this.travel(this.history.redo(this.content));
  }

  /** Takes other content as one step that can be undone. */
  replace(content: ReferenceContent) {
    this.history.remember(this.content);
    this.travel(content);
  }

  private travel(content: ReferenceContent | null) {
    if (!content) return;
    const before = this.content;
    this.content = content;
    this.answers = {};
    this.dayViews = {};
    if (this.day && !this.variant) this.day = '';
    const other = content.corners.find((e, i) => e !== before.corners[i]);
    if (other) this.selected = other.corner;
    this.changed();
    void this.askFor(this.selected);
    if (this.day) void this.askDay();
  }

  private put(entry: CornerEntry) {
    this.content = {
      ...this.content,
      corners: this.content.corners.map((e) => (e.corner === entry.corner ? entry : e)),
    };
  }

  /** Asks what the points lead to; while one question is out, only the latest waits. */
  private async askFor(corner: string) {
    if (this.asking) {
      this.askAgain = corner;
      return;
    }
    const entry = this.content.corners.find((e) => e.corner === corner);
    if (!entry) return;
    this.asking = true;
    const moved = this.movedByHand;
    try {
      const answer = await ask(
        api.POST('/api/references/{id}/answer', {
          params: { path: { id: this.view.id }, query: moved ? { moved } : {} },
          body: entry,
        }),
      );
      this.answers = { ...this.answers, [corner]: answer };
      this.problem = null;
      const now = this.content.corners.find((e) => e.corner === corner);
      if (now === entry) {
        this.movedByHand = undefined;
        if (JSON.stringify(answer.entry) !== JSON.stringify(entry)) {
          this.put(answer.entry);
          this.changed();
        }
      }
      if (this.inHand) this.rest();
    } catch (e) {
      this.problem = asProblem(e);
    } finally {
      this.asking = false;
      const again = this.askAgain;
      this.askAgain = null;
      if (again) setTimeout(() => void this.askFor(again), BREATH);
    }
  }

  /** Writes what is not stored yet into the browser, so that a reload finds it. */
  private remember() {
    clearTimeout(this.remembering);
    this.remembering = undefined;
    const kept: Kept = { version: this.version, content: this.content, sent: this.sent, basis: this.basis };
    localStorage.setItem(this.key, JSON.stringify(kept));
  }

  private changed() {
    this.steps++;
    // What a coach tries is not kept: it is proposed, or given up.
    if (!this.mine) return;
    // Writing a whole reference at every move of the hand would cost frames.
    this.remembering ??= setTimeout(() => this.remember(), REMEMBER_AFTER);
    this.keeping = 'waiting';
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.store(), SAVE_AFTER);
  }

  /** Stores the working copy now. */
  async store(): Promise<void> {
    clearTimeout(this.timer);
    if (this.remembering) this.remember();
    if (this.storing) await this.storing;
    if (this.keeping === 'kept' || this.conflict || !this.mine) return;
    this.storing = this.storeOnce();
    await this.storing;
    this.storing = null;
  }

  private async storeOnce(): Promise<void> {
    const sent = this.content;
    // One name until an answer came: whichever of the writings arrived, it is known again.
    this.sent ??= newId();
    this.remember();
    try {
      const stored = await ask(
        api.PUT('/api/references/{id}/working', {
          params: { path: { id: this.view.id } },
          body: { version: this.version, content: sent, write: this.sent },
        }),
      );
      this.version = stored.version;
      this.basis = sent;
      this.sent = undefined;
      if (this.content === sent) {
        this.keeping = 'kept';
        localStorage.removeItem(this.key);
      } else {
        this.changed();
      }
    } catch (e) {
      const problem = asProblem(e);
      if (problem.status === 409 && problem.current) {
        const current = problem.current as ReferenceView['working'];
        if (this.wrote(current)) {
          this.version = current.version;
          this.basis = current.content;
          this.sent = undefined;
          return this.storeOnce();
        }
        this.meet({
          mine: this.content,
          theirs: current.content,
          base: this.basis,
          version: current.version,
        });
      } else if (problem.status === 0) {
        this.keeping = 'offline';
        this.timer = setTimeout(() => void this.store(), 4000);
      } else {
        this.problem = problem;
      }
    }
  }

  /** Stores the working copy before something that builds on it; fails where it cannot be stored. */
  async ensureKept(): Promise<void> {
    for (let tries = 0; tries < 3; tries++) {
      this.problem = null;
      await this.store();
      // What was changed while it was stored is stored with the next.
      if (this.problem || this.keeping !== 'waiting' || !this.mine) break;
    }
    if (!this.mine || this.keeping === 'kept') return;
    throw (
      this.problem ??
      new Problem(
        0,
        tell('desk.your_last_changes_are_not'),
        null,
        this.conflict ? tell('desk.choose_first_which_of_the') : tell('desk.they_are_kept_here_try'),
      )
    );
  }

  /** Puts together what two windows wrote; asks where both changed the same. */
  private meet(conflict: Conflict) {
    if (clashes(conflict).length > 0) this.conflict = conflict;
    else this.join(conflict, together(conflict, {}));
  }

  /** Ends a conflict with the content chosen, which becomes a step that can be undone. */
  resolve(chosen: ReferenceContent) {
    if (this.conflict) this.join(this.conflict, chosen);
  }

  private join(conflict: Conflict, chosen: ReferenceContent) {
    this.version = conflict.version;
    this.basis = conflict.theirs;
    this.joined = takenOver(conflict);
    this.mixed = mixedCorners(conflict, chosen);
    this.conflict = null;
    if (this.content !== conflict.mine) this.history.remember(conflict.theirs);
    this.history.remember(conflict.mine);
    this.content = chosen;
    this.answers = {};
    this.changed();
    void this.answerMixed(conflict, chosen).then(() => this.askFor(this.selected));
  }

  /** Corners of which something came from each window follow from both: their speeds are asked for. */
  private async answerMixed({ mine, theirs }: Conflict, chosen: ReferenceContent) {
    for (const e of chosen.corners) {
      const whole = [mine, theirs].some((c) =>
        sameDecisions(
          c.corners.find((o) => o.corner === e.corner),
          e,
        ),
      );
      if (whole) continue;
      try {
        const answer = await ask(
          api.POST('/api/references/{id}/answer', { params: { path: { id: this.view.id } }, body: e }),
        );
        if (this.content.corners.find((o) => o.corner === e.corner) === e) this.put(answer.entry);
      } catch {
        // It is answered when it is opened.
      }
    }
  }

  async save(reason: string) {
    await this.ensureKept();
    const view = await ask(
      api.POST('/api/references/{id}/revisions', {
        params: { path: { id: this.view.id } },
        body: { version: this.version, reason },
      }),
    );
    this.take(view);
  }

  /** The chosen corner as the computation would draft it. */
  get drafted(): CornerEntry | undefined {
    return this.view.draft.corners.find((e) => e.corner === this.selected);
  }

  /** Takes the chosen corner as drafted; what the driver wrote stays. */
  takeDrafted() {
    const drafted = this.drafted;
    if (!drafted) return;
    this.edit((old) => ({ ...drafted, note: old.note, wording: old.wording }));
    this.settle();
    this.showDraft = false;
  }

  async moveLandmark(landmark: Landmark, to: number) {
    const wrapped = ((to % this.view.length) + this.view.length) % this.view.length;
    const body = { ...landmark, station: wrapped };
    this.landmarks = this.landmarks.map((l) => (l.id === landmark.id ? body : l));
    const seen = this.thingVersions[landmark.id];
    try {
      const now = await ask(
        api.POST('/api/layouts/{id}/survey', {
          params: { path: { id: this.view.layoutId } },
          body: {
            id: newId(),
            put: { ...nothing(), landmarks: [body] },
            remove: [],
            expected: seen === undefined ? {} : { [landmark.id]: seen },
          },
        }),
      );
      this.thingVersions = now.versions;
      this.landmarks = now.things.landmarks;
      await this.askFor(this.selected);
    } catch (e) {
      this.problem = asProblem(e);
      // What stands there now is shown, not what was wanted.
      try {
        const now = await ask(api.GET('/api/layouts/{id}', { params: { path: { id: this.view.layoutId } } }));
        this.thingVersions = now.versions;
        this.landmarks = now.things.landmarks;
      } catch {
        this.landmarks = this.landmarks.map((l) => (l.id === landmark.id ? landmark : l));
      }
    }
  }
}
