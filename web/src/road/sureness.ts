import type { CornerEntry, PointKind, Sureness } from '../api/api';
import { station, toggled } from './points';
import { tell } from '../words/tell';

/** How sure a driver can be of something, in words. */
export const SURE: [Sureness, string][] = [
  ['SURE', tell('sureness.sure')],
  ['FAIRLY', tell('sureness.fairly')],
  ['UNSURE', tell('sureness.unsure')],
  ['CARRIED', tell('sureness.not_proved')],
];

/** The entry with how sure the driver is of a point; nothing takes it back. */
export const sureOf = (entry: CornerEntry, kind: PointKind, sure: Sureness | undefined): CornerEntry => ({
  ...entry,
  points: entry.points.map((p) => (p.kind === kind ? { ...p, sure } : p)),
});

/** Other markers of a braking: the early one that is begun with, the one aimed at, one for when it is hidden. */
export const MARKERS: { kind: PointKind; word: string; off: number }[] = [
  { kind: 'BUILD_UP', word: tell('sureness.early'), off: -20 },
  { kind: 'TARGET', word: tell('sureness.target'), off: 5 },
  { kind: 'BACK_UP', word: tell('sureness.if_hidden'), off: 0 },
];

export const hasPoint = (entry: CornerEntry | undefined, kind: PointKind): boolean =>
  entry?.points.some((p) => p.kind === kind) ?? false;

/** The entry with one of these markers where it is usually wanted, or without it. */
export function marked(entry: CornerEntry, kind: PointKind, length: number): CornerEntry {
  const off = MARKERS.find((m) => m.kind === kind)?.off ?? 0;
  const at = (station(entry, 'BRAKE') ?? station(entry, 'TURN_IN') ?? 0) + off;
  return toggled(entry, kind, ((at % length) + length) % length);
}
