import { describe, expect, it } from 'vitest';
import type { CornerEntry, Cue } from '../api/api';
import { made } from './score';
import { apart, cueText, foundBy, moved, pastApex, sameDecisions, station, tieText, toggled } from './points';

const entry: CornerEntry = {
  corner: 'c1',
  slowing: 'BRAKE',
  points: [
    { kind: 'BRAKE', station: 4190 },
    { kind: 'APEX', station: 60, tie: { landmark: 'l', spoken: 'the 50 board', past: -8.2 } },
  ],
  approachGear: 5,
  approachSpeed: 60,
  firstEffort: 0.9,
  gear: 2,
  minimumSpeed: 27,
  apexType: 'LATE',
  apexGap: 1,
  firstThrottle: 0.4,
  note: '',
  schools: [],
  givenAway: 0,
  apexOff: 0,
  details: {},
  kerbs: [],
  again: [],
  actions: [],
};
const metres = (m: number) => `${Math.round(m)} m`;

describe('points of a corner', () => {
  it('moves one point, past the line too, and leaves the entry it was given alone', () => {
    const later = moved(entry, 'BRAKE', 4205, 4200);
    expect(station(later, 'BRAKE')).toBe(5);
    expect(station(moved(entry, 'APEX', -5, 4200), 'APEX')).toBe(4195);
    expect(station(entry, 'BRAKE')).toBe(4190);
    expect(station(entry, 'EXIT')).toBeUndefined();
  });

  it('measures the short way round the lap', () => {
    expect(apart(4190, 10, 4200)).toBe(20);
    expect(apart(10, 4190, 4200)).toBe(-20);
  });

  it('counts from the nearest of two apexes, over the line too', () => {
    const twice = {
      ...entry,
      points: [
        { kind: 'RELEASE' as const, station: 4195 },
        { kind: 'FIRST_APEX' as const, station: 5 },
        { kind: 'APEX' as const, station: 90 },
        { kind: 'FULL_THROTTLE' as const, station: 110 },
      ],
    };
    expect(pastApex(twice, 'RELEASE', 4200)).toBe(-10);
    expect(pastApex(twice, 'FULL_THROTTLE', 4200)).toBe(20);
    expect(pastApex(twice, 'EXIT', 4200)).toBeUndefined();
  });

  it('says a tie with its side of the landmark', () => {
    expect(tieText(entry.points[1]?.tie, metres)).toBe('50 board − 8 m');
    expect(tieText({ spoken: 'the 100 board', past: 14 }, metres)).toBe('100 board + 14 m');
    expect(tieText({ spoken: 'the 100 board', past: 0.1 }, metres)).toBe('100 board');
    expect(tieText(null, metres)).toBeNull();
  });

  it('counts a moved point, a gear and a note as a change, a speed that follows not', () => {
    expect(sameDecisions(entry, { ...entry, approachSpeed: 61, minimumSpeed: 26 })).toBe(true);
    expect(sameDecisions(entry, moved(entry, 'BRAKE', 4191, 4200))).toBe(false);
    expect(sameDecisions(entry, { ...entry, gear: 3 })).toBe(false);
    expect(sameDecisions(entry, { ...entry, note: 'bumps' })).toBe(false);
    expect(sameDecisions(undefined, entry)).toBe(false);
  });

  it('counts choices, notes, shapes and sureness as changes', () => {
    expect(sameDecisions(entry, { ...entry, schools: ['TO_APEX'] })).toBe(false);
    expect(sameDecisions(entry, { ...entry, details: { AIM: 'the post' } })).toBe(false);
    expect(sameDecisions(entry, { ...entry, pedals: { rise: 0, hold: 0.5, trail: 0.5, maintain: 0 } })).toBe(false);
    expect(sameDecisions(entry, { ...entry, apexOff: 0.5 })).toBe(false);
    expect(sameDecisions(entry, { ...entry, priority: 1 })).toBe(false);
    const unsure = { ...entry, points: entry.points.map((p) => ({ ...p, sure: 'UNSURE' as const })) };
    expect(sameDecisions(entry, unsure)).toBe(false);
    expect(sameDecisions(unsure, { ...unsure, minimumSpeed: 1 })).toBe(true);
  });

  it('adds a point that is missing and takes one away that is there', () => {
    const more = toggled(entry, 'BACK_UP', 4180);
    expect(station(more, 'BACK_UP')).toBe(4180);
    expect(toggled(more, 'BACK_UP', 0).points).toEqual(entry.points);
  });
});

describe('how a point is found', () => {
  const inMetres = (m: number) => `${m} m`;
  const cue = (kind: Cue['kind'], number = 0): Cue => ({
    kind,
    thing: 'w',
    spoken: 'the wall',
    other: '',
    otherSpoken: 'the post',
    number,
  });
  it.each([
    [cue('PAST', 8), 'wall + 8 m'],
    [cue('LENGTHS', -2), 'wall − 2 lengths'],
    [cue('SHARE', 0.5), 'half wall'],
    [cue('SHARE', 0.3), '30 % wall'],
    [cue('BETWEEN', 0.4), '40 % wall to post'],
    [cue('INTO_VIEW'), 'wall in view'],
    [cue('OUT_OF_VIEW'), 'wall leaves view'],
    [cue('BESIDE'), 'beside wall'],
    [cue('SECONDS', 0.5), '0.5 s later'],
    [cue('LIMITER', 2), '2 s limiter'],
    [cue('REVS', 7200), '7200 revs'],
    [cue('SETTLED'), 'settled'],
    [cue('FEEL'), 'by feel'],
  ])('%j', (by, words) => {
    expect(cueText(by, inMetres)).toBe(words);
  });
  it('is by the cue written of it before its landmark', () => {
    const tie = { landmark: 'b', spoken: 'the 100 board', past: 0 };
    const play = { ...made('BRAKE', 5, 'brake', 3), cue: cue('INTO_VIEW') };
    expect(foundBy({ kind: 'BRAKE', station: 5, tie }, inMetres)).toBe('100 board');
    expect(foundBy({ kind: 'BRAKE', station: 5, tie, play }, inMetres)).toBe('wall in view');
    expect(foundBy(undefined, inMetres)).toBeNull();
  });
});
