import { describe, expect, it } from 'vitest';
import type { Action, Cue } from '../api/api';
import { entry, LENGTH } from '../testing/made';
import { besidesOf, markersOf } from './markers';
import { made } from './score';

const m = (v: number) => `${Math.round(v)} m`;
const at = (kind: Action['kind'], station: number, id: string, over: Partial<Action> = {}): Action => ({
  ...made(kind, station, id, 3),
  ...over,
});

describe('brakings and lifts of a corner', () => {
  const points = [
    { kind: 'BRAKE' as const, station: 430 },
    { kind: 'APEX' as const, station: 540 },
  ];

  it('stand in driving order, each with its place and its share', () => {
    const cue = { kind: 'SHARE', thing: 'w', spoken: 'the wall', number: 0.5 } as Cue;
    const e = entry({
      slowing: 'BRAKE',
      firstEffort: 0.9,
      points,
      actions: [at('BRAKE', 500, 'again', { amount: 0.3 }), at('LIFT', 380, 'l', { amount: 0.4, cue })],
    });
    expect(markersOf(e, LENGTH, m).map((k) => [k.kind, k.found, k.share])).toEqual([
      ['LIFT', 'half wall', 0.4],
      ['BRAKE', '430 m', 0.9],
      ['BRAKE', 'apex − 40 m', 0.3],
    ]);
  });

  it('are found across the line', () => {
    const e = entry({
      slowing: 'LIFT',
      points: [{ kind: 'APEX', station: 12 }],
      actions: [at('LIFT', LENGTH - 20, 'l', { amount: 0.5 })],
    });
    expect(markersOf(e, LENGTH, m)[0]?.found).toBe('apex − 32 m');
  });

  it('leave the rest to be listed beside them', () => {
    const e = entry({
      points,
      actions: [
        at('FULL', 600, 'f'),
        at('THROTTLE', 560, 't', { amount: 0.55 }),
        at('SHIFT', 590, 's', { gear: 4 }),
        at('LIFT', 380, 'l'),
      ],
    });
    expect(besidesOf(e, LENGTH, m)).toEqual([
      '55 % at apex + 20 m',
      'gear 4 at apex + 50 m',
      'all of it at apex + 60 m',
    ]);
  });
});
