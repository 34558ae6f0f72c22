// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Person } from '../api/api';
import { typing } from '../kit/keys';
import { bandPoints, typedTime } from '../road/runs';
import { session } from '../api/session.svelte';
import { inverse, merges, touchedBy, withStep, type Step } from '../features/survey/steps';
import { nothing } from '../road/things';
import { fromLength, inLength, inSpeed, metres, speedText } from '../words/units';
import { cornerWord } from '../words/words';

const person = (over: Partial<Person>) => {
  session.person = { length: 'M', speed: 'KMH', corners: 'NUMBERS', ...over } as Person;
};
beforeEach(() => person({}));
afterEach(() => (session.person = null));

describe('units as the driver chose them', () => {
  it('shows feet and yards by their definition', () => {
    // NIST SP 811, App. B: 1 ft = 0.3048 m, 1 yd = 0.9144 m, 1 mile = 1609.344 m.
    person({ length: 'FT' });
    expect(inLength(0.3048)).toBeCloseTo(1, 12);
    expect(metres(30.48)).toBe('100 ft');
    person({ length: 'YD' });
    expect(metres(91.44)).toBe('100 yd');
    for (const m of [0, 1, -7.5, 812.3]) expect(fromLength(inLength(m))).toBeCloseTo(m, 9);
  });

  it('shows miles an hour', () => {
    person({ speed: 'MPH' });
    expect(inSpeed(1609.344 / 3600)).toBeCloseTo(1, 12);
    expect(speedText(44.704)).toBe('100 mph');
  });

  it('says both units where one reads both, and counts in the first', () => {
    person({ speed: 'MPH_KMH' });
    expect(speedText(44.704)).toBe('100 mph (161 km/h)');
    expect(inSpeed(44.704)).toBeCloseTo(100, 9);
    person({ speed: 'KMH_MPH' });
    expect(speedText(93 / 3.6)).toBe('93 km/h (58 mph)');
    expect(inSpeed(10)).toBeCloseTo(36, 12);
  });
});

describe('what a corner is called', () => {
  const c = { number: '5A', name: 'The Bowl' };
  it('follows the driver, and falls back where there is no name', () => {
    expect(cornerWord(c)).toBe('5A');
    person({ corners: 'NAMES' });
    expect(cornerWord(c)).toBe('The Bowl');
    expect(cornerWord({ number: '6', name: '' })).toBe('6');
    person({ corners: 'BOTH' });
    expect(cornerWord(c)).toBe('5A The Bowl');
    expect(cornerWord({ number: '', name: '' })).toBe('kink');
  });
});

describe('keys', () => {
  const press = (html: string, pick: string) => {
    document.body.innerHTML = html;
    let seen: boolean | null = null;
    const target = document.querySelector(pick) as HTMLElement;
    target.addEventListener('keydown', (e) => (seen = typing(e)));
    target.dispatchEvent(new KeyboardEvent('keydown', { key: 'b' }));
    return seen;
  };
  it('never act while somebody types or a dialog is open', () => {
    expect(press('<input type="text">', 'input')).toBe(true);
    expect(press('<textarea></textarea>', 'textarea')).toBe(true);
    expect(press('<select></select>', 'select')).toBe(true);
    expect(press('<dialog open><button>x</button></dialog>', 'button')).toBe(true);
  });
  it('act on buttons, boxes and drawings', () => {
    expect(press('<button>x</button>', 'button')).toBe(false);
    expect(press('<input type="checkbox">', 'input')).toBe(false);
    expect(press('<svg><g id="flag"></g></svg>', '#flag')).toBe(false);
  });
});

describe('times as typed', () => {
  it.each([
    ['1:43.52', 103.52],
    ['1:43,52', 103.52],
    ['1.43,52', 103.52],
    ['103.52', 103.52],
    [' 59,9 ', 59.9],
    ['12:00', 720],
  ])('reads %s', (text, seconds) => expect(typedTime(text)).toBeCloseTo(seconds as number, 9));
  it.each(['', 'abc', '1:99.0', '-3', '1:2:3'])('takes no %s', (text) => expect(typedTime(text)).toBeNull());
});

describe('a band of laps in a window', () => {
  const column = (n: number) => Array.from({ length: n }, (_, i) => i);
  const band = { low: column(50), middle: column(50), high: column(50) };
  it('holds what lies in it', () => {
    const at = bandPoints({ from: 100, step: 2 }, band, (s) => s, [110, 120]);
    expect(at.map((p) => p.s)).toEqual([110, 112, 114, 116, 118, 120]);
    expect(at[0]?.middle).toBe(5);
  });
  it('is unrolled with the road, also where it began before the line', () => {
    // The lap is 1000 m; the drawing shows stations near 990 as −10.
    const near = (s: number) => (s > 500 ? s - 1000 : s);
    const at = bandPoints({ from: -40, step: 2 }, band, near, [-20, 20]);
    expect(at[0]?.s).toBe(-20);
    expect(at.at(-1)?.s).toBe(20);
    const other = bandPoints({ from: 960, step: 2 }, band, near, [-20, 20]);
    expect(other.map((p) => p.s)).toEqual(at.map((p) => p.s));
  });
});

describe('steps of the survey', () => {
  const post = (id: string, station: number) => ({ id, kind: 'POST', label: id, station }) as never;
  const things = { ...nothing(), landmarks: [post('a', 10), post('b', 20)] };
  const step: Step = { put: { ...nothing(), landmarks: [post('b', 25), post('c', 30)] }, remove: ['a'], corners: null };

  it('say what they touch', () => expect(touchedBy(step).sort()).toEqual(['a', 'b', 'c']));

  it('are taken back by their inverse, whatever they did', () => {
    const after = withStep(things, step);
    expect(after.landmarks.map((l) => [l.id, l.station])).toEqual([
      ['b', 25],
      ['c', 30],
    ]);
    const back = withStep(after, inverse(things, [], step));
    expect(back.landmarks.map((l) => [l.id, l.station]).sort()).toEqual([
      ['a', 10],
      ['b', 20],
    ]);
  });

  it('join only where the same things are put again', () => {
    const letter = (change: Step) => ({ kind: 'change', change }) as never;
    const move = (at: number): Step => ({
      put: { ...nothing(), landmarks: [post('b', at)] },
      remove: [],
      corners: null,
    });
    expect(merges(letter(move(1)), letter(move(2)))).toBe(true);
    expect(merges(letter(move(1)), letter(step))).toBe(false);
    expect(merges(letter(step), letter(step))).toBe(false);
    expect(merges({ kind: 'photo' } as never, letter(move(1)))).toBe(false);
    expect(merges(letter({ ...move(1), corners: [] }), letter({ ...move(1), corners: [] }))).toBe(true);
  });
});
