/** Seconds lost over an amount or a place, as points to be drawn and as what they span. */
export interface LossCurve<T> {
  told: (T & { s: number | null })[];
  made: (T & { s: number })[];
  /** Pixels down from the top of the drawing at so many seconds. */
  y: (s: number) => number;
  path: (x: (p: T) => number) => string;
}

/** Less than so much is drawn as if it were so much: hundredths are not made a mountain. */
const SEEN = 0.05;

/**
 * The curve of what is told.
 *
 * @param seconds null where the corner is not made
 * @param top pixel of the least
 * @param height pixels from the least to the most
 */
export function lossCurve<T extends object>(
  places: T[],
  seconds: (number | null)[],
  top: number,
  height: number,
): LossCurve<T> {
  const told = places.map((p, k) => ({ ...p, s: seconds[k] ?? null }));
  const made = told.filter((p): p is T & { s: number } => p.s !== null);
  const most = Math.max(SEEN, ...made.map((p) => p.s));
  const least = Math.min(0, ...made.map((p) => p.s));
  const y = (s: number) => top + ((s - least) / (most - least)) * height;
  return {
    told,
    made,
    y,
    path: (x) => made.map((p, k) => `${k ? 'L' : 'M'}${x(p)} ${y(p.s)}`).join(''),
  };
}
