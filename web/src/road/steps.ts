import type { Action, CornerEntry, CornerPoint, ReferenceContent } from '../api/api';
import { metres } from '../words/units';
import { apart } from './points';

const called = (name: string) => name.toLowerCase().replaceAll('_', ' ').replaceAll('-', ' ');
const percent = (share: number) => Math.round(share * 100);
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

const moved = (what: string, was: number, is: number, length: number): string => {
  const by = apart(was, is, length);
  return `${what} ${metres(Math.abs(by), Math.abs(by) < 9.95 ? 1 : 0)} ${by < 0 ? 'sooner' : 'later'}`;
};

const shares = (what: string, was: number | null | undefined, is: number | null | undefined): string =>
  `${what} ${was == null ? 'open' : percent(was)} → ${is == null ? 'open' : `${percent(is)} %`}`;

/** What became of an action, where anything did. */
function ofAction(was: Action, is: Action, length: number): string | null {
  const what = called(is.kind);
  if (!same(was.amount, is.amount)) return shares(what, was.amount, is.amount);
  if (!same(was.gear, is.gear)) return `${what} ${was.gear ?? '–'} → ${is.gear ?? '–'}`;
  if (Math.abs(apart(was.station, is.station, length)) > 0.05) return moved(what, was.station, is.station, length);
  if (was.manner !== is.manner) return `${what} ${called(was.manner)} → ${called(is.manner)}`;
  if (!same(was.until, is.until)) return `${what}: how long it lasts`;
  if (!same(was.cue, is.cue)) return `${what}: how it is found`;
  return same(was, is) ? null : what;
}

function ofPoint(was: CornerPoint, is: CornerPoint, length: number): string | null {
  const what = called(is.kind);
  if (was.play && is.play) {
    const played = ofAction(was.play, is.play, length);
    if (played && !same(was.play.amount, is.play.amount)) return played;
  } else if (!same(was.play?.amount, is.play?.amount)) return shares(what, was.play?.amount, is.play?.amount);
  if (Math.abs(apart(was.station, is.station, length)) > 0.05) return moved(what, was.station, is.station, length);
  if (!same(was.sure, is.sure)) return `${what}: how sure`;
  return same(was, is) ? null : `${what}: how it is found`;
}

/** What was done in one corner, in a few words: "brake 60 → 65 %". */
export function cornerStep(was: CornerEntry, is: CornerEntry, length: number): string {
  if (was.slowing !== is.slowing) return `${called(was.slowing)} → ${called(is.slowing)}`;
  for (const a of is.actions) {
    const before = was.actions.find((b) => b.id === a.id);
    if (!before) return `${called(a.kind)} added`;
    const step = ofAction(before, a, length);
    if (step) return step;
  }
  for (const a of was.actions) if (!is.actions.some((b) => b.id === a.id)) return `${called(a.kind)} taken out`;
  if (!same(was.schools, is.schools)) return 'way of doing it';
  if (was.firstThrottle !== is.firstThrottle) return shares('first throttle', was.firstThrottle, is.firstThrottle);
  for (const p of is.points) {
    const before = was.points.find((q) => q.kind === p.kind);
    if (!before) return `${called(p.kind)} added`;
    const step = ofPoint(before, p, length);
    if (step) return step;
  }
  for (const p of was.points) if (!is.points.some((q) => q.kind === p.kind)) return `${called(p.kind)} taken out`;
  if (was.gear !== is.gear) return `gear ${was.gear} → ${is.gear}`;
  if (was.firstEffort !== is.firstEffort) return shares('effort', was.firstEffort, is.firstEffort);
  if (!same(was.pedals, is.pedals)) return 'shape of the pedals';
  if (was.note !== is.note) return 'note';
  return same(was.details, is.details) ? 'corner' : 'details';
}

/** What lies between two contents, in a few words: "1: brake 60 → 65 %". Empty where nothing does. */
export function stepBetween(
  was: ReferenceContent,
  is: ReferenceContent,
  length: number,
  corner: (id: string) => string,
): string {
  const changed = is.corners.flatMap((e) => {
    const before = was.corners.find((b) => b.corner === e.corner);
    return before && !same(before, e) ? [{ before, e }] : [];
  });
  const [one] = changed;
  if (changed.length > 1) return `${changed.length} corners`;
  if (one) return `${corner(one.e.corner)}: ${cornerStep(one.before, one.e, length)}`;
  if (!same(was.variants, is.variants)) return 'days';
  if (!same(was.pace, is.pace)) return 'pace';
  return same(was.use, is.use) ? '' : 'use of the road';
}
