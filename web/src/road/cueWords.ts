import type { Cue, CueKind, Landmark, ScoredAction } from '../api/api';
import { apart } from './points';
import { LANDMARKS } from './things';
import { tell } from '../words/tell';

const SHARES: Record<string, number> = { half: 0.5, middle: 0.5, third: 1 / 3, quarter: 0.25, 'two-thirds': 2 / 3 };

const SMALL = ['the', 'of', 'at', 'to', 'an', 'and', 'when', 'past', 'before', 'way', 'along'];

const plainOf = (text: string) => text.toLowerCase().replace(/[^a-z0-9. %+-]+/g, ' ');

// Metres within which a thing can be meant.
const FAR = 300;

/** The landmark that words name, the nearest of several. */
function named(words: string[], landmarks: Landmark[], at: number, length: number): Landmark | undefined {
  const scored = landmarks.flatMap((l) => {
    const own = plainOf(`${l.label} ${l.kind}`).split(/\s+/);
    const hits = words.filter((w) => w.length > 1 && !SMALL.includes(w) && own.some((o) => o.startsWith(w))).length;
    const far = Math.abs(apart(l.station, at, length));
    return hits && far <= FAR ? [{ l, hits, far }] : [];
  });
  return scored.toSorted((a, b) => b.hits - a.hits || a.far - b.far)[0]?.l;
}

/** How a landmark is called, as the server says it. */
export const spokenOf = (l: Landmark): string =>
  l.kind === 'BOARD'
    ? tell('cueWords.the_board', { label: l.label })
    : l.kind === 'OTHER'
      ? l.label
      : l.label.trim()
        ? tell('cueWords.the', { label: l.label })
        : tell('cueWords.the_2', { kind: LANDMARKS[l.kind].word });

/**
 * A cue in a few words: "2 s limiter", "half wall", "barrier leaves", "pine in view", "5 m past post", "settled",
 * "0.5 s after braking". Null where nothing fits.
 *
 * @param at station of the action, to tell the nearest of several things
 */
export function cueFrom(
  text: string,
  landmarks: Landmark[],
  score: ScoredAction[],
  at: number,
  length: number,
): Cue | null {
  const plain = plainOf(text).trim();
  const words = plain.split(/\s+/).filter(Boolean);
  const has = (...any: string[]) => words.some((w) => any.some((a) => w.startsWith(a)));
  const number = Number(/-?\d+(\.\d+)?/.exec(plain)?.[0] ?? NaN);
  const cue = (kind: CueKind, n: number, thing?: Landmark, other = ''): Cue => ({
    kind,
    thing: thing?.id ?? '',
    spoken: thing ? spokenOf(thing) : '',
    other,
    otherSpoken: '',
    number: n,
  });
  if (has('settle')) return cue('SETTLED', 0);
  if (has('feel')) return cue('FEEL', 0);
  if (has('limit')) return cue('LIMITER', Number.isNaN(number) ? 1 : number);
  if (has('revs', 'rpm') && !Number.isNaN(number)) return cue('REVS', number);
  if (has('after') && !Number.isNaN(number)) {
    const kinds: [string, ScoredAction['action']['kind']][] = [
      ['brak', 'BRAKE'],
      ['lift', 'LIFT'],
      ['turn', 'HANDS'],
      ['hand', 'HANDS'],
      ['throttle', 'THROTTLE'],
      ['apex', 'APEX'],
      ['shift', 'SHIFT'],
    ];
    const kind = kinds.find(([w]) => has(w))?.[1];
    const before = score
      .filter((s) => s.action.kind === kind && apart(s.action.station, at, length) > -1)
      .toSorted((a, b) => apart(a.action.station, at, length) - apart(b.action.station, at, length))[0];
    return before ? cue('SECONDS', number, undefined, before.action.id) : null;
  }
  const thing = named(words, landmarks, at, length);
  if (!thing) return null;
  if (has('leave', 'out', 'gone', 'disappear')) return cue('OUT_OF_VIEW', 0, thing);
  if (has('view', 'see', 'appear', 'comes')) return cue('INTO_VIEW', 0, thing);
  if (has('beside', 'level', 'side')) return cue('BESIDE', 0, thing);
  const share = Object.entries(SHARES).find(([w]) => has(w))?.[1];
  if (share !== undefined) return cue('SHARE', share, thing);
  if (plain.includes('%') && !Number.isNaN(number)) return cue('SHARE', number / 100, thing);
  // A number that is the thing's own writing is no distance.
  const own = !Number.isNaN(number) && thing.label.includes(String(number)) && !/\d\s*m\b/.test(plain);
  if (Number.isNaN(number) || own) return cue('PAST', 0, thing);
  if (has('length', 'car')) return cue('LENGTHS', has('before') ? -Math.abs(number) : number, thing);
  return cue('PAST', has('before') ? -Math.abs(number) : number, thing);
}
