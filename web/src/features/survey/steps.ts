import type { Corner, Things } from '../../api/api';
import type { Letter } from './outbox';
import { nothing, SORTS, type Sort, type Thing } from '../../road/things';

/** A change as it is undone and redone: what to put and what to take away. */
export interface Step {
  put: Things;
  remove: string[];
  corners: Corner[] | null;
}

/** Ids of all that a step puts or takes away. */
export const touchedBy = (step: Pick<Step, 'put' | 'remove'>): string[] => [
  ...step.remove,
  ...SORTS.flatMap((s) => ((step.put[s] ?? []) as Thing[]).map((t) => t.id)),
];

/** What there is after a step. */
export function withStep(things: Things, step: Step): Things {
  const out = nothing() as Record<Sort, Thing[]>;
  for (const sort of SORTS) {
    // What an earlier version of this page kept may lack a sort.
    const put = (step.put[sort] ?? []) as Thing[];
    const gone = new Set([...step.remove, ...put.map((t) => t.id)]);
    out[sort] = [...((things[sort] ?? []) as Thing[]).filter((t) => !gone.has(t.id)), ...put];
  }
  return out as unknown as Things;
}

/** The step that takes another one back. */
export function inverse(things: Things, corners: Corner[], step: Step): Step {
  const put = nothing() as Record<Sort, Thing[]>;
  const remove: string[] = [];
  const there = new Set<string>();
  const touched = new Set(touchedBy(step));
  for (const sort of SORTS) {
    for (const t of (things[sort] ?? []) as Thing[]) {
      if (touched.has(t.id)) {
        put[sort].push(t);
        there.add(t.id);
      }
    }
  }
  for (const id of touched) if (!there.has(id)) remove.push(id);
  return { put: put as unknown as Things, remove, corners: step.corners ? corners : null };
}

/** Whether a letter may take the place of the one before it: the same things, put again. */
export function merges(last: Letter, next: Letter): boolean {
  if (last.kind !== 'change' || next.kind !== 'change') return false;
  if (last.change.remove.length || next.change.remove.length) return false;
  if (last.change.corners || next.change.corners) return !!last.change.corners && !!next.change.corners;
  return touchedBy(last.change).join() === touchedBy(next.change).join();
}
