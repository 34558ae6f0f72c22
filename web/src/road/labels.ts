export interface Label {
  x: number;
  width: number;
}

export interface Placed {
  row: number;
  x: number;
}

/**
 * Gives each label a row and a left edge so that none covers another: the upper rows first, each
 * label to the right of its stem, or to the left where the drawing ends. A label that fits in no row
 * slides right in the one where it moves least.
 */
export function placeLabels(labels: Label[], rows: number, right: number, gap = 8): Placed[] {
  const taken: { from: number; to: number }[][] = Array.from({ length: rows }, () => []);
  const order = labels.map((_, i) => i).sort((a, b) => (labels[a]?.x ?? 0) - (labels[b]?.x ?? 0));
  const placed: Placed[] = labels.map(() => ({ row: 0, x: 0 }));
  for (const i of order) {
    const label = labels[i];
    if (!label) continue;
    const wish = Math.max(0, Math.min(label.x + 4, right - label.width));
    let best: { row: number; x: number; cost: number } | null = null;
    for (let row = 0; row < rows; row++) {
      const x = (taken[row] ?? []).reduce(
        (at, t) => (at < t.to + gap && at + label.width + gap > t.from ? t.to + gap : at),
        wish,
      );
      const cost = (x - wish) * 2 + row * 6 + Math.max(0, x + label.width - right) * 20;
      if (!best || cost < best.cost) best = { row, x, cost };
    }
    if (!best) continue;
    placed[i] = { row: best.row, x: best.x };
    taken[best.row]?.push({ from: best.x, to: best.x + label.width });
    taken[best.row]?.sort((a, b) => a.from - b.from);
  }
  return placed;
}

/** Width of a text at 12 px in the interface's face, near enough to keep labels apart. */
export const textWidth = (text: string, size = 12): number => text.length * size * 0.47 + 4;
