import { describe, expect, it } from 'vitest';
import { disagrees, drivenAs, lanes, MOVES, PARTS, WHEELS } from './balance';
import { balance, pushing } from '../../testing/made';

const told = balance({
  from: 980,
  front: [0.2, 0.5, 0.9, 1.0, 0.9],
  rear: [0.4, 0.5, 0.7, 0.8, 0.95],
  entry: pushing(986),
  middle: pushing(989),
  exit: pushing(2),
});

describe('what is felt', () => {
  it('is held against what is computed, but not far from the limit', () => {
    expect(disagrees('PUSHES', 'pushes')).toBe(false);
    expect(disagrees('PUSHES', 'turns')).toBe(true);
    expect(disagrees('EVEN', 'turns')).toBe(true);
    expect(disagrees('FREE', 'turns')).toBe(false);
    expect(disagrees('TURNS', undefined)).toBe(false);
  });
});

describe('the drawing of a balance', () => {
  const drawn = lanes(told, 990, 300, 100);

  it('fills where the rear uses more and hatches where the front does', () => {
    expect(drawn.pushes).toHaveLength(1);
    // Alone at the ends, a place has no area.
    expect(drawn.turns).toHaveLength(0);
  });

  it('finds a station past the line of the lap', () => {
    expect(drawn.x(2)).toBeCloseTo(286, 0);
    expect(drawn.x(986)).toBeCloseTo(150, 0);
  });

  it('draws more use higher, and the limit between', () => {
    const heights = [...drawn.front.matchAll(/ ([\d.]+)/g)].map((m) => Number(m[1]));
    expect(heights[3]).toBeLessThan(heights[0] ?? 0);
    expect(heights[3]).toBeCloseTo(drawn.limit, 0);
  });

  it('has words for every part and every move', () => {
    expect(PARTS.map((p) => told[p.part].words).join()).toContain('pushes');
    for (const m of told.moves) expect(MOVES[m.what].every((w) => w.length > 2)).toBe(true);
  });
});

describe('what a driver does in place of a step', () => {
  const step = (entry: number) => ({ what: 'BRAKES' as const, entry, middle: 0, exit: 0, corner: 0, lap: 0 });

  it('is as much less brake as the step turns', () => {
    // Ten points more brake turn by 0.05 here.
    expect(drivenAs(told, step(0.02))).toBe('4 % less brake while turning');
    expect(drivenAs(told, step(-0.01))).toBe('2 % more brake while turning');
    expect(drivenAs(told, step(0.003))).toBe('less than 1 % less brake while turning');
  });

  it('is nothing where no foot does that, or it is not braked on the way in', () => {
    expect(drivenAs(told, step(0.0004))).toBeNull();
    expect(drivenAs(told, step(0.5))).toBeNull();
    expect(drivenAs({ ...told, moves: [] }, step(0.02))).toBeNull();
    expect(drivenAs({ ...told, moves: [{ what: 'TRAIL', entry: 0, middle: 0, exit: 0 }] }, step(0.02))).toBeNull();
  });

  it('names the wheels in the order in which they are told', () => {
    expect(WHEELS.map((w) => w.is)).toEqual(['INNER_FRONT', 'OUTER_FRONT', 'INNER_REAR', 'OUTER_REAR']);
  });
});
