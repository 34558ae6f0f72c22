import { newId } from '../kit/id';
import kinds from './kinds.json';
import type { Corner, Kerb, Landmark, Place, Severity, Things, TrackLimit, Zone } from '../api/api';

export type Sort = keyof Things;
export type Thing = Landmark | Kerb | Zone | TrackLimit | Place | Severity;
export type LandmarkKind = Landmark['kind'];
export type ZoneKind = Zone['kind'];
export type PlaceKind = Place['kind'];
export type KerbProfile = Kerb['profile'];

export const SORTS: Sort[] = ['landmarks', 'kerbs', 'zones', 'limits', 'places', 'severities'];

export const nothing = (): Things => ({ landmarks: [], kerbs: [], zones: [], limits: [], places: [], severities: [] });

interface LandmarkDefaults {
  word: string;
  out: number;
  height: number;
  permanence: Landmark['permanence'];
  label: string;
}

/** Words and what is usual come from the server's core, which holds this file to be the same. */
const USUAL = kinds as {
  landmarks: Record<LandmarkKind, Omit<LandmarkDefaults, 'label'>>;
  permanence: Record<Landmark['permanence'], string>;
  zones: Record<ZoneKind, string>;
};
const LABELS: Partial<Record<LandmarkKind, string>> = { BOARD: '100', OTHER: 'mark' };

/** Zones that the road itself shows, drawn under the others. */
const GROUND: ZoneKind[] = ['SHADE', 'DAMP', 'STANDING_WATER', 'SURFACE_CHANGE', 'POLISHED', 'DIRTY_EDGE', 'DRAIN'];

const each = <K extends string, A, B>(of: Record<K, A>, to: (value: A, kind: K) => B) =>
  Object.fromEntries(Object.entries<A>(of).map(([k, v]) => [k, to(v, k as K)])) as Record<K, B>;

export const LANDMARKS: Record<LandmarkKind, LandmarkDefaults> = each(USUAL.landmarks, (usual, kind) => ({
  ...usual,
  label: LABELS[kind] ?? '',
}));

export const PERMANENCE = USUAL.permanence;

export const ZONES: Record<ZoneKind, { word: string; ground: boolean }> = each(USUAL.zones, (word, kind) => ({
  word,
  ground: GROUND.includes(kind),
}));

export const PROFILES: Record<KerbProfile, string> = {
  FLAT: 'flat',
  RAMP: 'ramp',
  CROWN: 'highest in the middle',
  SERRATED: 'serrated',
  SAUSAGE: 'sausage',
  STEP: 'step behind',
};

export const VERDICTS: Record<Kerb['verdict'], string> = {
  OPEN: 'not decided',
  KEEP_OFF: 'keep off',
  TOUCH: 'touch',
  RIDE: 'ride',
  HALF_THE_CAR: 'half the car',
  STRADDLE: 'straddle',
};

export const BEHIND: Record<Kerb['behind'], string> = {
  TARMAC: 'tarmac',
  GRASS: 'grass',
  TURF: 'artificial turf',
  GRAVEL: 'gravel',
  DROP: 'drop',
  WALL: 'wall',
};

/** What a kerb does to the vehicle that rides it. */
export const DOES: Record<Kerb['does'][number], string> = {
  TURNS: 'turns it',
  PUSHES: 'pushes it wide',
  LOCKS: 'locks a wheel',
  LAUNCHES: 'throws it',
};

export const PLACES: Record<PlaceKind, string> = {
  PIT_ENTRY: 'pit entry',
  PIT_EXIT: 'pit exit',
  MARSHAL_POST: 'marshal post',
  PASS: 'place to pass',
  DEFEND: 'place to defend',
  INSTRUMENTS: 'look at the instruments',
};

export const LIMIT_LINES: Record<TrackLimit['line'], string> = {
  WHITE_LINE: 'white line',
  KERB_INNER: 'inner edge of the kerb',
  KERB_OUTER: 'outer edge of the kerb',
  TARMAC: 'edge of the tarmac',
  NONE: 'no limit',
};

/** The corner that a station belongs to: inside it, or the next one ahead. */
export function cornerAt(corners: Corner[], length: number, station: number): Corner | undefined {
  const ahead = (from: number, to: number) => (((to - from) % length) + length) % length;
  return (
    corners.find((c) => ahead(c.entry, station) <= ahead(c.entry, c.exit)) ??
    [...corners].sort((a, b) => ahead(station, a.entry) - ahead(station, b.entry))[0]
  );
}

export function newLandmark(
  kind: LandmarkKind,
  station: number,
  left: boolean,
  corner: string,
  label = LANDMARKS[kind].label,
): Landmark {
  const usual = LANDMARKS[kind];
  return {
    id: newId(),
    kind,
    label,
    station,
    left,
    corner,
    out: usual.out,
    height: usual.height,
    permanence: usual.permanence,
    readable: true,
    noted: kind === 'SHADOW' ? new Date().toISOString() : undefined,
    note: '',
    photo: '',
    length: 0,
  };
}

export function newKerb(from: number, to: number, left: boolean, corner: Corner | undefined, length: number): Kerb {
  const ahead = (a: number, b: number) => (((b - a) % length) + length) % length;
  const middle = from + ahead(from, to) / 2;
  const span = corner ? ahead(corner.entry, corner.exit) : 1;
  const share = corner ? ahead(corner.entry - 60, middle) / (span + 120) : 0.5;
  return {
    id: newId(),
    left,
    from,
    to,
    corner: corner?.id ?? '',
    part: corner && left === corner.left ? 'APEX' : share < 0.5 ? 'ENTRY' : 'EXIT',
    profile: 'RAMP',
    width: 1,
    height: 0.05,
    behind: 'GRASS',
    slippery: false,
    verdict: 'OPEN',
    note: '',
    photo: '',
    does: [],
  };
}

export const newZone = (kind: ZoneKind, from: number, to: number, side: Zone['side']): Zone => ({
  id: newId(),
  kind,
  side,
  from,
  to,
  severity: 2,
  note: '',
  photo: '',
});

export const newPlace = (kind: PlaceKind, from: number, to: number, left: boolean): Place => ({
  id: newId(),
  kind,
  left,
  from,
  to,
  label: '',
  note: '',
});

export const newLimit = (corner: string, left: boolean): TrackLimit => ({
  id: newId(),
  corner,
  part: 'EXIT',
  left,
  line: 'WHITE_LINE',
  wheelsInside: 2,
  belongs: '',
  cost: '',
  breaches: [],
});

/** How a thing is called in a list. */
export function nameOf(sort: Sort, thing: Thing): string {
  if (sort === 'landmarks') {
    const l = thing as Landmark;
    const word = LANDMARKS[l.kind].word;
    return l.kind === 'BOARD' ? `${l.label} board` : l.label || word;
  }
  if (sort === 'kerbs') return `${(thing as Kerb).part.toLowerCase()} kerb`;
  if (sort === 'zones') return ZONES[(thing as Zone).kind].word;
  if (sort === 'severities') return ZONES[(thing as Severity).kind].word;
  if (sort === 'limits') return `${(thing as TrackLimit).part.toLowerCase()} limit`;
  const p = thing as Place;
  return p.label ? `${PLACES[p.kind]} ${p.label}` : PLACES[p.kind];
}
