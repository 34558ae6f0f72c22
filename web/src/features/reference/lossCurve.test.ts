import { describe, expect, it } from 'vitest';
import { lossCurve } from './lossCurve';

describe('the curve of seconds lost', () => {
  const at = (...m: number[]) => m.map((x) => ({ x }));

  it('spans from nothing to the most, gains upwards', () => {
    const c = lossCurve(at(-1, 0, 1), [0.4, 0, -0.1], 10, 50);
    expect(c.y(-0.1)).toBe(10);
    expect(c.y(0)).toBeCloseTo(20);
    expect(c.y(0.4)).toBe(60);
  });

  it('draws hundredths as hundredths', () => {
    const c = lossCurve(at(0, 1), [0, 0.01], 0, 50);
    expect(c.y(0.01)).toBeCloseTo(10);
  });

  it('leaves out where the corner is not made', () => {
    const c = lossCurve(at(0, 1, 2), [0, null, 0.1], 0, 10);
    expect(c.made.map((p) => p.x)).toEqual([0, 2]);
    expect(c.told[1]?.s).toBeNull();
    expect(c.path((p) => p.x * 5)).toBe('M0 0L10 10');
  });
});
