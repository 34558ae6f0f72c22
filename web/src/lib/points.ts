import type { CornerEntry, PointKind } from './api';

export interface PointStyle {
  word: string;
  colour: string;
}

export const POINTS: Record<PointKind, PointStyle> = {
  BRAKE: { word: 'Brake', colour: 'var(--brake)' },
  TURN_IN: { word: 'Turn-in', colour: 'var(--turn)' },
  RELEASE: { word: 'Release', colour: 'var(--brake)' },
  APEX: { word: 'Apex', colour: 'var(--ink)' },
  FIRST_THROTTLE: { word: 'Throttle', colour: 'var(--throttle)' },
  FULL_THROTTLE: { word: 'Full', colour: 'var(--throttle)' },
  EXIT: { word: 'Exit', colour: 'var(--ink)' },
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
    a.points.every((p) => Math.abs((station(b, p.kind) ?? Infinity) - p.station) < 0.25)
  );
}

/** Metres from a to b the short way round. */
export function apart(a: number, b: number, length: number): number {
  const ahead = (((b - a) % length) + length) % length;
  return ahead > length / 2 ? ahead - length : ahead;
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
