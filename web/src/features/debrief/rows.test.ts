// @vitest-environment jsdom
import { cleanup, fireEvent, render } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { ActionFinding, CornerFinding, PlaceFinding } from '../../api/api';
import PlacePosts from './PlacePosts.svelte';
import { actionWords, rowsOf } from './rows';
import { squeezed } from '../../testing/shown';

const lift = (over: Partial<ActionFinding> = {}): ActionFinding => ({
  action: 'lift',
  kind: 'LIFT',
  said: 'lift to 60 %',
  planned: 390,
  amount: 0.6,
  seen: true,
  unseen: '',
  done: 1,
  off: true,
  late: -12,
  spread: 2,
  tolerance: 6,
  more: -0.2,
  moreSpread: 0.03,
  laps: ['a', 'b'],
  lates: [-11, -13],
  amounts: [0.4, 0.4],
  ...over,
});

const finding = (actions: ActionFinding[]) =>
  ({
    points: [
      {
        kind: 'BRAKE',
        planned: 420,
        median: 2,
        spread: 1,
        hits: 0.5,
        tolerance: 4,
        trend: 0,
        trendTells: false,
        told: true,
        laps: ['a', 'b'],
        late: [1, 3],
      },
    ],
    actions,
  }) as unknown as CornerFinding;

describe('rows of a corner', () => {
  it('stand in driving order, actions with how far off and how much', () => {
    const rows = rowsOf(finding([lift()]), (s) => s, false);
    expect(rows.map((r) => r.id)).toEqual(['lift', 'BRAKE']);
    expect(rows[0]?.head).toBe('12 m early · 40 %, 60 % written');
    expect(rows[0]?.foot).toContain('spread');
    expect(rows[0]?.driven).toBeCloseTo(0.4);
    expect(rows[0]?.dots).toHaveLength(2);
    expect(rows[0]?.off).toBe(true);
    expect(rows[1]?.head).toBe('2 m late');
  });

  it('numbers several of a kind', () => {
    const rows = rowsOf(finding([lift(), lift({ action: 'lift-2', planned: 500 })]), (s) => s, false);
    expect(rows.map((r) => r.word)).toEqual(['Lift 1', 'Brake', 'Lift 2']);
    expect(rows[0]?.shares).toHaveLength(2);
  });

  it('counts the line as the corner does', () => {
    const near = (s: number) => (s > 400 ? s - 1000 : s);
    expect(rowsOf(finding([lift()]), near, false).map((r) => r.id)).toEqual(['BRAKE', 'lift']);
  });

  it('says what cannot be seen and what was not done', () => {
    expect(actionWords(lift({ seen: false, unseen: 'The recording does not show it: lift.' }))).toEqual({
      head: 'cannot be seen',
      foot: 'The recording does not show it: lift.',
    });
    expect(actionWords(lift({ laps: [], lates: [], amounts: [], done: 0 })).head).toBe('not done on any lap');
    expect(actionWords(lift({ done: 0.5 })).foot).toContain('done on 50 % of laps');
    const untold = lift({ late: undefined, lates: [null as never, null as never] });
    expect(actionWords(untold).head).toBe('40 %, 60 % written');
    expect(rowsOf(finding([untold]), (s) => s, false)[0]?.dots).toHaveLength(0);
  });
});

describe('a place across the road', () => {
  const place = (over: Partial<PlaceFinding> = {}): PlaceFinding => ({
    gate: 'g',
    station: 380,
    left: true,
    metres: 0.5,
    tolerance: 0.3,
    room: 8,
    corner: 'c1',
    over: 0,
    drift: 0,
    off: 2.1,
    spread: 0.3,
    precision: 0.5,
    met: 0,
    missed: true,
    laps: ['a', 'b'],
    driven: [2.4, 2.8],
    ...over,
  });

  it('shows each lap in the gap, and says how far it was missed', async () => {
    const onlap = vi.fn();
    render(PlacePosts, { place: place(), onlap });
    expect(document.querySelectorAll('circle')).toHaveLength(2);
    expect(squeezed(document.querySelector('figcaption'))).toContain('2.1 m too far from the left edge');
    await fireEvent.click(document.querySelectorAll('circle')[1] as Element);
    expect(onlap).toHaveBeenCalledWith('b');
  });

  it('says which way it runs off the edge that it was to be held along', () => {
    render(PlacePosts, { place: place({ off: 0.2, over: 60, drift: 1.6 }) });
    expect(squeezed(document.querySelector('figcaption'))).toContain('Runs 1.6 m off the left edge over the 60 m');
    cleanup();
    render(PlacePosts, { place: place({ off: 0.2, over: 60, drift: -1.6 }) });
    expect(squeezed(document.querySelector('figcaption'))).toContain('Runs 1.6 m towards the left edge over the 60 m');
  });

  it('claims nothing that the recording cannot tell', () => {
    render(PlacePosts, { place: place({ off: 0.7, left: false, met: 1, missed: false }) });
    expect(squeezed(document.querySelector('figcaption'))).toContain('as written, as far as can be told (± 0.5 m)');
    expect(document.querySelector('[data-missed=true]')).toBeNull();
  });
});
