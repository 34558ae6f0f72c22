import { describe, expect, it, vi } from 'vitest';
import type { RoadView } from './api';
import { cornerAt, newKerb } from './things';
import { complete, getField, groupsOf, withField } from './vehicleFields';
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

describe('things', () => {
  const c = (id: string, entry: number, exit: number) => ({
    id,
    number: id,
    name: '',
    left: true,
    entry,
    apexes: [(entry + exit) / 2],
    exit,
    radius: 40,
    doubt: 0,
    angle: 1,
    kind: 'BEND' as const,
    complex: 0,
    uncounted: false,
  });
  const corners = [c('a', 100, 140), c('b', 300, 20)];

  it('belong to the corner they are in, or to the next one', () => {
    expect(cornerAt(corners, 400, 120)?.id).toBe('a');
    expect(cornerAt(corners, 400, 200)?.id).toBe('b');
    expect(cornerAt(corners, 400, 10)?.id).toBe('b');
    expect(cornerAt(corners, 400, 60)?.id).toBe('a');
  });

  it('a kerb on the inside is an apex kerb; outside it is entry or exit', () => {
    expect(newKerb(110, 130, true, corners[0], 400).part).toBe('APEX');
    expect(newKerb(90, 105, false, corners[0], 400).part).toBe('ENTRY');
    expect(newKerb(140, 170, false, corners[0], 400).part).toBe('EXIT');
  });
});

describe('fields of a vehicle', () => {
  const v = complete({
    kind: 'CAR',
    mass: 1000,
    width: 1.9,
    wheelbase: 2.5,
    cogHeight: 0.5,
    cogToFront: 1.2,
    engine: { curve: [], shiftRevs: 7000, limitRevs: 7200 },
    gearbox: { ratios: [3], finalDrive: 4, rollingRadius: 0.3, efficiency: 0.92, shiftTime: 0.1, drive: 'REAR' },
    tyres: { muX: 1.2, muY: 1.2, loadSensitivity: 0.05, rolling: 0.013 },
    aero: { cdA: 0.8, clA: 1 },
    brakes: { mostForce: 15000, frontShare: 0.6, engineBraking: 0.8 },
  });

  it('all lead to a number and back', () => {
    for (const f of groupsOf(v).flatMap((g) => g.fields)) {
      const next = withField(v, f.field, getField(v, f.field) + 1);
      expect(getField(next, f.field), f.field).toBeCloseTo(getField(v, f.field) + 1, 9);
      expect(Object.keys(next)).toEqual(Object.keys(v));
    }
  });

  it('leave out what the vehicle has not got', () => {
    const fields = groupsOf(v).flatMap((g) => g.fields.map((f) => f.field));
    expect(fields).not.toContain('leanLimit');
    expect(fields).not.toContain('boost.power');
    expect(fields).toContain('floor.rideHeight');
  });
});
