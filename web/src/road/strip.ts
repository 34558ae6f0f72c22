import type { Corner, RoadView } from '../api/api';

/** A value of a closed column at any station, by straight lines between the samples. */
export function sampleAt(values: number[], step: number, length: number, station: number): number {
  const n = values.length;
  const wrapped = ((station % length) + length) % length;
  const at = wrapped / step;
  const i = Math.min(Math.floor(at), n - 1);
  const a = values[i] ?? 0;
  const b = values[(i + 1) % n] ?? a;
  return a + (b - a) * Math.min(1, at - i);
}

/**
 * How far the lap strip swings to the left (+) or right (−) at a station, as a share of its greatest
 * swing: each corner is a bump of its own side, its height by its angle.
 */
export function swing(corners: Corner[], length: number, station: number): number {
  let sum = 0;
  for (const c of corners) {
    const span = (c.exit - c.entry + length) % length;
    const middle = c.entry + span / 2;
    const half = Math.max(span / 2 + 25, 40);
    let away = (station - middle) % length;
    if (away > length / 2) away -= length;
    if (away < -length / 2) away += length;
    const share = Math.abs(away) / half;
    if (share >= 1) continue;
    const height = 0.35 + 0.65 * Math.min(1, c.angle / 1.9);
    sum += (c.left ? 1 : -1) * height * Math.cos((share * Math.PI) / 2) ** 2;
  }
  return Math.max(-1, Math.min(1, sum));
}

/**
 * Where stations lie along a strip: even where there is room, opened up where corners stand closer than `least`, at the
 * cost of the longer stretches between others. Order is kept, and both ends stay.
 *
 * @param places stations that must stand apart, each within the length
 * @param width of the strip from station 0 to the length
 */
export function opened(places: number[], length: number, width: number, least: number): (station: number) => number {
  const knots = [0, ...[...places].sort((a, b) => a - b), length];
  const even = (s: number) => (s / length) * width;
  const inner = (i: number) => i > 0 && i < knots.length - 2;
  const gaps = knots.slice(1).map((k, i) => even(k - (knots[i] ?? 0)));
  const wanted = gaps.map((_, i) => (inner(i) ? least : 0.3 * least));
  const lack = gaps.reduce((sum, g, i) => sum + Math.max(0, (wanted[i] ?? 0) - g), 0);
  if (lack === 0) return even;
  const spare = gaps.reduce((sum, g, i) => sum + Math.max(0, g - (wanted[i] ?? 0)), 0);
  // With more corners than fit, what there is is shared out evenly.
  const tight = lack > spare ? width / wanted.reduce((sum, w) => sum + w, 0) : 1;
  const given = gaps.map((g, i) => {
    const w = wanted[i] ?? 0;
    return tight < 1 ? w * tight : g < w ? w : w + (g - w) * (1 - lack / spare);
  });
  const at = [0];
  for (const g of given) at.push((at[at.length - 1] ?? 0) + g);
  return (s) => {
    let i = 0;
    while (i < knots.length - 2 && s > (knots[i + 1] ?? 0)) i++;
    const a = knots[i] ?? 0;
    const b = knots[i + 1] ?? length;
    const share = b > a ? (s - a) / (b - a) : 0;
    return (at[i] ?? 0) + share * (given[i] ?? 0);
  };
}

/** Pixels beside the lap on its strip, and between the numbers of two corners. */
const BESIDE = 14;
const APART = 22;

/** The station in the middle of a corner. */
export function middleOf(corner: Corner, length: number): number {
  return (corner.entry + ((corner.exit - corner.entry + length) % length) / 2) % length;
}

/** Where stations lie on the strip of a lap, in pixels: all that stands under one another uses this. */
export function lapAcross(corners: Corner[], length: number, width: number): (station: number) => number {
  const middles = corners.map((c) => middleOf(c, length));
  const at = opened(middles, length, width - 2 * BESIDE, APART);
  return (s) => BESIDE + at(s);
}

/** The compass needle at a station: degrees clockwise from "ahead" to north. */
export function northFrom(road: RoadView, station: number): number {
  const i = Math.round(station / road.step) % road.heading.length;
  const heading = road.heading[i] ?? 0;
  return -(90 - (heading * 180) / Math.PI);
}

/** Outline {x, y} of a piece of road with its edges, for plan drawings. */
export function edges(
  road: RoadView,
  from: number,
  to: number,
): { left: [number, number][]; right: [number, number][] } {
  const left: [number, number][] = [];
  const right: [number, number][] = [];
  const n = road.x.length;
  const first = Math.floor(from / road.step);
  const last = Math.ceil(to / road.step);
  for (let k = first; k <= last; k++) {
    const i = ((k % n) + n) % n;
    const x = road.x[i] ?? 0;
    const y = road.y[i] ?? 0;
    const h = road.heading[i] ?? 0;
    const l = road.left[i] ?? 5;
    const r = road.right[i] ?? 5;
    left.push([x - l * Math.sin(h), y + l * Math.cos(h)]);
    right.push([x + r * Math.sin(h), y - r * Math.cos(h)]);
  }
  return { left, right };
}

/** An SVG path through points. */
export function pathOf(points: [number, number][], close = false): string {
  let d = '';
  for (const [x, y] of points) {
    d += `${d ? 'L' : 'M'}${Math.round(x * 10) / 10},${Math.round(y * 10) / 10}`;
  }
  return close ? `${d}Z` : d;
}
