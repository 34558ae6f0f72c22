import type { Action, Cue } from '../../api/api';

/** Whether two cues are the same but for their number. */
export const sameCue = (a: Cue | null | undefined, b: Cue | null | undefined): boolean =>
  !!a && !!b && a.kind === b.kind && a.thing === b.thing && a.other === b.other;

/** A cue and where it is. */
export interface Placed {
  cue: Cue;
  station: number;
}

/**
 * What a press on a cue makes of an action: it is found by it; pressedCue again, it is held together with the one that was
 * there before, and the earlier counts; pressedCue once more, it is let go.
 */
export function pressedCue(action: Action, at: Placed, before: Placed | null): Action {
  const { cue, together, backUp } = action;
  if (sameCue(at.cue, together)) return { ...action, together: undefined };
  if (sameCue(at.cue, cue)) {
    if (together) return { ...action, cue: together, together: undefined };
    return before ? { ...action, cue: before.cue, together: at.cue } : action;
  }
  return {
    ...action,
    cue: at.cue,
    station: at.station,
    together: undefined,
    backUp: sameCue(at.cue, backUp) ? undefined : backUp,
  };
}

/** A cue for when the first is hidden: one that stands elsewhere, the next after the one that there is. */
export function nextBehind(action: Action, offers: Placed[]): Cue | undefined {
  const { cue, together, backUp } = action;
  const hung = new Set([cue, together].flatMap((c) => (c ? [c.thing, c.other] : [])));
  const others = offers
    .map((o) => o.cue)
    .filter((c) => c.kind !== 'FEEL' && !sameCue(c, cue) && !sameCue(c, together))
    .filter((c) => ![c.thing, c.other].some((t) => t && hung.has(t)));
  return others[others.findIndex((c) => sameCue(c, backUp)) + 1];
}
