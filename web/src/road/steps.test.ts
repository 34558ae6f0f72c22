import { describe, expect, it } from 'vitest';
import type { Action, CornerEntry, ReferenceContent } from '../api/api';
import description from '../../openapi.json';
import words from '../words/en.json';
import { cornerStep, stepBetween } from './steps';

const action = (id: string, kind: Action['kind'], station: number, amount?: number): Action =>
  ({ id, kind, station, amount, left: false, manner: 'AT_ONCE', note: '' }) as Action;
const entry = (change: Partial<CornerEntry> = {}): CornerEntry =>
  ({
    corner: 'c1',
    slowing: 'BRAKE',
    points: [{ kind: 'BRAKE', station: 995 }],
    actions: [action('l', 'LIFT', 900, 0.6)],
    gear: 3,
    firstEffort: 0.8,
    firstThrottle: 0.2,
    schools: [],
    details: {},
    note: '',
    ...change,
  }) as unknown as CornerEntry;

describe('a step of undo is named', () => {
  it('whatever was changed', () => {
    const { schemas } = description.components;
    const kinds = [
      ...schemas.CornerPoint.properties.kind.enum,
      ...schemas.Action.properties.kind.enum,
      ...schemas.Action.properties.manner.enum,
      ...schemas.CornerEntry.properties.slowing.enum,
    ];
    expect(kinds.length).toBeGreaterThan(25);
    for (const k of kinds) expect(words['steps.called']).toContain(`${k} {`);
  });

  const step = (change: Partial<CornerEntry>) => cornerStep(entry(), entry(change), 1000);
  it('by what was done to an action', () => {
    expect(step({ actions: [action('l', 'LIFT', 900, 0.65)] })).toBe('lift 60 → 65 %');
    expect(step({ actions: [action('l', 'LIFT', 900)] })).toBe('lift 60 → open');
    expect(step({ actions: [action('l', 'LIFT', 905, 0.6)] })).toBe('lift 5.0 m later');
    expect(step({ actions: [] })).toBe('lift taken out');
    expect(step({ actions: [action('l', 'LIFT', 900, 0.6), action('e', 'EASE', 40, 0)] })).toBe('ease added');
  });
  it('by what was done to a point, over the line too', () => {
    expect(step({ points: [{ kind: 'BRAKE', station: 3 }] as CornerEntry['points'] })).toBe('brake 8.0 m later');
    expect(step({ points: [] })).toBe('brake taken out');
    expect(step({ gear: 2 })).toBe('gear 3 → 2');
    expect(step({ firstEffort: 0.85 })).toBe('effort 80 → 85 %');
    expect(step({ slowing: 'LIFT' })).toBe('brake → lift');
    expect(step({ note: 'bump' })).toBe('note');
  });
  it('with its corner, or as many, or what else', () => {
    const content = (corners: CornerEntry[], more: object = {}) =>
      ({ corners, variants: [], ...more }) as unknown as ReferenceContent;
    const name = () => '1';
    const one = content([entry(), entry({ corner: 'c2' })]);
    expect(stepBetween(one, content([entry({ gear: 4 }), entry({ corner: 'c2' })]), 1000, name)).toBe('1: gear 3 → 4');
    expect(stepBetween(one, content([entry({ gear: 4 }), entry({ corner: 'c2', gear: 4 })]), 1000, name)).toBe(
      '2 corners',
    );
    expect(stepBetween(one, content(one.corners, { variants: [{ id: 'v' }] }), 1000, name)).toBe('days');
    expect(stepBetween(one, one, 1000, name)).toBe('');
  });
});
