// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import ZoneAmount from './ZoneAmount.svelte';
import ZoneEffect from './ZoneEffect.svelte';
import { amountOf, felt, severitiesOf, sizeOf } from './zones';
import { api, type Zone, type ZoneWords } from '../../api/api';
import { catalogue } from '../../api/catalogue.svelte';
import { hosted, squeezed } from '../../testing/shown';

const kinds = [
  {
    kind: 'DAMP',
    words: 'stays damp',
    water: 'LAST',
    effect: 'GRIP',
    usual: [0.93, 0.85, 0.75],
    least: 0.1,
    most: 1.3,
  },
  { kind: 'BUMP', words: 'bumps', water: 'NONE', effect: 'LOAD', usual: [0.98, 0.95, 0.9], least: 0.5, most: 1 },
  { kind: 'NO_RUN_OFF', words: 'no run-off', water: 'NONE', effect: 'ROOM', usual: [0, 0, 0], least: 0, most: 20 },
  {
    kind: 'LEVEL',
    words: 'level reading',
    water: 'NONE',
    effect: 'LEVEL',
    usual: [0.01, 0.02, 0.04],
    least: 0,
    most: 0.6,
  },
  {
    kind: 'BEYOND',
    words: 'ground beyond the edge',
    water: 'NONE',
    effect: 'BEYOND',
    usual: [2, 2, 2],
    least: 0.2,
    most: 30,
  },
] as unknown as ZoneWords[];
const zone = (kind: string, more: object = {}): Zone =>
  ({ id: 'z', kind, side: 'LEFT', from: 10, to: 60, severity: 2, note: '', photo: '', ...more }) as Zone;

beforeEach(() => {
  catalogue.load = () => Promise.resolve(catalogue.all as never);
  catalogue.all = { zones: kinds } as never;
});
afterEach(() => {
  catalogue.all = null;
  vi.restoreAllMocks();
});

describe('what a zone does on which day', () => {
  const asked = (days: object[]) => {
    const post = vi
      .spyOn(api, 'POST')
      .mockResolvedValue({ data: days, response: new Response(null, { status: 200 }) } as never);
    return post;
  };

  it('counts nothing on a dry day where it is about water, and says what it costs on the others', async () => {
    const post = asked([
      { name: '', counts: false, seconds: 0, speed: 0, station: 0 },
      { day: 'w', name: 'wet', counts: true, seconds: 0.2134, speed: -2, station: 612 },
    ]);
    hosted(ZoneEffect, { zone: zone('DAMP'), severities: [], reference: 'r1' });
    await waitFor(() => expect(document.querySelector('[data-day-effect=w]')).not.toBeNull());
    expect(squeezed(document.querySelector('[data-zone-effect=LAST]'))).toContain('Dry day: nothing.');
    expect(squeezed(document.querySelector('[data-day-effect=base]'))).toBe('the reference: not felt');
    expect(squeezed(document.querySelector('[data-day-effect=w]'))).toBe('wet: +0.213 s, −7.2 km/h at 612 m');
    expect(post.mock.lastCall?.[1]).toMatchObject({ body: { zone: { kind: 'DAMP' }, severities: [] } });
  });

  it('says how near the line passes to what narrows the road, and when it passes through', async () => {
    kinds.push({ ...kinds[2], kind: 'WALL', words: 'wall', usual: [0.2, 0.4, 0.8] } as unknown as ZoneWords);
    asked([{ name: '', counts: true, seconds: 0, speed: 0, station: 0, passed: -0.34 }]);
    hosted(ZoneEffect, { zone: zone('WALL'), severities: [], reference: 'r1' });
    await waitFor(() => expect(document.body.textContent).toContain('passes 0.3 m inside it'));
  });

  it('asks nothing and says so where it changes no number', () => {
    const post = asked([]);
    hosted(ZoneEffect, { zone: zone('NO_RUN_OFF'), severities: [], reference: 'r1' });
    expect(document.body.textContent).toContain('changes no number');
    expect(post).not.toHaveBeenCalled();
  });
});

describe('which zones act on the day looked at', () => {
  const on = (kind: string, wet: boolean, windy: boolean, more: object = {}) => {
    const words = [...kinds, { ...kinds[1], kind: 'WIND', effect: 'WIND', usual: [1.2, 1.5, 2] }] as ZoneWords[];
    const of = words.find((k) => k.kind === kind);
    return felt(zone(kind, more), of, [], { wet, windy });
  };

  it('is water on wet days, wind on windy ones, what has no size on none', () => {
    expect([on('DAMP', false, true), on('DAMP', true, false)]).toEqual([false, true]);
    expect([on('WIND', true, false), on('WIND', false, true)]).toEqual([false, true]);
    expect([on('BUMP', false, false), on('BUMP', false, false, { amount: 1 })]).toEqual([true, false]);
    expect(on('NO_RUN_OFF', true, true)).toBe(false);
    expect(on('LEVEL', false, false)).toBe(true);
  });
});

describe('how much a zone is', () => {
  it('is told by its own number, else by the table of this circuit, else by what is usual', () => {
    const bump = kinds[1] as ZoneWords;
    const table = [{ id: 's', kind: 'BUMP' as const, slight: 0.99, plain: 0.9, severe: 0.7 }];
    expect(sizeOf(zone('BUMP'), bump, [])).toBe(0.95);
    expect(sizeOf(zone('BUMP', { severity: 3 }), bump, table)).toBe(0.7);
    expect(sizeOf(zone('BUMP', { amount: 0.8 }), bump, table)).toBe(0.8);
    expect(severitiesOf(bump, [])).toEqual([0.98, 0.95, 0.9]);
  });

  it('has a unit for every effect, and comes back as it was typed', () => {
    for (const effect of [
      'GRIP',
      'LOAD',
      'CREST',
      'DIP',
      'CAMBER_OUT',
      'CAMBER_IN',
      'LEVEL',
      'WIND',
      'ROOM',
      'BEYOND',
    ] as const) {
      const how = amountOf(effect);
      expect(how.unit).not.toBe('');
      expect(how.amount(how.shown(0.5))).toBeCloseTo(0.5, 6);
    }
  });

  it('asks of ground beyond the edge for width, grip and lip, and says that it is not used before', async () => {
    const onedit = vi.fn();
    const desk = { things: { severities: [] }, put: vi.fn() } as never;
    const shown = render(ZoneAmount, { zone: zone('BEYOND', { beyond: { grip: 0.9 } }), desk, onedit });
    expect(screen.queryByText('How bad')).toBeNull();
    expect(document.querySelector('[data-unknown]')).not.toBeNull();
    await fireEvent.change(screen.getByLabelText(/Wide/), { target: { value: '3' } });
    expect(onedit).toHaveBeenLastCalledWith({ amount: 3 }, 'amount');
    await fireEvent.change(screen.getByLabelText(/Lip/), { target: { value: '-2' } });
    expect(onedit).toHaveBeenLastCalledWith({ beyond: { grip: 0.9, lip: -0.02 } }, 'beyond lip');
    await fireEvent.change(screen.getByLabelText(/Grip there/), { target: { value: '' } });
    expect(onedit).toHaveBeenLastCalledWith({ beyond: { grip: undefined } }, 'beyond grip');
    await shown.rerender({ zone: zone('BEYOND', { amount: 3, beyond: { grip: 0.9, lip: 0 } }), desk, onedit });
    expect(document.querySelector('[data-unknown]')).toBeNull();
  });

  it('takes a word, a number of its own, a strip, an order of drying, and what the words mean here', async () => {
    const put = vi.fn();
    const onedit = vi.fn();
    const desk = { things: { severities: [] }, put } as never;
    render(ZoneAmount, { zone: zone('DAMP'), desk, onedit });
    await fireEvent.click(screen.getByRole('button', { name: /severe/ }));
    expect(onedit).toHaveBeenLastCalledWith({ severity: 3, amount: undefined }, 'severity');
    await fireEvent.change(screen.getByLabelText(/Grip left/), { target: { value: '64' } });
    expect(onedit).toHaveBeenLastCalledWith({ amount: 0.64 }, 'amount');
    await fireEvent.change(screen.getByLabelText('Strip begins'), { target: { value: '1.5' } });
    expect(onedit).toHaveBeenLastCalledWith({ across: { near: 1.5, far: 2 } }, 'across near');
    await fireEvent.change(screen.getByLabelText('Dries'), { target: { value: 'FIRST' } });
    expect(onedit).toHaveBeenLastCalledWith({ dries: 'FIRST' }, 'dries');
    await fireEvent.click(screen.getByRole('button', { name: 'what that is here' }));
    await fireEvent.change(screen.getByLabelText(/^plain/), { target: { value: '80' } });
    expect(put).toHaveBeenLastCalledWith(
      'severities',
      [{ id: 'severity-damp', kind: 'DAMP', slight: 0.93, plain: 0.8, severe: 0.75 }],
      'severity-damp 1',
    );
  });

  it('asks for a strip of how the road lies as of what grips, on one half', async () => {
    const onedit = vi.fn();
    const desk = { things: { severities: [] }, put: vi.fn() } as never;
    const shown = render(ZoneAmount, { zone: zone('BUMP', { side: 'BOTH' }), desk, onedit });
    expect(screen.queryByLabelText('Strip begins')).toBeNull();
    await shown.rerender({ zone: zone('BUMP', { side: 'RIGHT' }), desk, onedit });
    await fireEvent.change(screen.getByLabelText('Strip ends'), { target: { value: '3' } });
    expect(onedit).toHaveBeenLastCalledWith({ across: { near: 0, far: 3 } }, 'across far');
  });

  it('asks of a level reading only what it read', () => {
    render(ZoneAmount, {
      zone: zone('LEVEL', { amount: 0.025 }),
      desk: { things: { severities: [] } } as never,
      onedit: vi.fn(),
    });
    expect((document.querySelector('[name=amount]') as HTMLInputElement).value).toBe('2.5');
    expect(screen.queryByRole('button')).toBeNull();
  });
});
