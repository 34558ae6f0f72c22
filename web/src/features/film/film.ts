import { get, keys, set } from 'idb-keyval';
import type { CornerEntry, PointKind, TraceView } from '../../api/api';
import { stationAt } from '../../road/runs';
import { tell } from '../../words/tell';

/** A moment that film and lap both show. */
export interface Mark {
  /** Seconds of the film. */
  film: number;
  /** Seconds of the lap. */
  lap: number;
}

/** How film and lap go together: t_lap = a + b · t_film. */
export interface Alignment {
  a: number;
  b: number;
}

/** Clocks of camera and logger differ by less than this; what differs by more is another lap, or a wrong mark. */
const DRIFT = 0.005;
// Two marks nearer than this tell no drift.
const APART = 5;

/**
 * The alignment by one or two marks.
 *
 * @returns null without a mark, a word of trouble where two do not belong to one lap
 */
export function aligned(marks: Mark[]): Alignment | string | null {
  const [one, two] = marks;
  if (!one) return null;
  if (!two || Math.abs(two.film - one.film) < APART) return { a: one.lap - one.film, b: 1 };
  const b = (two.lap - one.lap) / (two.film - one.film);
  if (!(Math.abs(b - 1) <= DRIFT)) return tell('film.the_two_marks_say_that', { off: ((1 / b - 1) * 100).toFixed(1) });
  return { a: one.lap - b * one.film, b };
}

export const lapTimeOf = (al: Alignment, film: number): number => al.a + al.b * film;
export const filmTimeOf = (al: Alignment, lap: number): number => (lap - al.a) / al.b;

/** Metres that go by in a frame. */
export const frameMetres = (speed: number, rate: number): number => speed / rate;

/** The usual rates of cameras, to which a measured one is brought. */
const RATES = [23.976, 24, 25, 29.97, 30, 50, 59.94, 60, 100, 119.88, 120, 240];

/** Frames a second from the times of frames shown; null with too few. */
export function rateOf(times: number[]): number | null {
  const steps = times
    .slice(1)
    .map((t, i) => t - (times[i] ?? 0))
    .filter((d) => d > 1e-4)
    .sort((x, y) => x - y);
  if (steps.length < 5) return null;
  // A frame may be left out, and none comes sooner: the short ones tell.
  const step = steps[Math.floor(steps.length * 0.3)] ?? 0;
  const rate = 1 / step;
  const near = RATES.reduce((best, r) => (Math.abs(r - rate) < Math.abs(best - rate) ? r : best));
  return Math.abs(near - rate) / near < 0.03 ? near : rate;
}

/** Seconds of the lap at a station. */
export function timeAt(trace: TraceView, station: number): number {
  const { times, step } = trace;
  const i = Math.max(0, Math.min(times.length - 1, Math.floor(station / step)));
  const next = times[i + 1] ?? trace.lapTime;
  return (times[i] ?? 0) + (station / step - i) * (next - (times[i] ?? 0));
}

/** Station at a time of the lap; null outside of it. */
export const stationIn = (trace: TraceView, time: number): number | null =>
  time >= 0 && time <= trace.lapTime ? stationAt(trace, time) : null;

/** The next point of the reference ahead of a place; null with none. */
export function nextPoint(
  entries: CornerEntry[],
  at: number,
  length: number,
): { corner: string; kind: PointKind; ahead: number } | null {
  const all = entries.flatMap((e) =>
    e.points.map((p) => ({ corner: e.corner, kind: p.kind, ahead: (((p.station - at) % length) + length) % length })),
  );
  return all.reduce<(typeof all)[number] | null>((best, p) => (best && best.ahead <= p.ahead ? best : p), null);
}

/** A film is known again by its name and size: the picture itself never leaves the disk. */
const keyOf = (lap: string, file: File) => tell('film.film', { lap, name: file.name, size: file.size });
export const keptMarks = async (lap: string, file: File): Promise<Mark[]> =>
  (await get<Mark[]>(keyOf(lap, file))) ?? [];
export const keepMarks = (lap: string, file: File, marks: Mark[]): Promise<void> => set(keyOf(lap, file), marks);

/** The laps that a film was lined up with, and how. */
export async function lapsOf(file: File): Promise<{ lap: string; alignment: Alignment }[]> {
  const end = ` ${file.name} ${file.size}`;
  const out: { lap: string; alignment: Alignment }[] = [];
  for (const key of await keys<string>()) {
    if (typeof key !== 'string' || !key.startsWith('film ') || !key.endsWith(end)) continue;
    const lap = key.slice('film '.length, key.length - end.length);
    const alignment = aligned((await get<Mark[]>(key)) ?? []);
    // A film whose name holds a blank may end like another one's.
    if (!lap.includes(' ') && alignment && typeof alignment === 'object') out.push({ lap, alignment });
  }
  return out;
}

/** How fast another film runs beside one, so that both are at one place, and whether it must be put there at once. */
export function follow(off: number, rate: number, ratio: number): { rate: number; jump: boolean } {
  // What is behind catches up within about a second; the eye takes that for one film.
  const wanted = rate * ratio * (1 + Math.max(-0.5, Math.min(0.5, off)));
  return { rate: Math.max(0.07, Math.min(4, wanted)), jump: Math.abs(off) > 1 };
}

/** A moment of a film in which the vehicle is at the line, or at a corner's apex. */
export interface Cut {
  /** Id of the corner; empty for the line. */
  at: string;
  film: number;
}

export interface Piece {
  from: string;
  to: string;
  seconds: number;
  /** By the plan; null where the two do not follow each other on the road. */
  planned: number | null;
}

/**
 * Pieces of a lap between cuts of its film, beside the plan's.
 *
 * @param order ids of the corners in driving order
 * @param plan seconds of the plan at each apex
 */
export function pieces(cuts: Cut[], order: string[], plan: Record<string, number>, lapTime: number): Piece[] {
  const sorted = [...cuts].sort((a, b) => a.film - b.film);
  const when = (id: string) => (id === '' ? 0 : plan[id]);
  return sorted.slice(1).map((c, i) => {
    const before = sorted[i] ?? c;
    const [from, to] = [when(before.at), when(c.at)];
    const known = from !== undefined && to !== undefined && [before.at, c.at].every((id) => !id || order.includes(id));
    const planned = known ? (to > from ? to - from : to - from + lapTime) : null;
    return { from: before.at, to: c.at, seconds: c.film - before.film, planned };
  });
}

/** Seconds of a computed lap at stations. */
export function planTimes(
  lap: { speed: number[]; step: number; lapTime: number },
  places: { id: string; station: number }[],
): Record<string, number> {
  const times = [0];
  for (let i = 0; i < lap.speed.length; i++) {
    const mean = ((lap.speed[i] ?? 1) + (lap.speed[(i + 1) % lap.speed.length] ?? 1)) / 2;
    times.push((times[i] ?? 0) + lap.step / Math.max(1, mean));
  }
  // The line driven is not as long as the middle of the road.
  const scale = lap.lapTime / (times.at(-1) ?? 1);
  return Object.fromEntries(
    places.map((p) => {
      const at = p.station / lap.step;
      const i = Math.min(times.length - 2, Math.floor(at));
      const from = times[i] ?? 0;
      return [p.id, (from + (at - i) * ((times[i + 1] ?? from) - from)) * scale];
    }),
  );
}

/** What is cut next: after the line the first corner, after the last one the line. */
export function nextCut(cuts: Cut[], order: string[]): string {
  const last = [...cuts].sort((a, b) => a.film - b.film).at(-1);
  if (!last) return '';
  return order[last.at === '' ? 0 : order.indexOf(last.at) + 1] ?? '';
}

const cutsOf = (file: File) => tell('film.cuts', { name: file.name, size: file.size });
export const keptCuts = async (file: File): Promise<Cut[]> => (await get<Cut[]>(cutsOf(file))) ?? [];
export const keepCuts = (file: File, cuts: Cut[]): Promise<void> => set(cutsOf(file), cuts);
