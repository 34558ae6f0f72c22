// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Action, CornerEntry, CueOffer, HeldCue, ScoredAction, WhatIf } from '../../api/api';
import { made } from '../../road/score';
import { LENGTH } from '../../testing/made';
import { squeezed } from '../../testing/shown';
import ActionBar from './ActionBar.svelte';
import ActionCosts from './ActionCosts.svelte';
import { pressed } from './actionKeys';
import { nextBehind, pressedCue } from './cueHold';
import type { Desk } from './desk.svelte';

const scored = (action: Action, over: Partial<ScoredAction> = {}): ScoredAction => ({
  action,
  line: 'lift to 40 % half-way along the wall',
  speed: 50,
  time: 1,
  amount: action.amount,
  solved: false,
  made: true,
  cues: [],
  trouble: '',
  ...over,
});

const working = (over: Record<string, unknown> = {}) => ({
  view: { length: LENGTH, gears: 6 },
  typed: '',
  putAction: vi.fn<(a: Action, moved: boolean, key?: string) => void>(),
  dropAction: vi.fn<(id: string) => void>(),
  makeAction: vi.fn(),
  letGo: vi.fn(),
  settle: vi.fn(),
  findable: () => true,
  pointed: null as unknown,
  ...over,
});

describe('keys on an action', () => {
  const none = { nextCue: vi.fn(), find: vi.fn() };
  const type = (desk: ReturnType<typeof working>, s: ScoredAction, ...keys: string[]) =>
    keys.map((key) => pressed(desk as unknown as Desk, new KeyboardEvent('keydown', { key }), s, none)).at(-1);
  const put = (desk: ReturnType<typeof working>) => desk.putAction.mock.calls.at(-1)?.[0];
  const lift = scored({ ...made('LIFT', 400, 'lift-1', 3), until: 430 });

  it('digits and Enter are its amount, with unit keys for how long and how far', () => {
    const desk = working();
    type(desk, lift, '6', '5', 'Enter');
    expect(put(desk)?.amount).toBe(0.65);
    type(desk, lift, '0', '.', '5', 's', 'Enter');
    expect(put(desk)?.until).toBe(425);
    const cued = scored({
      ...made('BRAKE', 400, 'brake-1', 3),
      cue: { kind: 'PAST', thing: 't', spoken: '', other: '', otherSpoken: '', number: 3 },
    });
    type(desk, cued, '1', '2', 'm', 'Enter');
    expect(put(desk)?.cue?.number).toBe(12);
    type(desk, scored(made('SHIFT', 400, 'shift-1', 3)), '2', 'Enter');
    expect(put(desk)?.gear).toBe(2);
  });

  it('a gear is held for metres or seconds, and let go with Backspace', () => {
    const desk = working();
    const shift = scored(made('SHIFT', 400, 'shift-1', 3));
    type(desk, shift, '8', '0', 'm', 'Enter');
    expect(put(desk)?.until).toBe(480);
    type(desk, shift, '2', 's', 'Enter');
    expect(put(desk)?.until).toBe(500);
    expect(type(desk, shift, '2', '0', '0', '0', 'm', 'Enter')).toBe('A gear is held for up to 1000 m.');
    type(desk, scored({ ...made('SHIFT', 400, 'shift-1', 3), until: 480 }), 'Backspace');
    expect(put(desk)?.until).toBeUndefined();
  });

  it('says the limit and changes nothing past it', () => {
    const desk = working();
    expect(type(desk, lift, '9', '9', 'Enter')).toBe('At most 95 %.');
    expect(type(desk, scored(made('SHIFT', 400, 'shift-1', 3)), '9', 'Enter')).toBe('Gears go from 1 to 6.');
    expect(type(desk, lift, '4', '0', 's', 'Enter')).toBe('A lift lasts up to 10 s.');
    expect(type(desk, lift, '4', 'm', 'Enter')).toBe('4m means nothing on this action.');
    expect(type(desk, lift, '1', '.', '.', 'Enter')).toBe('"1.." is no number.');
    expect(desk.putAction).not.toHaveBeenCalled();
  });

  it('arrows move it with its end, and change its amount within bounds', () => {
    const desk = working();
    type(desk, lift, 'ArrowLeft');
    expect(put(desk)).toMatchObject({ station: 399, until: 429 });
    expect(desk.putAction.mock.calls[0]?.[1]).toBe(true);
    type(desk, lift, 'ArrowUp');
    expect(put(desk)?.amount).toBe(0.45);
    type(desk, scored({ ...made('THROTTLE', 0, 't', 3), amount: 0.98 }), 'ArrowUp');
    expect(put(desk)?.amount).toBe(1);
  });

  it('opens the amount, takes it out, lets go, and leaves other keys alone', () => {
    const desk = working();
    type(desk, lift, 'Backspace');
    expect(put(desk)?.amount).toBeUndefined();
    type(desk, lift, 'Delete');
    expect(desk.dropAction).toHaveBeenCalledWith('lift-1');
    type(desk, lift, '3', 'Escape');
    expect(desk.typed).toBe('');
    expect(desk.letGo).not.toHaveBeenCalled();
    type(desk, lift, 'Escape');
    expect(desk.letGo).toHaveBeenCalled();
    expect(type(desk, lift, '[')).toBeNull();
    type(desk, lift, 'c', '/');
    expect(none.nextCue).toHaveBeenCalled();
    expect(none.find).toHaveBeenCalled();
  });
});

describe('the action in hand', () => {
  const offer = (kind: CueOffer['cue']['kind'], words: string, over: Partial<CueOffer> = {}): CueOffer => ({
    cue: { kind, thing: 'w', spoken: 'the wall', other: '', otherSpoken: '', number: 0.5 },
    station: 402,
    precision: 2,
    moves: 2,
    words,
    ...over,
  });
  const open = (s: ScoredAction, over: Record<string, unknown> = {}) => {
    const desk = working({
      offers: [
        offer('SHARE', 'half-way along the wall'),
        offer('PAST', '8 m past the post'),
        offer('SECONDS', '1.0 s after the braking'),
        offer('FEEL', 'by feel', { precision: 8 }),
      ],
      whatIfs: [],
      curve: null,
      amounts: null,
      dearest: [],
      score: [s],
      entry: { actions: [s.action] },
      cueThings: [{ id: 'w', kind: 'WALL', label: 'wall', station: 390, left: true, length: 30 }],
      ...over,
    });
    render(ActionBar, { desk: desk as unknown as Desk, held: s });
    return desk;
  };

  it('offers three cues, best first, and the rest on demand; taking one keeps its station', async () => {
    const desk = open(scored(made('LIFT', 400, 'lift-1', 3)));
    expect(document.querySelectorAll('[data-cue]')).toHaveLength(3);
    expect(squeezed(document.querySelector('[data-cue]'))).toContain('half-way along the wall, moves it 2.0 m');
    await fireEvent.click(screen.getByText('1 more'));
    expect(document.querySelectorAll('[data-cue]')).toHaveLength(4);
    await fireEvent.click(document.querySelector('[data-cue=SHARE]') as Element);
    expect(desk.putAction.mock.calls[0]?.[0]).toMatchObject({ station: 402, cue: { kind: 'SHARE' } });
  });

  const held = (role: HeldCue['role'], kind: CueOffer['cue']['kind'], over: Partial<HeldCue> = {}): HeldCue => ({
    role,
    cue: offer(kind, '').cue,
    words: kind.toLowerCase(),
    station: 400,
    precision: 2,
    counts: role === 'MAIN',
    why: '',
    ...over,
  });

  it('holds two cues together at a second press, and lets go of one at a third', () => {
    const wall = { cue: offer('SHARE', '').cue, station: 402 };
    const post = { cue: offer('PAST', '').cue, station: 398 };
    const lift = { ...made('LIFT', 400, 'lift-1', 3), cue: wall.cue, backUp: offer('SECONDS', '').cue };
    const first = pressedCue(lift, post, null);
    expect(first).toMatchObject({ cue: post.cue, station: 398, together: undefined, backUp: lift.backUp });
    const both = pressedCue(first, post, wall);
    expect(both).toMatchObject({ cue: wall.cue, together: post.cue, backUp: lift.backUp });
    expect(pressedCue(both, post, null)).toMatchObject({ cue: wall.cue, together: undefined });
    expect(pressedCue(both, wall, null)).toMatchObject({ cue: post.cue, together: undefined });
    expect(pressedCue(lift, wall, null)).toBe(lift);
    expect(pressedCue(lift, { cue: offer('SECONDS', '').cue, station: 401 }, null).backUp).toBeUndefined();
  });

  it('shows by which it is found, says that a second press holds both, and strikes out what does not happen', async () => {
    const lift = { ...made('LIFT', 400, 'lift-1', 3), cue: offer('SHARE', '').cue };
    const desk = open(
      scored(lift, {
        cues: [held('MAIN', 'SHARE', { why: 'The wall is not there.', counts: false }), held('BACK_UP', 'PAST')],
      }),
    );
    expect(document.querySelector('[data-role=MAIN]')?.getAttribute('title')).toBe('The wall is not there.');
    expect(document.querySelector('[data-behind]')?.textContent).toContain('if hidden: past');
    await fireEvent.click(document.querySelector('[data-cue=SECONDS]') as Element);
    expect(desk.putAction.mock.calls[0]?.[0]).toMatchObject({ station: 402, cue: { kind: 'SECONDS' } });
    await fireEvent.pointerEnter(document.querySelector('[data-cue=FEEL]') as Element);
    expect(desk.pointed).toMatchObject({ cue: { kind: 'FEEL' }, station: 402 });
    await fireEvent.click(screen.getByLabelText('No back-up'));
    expect(desk.putAction.mock.calls[1]?.[0].backUp).toBeUndefined();
  });

  it('takes as back-up the next best that hangs on something else', () => {
    const at = (kind: CueOffer['cue']['kind'], thing: string) => ({
      cue: { ...offer(kind, '').cue, thing },
      station: 1,
    });
    const lift = { ...made('LIFT', 400, 'lift-1', 3), cue: at('PAST', 'w').cue };
    const offers = [at('PAST', 'w'), at('SHARE', 'w'), at('SECONDS', ''), at('PAST', 'board'), at('FEEL', '')];
    const first = nextBehind(lift, offers);
    expect(first?.kind).toBe('SECONDS');
    expect(nextBehind({ ...lift, backUp: first }, offers)?.thing).toBe('board');
    expect(nextBehind({ ...lift, backUp: at('PAST', 'board').cue }, offers)).toBeUndefined();
  });

  it('opens a number pad on the amount for fingers, and says what is refused', async () => {
    const lift = scored(made('LIFT', 400, 'lift-1', 3));
    const desk = working({ offers: [], score: [lift], entry: { actions: [lift.action] }, cueThings: [] });
    render(ActionBar, { desk: desk as unknown as Desk, held: lift, fingers: true });
    const pad = document.querySelector('[data-amount-pad]') as HTMLInputElement;
    expect(pad.inputMode).toBe('decimal');
    await fireEvent.change(pad, { target: { value: '35' } });
    expect(desk.putAction.mock.calls.at(-1)?.[0].amount).toBe(0.35);
    await fireEvent.change(pad, { target: { value: '99' } });
    expect(screen.getByRole('alert').textContent).toContain('At most 95 %');
    expect(desk.putAction).toHaveBeenCalledTimes(1);
  });

  it('looks at a thing ahead, or at where something is done, and says where it stands', async () => {
    const look = scored(made('EYES', 400, 'eyes-1', 3));
    const apex = scored(made('APEX', 460, 'apex', 3));
    const behind = scored(made('BRAKE', 380, 'brake', 3));
    const post = { id: 'p', kind: 'POST', label: 'second', station: 430, left: true, length: 0 };
    const desk = working({
      offers: [],
      score: [behind, look, apex],
      entry: { actions: [look.action] },
      cueThings: [post, { ...post, id: 'past', station: 390 }, { ...post, id: 'far', station: 900 }],
    });
    const { rerender } = render(ActionBar, { desk: desk as unknown as Desk, held: look });
    const choice = screen.getByLabelText('Looks at') as HTMLSelectElement;
    expect([...choice.options].map((o) => o.value)).toEqual(['', '/apex', 'p/']);
    await fireEvent.change(choice, { target: { value: 'p/' } });
    const put = desk.putAction.mock.calls.at(-1)?.[0];
    expect(put?.target).toMatchObject({ kind: 'BESIDE', thing: 'p' });
    await fireEvent.change(choice, { target: { value: '/apex' } });
    expect(desk.putAction.mock.calls.at(-1)?.[0].target).toMatchObject({ kind: 'SECONDS', other: 'apex', number: 0 });
    const gaze = { angle: 0.3, metres: 30, seconds: 0.7, words: '17° off your way, 30 m and 0.7 s ahead', why: '' };
    await rerender({ held: { ...look, action: { ...look.action, target: put?.target }, gaze } });
    expect(document.querySelector('[data-gaze]')?.textContent).toBe(gaze.words);
    await fireEvent.change(choice, { target: { value: '' } });
    expect(desk.putAction.mock.calls.at(-1)?.[0].target).toBeUndefined();
  });

  it('says where a rider has the weight, and what that and the front brake make of the limits', async () => {
    const body = scored(made('BODY', 400, 'body-1', 3));
    const view = { gears: 6, length: LENGTH, motorcycle: true };
    const desk = working({ view, offers: [], score: [body], entry: { actions: [body.action] }, cueThings: [] });
    const { rerender } = render(ActionBar, { desk: desk as unknown as Desk, held: body });
    await fireEvent.click(document.querySelector('[data-stance=FORWARD]') as Element);
    const put = desk.putAction.mock.calls.at(-1)?.[0];
    expect(put?.stance).toBe('FORWARD');
    const rides = { stops: 0.94, drives: 1.05, words: 'stops as hard as 94 %' };
    await rerender({ held: { ...body, action: { ...body.action, stance: 'FORWARD' }, rides } });
    expect(document.querySelector('[data-rides]')?.textContent).toBe(rides.words);
    await fireEvent.click(document.querySelector('[data-stance=FORWARD]') as Element);
    expect(desk.putAction.mock.calls.at(-1)?.[0].stance).toBeUndefined();
    cleanup();
    // Nobody sits on a car.
    const car = working({ offers: [], score: [body], entry: { actions: [body.action] }, cueThings: [] });
    render(ActionBar, { desk: car as unknown as Desk, held: body });
    expect(document.querySelector('[data-stance]')).toBeNull();
  });

  it('takes a cue in words, and says so where nothing fits', async () => {
    const desk = open(scored(made('LIFT', 400, 'lift-1', 3)));
    const field = screen.getByLabelText('Cue in words');
    await fireEvent.input(field, { target: { value: 'half wall' } });
    await fireEvent.submit(field.closest('form') as Element);
    expect(desk.putAction.mock.calls[0]?.[0].cue).toMatchObject({ kind: 'SHARE', thing: 'w', number: 0.5 });
    await fireEvent.input(field, { target: { value: 'old mill' } });
    await fireEvent.submit(field.closest('form') as Element);
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('Name a thing of the survey'));
    expect(desk.putAction).toHaveBeenCalledTimes(1);
  });

  it('says how sure the driver is of a point or an action, and takes it back', async () => {
    const e = { actions: [], points: [{ kind: 'APEX', station: 540 }] } as unknown as CornerEntry;
    const edit = vi.fn<(how: (e: CornerEntry) => CornerEntry) => void>();
    open(scored(made('APEX', 540, 'apex', 3)), { entry: e, edit });
    await fireEvent.change(screen.getByLabelText('How sure of it'), { target: { value: 'UNSURE' } });
    const said = edit.mock.calls[0]?.[0](e);
    expect(said?.points[0]?.sure).toBe('UNSURE');
    await fireEvent.change(screen.getByLabelText('How sure of it'), { target: { value: '' } });
    expect(edit.mock.calls[1]?.[0](said as CornerEntry).points[0]?.sure).toBeUndefined();
    cleanup();
    const lift = made('LIFT', 400, 'lift-1', 3);
    const desk = open(scored(lift), { entry: { actions: [lift], points: [] } });
    await fireEvent.change(screen.getByLabelText('How sure of it'), { target: { value: 'FAIRLY' } });
    expect(desk.putAction.mock.calls[0]?.[0].sure).toBe('FAIRLY');
  });

  it('puts the early marker 20 m before the brake, also behind the line, and takes it away', async () => {
    const e = { actions: [], points: [{ kind: 'BRAKE', station: 5 }] } as unknown as CornerEntry;
    const edit = vi.fn<(how: (e: CornerEntry) => CornerEntry) => void>();
    open(scored(made('BRAKE', 5, 'brake', 3)), { entry: e, edit });
    await fireEvent.click(screen.getByRole('button', { name: 'early' }));
    const early = edit.mock.calls[0]?.[0](e) as CornerEntry;
    expect(early.points.at(-1)).toEqual({ kind: 'BUILD_UP', station: LENGTH - 15 });
    expect(edit.mock.calls[0]?.[0](early).points).toHaveLength(1);
    expect(screen.queryByLabelText('Take it out')).toBeNull();
  });

  it('takes out a shift that is a point', async () => {
    const desk = open(scored(made('SHIFT', 480, 'downshift', 3)), { entry: { actions: [], points: [] } });
    await fireEvent.click(screen.getByLabelText('Take it out'));
    expect(desk.dropAction).toHaveBeenCalledWith('downshift');
  });

  it('offers no cue where a day would not keep it', () => {
    open(scored(made('LIFT', 400, 'lift-1', 3)), { findable: () => false });
    expect(document.querySelectorAll('[data-cue]')).toHaveLength(0);
    expect(screen.queryByLabelText('Cue in words')).toBeNull();
    expect(document.body.textContent).toContain('found as in the reference');
  });

  it('becomes its neighbour in kind, is done slowly, is taken out', async () => {
    const desk = open(scored(made('LIFT', 400, 'lift-1', 3)));
    await fireEvent.click(screen.getByText('slowly'));
    expect(desk.putAction.mock.calls[0]?.[0].manner).toBe('SLOWLY');
    await fireEvent.click(screen.getByText('rather full throttle'));
    expect(desk.makeAction).toHaveBeenCalledWith('FULL', 400, 0.4);
    await fireEvent.click(screen.getByLabelText('Take it out'));
    expect(desk.dropAction).toHaveBeenLastCalledWith('lift-1');
  });

  it('says why its cue does not happen and that its place is not met', () => {
    open(scored(made('BRAKE', 400, 'brake-1', 3), { trouble: 'The limiter is not reached.', made: false }));
    expect(screen.getByRole('alert').textContent).toBe('The limiter is not reached.');
    expect(document.body.textContent).toContain('does not slow enough');
  });

  it('a point of every corner is not taken out', () => {
    open(scored({ ...made('BRAKE', 400, 'brake', 3) }), { entry: { actions: [], points: [] } });
    expect(screen.queryByLabelText('Take it out')).toBeNull();
  });

  it('shows what it costs otherwise, and what the tyres were asked', () => {
    const what = (change: WhatIf['change'], seconds: number | undefined, makes = true): WhatIf => ({
      action: 'brake-1',
      change,
      seconds,
      makes,
    });
    const s = scored(made('BRAKE', 400, 'brake-1', 3), { asked: 1.3 });
    const desk = working({
      curve: null,
      amounts: null,
      dearest: [],
      whatIfs: [what('SOONER', 0.021), what('LATER', undefined, false), { ...what('LATE', 3), action: 'other' }],
      score: [s],
      unwise: [{ what: 'BRAKE', from: 390, to: 410, why: 'over bumps' }],
    });
    render(ActionCosts, { desk: desk as unknown as Desk, held: s });
    const text = squeezed(document.querySelector('[data-costs]'));
    expect(text).toContain('5 m sooner +0.021 s');
    expect(text).toContain('5 m later not made');
    expect(text).not.toContain('0.1 s late');
    expect(text).toContain('Better not here: over bumps.');
    expect(text).toContain('Asks 130 % of what the tyres bear there; the rest is cut.');
  });

  it('draws what more and less of it cost, and says no bar twice', () => {
    const s = scored(made('LIFT', 400, 'l1', 3), { amount: 0.4 });
    const whatIf = (change: WhatIf['change'], seconds: number): WhatIf => ({
      action: 'l1',
      change,
      seconds,
      makes: true,
    });
    const desk = working({
      curve: null,
      amounts: {
        action: 'l1',
        across: false,
        written: 0.4,
        amounts: [0.2, 0.3, 0.4, 0.5, 0.6],
        seconds: [0.05, 0.021, 0, -0.012, null],
      },
      dearest: [],
      whatIfs: [whatIf('LESS', 0.021), whatIf('MORE', -0.012), whatIf('LATE', 0.1)],
      score: [s],
      unwise: [],
    });
    render(ActionCosts, { desk: desk as unknown as Desk, held: s });
    const text = squeezed(document.querySelector('[data-costs]'));
    expect(text).toContain('10 points less: +0.021 s; 10 points more: −0.012 s.');
    expect(text).not.toContain('10 points less +0.021 s');
    expect(text).toContain('0.1 s late');
    expect(text).toContain('20 %');
    const shut = document.querySelectorAll('[data-not-made]');
    expect([...shut].map((r) => r.getAttribute('data-not-made'))).toEqual(['0.6']);
  });
});
