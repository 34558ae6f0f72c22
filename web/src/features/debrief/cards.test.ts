// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import DayNote from './DayNote.svelte';
import ProposalCard from './ProposalCard.svelte';
import SpreadStrip from './SpreadStrip.svelte';
import type { CornerFinding, ProposalLine } from '../../api/api';
import { corner, LENGTH } from '../../testing/made';
import { hosted } from '../../testing/shown';

describe('a proposal', () => {
  const proposal = {
    corner: 'c1',
    action: 'brake',
    what: 'braking',
    share: false,
    change: true,
    by: 3,
    from: 430,
    reason: 'Later laps were quicker.',
    gain: 0.06,
    gainLow: 0.02,
    gainHigh: 0.1,
    strengthWords: 'fair',
    laps: 8,
    limitedBy: 'the margin',
    off: [-2, 0, 1, 3],
    seconds: [8.2, 8.1, 8.05, 8],
    evidence: ['a', 'b', 'c', 'd'],
  } as unknown as ProposalLine;
  const card = (over: Record<string, unknown> = {}) => {
    const ondecide = vi.fn();
    const onlap = vi.fn();
    const shown = { proposal, corner: corner(), accepted: null, mine: true, ondecide, onlap };
    return { ondecide, onlap, ...render(ProposalCard, { ...shown, ...over }) };
  };

  it('says how far, what it promises and what holds it back, before it is decided', () => {
    card();
    const text = document.querySelector('[data-proposal="c1-brake"]')?.textContent?.replace(/\s+/g, ' ') ?? '';
    expect(text).toContain('1: braking 3.0 m later');
    expect(text).toContain('promises 0.06 s (0.02 to 0.10)');
    expect(text).toContain('evidence fair, 8 laps · step held by the margin');
    expect((screen.getByRole('button', { name: 'Decline' }) as HTMLButtonElement).disabled).toBe(true);
  });

  it('is accepted whole, shortened with its promise in proportion, and declined', async () => {
    const { ondecide, rerender } = card();
    await fireEvent.click(screen.getByRole('button', { name: 'Accept' }));
    expect(ondecide).toHaveBeenLastCalledWith(3);
    await rerender({ accepted: 3 });
    await fireEvent.input(screen.getByRole('slider'), { target: { value: '1.5' } });
    expect(ondecide).toHaveBeenLastCalledWith(1.5);
    await rerender({ accepted: 1.5 });
    expect(document.body.textContent?.replace(/\s+/g, ' ')).toContain('promises 0.03 s');
    await fireEvent.click(screen.getByRole('button', { name: 'Decline' }));
    expect(ondecide).toHaveBeenLastCalledWith(null);
  });

  it('keeps its sign when an earlier point is shortened', async () => {
    const { ondecide } = card({ proposal: { ...proposal, by: -4 }, accepted: -4 });
    await fireEvent.input(screen.getByRole('slider'), { target: { value: '2' } });
    expect(ondecide).toHaveBeenLastCalledWith(-2);
    expect(document.body.textContent).toContain('sooner');
  });

  it('is about a share of a pedal where it is not about a place', async () => {
    const lift = { ...proposal, action: 'l1', what: 'lift to 40 %', share: true, from: 0.4, by: 0.08, to: 0.48 };
    const { ondecide } = card({ proposal: lift, accepted: 0.08 });
    const text = document.querySelector('[data-proposal="c1-l1-share"]')?.textContent?.replace(/\s+/g, ' ') ?? '';
    expect(text).toContain('1: lift to 40 % 8 % more');
    await fireEvent.input(screen.getByRole('slider', { name: 'Share of the step' }), { target: { value: '0.04' } });
    expect(ondecide).toHaveBeenLastCalledWith(0.04);
  });

  it('opens to the lap behind a mark', async () => {
    const { onlap } = card();
    await fireEvent.click(document.querySelectorAll('circle')[2] as Element);
    expect(onlap).toHaveBeenCalledWith('c');
  });

  it('is only read by others, and says when nothing should change', () => {
    card({ mine: false });
    expect(screen.queryByRole('button', { name: 'Accept' })).toBeNull();
    card({ proposal: { ...proposal, change: false, by: 0, reason: 'Too little evidence: 3 laps.' } });
    expect(document.body.textContent).toContain('stays');
    expect(document.body.textContent).toContain('Too little evidence');
  });
});

describe('points lap for lap', () => {
  const point = (kind: string, median: number, late: number[]) => ({
    kind,
    planned: 430,
    median,
    spread: 2,
    trend: 0.4,
    trendTells: false,
    hits: 0.5,
    tolerance: 5,
    late,
    laps: late.map((_, i) => `lap${i}`),
    told: true,
  });
  const finding = (...points: unknown[]) =>
    ({ corner: 'c1', points, actions: [], habits: [] }) as unknown as CornerFinding;

  it('says early, late or on the flag, with the spread and the hits', async () => {
    const onlap = vi.fn();
    render(SpreadStrip, {
      finding: finding(point('BRAKE', 6, [4, 6, 8, 5]), point('APEX', -3, [-3, -2]), point('EXIT', 0.2, [0, 0.4])),
      corner: corner(),
      length: LENGTH,
      onlap,
    });
    const text = (kind: string) => document.querySelector(`[data-spread=${kind}]`)?.textContent?.replace(/\s+/g, ' ');
    expect(text('BRAKE')).toContain('6 m late');
    expect(text('BRAKE')).toContain('hit 2 of 4');
    expect(text('APEX')).toContain('3 m early');
    expect(text('EXIT')).toContain('on the flag');
    await fireEvent.click(document.querySelectorAll('[data-spread=BRAKE] circle')[2] as Element);
    expect(onlap).toHaveBeenCalledWith('lap2');
  });

  it('says which way a run went only where its slope tells', () => {
    const tells = { ...point('BRAKE', 1, [0, 1, 2]), trendTells: true };
    render(SpreadStrip, { finding: finding(tells), corner: corner(), length: LENGTH });
    expect(document.body.textContent).toContain('later lap by lap');
  });

  it('puts later laps farther along the road', () => {
    render(SpreadStrip, { finding: finding(point('BRAKE', 0, [-4, 0, 6])), corner: corner(), length: LENGTH });
    const x = [...document.querySelectorAll('[data-spread=BRAKE] circle')].map((c) => Number(c.getAttribute('cx')));
    expect(x[0]).toBeLessThan(x[1] as number);
    expect(x[1]).toBeLessThan(x[2] as number);
  });
});

describe('the day of a run', () => {
  const part = (day: string | undefined, called: string, laps: number) => ({
    day,
    called,
    laps: Array.from({ length: laps }, (_, i) => `l${i}`),
    words: "No day of this reference is near. The laps use 71 % of the reference's grip.",
    said: false,
  });
  const shown = (day: object, parts: object[], mine = true) => {
    const on = { onpart: vi.fn(), onadd: vi.fn(), onown: vi.fn(), onyes: vi.fn() };
    hosted(DayNote, { view: { day, parts } as never, mine, busy: false, ...on });
    return on;
  };

  it('is not made up: laps like no day are not judged, and a day like them is offered', async () => {
    const on = shown(
      {
        called: '',
        said: false,
        words: part(undefined, '', 1).words,
        offer: { kind: 'WET', words: 'wet', grip: 0.71 },
      },
      [part(undefined, '', 8)],
    );
    expect(document.body.textContent).toContain('not judged');
    expect(document.body.textContent).toContain('71 %');
    await fireEvent.click(screen.getByRole('button', { name: /wet, 71 % grip/ }));
    expect(on.onadd).toHaveBeenCalledOnce();
    await fireEvent.click(screen.getByRole('button', { name: /own day/ }));
    expect(on.onown).toHaveBeenCalledOnce();
  });

  it('names the other parts of a mixed run, and lets them be looked at', async () => {
    const on = shown({ id: '', called: 'dry, warm', said: false, sure: false, words: '' }, [
      part('', 'dry, warm', 5),
      part('w', 'wet', 3),
    ]);
    expect(document.querySelector('[data-day=""]')).not.toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: '3 laps of this run are wet' }));
    expect(on.onpart).toHaveBeenCalledWith('w');
    await fireEvent.click(screen.getByRole('button', { name: 'All of it was dry, warm' }));
    expect(on.onyes).toHaveBeenCalledOnce();
  });

  it('shows laps that fit no day when they are asked for', async () => {
    const on = shown({ id: '', called: 'dry, warm', said: false, sure: true, words: '' }, [
      part('', 'dry, warm', 5),
      part(undefined, '', 3),
    ]);
    await fireEvent.click(screen.getByRole('button', { name: '3 laps of this run fit no day' }));
    expect(on.onpart).toHaveBeenCalledWith('none');
  });

  it('offers nothing to who may only read', () => {
    shown({ called: '', said: false, words: '', offer: { kind: 'WET', words: 'wet', grip: 0.7 } }, [], false);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
