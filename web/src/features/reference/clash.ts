import type { CornerEntry, CornerPoint, Gate, ReferenceContent, Variant } from '../../api/api';

/** Two windows wrote on what one of them had opened. */
export interface Conflict {
  mine: ReferenceContent;
  theirs: ReferenceContent;
  /** What both started from; null where that is not known any more. */
  base: ReferenceContent | null;
  version: number;
}

export type Side = 'mine' | 'theirs';

/** Something that can be chosen by itself: an action, a choice of a corner, a day, a gate. */
export interface Part {
  /** Unlike that of any other part. */
  key: string;
  /** Id of its corner; empty where it belongs to none. */
  corner: string;
  kind: 'point' | 'action' | 'field' | 'day' | 'byHand' | 'gate' | 'opened' | 'pace';
  /** Id or name inside its kind. */
  name: string;
  value: unknown;
}

/** Something that both windows changed, each in its way; what is undefined was left out there. */
export interface Clash extends Omit<Part, 'value'> {
  mine: unknown;
  theirs: unknown;
}

// Follows from the rest when the corner is answered.
const COMPUTED = new Set(['minimumSpeed', 'approachSpeed', 'approachGear', 'again', 'firstEffort']);
const APART = new Set(['corner', 'points', 'actions', 'details', ...COMPUTED]);
// Metres under which two places are one.
const SAME = 0.25;

const pointKey = (p: CornerPoint) => ({ at: Math.round(p.station / SAME), sure: p.sure ?? null, play: p.play ?? null });
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
const told = (p: Pick<Part, 'kind' | 'value'>) =>
  p.value === undefined ? undefined : p.kind === 'point' ? pointKey(p.value as CornerPoint) : p.value;

/** All parts of a content, by their keys. */
export function partsOf(content: ReferenceContent): Map<string, Part> {
  const out = new Map<string, Part>();
  const put = (kind: Part['kind'], corner: string, name: string, value: unknown) => {
    if (value === undefined || value === null) return;
    const key = [kind, corner, name].join('/');
    out.set(key, { key, corner, kind, name, value });
  };
  for (const e of content.corners) {
    for (const p of e.points) put('point', e.corner, p.kind, p);
    for (const a of e.actions) put('action', e.corner, a.id, a);
    for (const [name, words] of Object.entries(e.details)) put('field', e.corner, `details.${name}`, words);
    for (const [name, value] of Object.entries(e)) if (!APART.has(name)) put('field', e.corner, name, value);
  }
  for (const v of content.variants) {
    put('day', '', v.id, { kind: v.kind, name: v.name, day: v.day });
    for (const h of v.entries) put('byHand', h.corner, v.id, h);
  }
  for (const g of content.use?.gates ?? []) put('gate', '', g.id, g);
  if (content.use?.opened.length) put('opened', '', 'opened', content.use.opened);
  put('pace', '', 'pace', content.pace);
  return out;
}

/** What both windows changed, each in its way, in the order of the lap; the rest goes together by itself. */
export function clashes({ base, mine, theirs }: Conflict): Clash[] {
  const [b, m, t] = [base && partsOf(base), partsOf(mine), partsOf(theirs)];
  return [...new Map([...t, ...m]).values()]
    .filter(({ key, kind }) => {
      const [was, is, other] = [b?.get(key), m.get(key), t.get(key)].map((p) => told({ kind, value: p?.value }));
      if (!b) return is !== undefined && other !== undefined && !same(is, other);
      return !same(is, other) && !same(is, was) && !same(other, was);
    })
    .map(({ key, corner, kind, name }) => ({
      key,
      corner,
      kind,
      name,
      mine: m.get(key)?.value,
      theirs: t.get(key)?.value,
    }))
    .toSorted((a, c) => order(mine, a.corner) - order(mine, c.corner));
}

const order = (content: ReferenceContent, corner: string) =>
  corner ? content.corners.findIndex((e) => e.corner === corner) : content.corners.length;

/** How many parts only the other window changed: they are taken as they are. */
export function takenOver({ base, mine, theirs }: Conflict): number {
  if (!base) return 0;
  const [b, m, t] = [partsOf(base), partsOf(mine), partsOf(theirs)];
  return [...new Set([...b.keys(), ...t.keys()])].filter((key) => {
    const kind = (t.get(key) ?? b.get(key))?.kind ?? 'field';
    const [was, is, other] = [b.get(key), m.get(key), t.get(key)].map((p) => told({ kind, value: p?.value }));
    return same(is, was) && !same(other, was);
  }).length;
}

// Words of a corner, by which nothing is driven.
const WORDS = /^(note|wording|priority|details\..*)$/;

/** Ids of the corners that are driven by something of each: neither window has seen what they lead to. */
export function mixedCorners({ mine, theirs }: Conflict, chosen: ReferenceContent): string[] {
  const [m, t, c] = [partsOf(mine), partsOf(theirs), partsOf(chosen)];
  const from = (side: Map<string, Part>, other: Map<string, Part>) =>
    new Set(
      [...new Map([...m, ...t]).values()]
        .filter(({ key, corner, kind, name }) => {
          const [is, was, not] = [c, side, other].map((all) => told({ kind, value: all.get(key)?.value }));
          return corner && kind !== 'byHand' && !WORDS.test(name) && same(is, was) && !same(is, not);
        })
        .map((p) => p.corner),
    );
  const own = from(m, t);
  return [...from(t, m)].filter((corner) => own.has(corner));
}

/**
 * Both together: what one window changed stands as that has it, what both did as chosen, mine where
 * nothing was. Corners of which something came from each must be answered anew.
 */
export function together(conflict: Conflict, chosen: Record<string, Side>): ReferenceContent {
  const { base, mine, theirs } = conflict;
  const [b, m, t] = [base && partsOf(base), partsOf(mine), partsOf(theirs)];
  const parts = new Map<string, unknown>();
  for (const { key, kind } of new Map([...t, ...m]).values()) {
    const [was, is, other] = [b?.get(key), m.get(key), t.get(key)].map((p) => told({ kind, value: p?.value }));
    // Where nobody knows what both started from, what one of them has stands.
    const onlyTheirs = b ? same(is, was) : is === undefined;
    const side: Side = chosen[key] ?? (onlyTheirs && !same(is, other) ? 'theirs' : 'mine');
    const value = (side === 'mine' ? m : t).get(key)?.value;
    if (value !== undefined) parts.set(key, value);
  }
  const of = (kind: Part['kind'], corner: string) =>
    [...parts].filter(([key]) => key.startsWith(`${kind}/${corner}/`)).map(([key, value]) => ({ key, value }));
  const corners = theirs.corners.map((other): CornerEntry => {
    const own = mine.corners.find((e) => e.corner === other.corner);
    if (!own) return other;
    const fields: Record<string, unknown> = {};
    const details: Record<string, unknown> = {};
    for (const { key, value } of of('field', other.corner)) {
      const name = key.slice(`field/${other.corner}/`.length);
      if (name.startsWith('details.')) details[name.slice('details.'.length)] = value;
      else fields[name] = value;
    }
    const computed = Object.fromEntries(Object.entries(own).filter(([name]) => COMPUTED.has(name)));
    return {
      ...computed,
      ...fields,
      corner: other.corner,
      details,
      points: of('point', other.corner).map((p) => p.value as CornerPoint),
      actions: of('action', other.corner).map((p) => p.value as CornerEntry['actions'][number]),
    } as CornerEntry;
  });
  const days = [...new Set([...theirs.variants, ...mine.variants].map((v) => v.id))].filter((id) =>
    parts.has(`day//${id}`),
  );
  const variants = days.map((id): Variant => ({
    ...(parts.get(`day//${id}`) as Pick<Variant, 'kind' | 'name' | 'day'>),
    id,
    entries: theirs.corners
      .map((e) => parts.get(`byHand/${e.corner}/${id}`) as Variant['entries'][number] | undefined)
      .filter((h) => h !== undefined),
  }));
  const gates = of('gate', '').map((g) => g.value as Gate);
  const opened = (parts.get('opened//opened') as string[] | undefined) ?? [];
  const pace = parts.get('pace//pace') as ReferenceContent['pace'];
  return {
    ...mine,
    corners,
    variants,
    pace,
    use: gates.length || opened.length ? { opened, gates } : undefined,
  };
}
