import type { Action, CornerEntry } from '../api/api';
import { apart, cueText, foundBy, station } from './points';
import { rimText } from './score';
import { tell } from '../words/tell';

/** A braking or a lift of a corner: by what it is found, and how much of the pedal. */
export interface Marker {
  id: string;
  kind: 'BRAKE' | 'LIFT';
  at: number;
  found: string;
  share: number | null;
}

/** "apex − 57 m". */
function fromApex(entry: CornerEntry, at: number, length: number, inUnit: (m: number) => string): string {
  const apex = station(entry, 'APEX') ?? station(entry, 'TURN_IN') ?? at;
  const by = apart(apex, at, length);
  return Math.abs(by) < 1
    ? tell('markers.apex_2')
    : tell('markers.apex', { by: by < 0 ? '−' : '+', by2: inUnit(Math.abs(by)) });
}

const found = (entry: CornerEntry, a: Action, length: number, inUnit: (m: number) => string) =>
  a.cue ? cueText(a.cue, inUnit) : fromApex(entry, a.station, length, inUnit);

function inOrder<T extends { at: number }>(entry: CornerEntry, length: number, all: T[]): T[] {
  const middle = station(entry, 'APEX') ?? station(entry, 'TURN_IN') ?? all[0]?.at ?? 0;
  return all.toSorted((a, b) => apart(middle, a.at, length) - apart(middle, b.at, length));
}

/** Every braking and lift of a corner, in driving order. */
export function markersOf(entry: CornerEntry, length: number, inUnit: (m: number) => string): Marker[] {
  const marker = entry.points.find((p) => p.kind === 'BRAKE');
  const all: Marker[] = entry.actions
    .filter((a) => a.kind === 'BRAKE' || a.kind === 'LIFT')
    .map((a) => ({
      id: a.id,
      kind: a.kind as Marker['kind'],
      at: a.station,
      found: found(entry, a, length, inUnit),
      share: a.amount ?? null,
    }));
  if (entry.slowing === 'BRAKE' && marker)
    all.push({
      id: 'brake',
      kind: 'BRAKE',
      at: marker.station,
      found: foundBy(marker, inUnit) ?? inUnit(marker.station),
      share: marker.play?.amount ?? entry.firstEffort,
    });
  return inOrder(entry, length, all);
}

const SHORT: Partial<Record<Action['kind'], (a: Action) => string>> = {
  THROTTLE: (a) => (a.amount == null ? tell('markers.throttle') : `${Math.round(a.amount * 100)} %`),
  FULL: () => tell('markers.all_of_it'),
  EASE: (a) =>
    a.amount == null ? tell('markers.ease') : tell('markers.ease_to', { amount: Math.round(a.amount * 100) }),
  SHIFT: (a) => tell('markers.gear', { gear: a.gear ?? '' }).trim(),
  APEX: () => tell('markers.apex_2'),
  EYES: (a) => tell('markers.eyes', { note: a.note }),
  BODY: (a) => tell('markers.body', { note: rimText(a, []) }),
};

/** What is written besides points, brakings and lifts, each with its place: "55 % at apex − 23 m". */
export function besidesOf(entry: CornerEntry, length: number, inUnit: (m: number) => string): string[] {
  const all = entry.actions.map((a) => ({ a, at: a.station }));
  return inOrder(entry, length, all).flatMap(({ a }) => {
    const words = SHORT[a.kind]?.(a);
    return words ? [tell('markers.at', { words, inUnit: found(entry, a, length, inUnit) })] : [];
  });
}
