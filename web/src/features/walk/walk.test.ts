import { describe, expect, it, vi } from 'vitest';
import type { RoadView } from '../../api/api';
import { onRoad, simulatedWalker, type Fix } from './walk.svelte';

const PLACE = { latitude: 40, longitude: -8, altitude: 0, eastPerDegree: 85_000, northPerDegree: 111_000 };

/** A lap of two straights of 200 m side by side, 20 m apart, joined by jumps no walker notices. */
function road(): RoadView {
  const n = 200;
  const x = Array.from({ length: n }, (_, i) => (i < 100 ? i * 2 : (199 - i) * 2));
  const y = Array.from({ length: n }, (_, i) => (i < 100 ? 0 : 20));
  const heading = Array.from({ length: n }, (_, i) => (i < 100 ? 0 : Math.PI));
  const five = Array.from({ length: n }, () => 5);
  const zero = Array.from({ length: n }, () => 0);
  return {
    step: 2,
    length: 400,
    x,
    y,
    heading,
    curvature: zero,
    height: zero,
    left: five,
    right: five,
    hasHeight: false,
    hasWidth: true,
  };
}
const fix = (x: number, y: number): Fix => ({
  latitude: PLACE.latitude + y / PLACE.northPerDegree,
  longitude: PLACE.longitude + x / PLACE.eastPerDegree,
  accuracy: 3,
});

describe('a walker on the road', () => {
  it('is found with station and offset', () => {
    const at = onRoad(road(), PLACE, fix(51, 3), null);
    expect(at?.station).toBeCloseTo(51, 1);
    expect(at?.offset).toBeCloseTo(3, 1);
  });

  it('does not jump to the other straight where they pass close', () => {
    const near = onRoad(road(), PLACE, fix(60, 12), 58);
    expect(near?.station).toBeCloseTo(60, 0);
  });

  it('is nowhere when far from the circuit', () => {
    expect(onRoad(road(), PLACE, fix(4000, 12), null)).toBeNull();
  });

  it('can be simulated, walking on at its speed', () => {
    vi.useFakeTimers();
    const seen: number[] = [];
    const stop = simulatedWalker(road(), PLACE, 10, 7, 400).start(
      (f) => seen.push(onRoad(road(), PLACE, f, seen[seen.length - 1] ?? 10)?.station ?? -1),
      () => undefined,
    );
    vi.advanceTimersByTime(4000);
    stop();
    vi.advanceTimersByTime(4000);
    expect(seen).toHaveLength(11);
    expect(seen[10]).toBeCloseTo(10 + 11 * 2.8, 0);
    vi.useRealTimers();
  });
});
