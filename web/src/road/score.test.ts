import { describe, expect, it } from 'vitest';
import type { Action, CornerEntry, Landmark, ScoredAction, Unwise } from '../api/api';
import { cueFrom } from './cueWords';
import {
  amountOf,
  freeId,
  knotsOf,
  likeliest,
  made,
  nearest,
  nextOf,
  numeralOf,
  rimText,
  unitOf,
  unwiseOf,
  withAction,
  within,
  withoutAction,
} from './score';

const LENGTH = 4000;

const entry = (): CornerEntry =>
  ({
    corner: 'c1',
    slowing: 'BRAKE',
    firstThrottle: 0.2,
    gear: 3,
    points: [
      { kind: 'BRAKE', station: 500 },
      { kind: 'TURN_IN', station: 580 },
      { kind: 'RELEASE', station: 600 },
      { kind: 'APEX', station: 620 },
      { kind: 'FIRST_THROTTLE', station: 630 },
      { kind: 'FULL_THROTTLE', station: 660 },
    ],
    actions: [],
  }) as unknown as CornerEntry;

const scored = (action: Action, amount = action.amount): ScoredAction => ({
  action,
  line: '',
  speed: 50,
  time: 0,
  solved: false,
  made: true,
  cues: [],
  trouble: '',
  amount,
});

describe('handles that touch', () => {
  const at = (id: string, x: number, y = 50) => ({ id, x, y });
  it('are one knot, chain by chain, in driving order', () => {
    expect(knotsOf([at('a', 10), at('b', 40)])).toEqual([]);
    const ids = (spots: ReturnType<typeof at>[]) => knotsOf(spots).map((k) => k.map((s) => s.id));
    expect(ids([at('c', 28), at('a', 10), at('b', 19), at('d', 80)])).toEqual([['a', 'b', 'c']]);
    // Above one another they can be pressed apart.
    expect(ids([at('a', 10, 20), at('b', 10, 40)])).toEqual([]);
    // Two chains that a third handle joins are one.
    expect(ids([at('a', 10, 10), at('b', 10, 28), at('m', 10, 19), at('z', 90), at('y', 99)])).toEqual([
      ['a', 'm', 'b'],
      ['z', 'y'],
    ]);
  });

  it('leave nothing that cannot be pressed apart outside a knot, whatever they are', () => {
    let seed = 7;
    const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
    for (let round = 0; round < 200; round++) {
      const spots = Array.from({ length: 12 }, (_, i) => at(`s${i}`, random() * 200, random() * 80));
      const knots = knotsOf(spots);
      const of = (id: string) => knots.findIndex((k) => k.some((s) => s.id === id));
      const parted = spots.flatMap((a) =>
        spots.filter(
          (b) =>
            a !== b && Math.abs(a.x - b.x) < 11 && Math.abs(a.y - b.y) < 11 && (of(a.id) < 0 || of(a.id) !== of(b.id)),
        ),
      );
      expect(parted).toEqual([]);
      expect(new Set(knots.flat().map((s) => s.id)).size).toBe(knots.flat().length);
    }
  });
});

describe('what stands on the rim', () => {
  it('is what is looked at, where the weight is, how much is braked at the front', () => {
    const none = { thing: '', spoken: '', other: '', otherSpoken: '', number: 0 };
    const eyes = made('EYES', 400, 'eyes-1', 3);
    const score = [{ action: made('APEX', 460, 'apex', 3) }] as ScoredAction[];
    expect(rimText(eyes, score)).toBe('…');
    expect(rimText({ ...eyes, target: { ...none, kind: 'SECONDS', other: 'apex' } }, score)).toBe('apex');
    expect(rimText({ ...eyes, target: { ...none, kind: 'BESIDE', thing: 'p', spoken: 'second post' } }, score)).toBe(
      'second post',
    );
    const body = { ...made('BODY', 400, 'body-1', 3), amount: 0.8, stance: 'FORWARD' as const, note: 'knee out' };
    expect(rimText(body, score)).toBe('forward 80 % knee out');
    expect(unitOf(body)).toBe('%');
  });
});

describe('what a press makes', () => {
  it('is told by the lane and the phase of the corner', () => {
    expect(likeliest('brake', entry(), 480, LENGTH)[0]).toBe('BRAKE');
    expect(likeliest('brake', entry(), 540, LENGTH)[0]).toBe('EASE');
    expect(likeliest('brake', entry(), 640, LENGTH)[0]).toBe('BRAKE');
    expect(likeliest('throttle', entry(), 480, LENGTH)[0]).toBe('LIFT');
    expect(likeliest('throttle', entry(), 640, LENGTH)[0]).toBe('THROTTLE');
    expect(likeliest('gears', entry(), 640, LENGTH)).toEqual(['SHIFT']);
  });

  it('gets an id that no other has', () => {
    const one = withAction(entry(), made('LIFT', 400, 'lift-1', 3), LENGTH);
    expect(freeId(one, 'LIFT')).toBe('lift-2');
    expect(freeId(one, 'BRAKE')).toBe('brake-1');
  });
});

describe('writing an action', () => {
  it('adds, replaces and takes out one of its own, wrapping its station', () => {
    const one = withAction(entry(), { ...made('LIFT', -10, 'lift-1', 3), until: LENGTH + 5 }, LENGTH);
    expect(one.actions).toHaveLength(1);
    expect(one.actions[0]).toMatchObject({ station: LENGTH - 10, until: 5 });
    const two = withAction(one, { ...made('LIFT', 20, 'lift-1', 3), amount: 0.7 }, LENGTH);
    expect(two.actions).toHaveLength(1);
    expect(two.actions[0]?.amount).toBe(0.7);
    expect(withoutAction(two, 'lift-1').actions).toHaveLength(0);
  });

  it('writes a point of every corner where that is kept, and its amount too', () => {
    const braked = withAction(entry(), { ...made('BRAKE', 510, 'brake', 3), amount: 0.6 }, LENGTH);
    expect(braked.actions).toHaveLength(0);
    const brake = braked.points.find((p) => p.kind === 'BRAKE');
    expect(brake?.station).toBe(510);
    expect(brake?.play?.amount).toBe(0.6);
    expect(braked.firstEffort).toBe(0.6);
    const throttled = withAction(entry(), { ...made('THROTTLE', 640, 'first-throttle', 3), amount: 0.45 }, LENGTH);
    expect(throttled.firstThrottle).toBe(0.45);
  });
});

describe('reading a score', () => {
  const score = [
    scored(made('BRAKE', 500, 'brake', 3)),
    scored(made('BRAKE', 560, 'brake-1', 3)),
    scored({ ...made('SHIFT', 540, 'shift-1', 3), gear: 2 }),
  ];
  it('numbers several brakings and no single one', () => {
    expect(numeralOf(score, 'brake')).toBe('I');
    expect(numeralOf(score, 'brake-1')).toBe('II');
    expect(numeralOf(score.slice(1), 'brake-1')).toBe('');
  });
  it('finds the nearest of a kind and goes round them', () => {
    expect(nearest(score, 'BRAKE', 550, LENGTH, 15)?.action.id).toBe('brake-1');
    expect(nearest(score, 'BRAKE', 530, LENGTH, 15)).toBeUndefined();
    expect(nextOf(score, 'brake-1')?.action.id).toBe('brake');
  });
  it('writes amounts as per cent and gears as they are', () => {
    expect(amountOf(scored(made('BRAKE', 0, 'b', 3), 0.604))).toBe('60');
    expect(amountOf(score[2] as ScoredAction)).toBe('2');
  });
});

describe('where an action is unwise', () => {
  const there: Unwise[] = [
    { what: 'SHIFT', from: 3990, to: 20, why: 'the tyres turn' },
    { what: 'BRAKE', from: 100, to: 120, why: 'over bumps' },
  ];
  it('is told for its own kind only, also across the line', () => {
    const shift = scored({ ...made('SHIFT', 5, 'shift-1', 3) });
    expect(unwiseOf(there, shift)).toHaveLength(1);
    expect(within(unwiseOf(there, shift), 5, LENGTH)?.why).toBe('the tyres turn');
    expect(within(unwiseOf(there, shift), 30, LENGTH)).toBeUndefined();
    expect(unwiseOf(there, scored(made('LIFT', 5, 'lift-1', 3)))).toHaveLength(0);
    expect(unwiseOf(there, undefined)).toHaveLength(0);
  });
});

describe('a cue in words', () => {
  const thing = (id: string, kind: Landmark['kind'], label: string, station: number): Landmark =>
    ({ id, kind, label, station, left: true, length: 0 }) as Landmark;
  const things = [
    thing('w', 'WALL', 'long wall', 450),
    thing('b', 'BARRIER', 'end of the barrier', 520),
    thing('100', 'BOARD', '100', 480),
    thing('far', 'BOARD', '100', 2400),
  ];
  const of = (text: string) => cueFrom(text, things, [scored(made('BRAKE', 500, 'brake', 3))], 510, LENGTH);
  it.each([
    ['2 s limiter', 'LIMITER', '', 2],
    ['half wall', 'SHARE', 'w', 0.5],
    ['barrier leaves', 'OUT_OF_VIEW', 'b', 0],
    ['barrier comes into view', 'INTO_VIEW', 'b', 0],
    ['5 m past wall', 'PAST', 'w', 5],
    ['3 m before wall', 'PAST', 'w', -3],
    ['100 board', 'PAST', '100', 0],
    ['settled', 'SETTLED', '', 0],
    ['beside barrier', 'BESIDE', 'b', 0],
    ['7200 revs', 'REVS', '', 7200],
  ])('%s', (text, kind, id, number) => {
    expect(of(text)).toMatchObject({ kind, thing: id, number });
  });
  it('hangs on another action', () => {
    expect(of('0.5 s after braking')).toMatchObject({ kind: 'SECONDS', other: 'brake', number: 0.5 });
  });
  it('is none where nothing fits', () => {
    expect(of('the old mill')).toBeNull();
    expect(of('1 s after the apex')).toBeNull();
  });
});
