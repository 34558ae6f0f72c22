// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import ThingEditor from './ThingEditor.svelte';
import type { Things } from '../../api/api';
import type { SurveyDesk } from './survey.svelte';
import { corner } from '../../testing/made';

describe('a thing of the survey', () => {
  const board = {
    id: 'b1',
    kind: 'BOARD',
    label: '100',
    station: 440,
    left: true,
    out: 3,
    height: 1.4,
    permanence: 'FIXED',
    corner: 'c1',
    readable: true,
    note: '',
    photo: '',
  };
  const kerb = {
    id: 'k1',
    profile: 'RAMP',
    left: true,
    part: 'EXIT',
    from: 590,
    to: 620,
    width: 1.2,
    height: 0.05,
    behind: 'GRASS',
    verdict: 'OPEN',
    corner: 'c1',
    slippery: false,
    does: [] as string[],
    note: '',
    photo: '',
  };
  const editor = (sort: keyof Things, thing: unknown) => {
    const put = vi.fn();
    const desk = { corners: [corner()], put, addPhoto: () => 'p1' } as unknown as SurveyDesk;
    render(ThingEditor, { desk, sort, thing: thing as never, zone: 'Europe/Lisbon', onremove: vi.fn() });
    return put;
  };
  const field = (name: string) => document.querySelector(`[name=${name}]`) as Element;

  it('changes one thing at a time, each as a step of its own', async () => {
    const put = editor('landmarks', board);
    await fireEvent.change(field('station'), { target: { value: '445.5' } });
    expect(put).toHaveBeenLastCalledWith('landmarks', [{ ...board, station: 445.5 }], 'b1 station');
    await fireEvent.click(screen.getByRole('button', { name: 'right' }));
    expect(put.mock.lastCall?.[1][0].left).toBe(false);
    await fireEvent.click(screen.getByLabelText('cannot be read'));
    expect(put.mock.lastCall?.[1][0].readable).toBe(false);
    await fireEvent.change(field('out'), { target: { value: 'x' } });
    expect(put).toHaveBeenCalledTimes(3);
  });

  it('takes where the front of a kerb bites, and what it does to who rides it', async () => {
    const put = editor('kerbs', { ...kerb, does: ['LOCKS'] });
    await fireEvent.change(field('bites'), { target: { value: '8' } });
    expect(put.mock.lastCall?.[1][0].bites).toBe(8);
    await fireEvent.change(field('bites'), { target: { value: '' } });
    expect(put.mock.lastCall?.[1][0].bites).toBeUndefined();
    expect(screen.getByRole('button', { name: 'locks a wheel' }).getAttribute('aria-pressed')).toBe('true');
    await fireEvent.click(screen.getByRole('button', { name: 'turns it' }));
    expect(put.mock.lastCall?.[1][0].does).toEqual(['LOCKS', 'TURNS']);
    await fireEvent.click(screen.getByRole('button', { name: 'locks a wheel' }));
    expect(put.mock.lastCall?.[1][0].does).toEqual([]);
  });

  it('keeps centimetres of a kerb as metres', async () => {
    const put = editor('kerbs', kerb);
    expect((field('width') as HTMLInputElement).value).toBe('120');
    await fireEvent.change(field('height'), { target: { value: '7' } });
    expect(put.mock.lastCall?.[1][0].height).toBeCloseTo(0.07, 9);
  });

  it('takes the hour of a shadow by the clock of the circuit', async () => {
    const put = editor('landmarks', { ...board, kind: 'SHADOW', noted: null });
    // Summer time in Lisbon is one hour ahead of UTC, winter time none.
    await fireEvent.change(screen.getByLabelText('Seen there at'), { target: { value: '2026-07-01T16:30' } });
    expect(put.mock.lastCall?.[1][0].noted).toBe('2026-07-01T15:30:00.000Z');
    await fireEvent.change(screen.getByLabelText('Seen there at'), { target: { value: '2026-01-10T16:30' } });
    expect(put.mock.lastCall?.[1][0].noted).toBe('2026-01-10T16:30:00.000Z');
  });
});
