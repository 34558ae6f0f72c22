import type { CornerEntry, CornerPoint, Cue, PointKind } from '../api/api';
import { tell } from '../words/tell';

export interface PointStyle {
  word: string;
  colour: string;
}

export const POINTS: Record<PointKind, PointStyle> = {
  BUILD_UP: { word: tell('points.build_up'), colour: 'var(--brake)' },
  BRAKE: { word: tell('points.brake'), colour: 'var(--brake)' },
  TARGET: { word: tell('points.target'), colour: 'var(--brake)' },
  BACK_UP: { word: tell('points.back_up'), colour: 'var(--brake)' },
  DOWNSHIFT: { word: tell('points.shift_down'), colour: 'var(--ink)' },
  TURN_IN: { word: tell('points.turn_in'), colour: 'var(--turn)' },
  RELEASE: { word: tell('points.release'), colour: 'var(--brake)' },
  FIRST_APEX: { word: tell('points.first_apex'), colour: 'var(--ink)' },
  APEX: { word: tell('points.apex'), colour: 'var(--ink)' },
  FIRST_THROTTLE: { word: tell('points.throttle'), colour: 'var(--throttle)' },
  SHORT_SHIFT: { word: tell('points.shift_up'), colour: 'var(--ink)' },
  FULL_THROTTLE: { word: tell('points.full'), colour: 'var(--throttle)' },
  EXIT: { word: tell('points.exit'), colour: 'var(--ink)' },
};

export function station(entry: CornerEntry, kind: PointKind): number | undefined {
  return entry.points.find((p) => p.kind === kind)?.station;
}

/** The entry with one point moved to a station in [0, length). */
export function moved(entry: CornerEntry, kind: PointKind, to: number, length: number): CornerEntry {
  const wrapped = ((to % length) + length) % length;
  return { ...entry, points: entry.points.map((p) => (p.kind === kind ? { ...p, station: wrapped } : p)) };
}

/** Whether two entries hold the same decisions; speeds that follow from them do not count. */
export function sameDecisions(a: CornerEntry | undefined, b: CornerEntry | undefined): boolean {
  if (!a || !b) return a === b;
  return (
    a.slowing === b.slowing &&
    a.gear === b.gear &&
    a.note === b.note &&
    Math.abs(a.firstEffort - b.firstEffort) < 0.005 &&
    Math.abs(a.firstThrottle - b.firstThrottle) < 0.005 &&
    a.points.length === b.points.length &&
    a.points.every((p) => {
      const q = b.points.find((o) => o.kind === p.kind);
      return (
        q && Math.abs(q.station - p.station) < 0.25 && (q.sure ?? null) === (p.sure ?? null) && alike(q.play, p.play)
      );
    }) &&
    alike(a.schools, b.schools) &&
    alike(a.details, b.details) &&
    alike(a.kerbs, b.kerbs) &&
    alike(a.actions, b.actions) &&
    alike(a.pedals, b.pedals) &&
    alike(a.wording, b.wording) &&
    (a.priority ?? null) === (b.priority ?? null) &&
    Math.abs(a.givenAway - b.givenAway) < 0.005 &&
    Math.abs(a.apexOff - b.apexOff) < 0.02
  );
}

// Asked of every corner while one is dragged; what is not replaced is not written out again.
const written = new WeakMap<object, string>();
function textOf(value: object | null | undefined): string {
  if (!value) return 'null';
  let text = written.get(value);
  if (text === undefined) {
    text = JSON.stringify(value);
    written.set(value, text);
  }
  return text;
}

const alike = (a: object | null | undefined, b: object | null | undefined) => a === b || textOf(a) === textOf(b);

/** The entry with a point added, or without one that it has. */
export function toggled(entry: CornerEntry, kind: PointKind, at: number): CornerEntry {
  const has = entry.points.some((p) => p.kind === kind);
  return {
    ...entry,
    points: has ? entry.points.filter((p) => p.kind !== kind) : [...entry.points, { kind, station: at }],
  };
}

/** Metres from a to b the short way round. */
export function apart(a: number, b: number, length: number): number {
  const ahead = (((b - a) % length) + length) % length;
  return ahead > length / 2 ? ahead - length : ahead;
}

/** Metres by which a point lies past the nearest apex. */
export function pastApex(entry: CornerEntry, kind: PointKind, length: number): number | undefined {
  const at = station(entry, kind);
  const past = [station(entry, 'FIRST_APEX'), station(entry, 'APEX')].flatMap((apex) =>
    apex === undefined || at === undefined ? [] : [apart(apex, at, length)],
  );
  return past.toSorted((a, b) => Math.abs(a) - Math.abs(b))[0];
}

/** "100 board + 8 m" from a tie. */
export function tieText(
  tie: { spoken: string; past: number } | null | undefined,
  inUnit: (m: number) => string,
): string | null {
  if (!tie) return null;
  const name = tie.spoken.replace(/^the /, '');
  const rounded = Math.round(tie.past * 2) / 2;
  return rounded === 0 ? name : `${name} ${rounded > 0 ? '+' : '−'} ${inUnit(Math.abs(tie.past))}`;
}

/** A cue as it is written on a flag or a card: "end of the barrier leaves view". */
export function cueText(cue: Cue, inUnit: (m: number) => string): string {
  const name = cue.spoken.replace(/^the /, '');
  const tenth = (v: number) => String(Math.round(v * 10) / 10);
  switch (cue.kind) {
    case 'PAST':
      return tieText({ spoken: cue.spoken, past: cue.number }, inUnit) ?? name;
    case 'LENGTHS':
      return tell('points.lengths', { name, number: cue.number < 0 ? '−' : '+', number2: tenth(Math.abs(cue.number)) });
    case 'SHARE':
      return Math.abs(cue.number - 0.5) < 0.02
        ? tell('points.half', { name })
        : `${Math.round(cue.number * 100)} % ${name}`;
    case 'BETWEEN':
      return tell('points.to', {
        number: Math.round(cue.number * 100),
        name,
        the: cue.otherSpoken.replace(/^the /, ''),
      });
    case 'INTO_VIEW':
      return tell('points.in_view', { name });
    case 'OUT_OF_VIEW':
      return tell('points.leaves_view', { name });
    case 'BESIDE':
      return tell('points.beside', { name });
    case 'SECONDS':
      return tell('points.s_later', { number: tenth(cue.number) });
    case 'LIMITER':
      return tell('points.s_limiter', { number: tenth(cue.number) });
    case 'REVS':
      return tell('points.revs', { number: Math.round(cue.number) });
    case 'SETTLED':
      return tell('points.settled');
    case 'FEEL':
      return tell('points.by_feel');
  }
}

/** How a point is found: by the cue that is written of it, or else by its landmark; null by neither. */
export const foundBy = (p: CornerPoint | undefined, inUnit: (m: number) => string): string | null =>
  p?.play?.cue ? cueText(p.play.cue, inUnit) : tieText(p?.tie, inUnit);
