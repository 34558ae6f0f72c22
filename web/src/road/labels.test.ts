import { describe, expect, it } from 'vitest';
import { placeLabels, type Label } from './labels';

function overlaps(labels: Label[], rows: number, right: number): boolean {
  const placed = placeLabels(labels, rows, right);
  return placed.some((a, i) =>
    placed.some(
      (b, j) => i < j && a.row === b.row && a.x < b.x + (labels[j]?.width ?? 0) && b.x < a.x + (labels[i]?.width ?? 0),
    ),
  );
}

describe('labels of flags', () => {
  it('keeps the wish where there is room', () => {
    expect(
      placeLabels(
        [
          { x: 10, width: 40 },
          { x: 200, width: 40 },
        ],
        3,
        600,
      ),
    ).toEqual([
      { row: 0, x: 14 },
      { row: 0, x: 204 },
    ]);
  });

  it('never lets two cover each other, however close their stems', () => {
    const close = [300, 304, 306, 310, 311, 312, 500].map((x) => ({ x, width: 90 }));
    expect(overlaps(close, 3, 900)).toBe(false);
    expect(overlaps(close, 2, 900)).toBe(false);
  });

  it('stays inside the drawing at its right edge', () => {
    const [only] = placeLabels([{ x: 590, width: 80 }], 3, 600);
    expect((only?.x ?? 0) + 80).toBeLessThanOrEqual(600);
  });
});
