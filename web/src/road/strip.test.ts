import { describe, expect, it } from 'vitest';
import type { Corner, RoadView } from '../api/api';
import { edges, northFrom, opened, sampleAt, swing } from './strip';

const corner = (entry: number, exit: number, left: boolean): Corner => ({
  id: 'c1',
  number: '1',
  name: '',
  left,
  entry,
  exit,
  apexes: [(entry + exit) / 2],
  radius: 40,
  doubt: 0,
  angle: 1.5,
  kind: 'BEND',
  complex: 0,
  uncounted: false,
});

const road: RoadView = {
  step: 10,
  length: 40,
  x: [0, 10, 20, 30],
  y: [0, 0, 0, 0],
  heading: [0, 0, 0, 0],
  curvature: [0, 0, 0, 0],
  height: [0, 0, 0, 0],
  left: [4, 4, 4, 4],
  right: [6, 6, 6, 6],
  hasHeight: false,
  hasWidth: true,
};

describe('the lap unrolled', () => {
  it('swings to the side the corner turns to and is straight far from it', () => {
    expect(swing([corner(500, 600, true)], 4000, 550)).toBeGreaterThan(0.5);
    expect(swing([corner(500, 600, false)], 4000, 550)).toBeLessThan(-0.5);
    expect(swing([corner(500, 600, true)], 4000, 1500)).toBe(0);
  });

  it('swings across the start/finish line too', () => {
    expect(swing([corner(3980, 40, true)], 4000, 5)).toBeGreaterThan(0.5);
  });

  it('reads between samples and round the end', () => {
    expect(sampleAt([0, 10, 20, 30], 10, 40, 15)).toBe(15);
    expect(sampleAt([0, 10, 20, 30], 10, 40, 35)).toBe(15);
    expect(sampleAt([0, 10, 20, 30], 10, 40, -5)).toBe(15);
  });

  it('points to north: to the left when driving east', () => {
    expect(northFrom(road, 0)).toBe(-90);
  });

  it('puts the left edge to the left', () => {
    const e = edges(road, 0, 10);
    expect(e.left[0]).toEqual([0, 4]);
    expect(e.right[0]).toEqual([0, -6]);
  });
});

describe('a strip with many corners', () => {
  it('is even where there is room', () => {
    const at = opened([100, 500, 900], 1000, 500, 22);
    expect([0, 250, 500, 1000].map(at)).toEqual([0, 125, 250, 500]);
  });

  it('opens up where corners stand close, keeps order and both ends', () => {
    const places = [100, 110, 120, 130, 800];
    const at = opened(places, 1000, 500, 22);
    const x = places.map(at);
    for (let i = 1; i < x.length; i++) expect((x[i] ?? 0) - (x[i - 1] ?? 0)).toBeGreaterThanOrEqual(22 - 1e-9);
    expect(at(0)).toBe(0);
    expect(at(1000)).toBeCloseTo(500, 9);
    const all = Array.from({ length: 1001 }, (_, s) => at(s));
    for (let i = 1; i < all.length; i++) expect((all[i] ?? 0) - (all[i - 1] ?? 0)).toBeGreaterThan(0);
  });

  it('shares out what there is where all of them do not fit', () => {
    const places = Array.from({ length: 62 }, (_, i) => 10 + i * 5);
    const at = opened(places, 21000, 900, 22);
    const x = places.map(at);
    for (let i = 1; i < x.length; i++) expect((x[i] ?? 0) - (x[i - 1] ?? 0)).toBeGreaterThan(900 / 62 - 0.5);
  });
});
