import { newId } from '../kit/id';
import kinds from './kinds.json';
import type { Corner, Kerb, Landmark, Place, Severity, Things, TrackLimit, Zone } from '../api/api';
import { few } from '../words/few';
import { ours, tell } from '../words/tell';

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
  zones: Record<ZoneKind, { word: string; ground: boolean }>;
};
const LABELS: Partial<Record<LandmarkKind, string>> = { BOARD: '100', OTHER: tell('things.mark') };

const each = <K extends string, A, B>(of: Record<K, A>, to: (value: A, kind: K) => B) =>
  Object.fromEntries(Object.entries<A>(of).map(([k, v]) => [k, to(v, k as K)])) as Record<K, B>;

export const LANDMARKS: Record<LandmarkKind, LandmarkDefaults> = each(USUAL.landmarks, (usual, kind) => ({
  ...usual,
  word: ours(usual.word),
  label: LABELS[kind] ?? '',
}));

export const PERMANENCE: Record<Landmark['permanence'], string> = each(USUAL.permanence, (word) => ours(word));

/** `ground`: the road itself is otherwise there, and drawn so under all else. */
export const ZONES: Record<ZoneKind, { word: string; ground: boolean }> = each(USUAL.zones, (zone) => ({
  ...zone,
  word: ours(zone.word),
}));

export const PROFILES: Record<KerbProfile, string> = {
  FLAT: tell('things.flat'),
  RAMP: tell('things.ramp'),
  CROWN: tell('things.highest_in_the_middle'),
  SERRATED: tell('things.serrated'),
  SAUSAGE: tell('things.sausage'),
  STEP: tell('things.step_behind'),
};

export const VERDICTS: Record<Kerb['verdict'], string> = {
  OPEN: tell('things.not_decided'),
  KEEP_OFF: tell('things.keep_off'),
  TOUCH: tell('things.touch'),
  RIDE: tell('things.ride'),
  HALF_THE_CAR: tell('things.half_the_car'),
  STRADDLE: tell('things.straddle'),
};

export const BEHIND: Record<Kerb['behind'], string> = {
  TARMAC: tell('things.tarmac'),
  GRASS: tell('things.grass'),
  TURF: tell('things.artificial_turf'),
  GRAVEL: tell('things.gravel'),
  DROP: tell('things.drop'),
  WALL: tell('things.wall'),
};

/** What a kerb does to the vehicle that rides it. */
export const DOES: Record<Kerb['does'][number], string> = {
  TURNS: tell('things.turns_it'),
  PUSHES: tell('things.pushes_it_wide'),
  LOCKS: tell('things.locks_a_wheel'),
  LAUNCHES: tell('things.throws_it'),
};

export const PLACES: Record<PlaceKind, string> = {
  PIT_ENTRY: tell('things.pit_entry'),
  PIT_EXIT: tell('things.pit_exit'),
  MARSHAL_POST: tell('things.marshal_post'),
  PASS: tell('things.place_to_pass'),
  DEFEND: tell('things.place_to_defend'),
  INSTRUMENTS: tell('things.look_at_the_instruments'),
};

export const LIMIT_LINES: Record<TrackLimit['line'], string> = {
  WHITE_LINE: tell('things.white_line'),
  KERB_INNER: tell('things.inner_edge_of_the_kerb'),
  KERB_OUTER: tell('things.outer_edge_of_the_kerb'),
  TARMAC: tell('things.edge_of_the_tarmac'),
  NONE: tell('things.no_limit'),
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
    return l.kind === 'BOARD' ? tell('things.board', { label: l.label }) : l.label || word;
  }
  if (sort === 'kerbs') return tell('things.kerb', { part: few((thing as Kerb).part) });
  if (sort === 'zones') return ZONES[(thing as Zone).kind].word;
  if (sort === 'severities') return ZONES[(thing as Severity).kind].word;
  if (sort === 'limits') return tell('things.limit', { part: few((thing as TrackLimit).part) });
  const p = thing as Place;
  return p.label ? `${PLACES[p.kind]} ${p.label}` : PLACES[p.kind];
}
