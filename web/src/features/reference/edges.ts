import type { Corner, EdgeView } from '../../api/api';
import { apart } from '../../road/points';

/** An edge as it lies on a drawing of a corner: x of its ends, and how far it reaches out. */
export interface Drawn {
  edge: EdgeView;
  x1: number;
  x2: number;
  out: number;
}

/** The edges of a corner: those nearest to it, in the order of the lap. */
export const edgesOf = (edges: EdgeView[], corner: Corner): EdgeView[] => edges.filter((e) => e.corner === corner.id);

/** Stretch of road that a corner's edges and the corner itself take up, unrolled about its apex. */
export function windowOf(edges: EdgeView[], corner: Corner, length: number): [number, number] {
  const apex = corner.apexes[corner.apexes.length - 1] ?? corner.entry;
  const near = (s: number) => apex + apart(apex, s, length);
  const all = [near(corner.entry), near(corner.exit), ...edges.flatMap((e) => [near(e.from), near(e.to)])];
  return [Math.min(...all) - 10, Math.max(...all) + 10];
}

/**
 * Edges laid out on a drawing.
 *
 * @param most pixels for the one that reaches furthest
 */
export function lay(edges: EdgeView[], corner: Corner, length: number, width: number, most: number): Drawn[] {
  const [from, to] = windowOf(edges, corner, length);
  const apex = corner.apexes[corner.apexes.length - 1] ?? corner.entry;
  const x = (s: number) => ((apex + apart(apex, s, length) - from) / (to - from)) * width;
  const widest = Math.max(1, ...edges.map((e) => e.reach));
  return edges.map((edge) => ({
    edge,
    x1: x(edge.from),
    x2: Math.max(x(edge.to), x(edge.from) + 6),
    out: edge.reach > 0 ? Math.max(6, (edge.reach / widest) * most) : 6,
  }));
}

/** The use with an edge opened, or shut where it is open. */
export function toggled(opened: string[], edge: string): string[] {
  return opened.includes(edge) ? opened.filter((e) => e !== edge) : [...opened, edge];
}
