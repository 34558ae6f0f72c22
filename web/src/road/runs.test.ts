import { describe, expect, it } from 'vitest';
import type { LapLine, TraceView } from '../api/api';
import { behind, best, onStations, stationAt, typedTime } from './runs';

const trace = (step: number, times: number[]): TraceView =>
  ({ step, times, speed: times.slice(1).map(() => 10), lapTime: times[times.length - 1] }) as TraceView;

describe('laps against each other', () => {
  it('says how far one is behind, also on other steps', () => {
    const first = trace(10, [0, 1, 2, 3, 4]);
    const second = trace(5, [0, 0.6, 1.2, 1.8, 2.4, 3, 3.6, 4.2, 4.8]);
    const late = behind(first, second);
    expect(late).toHaveLength(4);
    expect(late[0]).toBeCloseTo(0);
    expect(late[3]).toBeCloseTo(0.6);
  });

  it('finds where a lap is at a moment', () => {
    const t = trace(10, [0, 1, 2, 4, 5]);
    expect(stationAt(t, 0)).toBe(0);
    expect(stationAt(t, 1.5)).toBeCloseTo(15);
    expect(stationAt(t, 3)).toBeCloseTo(25);
    expect(stationAt(t, 99)).toBeCloseTo(40);
  });

  it('leaves a column alone that fits already', () => {
    const v = [1, 2, 3];
    expect(onStations(v, 2, 2, 3)).toBe(v);
    expect(onStations([0, 10, 20], 10, 5, 4)).toEqual([0, 5, 10, 15]);
  });
});

describe('lap times as typed', () => {
  it.each([
    ['1:43.52', 103.52],
    ['1:43,52', 103.52],
    ['0:59.9', 59.9],
    ['103.5', 103.5],
  ])('%s', (text, seconds) => expect(typedTime(text)).toBeCloseTo(seconds));
  it.each(['', 'fast', '1:2:3', '-5', '1:'])('refuses %s', (text) => expect(typedTime(text)).toBeNull());
});

it('the best lap is the quickest that counts and was measured', () => {
  const lap = (id: string, lapTime: number, counts: boolean, measured = true) =>
    ({ id, lapTime, counts, measured }) as LapLine;
  expect(best([lap('a', 90, false), lap('b', 92, true), lap('c', 91, true), lap('d', 80, true, false)])?.id).toBe('c');
  expect(best([])).toBeUndefined();
});
