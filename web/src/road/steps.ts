import type { Action, CornerEntry, CornerPoint, PointKind, ReferenceContent } from '../api/api';
import { metres } from '../words/units';
import { apart } from './points';
import { tell } from '../words/tell';

type Named = PointKind | Action['kind'] | Action['manner'] | CornerEntry['slowing'];
const called = (kind: Named) => tell('steps.called', { kind });
const percent = (share: number) => Math.round(share * 100);
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

const moved = (what: string, was: number, is: number, length: number): string => {
  const by = apart(was, is, length);
  return tell('steps.moved', {
    what,
    by: metres(Math.abs(by), Math.abs(by) < 9.95 ? 1 : 0),
    isSooner: by < 0,
  });
};

const shares = (what: string, was: number | null | undefined, is: number | null | undefined): string =>
  tell('steps.from_to', {
    what,
    was: was == null ? tell('steps.open') : percent(was),
    now: is == null ? tell('steps.open') : tell('steps.share', { share: percent(is) }),
  });

/** What became of an action, where anything did. */
function ofAction(was: Action, is: Action, length: number): string | null {
  const what = called(is.kind);
  if (!same(was.amount, is.amount)) return shares(what, was.amount, is.amount);
  if (!same(was.gear, is.gear)) return tell('steps.from_to', { what, was: was.gear ?? '–', now: is.gear ?? '–' });
  if (Math.abs(apart(was.station, is.station, length)) > 0.05) return moved(what, was.station, is.station, length);
  if (was.manner !== is.manner) return tell('steps.from_to', { what, was: called(was.manner), now: called(is.manner) });
  if (!same(was.until, is.until)) return tell('steps.how_long_it_lasts', { what });
  if (!same(was.cue, is.cue)) return tell('steps.how_it_is_found', { what });
  return same(was, is) ? null : what;
}

function ofPoint(was: CornerPoint, is: CornerPoint, length: number): string | null {
  const what = called(is.kind);
  if (was.play && is.play) {
    const played = ofAction(was.play, is.play, length);
    if (played && !same(was.play.amount, is.play.amount)) return played;
  } else if (!same(was.play?.amount, is.play?.amount)) return shares(what, was.play?.amount, is.play?.amount);
  if (Math.abs(apart(was.station, is.station, length)) > 0.05) return moved(what, was.station, is.station, length);
  if (!same(was.sure, is.sure)) return tell('steps.how_sure', { what });
  return same(was, is) ? null : tell('steps.how_it_is_found', { what });
}

/** What was done in one corner, in a few words: "brake 60 → 65 %". */
export function cornerStep(was: CornerEntry, is: CornerEntry, length: number): string {
  if (was.slowing !== is.slowing)
    return tell('steps.from_to', { what: '', was: called(was.slowing), now: called(is.slowing) }).trim();
  for (const a of is.actions) {
    const before = was.actions.find((b) => b.id === a.id);
    if (!before) return tell('steps.added', { kind: called(a.kind) });
    const step = ofAction(before, a, length);
    if (step) return step;
  }
  for (const a of was.actions)
    if (!is.actions.some((b) => b.id === a.id)) return tell('steps.taken_out', { kind: called(a.kind) });
  if (!same(was.schools, is.schools)) return tell('steps.way_of_doing_it');
  if (was.firstThrottle !== is.firstThrottle)
    return shares(tell('steps.first_throttle'), was.firstThrottle, is.firstThrottle);
  for (const p of is.points) {
    const before = was.points.find((q) => q.kind === p.kind);
    if (!before) return tell('steps.added', { kind: called(p.kind) });
    const step = ofPoint(before, p, length);
    if (step) return step;
  }
  for (const p of was.points)
    if (!is.points.some((q) => q.kind === p.kind)) return tell('steps.taken_out', { kind: called(p.kind) });
  if (was.gear !== is.gear) return tell('steps.gear', { gear: was.gear, gear2: is.gear });
  if (was.firstEffort !== is.firstEffort) return shares(tell('steps.effort'), was.firstEffort, is.firstEffort);
  if (!same(was.pedals, is.pedals)) return tell('steps.shape_of_the_pedals');
  if (was.note !== is.note) return tell('steps.note');
  return same(was.details, is.details) ? tell('steps.corner') : tell('steps.details');
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
  if (changed.length > 1) return tell('steps.corners', { changed: changed.length });
  if (one) return `${corner(one.e.corner)}: ${cornerStep(one.before, one.e, length)}`;
  if (!same(was.variants, is.variants)) return tell('steps.days');
  if (!same(was.pace, is.pace)) return tell('steps.pace');
  return same(was.use, is.use) ? '' : tell('steps.use_of_the_road');
}
