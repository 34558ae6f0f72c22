// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import BrakePanel from './BrakePanel.svelte';
import FactsPanel from './FactsPanel.svelte';
import GearPanel from './GearPanel.svelte';
import KerbBar from './KerbBar.svelte';
import NoteBar from './NoteBar.svelte';
import { type Catalogue } from '../../api/api';
import { catalogue } from '../../api/catalogue.svelte';
import type { Desk } from './desk.svelte';
import { answer, entry, FakeDesk, LENGTH } from '../../testing/made';
import { squeezed } from '../../testing/shown';

const asDesk = (fake: FakeDesk) => fake as unknown as Desk;

beforeEach(() => {
  catalogue.all = {
    questions: [],
    schools: [],
    variants: [],
    kinds: [
      { kind: 'BRAKE', words: 'braking marker', drafted: true },
      { kind: 'BACK_UP', words: 'back-up marker', drafted: false },
      { kind: 'BUILD_UP', words: 'build-up marker', drafted: false },
    ],
    details: [
      { detail: 'AIM', phase: 'TURN_IN', words: 'look at', choices: [], motorcycle: false },
      {
        detail: 'BUMPS',
        phase: 'BRAKING',
        words: 'bumps',
        choices: [
          { value: 'none', words: 'none' },
          { value: 'over bumps', words: 'over the bumps' },
        ],
        motorcycle: false,
      },
      { detail: 'KNEE', phase: 'BODY', words: 'knee', choices: [], motorcycle: true },
      { detail: 'HAZARD', phase: 'HAZARDS', words: 'hazard', choices: [], motorcycle: false },
      { detail: 'ESCAPE', phase: 'HAZARDS', words: 'escape plan', choices: [], motorcycle: false },
    ],
  } as unknown as Catalogue;
});

describe('what is true of a corner', () => {
  const facts = (desk: FakeDesk, e = desk.entry) => {
    const onnote = vi.fn();
    const onkerb = vi.fn();
    return { onnote, onkerb, ...render(FactsPanel, { desk: asDesk(desk), entry: e, onnote, onkerb }) };
  };
  const offered = () => [...document.querySelectorAll('[data-add-fact]')].map((b) => b.textContent.trim());

  it('offers facts only that are not there yet; what is done is not offered as words', async () => {
    const desk = new FakeDesk(entry({ details: { AIM: 'the post', HAZARD: 'oil' } }));
    const { onnote } = facts(desk);
    expect(offered()).toEqual(['escape plan']);
    expect(document.querySelector('[data-detail=AIM]')?.textContent).toContain('the post');
    await fireEvent.click(screen.getByRole('button', { name: 'escape plan' }));
    expect(desk.entry.details).toEqual({ AIM: 'the post', HAZARD: 'oil', ESCAPE: '' });
    expect(onnote).toHaveBeenLastCalledWith('ESCAPE');
  });

  it('offers an escape where the run-off is short, until there is one', async () => {
    const said = answer(entry());
    Object.assign(said, { hazards: { warnings: ['wall on the left'], shortRunOff: true, escape: 'straight on' } });
    const desk = new FakeDesk(entry(), said);
    const { rerender } = facts(desk);
    expect(squeezed(document.querySelector('[data-hazards]'))).toContain('wall on the left');
    await fireEvent.click(screen.getByRole('button', { name: 'Take it' }));
    expect(desk.entry.details).toEqual({ ESCAPE: 'straight on' });
    await rerender({ entry: desk.entry });
    expect(screen.queryByRole('button', { name: 'Take it' })).toBeNull();
  });

  it('puts the early marker 20 m before the brake, also behind the line, and takes it away', async () => {
    const desk = new FakeDesk(entry({ slowing: 'BRAKE', points: [{ kind: 'BRAKE', station: 5 }] }));
    const { rerender } = facts(desk);
    await fireEvent.click(screen.getByRole('button', { name: 'early' }));
    expect(desk.entry.points.at(-1)).toEqual({ kind: 'BUILD_UP', station: LENGTH - 15 });
    await rerender({ entry: desk.entry });
    await fireEvent.click(screen.getByRole('button', { name: 'early' }));
    expect(desk.entry.points).toHaveLength(1);
  });

  it('says how sure the driver is, takes it back, and stays open', async () => {
    const desk = new FakeDesk(entry());
    const { rerender } = facts(desk);
    const list = () => document.querySelector('details') as HTMLDetailsElement;
    expect(list().open).toBe(false);
    await fireEvent.change(screen.getByLabelText('How sure of Apex'), { target: { value: 'UNSURE' } });
    expect(desk.entry.points.find((p) => p.kind === 'APEX')?.sure).toBe('UNSURE');
    await rerender({ entry: desk.entry });
    expect(list().open).toBe(true);
    await fireEvent.change(screen.getByLabelText('How sure of Apex'), { target: { value: '' } });
    expect(desk.entry.points.find((p) => p.kind === 'APEX')?.sure).toBeUndefined();
    await rerender({ entry: desk.entry });
    expect(list().open).toBe(true);
  });

  it('changes nothing for whoever only reads', () => {
    const desk = new FakeDesk(entry({ slowing: 'BRAKE' }));
    desk.movable = false;
    facts(desk);
    expect(document.querySelector('[data-add]')).toBeNull();
    for (const field of document.querySelectorAll('select, input, [data-step]'))
      expect((field as HTMLInputElement).disabled).toBe(true);
  });

  it('says what a note is good for, changes it and drops it', async () => {
    const desk = new FakeDesk(entry({ details: { AIM: 'the post', BUMPS: 'none' } }));
    const onclose = vi.fn();
    const { rerender } = render(NoteBar, { desk: asDesk(desk), entry: desk.entry, detail: 'AIM', onclose });
    expect(document.body.textContent).toContain('nothing is computed from them');
    await fireEvent.input(screen.getByLabelText('look at'), { target: { value: 'the white post' } });
    expect(desk.entry.details['AIM']).toBe('the white post');
    await rerender({ entry: desk.entry, detail: 'BUMPS' });
    await fireEvent.click(screen.getByRole('button', { name: 'over the bumps' }));
    expect(desk.entry.details['BUMPS']).toBe('over bumps');
    await rerender({ entry: desk.entry });
    await fireEvent.click(screen.getByLabelText('Remove bumps'));
    expect(desk.entry.details).toEqual({ AIM: 'the white post' });
    expect(onclose).toHaveBeenCalled();
  });

  it('keeps the use of a kerb that the survey does not have, and how much of the vehicle is on it', async () => {
    const desk = new FakeDesk(entry());
    const { onkerb } = facts(desk);
    await fireEvent.click(screen.getByRole('button', { name: 'exit kerb' }));
    expect(desk.entry.kerbs).toEqual([{ part: 'EXIT', how: 'TOUCH', why: '' }]);
    expect(onkerb).toHaveBeenLastCalledWith(0);
    const ondrop = vi.fn();
    render(KerbBar, { desk: asDesk(desk), entry: desk.entry, index: 0, ondrop });
    await fireEvent.click(screen.getByRole('button', { name: 'half the car' }));
    expect(desk.entry.kerbs).toEqual([{ part: 'EXIT', how: 'HALF_THE_CAR', why: '' }]);
    await fireEvent.click(screen.getByLabelText('Remove exit kerb'));
    expect(ondrop).toHaveBeenCalled();
  });
});

describe('the braking panel', () => {
  const braking = {
    makesIt: true,
    needMean: 9,
    capability: 12,
    limitStation: 450,
    marginMetres: 20,
    marginSeconds: 0.4,
    sensitivity: { perKmh: 2.5, perPercentGrip: 0.8, perTenthSecond: 6 },
  };
  const shaped = (peak?: number) =>
    entry({ pedals: { rise: 0.1, hold: 0.5, trail: 0.6, maintain: 0, ...(peak == null ? {} : { peak }) } });
  const said = () => squeezed(document.querySelector('[data-shape]'));

  it('tells peak and grip of the shape that was answered', () => {
    const e = shaped();
    const a = answer(e, { braking, pressing: { peak: 0.82, asks: 0.97 } });
    render(BrakePanel, { desk: asDesk(new FakeDesk(e, a)), entry: e });
    expect(said()).toContain('peak 82 % just makes it, asks 97 % of the grip');
  });

  it('says where the lap brakes again, and that the margin is not counted from there', () => {
    const e = entry({});
    const a = answer(e, { braking, again: [{ station: 1159, from: 66.3, to: 61.9 }] });
    render(BrakePanel, { desk: asDesk(new FakeDesk(e, a)), entry: e });
    const again = squeezed(document.querySelector('[data-again]'));
    expect(again).toMatch(/Brakes again at 1.159 m: 239 km.h to 223 km.h/);
    expect(again).toContain('Not counted in the margin');
  });

  it('does not say lift where the brakes for another corner are still on', () => {
    const e = { ...entry({}), slowing: 'LIFT' as const };
    const a = answer(e, { braking: null });
    const { unmount } = render(BrakePanel, { desk: asDesk(new FakeDesk(e, a)), entry: e });
    expect(squeezed(document.body)).toContain('Ease the throttle, no brakes.');
    unmount();
    a.words.braked = '2';
    render(BrakePanel, { desk: asDesk(new FakeDesk(e, a)), entry: e });
    expect(screen.getByRole('heading').textContent).toBe('Brakes for corner 2');
    expect(squeezed(document.body)).not.toContain('no brakes');
  });

  it('claims nothing of a shape whose answer is still on its way', () => {
    const before = answer(shaped(1.2), { braking, pressing: { peak: 1.2, asks: 1.3 } });
    const e = shaped();
    render(BrakePanel, { desk: asDesk(new FakeDesk(e, before)), entry: e });
    expect(said()).toContain('its peak follows');
    expect(said()).not.toContain('just makes it');
    expect(said()).not.toContain('% of the grip');
  });

  it('lets a peak that was set follow again, and drops the shape with its choice', async () => {
    const e = { ...shaped(1.1), schools: ['FRONT_LOADED', 'LATE_APEX'] as never };
    const desk = new FakeDesk(e, answer(e, { braking, pressing: { peak: 1.1, asks: 1.2 } }));
    render(BrakePanel, { desk: asDesk(desk), entry: e });
    await fireEvent.click(screen.getByRole('button', { name: 'let the peak follow' }));
    expect(desk.entry.pedals?.peak).toBeUndefined();
    await fireEvent.click(screen.getByRole('button', { name: 'no shape' }));
    expect(desk.entry.pedals).toBeUndefined();
    expect(desk.entry.schools).toEqual(['LATE_APEX']);
  });

  it('keeps effort within what a foot can do, also in the shape', async () => {
    const e = shaped(0.8);
    const desk = new FakeDesk(e, answer(e, { braking, pressing: { peak: 0.8, asks: 0.9 } }));
    render(BrakePanel, { desk: asDesk(desk), entry: e });
    const effort = screen.getByLabelText(/effort/);
    await fireEvent.change(effort, { target: { value: '250' } });
    expect(desk.entry.firstEffort).toBe(1);
    expect(desk.entry.pedals?.peak).toBe(1);
  });

  it('says what speed, grip and a moment cost, in the unit that is read', () => {
    const e = entry();
    render(BrakePanel, { desk: asDesk(new FakeDesk(e, answer(e, { braking }))), entry: e });
    const text = squeezed(document.querySelector('dl'));
    expect(text).toContain('5 km/h faster here 13 m sooner');
    expect(text).toContain('5 % less grip 4 m sooner');
    expect(text).toContain('0.1 s late 6 m gone');
  });

  it('says plainly when a corner will not be made', () => {
    const e = entry();
    const a = answer(e, { braking: { ...braking, makesIt: false, marginMetres: -6, marginSeconds: -0.1 } });
    render(BrakePanel, { desk: asDesk(new FakeDesk(e, a)), entry: e });
    expect(screen.getByText('will not make it')).toBeTruthy();
    expect(screen.getByText('too late by')).toBeTruthy();
  });
});

describe('gears on their revs', () => {
  const gear = (g: number, over = {}) => ({
    gear: g,
    revsAtMinimum: 6000 - g * 500,
    revsAtFull: 7500 - g * 500,
    usable: true,
    cost: (g - 3) * 0.05,
    safeDown: 30,
    lifts: false,
    pull: 8 - g,
    bears: Math.min(1, 4 / (8 - g)),
    ...over,
  });
  const shown = (gears: unknown[], over = {}) => {
    const e = entry();
    const shifts = {
      down: [{ gear: 3, station: 470, speed: 40, safe: true }],
      limiterCost: null,
      shortShiftCost: null,
    };
    const a = answer(e, { gears, shifts, exit: { seconds: 0.012, straight: 400, metres: 0.9 }, ...over });
    const desk = new FakeDesk(e, a);
    render(GearPanel, { desk: asDesk(desk), entry: e });
    return desk;
  };

  it('takes a gear by pointer or key, and prices each against the one that is planned', async () => {
    const desk = shown([gear(2), gear(3), gear(4, { usable: false, revsAtMinimum: 1500 })]);
    expect(squeezed(document.querySelector('[data-gear-row="2"]'))).toContain('−0.05 s');
    expect(squeezed(document.querySelector('[data-gear-row="4"]'))).toContain('too low');
    expect(document.querySelector('[data-gear-row="3"]')?.getAttribute('aria-pressed')).toBe('true');
    await fireEvent.keyDown(document.querySelector('[data-gear-row="2"]') as Element, { key: ' ' });
    expect(desk.entry.gear).toBe(2);
    await fireEvent.click(document.querySelector('[data-gear-row="4"]') as Element);
    expect(desk.entry.gear).toBe(4);
  });

  it('warns of a shift down that comes too early, and of a front wheel that lifts', () => {
    shown([gear(3, { lifts: true })], {
      shifts: { down: [{ gear: 3, station: 440, speed: 55, safe: false }], limiterCost: 0.03, shortShiftCost: -0.01 },
    });
    expect(squeezed(document.querySelector('[data-downshifts]'))).toContain('3 at 440 m, 198 km/h, too early');
    expect(document.body.textContent).toContain('lifts the front');
    expect(document.body.textContent).toContain('+0.03 s');
  });

  it('says that a gear higher is calmer, and its price; nothing where there is none', () => {
    shown([gear(2), gear(3), gear(4)]);
    const text = squeezed(document.querySelector('[data-calmer]'));
    expect(text).toContain('In 3 the tyres bear 80 % of the throttle');
    expect(text).toContain('in 4 100 %. 4 is calmer: the pedal answers 20 % more mildly, for +0.05 s');
    document.body.innerHTML = '';
    shown([gear(3), gear(4, { usable: false })]);
    expect(document.querySelector('[data-calmer]')).toBeNull();
  });

  it('says what a faster exit is worth, and what may be lost for it', () => {
    shown([gear(3)]);
    const text = squeezed(document.querySelector('[data-exit-worth]'));
    expect(text).toContain('gives 0.012 s over the 400 m');
    expect(text).toContain('0.9 m at the slowest point');
  });
});
