import type { Action, ActionKind, AnswerView, CornerEntry, CornerPoint, ScoredAction, Unwise } from '../api/api';
import { few } from '../words/few';
import { apart, station } from './points';

/** Points that every corner has, by the id of the action that each of them is. */
const POINTS: Record<string, CornerPoint['kind']> = {
  brake: 'BRAKE',
  release: 'RELEASE',
  downshift: 'DOWNSHIFT',
  'short-shift': 'SHORT_SHIFT',
  'turn-in': 'TURN_IN',
  'first-apex': 'FIRST_APEX',
  apex: 'APEX',
  'first-throttle': 'FIRST_THROTTLE',
  'full-throttle': 'FULL_THROTTLE',
};

export const pointOf = (id: string): CornerPoint['kind'] | undefined => POINTS[id];

export type Lane = 'throttle' | 'brake' | 'gears' | 'rim';

/** Letters that place an action at the pencil, or take the nearest of its kind in hand. */
export const LETTERS: Record<string, ActionKind> = {
  b: 'BRAKE',
  r: 'EASE',
  l: 'LIFT',
  f: 'THROTTLE',
  g: 'FULL',
  j: 'SHIFT',
  y: 'EYES',
};

export const laneOf = (kind: ActionKind): Lane | null =>
  kind === 'BRAKE' || kind === 'EASE'
    ? 'brake'
    : kind === 'LIFT' || kind === 'THROTTLE' || kind === 'FULL'
      ? 'throttle'
      : kind === 'SHIFT'
        ? 'gears'
        : kind === 'EYES' || kind === 'BODY'
          ? 'rim'
          : null;

/** Kinds that a press in a lane makes at a station, the likeliest first. */
export function likeliest(lane: Lane, entry: CornerEntry, at: number, length: number): ActionKind[] {
  const past = (kind: CornerPoint['kind']) => {
    const s = station(entry, kind);
    return s === undefined ? null : apart(s, at, length);
  };
  if (lane === 'gears') return ['SHIFT'];
  if (lane === 'rim') return ['EYES', 'BODY'];
  const apex = past('APEX') ?? 0;
  if (lane === 'throttle') return apex < 0 ? ['LIFT', 'THROTTLE', 'FULL'] : ['THROTTLE', 'FULL', 'LIFT'];
  const brake = past('BRAKE');
  const release = past('RELEASE');
  const pressed = brake !== null && brake > 0 && (release === null || release < 0);
  return pressed ? ['EASE', 'BRAKE'] : ['BRAKE', 'EASE'];
}

/** A new action as it is likely meant. */
export function made(kind: ActionKind, at: number, id: string, gear: number): Action {
  const usual: Partial<Record<ActionKind, number>> = { LIFT: 0.4, BRAKE: 0.3, EASE: 0.3, THROTTLE: 0.3 };
  return {
    id,
    kind,
    station: at,
    amount: usual[kind],
    left: false,
    manner:
      kind === 'HANDS' || kind === 'EYES' || kind === 'BODY' || kind === 'PLACE' || kind === 'APEX'
        ? 'EVENLY'
        : 'AT_ONCE',
    gear: kind === 'SHIFT' ? gear : undefined,
    note: '',
  };
}

/** Whether an action has an amount, and in what it is told. */
export const unitOf = (a: Action): '%' | 'gear' | null =>
  a.kind === 'SHIFT'
    ? 'gear'
    : a.kind === 'LIFT' ||
        a.kind === 'BRAKE' ||
        a.kind === 'THROTTLE' ||
        a.kind === 'BODY' ||
        (a.kind === 'EASE' && a.id !== 'release')
      ? '%'
      : null;

/** What stands on the rim: what is looked at, where the weight is and how much is braked at the front. */
export function rimText(a: Action, score: ScoredAction[]): string {
  const seen = a.target;
  const done = seen && score.find((s) => s.action.id === seen.other)?.action.kind;
  const looked = seen ? seen.spoken || (done ? few(done) : '') : '';
  const weight = a.stance ? few(a.stance) : '';
  const front = a.kind === 'BODY' && a.amount != null ? `${Math.round(a.amount * 100)} %` : '';
  return [looked, weight, front, a.note].filter(Boolean).join(' ') || '…';
}

/** The most that an amount may be. */
export const mostOf = (kind: ActionKind): number => (kind === 'LIFT' ? 0.95 : 1);

/** The entry with an action in place of the one with its id, or besides what there is. */
export function withAction(entry: CornerEntry, action: Action, length: number): CornerEntry {
  const round = (s: number) => ((s % length) + length) % length;
  const wrapped = round(action.station);
  const there = { ...action, station: wrapped, until: action.until == null ? undefined : round(action.until) };
  const point = pointOf(action.id);
  if (!point) {
    const has = entry.actions.some((a) => a.id === action.id);
    return {
      ...entry,
      actions: has ? entry.actions.map((a) => (a.id === action.id ? there : a)) : [...entry.actions, there],
    };
  }
  const next = {
    ...entry,
    points: entry.points.map((p) => (p.kind === point ? { ...p, station: wrapped, sure: there.sure, play: there } : p)),
  };
  if (point === 'BRAKE' && action.amount != null) next.firstEffort = action.amount;
  if (point === 'FIRST_THROTTLE' && action.amount != null) next.firstThrottle = action.amount;
  if (point === 'DOWNSHIFT' && action.gear != null) next.gear = action.gear;
  return next;
}

/** The entry without an action; points that every corner has go as points. */
export function withoutAction(entry: CornerEntry, id: string): CornerEntry {
  const point = pointOf(id);
  return point
    ? { ...entry, points: entry.points.filter((p) => p.kind !== point) }
    : { ...entry, actions: entry.actions.filter((a) => a.id !== id) };
}

/** An id that no action of the corner has. */
export function freeId(entry: CornerEntry, kind: ActionKind): string {
  const word = kind.toLowerCase();
  for (let n = 1; ; n++) {
    const id = `${word}-${n}`;
    if (!entry.actions.some((a) => a.id === id) && !pointOf(id)) return id;
  }
}

/** The action of a kind that is nearest to a station, within so many metres; the one after `than` where that is it. */
export function nearest(
  score: ScoredAction[],
  kind: ActionKind,
  at: number,
  length: number,
  within: number,
): ScoredAction | undefined {
  return score
    .filter((s) => s.action.kind === kind && Math.abs(apart(s.action.station, at, length)) <= within)
    .toSorted(
      (a, b) => Math.abs(apart(a.action.station, at, length)) - Math.abs(apart(b.action.station, at, length)),
    )[0];
}

/** The next action of the same kind in driving order, round to the first. */
export function nextOf(score: ScoredAction[], id: string): ScoredAction | undefined {
  const one = score.find((s) => s.action.id === id);
  const same = score.filter((s) => s.action.kind === one?.action.kind);
  const i = same.findIndex((s) => s.action.id === id);
  return same[(i + 1) % same.length];
}

/** A handle on the drawing, in pixels. */
export interface Spot {
  id: string;
  x: number;
  y: number;
}

// Handles nearer to one another than this cannot be pressed apart.
const TOUCH = 11;

/**
 * Handles that touch, chain by chain, each chain in driving order. One that stands alone is no knot.
 */
export function knotsOf<T extends Spot>(spots: T[]): T[][] {
  const order = spots.toSorted((a, b) => a.x - b.x || a.y - b.y);
  const knots: T[][] = [];
  for (const s of order) {
    const touched = knots.filter((k) => k.some((o) => Math.abs(o.x - s.x) < TOUCH && Math.abs(o.y - s.y) < TOUCH));
    const rest = knots.filter((k) => !touched.includes(k));
    rest.push([...touched.flat(), s].toSorted((a, b) => a.x - b.x));
    knots.splice(0, knots.length, ...rest);
  }
  return knots.filter((k) => k.length > 1).toSorted((a, b) => (a[0]?.x ?? 0) - (b[0]?.x ?? 0));
}

/** "I", "II", "III" for the brakings of a corner, in driving order. */
export function numeralOf(score: ScoredAction[], id: string): string {
  const brakings = score.filter((s) => s.action.kind === 'BRAKE');
  const i = brakings.findIndex((s) => s.action.id === id);
  return brakings.length < 2 || i < 0 ? '' : (['I', 'II', 'III', 'IV', 'V', 'VI'][i] ?? String(i + 1));
}

/** The amount that an action was driven with, as it is written on it: "60", "0". */
export const amountOf = (s: ScoredAction): string =>
  s.action.kind === 'SHIFT' ? String(s.action.gear ?? '') : s.amount == null ? '' : String(Math.round(s.amount * 100));

export const scoreOf = (answer: AnswerView | undefined): ScoredAction[] => answer?.answer.score ?? [];

/** What a kind of action is, where some are unwise; null for kinds that are wise anywhere. */
export const unwiseFor = (kind: ActionKind): Unwise['what'] | null =>
  kind === 'SHIFT' ? 'SHIFT' : kind === 'BRAKE' ? 'BRAKE' : kind === 'FULL' || kind === 'THROTTLE' ? 'THROTTLE' : null;

/** Stretches on which the action in hand is unwise, unrolled about a station. */
export function unwiseOf(unwise: Unwise[], held: ScoredAction | undefined): Unwise[] {
  const what = held && unwiseFor(held.action.kind);
  return what ? unwise.filter((u) => u.what === what) : [];
}

/** The stretch that a station lies in. */
export function within(unwise: Unwise[], at: number, length: number): Unwise | undefined {
  const ahead = (from: number, to: number) => (((to - from) % length) + length) % length;
  return unwise.find((u) => ahead(u.from, at) <= ahead(u.from, u.to));
}
