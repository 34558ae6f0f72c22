// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { tick } from 'svelte';
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import DrivePanel from './DrivePanel.svelte';
import KnownStrip from './KnownStrip.svelte';
import ListenPanel from './ListenPanel.svelte';
import MissedPanel from './MissedPanel.svelte';
import OnPurposePanel from './OnPurposePanel.svelte';
import RecallPanel from './RecallPanel.svelte';
import Rehearse from './Rehearse.svelte';
import {
  apart,
  browserAnswers,
  firing,
  lagOf,
  placeAt,
  replayed,
  send,
  stillBefore,
  timeAt,
  type Answer,
} from './rehearse';
import type { AskedView, ClockView, Performed, RehearsalView } from '../../api/api';
import { corner, LENGTH, road } from '../../testing/made';
import { server } from '../../testing/server';
import { keepMarks } from '../film/film';
import { hosted, squeezed } from '../../testing/shown';

// 2000 m: 50 m/s over the first half, 25 m/s over the second.
const clock: ClockView = {
  lapTime: 60,
  length: LENGTH,
  step: 500,
  times: [0, 10, 20, 40],
  speed: [50, 50, 25, 25],
  revs: [6000, 6000, 3000, 3000],
  gear: [4, 4, 2, 2],
  due: [
    { corner: 'c1', action: 'brake', key: 'BRAKE', at: 8.6, station: 430 },
    { corner: 'c1', action: 'turn-in', key: 'HANDS', at: 9.96, station: 498 },
  ],
  cylinders: 4,
  strokes: 4,
};
const asked = (over: Partial<AskedView['fact']> = {}, more: Partial<AskedView> = {}): AskedView =>
  ({
    fact: {
      id: 'c1/brake/PLACE',
      corner: 'c1',
      action: 'brake',
      kind: 'BRAKE',
      asks: 'PLACE',
      answer: 430,
      precision: 6,
      worth: 0.1,
      leads: false,
      ...over,
    },
    called: 'T1',
    right: 'brake at the 100 board',
    options: [],
    then: 0,
    ...more,
  }) as AskedView;
const reference = {
  corners: [corner()],
  things: { landmarks: [{ id: 'l1', kind: 'BOARD', label: '100', station: 430, left: false, out: 3 }] },
  gears: 6,
} as never;

describe('the clock of a lap', () => {
  it('knows where one is and when', () => {
    expect(placeAt(clock, 5)).toMatchObject({ station: 250, speed: 50, gear: 4 });
    expect(placeAt(clock, 30).station).toBeCloseTo(1250);
    expect(placeAt(clock, 50).station).toBeCloseTo(1750);
    // Before the line one is at the end of the lap before.
    expect(placeAt(clock, -2).station).toBeCloseTo(1950);
    for (const s of [0, 250, 740, 1500, 1999]) expect(placeAt(clock, timeAt(clock, s)).station).toBeCloseTo(s, 6);
    expect(apart(1990, 5, LENGTH)).toBe(15);
  });

  it('fires each cylinder once in two turns of four strokes', () => {
    expect(firing(6000, 4, 4)).toBe(200);
    expect(firing(9000, 1, 2)).toBe(150);
  });

  it('takes a lag off only where it is steady and short', () => {
    const first = [0.3, 0.4, -0.2, 0.5];
    const steady = Array.from({ length: 16 }, (_, i) => 0.08 + (i % 2 ? 0.01 : -0.01));
    expect(lagOf([...first, ...steady])?.seconds).toBeCloseTo(0.08);
    expect(lagOf([...first, ...steady.map((v, i) => v + (i % 3) * 0.1)])).toBeNull();
    expect(lagOf([...first, ...steady.map((v) => v + 0.2)])).toBeNull();
    expect(lagOf(first)).toBeNull();
  });
});

describe('recall', () => {
  const shown = (questions: AskedView[], left = 0) => {
    const onanswer = vi.fn<(a: Answer) => void>();
    const onmore = vi.fn();
    render(RecallPanel, { asked: questions, left, leftIn: ['T5', 'T9'], road: road(), reference, onanswer, onmore });
    return { onanswer, onmore };
  };

  it('takes a place by the keys, and says how far off it was and what is right', async () => {
    const { onanswer } = shown([asked()]);
    expect(document.querySelector('[data-question]')?.textContent).toBe('Where do you brake?');
    const strip = screen.getByRole('slider', { name: /Place on the road/ });
    expect((screen.getByRole('button', { name: 'Here' }) as HTMLButtonElement).disabled).toBe(true);
    // The stretch is 380 m from 300 m: its middle is at 490 m.
    for (let i = 0; i < 6; i++) await fireEvent.keyDown(strip, { key: 'ArrowLeft', shiftKey: true });
    await fireEvent.keyDown(strip, { key: 'ArrowRight' });
    expect(document.querySelector('[data-right]')).toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: 'Here' }));
    const sent = onanswer.mock.calls[0]?.[0].answered;
    expect(sent).toMatchObject({ fact: 'c1/brake/PLACE', right: 430, precision: 6, rate: 0 });
    const off = Math.round((sent?.told ?? 0) - 430);
    expect(squeezed(document.querySelector('[data-told-off]'))).toBe(
      `${Math.abs(off)} m ${off < 0 ? 'early' : 'late'}. brake at the 100 board, told to 6 m by its cue`,
    );
    expect(document.querySelector('[data-right]')).toBeTruthy();
    await fireEvent.keyDown(window, { key: 'Enter' });
    expect(screen.getByText(/of 1 right/)).toBeTruthy();
  });

  it('does not give the place away by where the stretch begins', async () => {
    for (const answer of [421, 430, 438]) {
      const { unmount } = render(RecallPanel, {
        asked: [asked({ answer })],
        left: 0,
        leftIn: [],
        road: road(),
        reference,
        onanswer: vi.fn(),
        onmore: vi.fn(),
      });
      expect(screen.getByRole('slider').getAttribute('aria-valuemax')).toBe('380');
      unmount();
    }
  });

  it('takes a gear and a share by a digit, and no idea as no answer', async () => {
    const { onanswer } = shown([
      asked({ id: 'g', asks: 'GEAR', answer: 3, precision: 0 }),
      asked({ id: 's', asks: 'SHARE', answer: 0.8, precision: 0.1 }),
      asked(),
    ]);
    await fireEvent.keyDown(window, { key: '4' });
    expect(squeezed(document.querySelector('[data-told-off]'))).toBe('Not so. gear 3');
    await fireEvent.keyDown(window, { key: 'Enter' });
    await fireEvent.keyDown(window, { key: '7' });
    expect(squeezed(document.querySelector('[data-told-off]'))).toContain('−10 points. 80 %');
    await fireEvent.keyDown(window, { key: 'Enter' });
    await fireEvent.click(screen.getByRole('button', { name: 'No idea' }));
    expect(onanswer.mock.calls.map((c) => c[0].answered.told)).toEqual([4, 0.7, undefined]);
    await fireEvent.keyDown(window, { key: 'Enter' });
    expect(screen.getByText(/1 of 3 right/)).toBeTruthy();
  });

  it('asks what comes next by a choice', async () => {
    const { onanswer, onmore } = shown(
      [asked({ id: 'n', asks: 'NEXT', answer: 3, precision: 0 }, { options: ['BRAKE', 'EASE', 'THROTTLE'] })],
      5,
    );
    await fireEvent.click(screen.getByRole('button', { name: '2 · ease the brake' }));
    expect(onanswer.mock.calls[0]?.[0].answered.told).toBe(3);
    expect(squeezed(document.querySelector('[data-told-off]'))).toContain('Right.');
    await fireEvent.click(screen.getByRole('button', { name: 'Next' }));
    expect(squeezed(document.querySelector('[data-through]'))).toContain('5 more wait, in T5, T9.');
    await fireEvent.click(screen.getByRole('button', { name: 'Ask what is left' }));
    expect(onmore).toHaveBeenCalled();
  });
});

describe('recall, typed', () => {
  const shown = (question: AskedView) => {
    const onanswer = vi.fn<(a: Answer) => void>();
    render(RecallPanel, { asked: [question], left: 0, leftIn: [], road: road(), reference, onanswer, onmore: vi.fn() });
    return onanswer;
  };
  const type = async (field: HTMLElement, value: string) => {
    await fireEvent.input(field, { target: { value } });
    await fireEvent.keyDown(field, { key: 'Enter' });
  };

  it('takes a place as metres past the thing that its cue hangs on', async () => {
    const onanswer = shown(asked({}, { from: { spoken: 'the 100 board', station: 425 } }));
    await type(screen.getByRole('spinbutton', { name: 'Metres past the 100 board' }), '-3');
    expect(onanswer.mock.calls[0]?.[0].answered.told).toBe(422);
    expect(squeezed(document.querySelector('[data-told-off]'))).toContain('8 m early');
    // Once told, the field is gone and nothing is told again.
    expect(screen.queryByRole('spinbutton')).toBeNull();
    expect(onanswer).toHaveBeenCalledTimes(1);
  });

  it('takes a share as a number, and its digits are no answers on the way', async () => {
    const onanswer = shown(asked({ asks: 'SHARE', answer: 0.8, precision: 0.1 }));
    const field = screen.getByRole('spinbutton', { name: 'Per cent' });
    await fireEvent.keyDown(field, { key: '7' });
    expect(onanswer).not.toHaveBeenCalled();
    await type(field, '75');
    expect(onanswer.mock.calls[0]?.[0].answered.told).toBe(0.75);
  });

  it('asks with pictures of one’s own film, and takes metres from there', async () => {
    vi.stubGlobal('URL', Object.assign(URL, { createObjectURL: () => 'blob:film', revokeObjectURL: () => undefined }));
    const file = new File(['film'], 'seat.webm');
    await keepMarks('lap1', file, [{ film: 2, lap: 0 }]);
    server.on('GET', /laps\/lap1\/trace$/, () => ({
      id: 'lap1',
      step: 10,
      lapTime: 40,
      times: Array.from({ length: LENGTH / 10 }, (_, i) => i / 5),
      speed: Array.from({ length: LENGTH / 10 }, () => 50),
    }));
    const onanswer = shown(asked());
    const choose = async (of: File) => {
      const input = document.querySelector('[data-film-choice] input[type=file]') as HTMLInputElement;
      Object.defineProperty(input, 'files', { value: [of], configurable: true });
      await fireEvent.change(input);
    };
    await choose(new File(['film'], 'unknown.webm'));
    await screen.findByText(/not lined up with a lap of this circuit/);
    await choose(file);
    const video = await waitFor(() => {
      const v = document.querySelector<HTMLVideoElement>('[data-film-still]');
      if (!v) throw new Error('no still');
      return v;
    });
    const at = stillBefore(asked().fact, LENGTH);
    expect(430 - at).toBeGreaterThanOrEqual(25);
    expect(430 - at).toBeLessThanOrEqual(95);
    await fireEvent(video, new Event('loadeddata'));
    expect(video.currentTime).toBeCloseTo(2 + at / 50, 1);
    // The strip would give it away.
    expect(document.querySelector('[data-road]')).toBeNull();
    await fireEvent.input(screen.getByRole('slider', { name: 'Metres from this picture' }), {
      target: { value: String(430 - at - 4) },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Here' }));
    expect(onanswer.mock.calls[0]?.[0].answered.told).toBeCloseTo(426);
    expect(document.querySelector('[data-right]')).toBeTruthy();
  });

  it('asks backwards', async () => {
    const onanswer = shown(asked({ asks: 'BEFORE', answer: 2, precision: 0 }, { options: ['LIFT', 'BRAKE'] }));
    expect(document.querySelector('[data-question]')?.textContent).toBe(
      'You brake: what came before it on the pedals?',
    );
    await fireEvent.keyDown(window, { key: '1' });
    expect(onanswer.mock.calls[0]?.[0].answered.told).toBe(1);
  });
});

describe('often missed', () => {
  it('names a better cue, shows the picture, and leads to the mistake', async () => {
    const onwrong = vi.fn();
    render(MissedPanel, {
      missed: [
        {
          corner: 'c1',
          called: 'T1',
          kind: 'BRAKE',
          times: 4,
          missed: 3,
          better: 'at the bridge',
          metres: 2,
          from: 9,
          photo: 'p1',
        },
        { corner: 'c2', called: 'T2', kind: 'HANDS', times: 3, missed: 3, better: '', from: 5, photo: '' },
        { corner: 'c3', called: 'T3', kind: 'LIFT', times: 3, missed: 2, better: '', from: 2, photo: '' },
      ],
      reference: 'r1',
      onwrong,
    });
    const words = squeezed(document.querySelector('[data-missed]'));
    expect(words).toContain('T1, brake: 3 of 4 times wrong. A better cue: at the bridge, told to 2 m and not to 9 m.');
    expect(words).toContain('T2, turn in: 3 of 3 times wrong. No better cue is in reach');
    expect(words).toContain('T3, lift: 2 of 3 times wrong. Its cue is close enough');
    expect(document.querySelectorAll('img')).toHaveLength(1);
    await fireEvent.click(screen.getAllByRole('button', { name: 'Drive it wrong' })[1] as HTMLElement);
    expect(onwrong).toHaveBeenCalledWith('c2');
  });
});

describe('wrong on purpose', () => {
  const stretch = (speed: number[]) => ({
    from: 300,
    step: 50,
    speed,
    brake: speed.map(() => 0),
    throttle: speed.map(() => 1),
    gear: speed.map(() => 4),
    offset: speed.map(() => 0),
    use: speed.map(() => 0.5),
  });
  const plan = stretch([50, 50, 50, 25, 25, 25]);
  const mistake = (over: object) => ({
    kind: 'BRAKE',
    whose: 'USUAL',
    of: 0,
    metres: 10,
    look: 'past the apex',
    planned: plan,
    wrong: stretch([50, 50, 50, 50, 25, 25]),
    ...over,
  });
  const shown = (answers: object[]) => {
    vi.stubGlobal('matchMedia', () => ({ matches: false }));
    server.on('GET', /mistakes\/c1$/, () => answers);
    render(OnPurposePanel, { session: 's1', reference, road: road(), corner: 'c1', oncorner: vi.fn() });
  };

  it('is in time where one is and how fast', () => {
    const r = replayed(plan);
    expect(r.times[2]).toBeCloseTo(2);
    expect(r.along(1)).toBeCloseTo(50);
    expect(r.speed(1)).toBe(50);
    expect(r.along(2 + 50 / 37.5)).toBeCloseTo(150);
    expect(r.along(99)).toBeCloseTo(250);
    for (const t of [0.5, 2.4, 4, 7]) expect(r.when(r.along(t))).toBeCloseTo(t);
    expect(r.along(-1)).toBe(0);
  });

  it('stands beside the plan with what it costs and whose it is', async () => {
    shown([
      mistake({ whose: 'DRIVEN', of: 6, metres: -12, seconds: 0.21, look: 'slow all along' }),
      mistake({ deep: 9 }),
    ]);
    await screen.findByText(/yours, in 6 recorded laps/);
    const words = () => squeezed(document.querySelector('[data-mistake]'));
    expect(words()).toBe(
      'brake 12 m early, yours, in 6 recorded laps: +0.21 s up to the next braking. From the seat: slow all along.',
    );
    await fireEvent.click(screen.getByRole('button', { name: 'brake 10 m late' }));
    expect(words()).toContain('a usual one (a fifth of a second): the corner is not made, deep by 9 m.');
    // At the beginning both are at the same place; later the one that brakes late is ahead.
    expect(squeezed(document.querySelector('[data-apart]'))).toContain('0 m');
    const time = screen.getByRole('slider', { name: 'Seconds' });
    await fireEvent.input(time, { target: { value: '3' } });
    expect(squeezed(document.querySelector('[data-apart]'))).toMatch(/[1-9]\d* m ahead/);
    expect(document.querySelector('[data-planned]')).toBeTruthy();
    expect(document.querySelector('[data-wrong]')).toBeTruthy();
  });

  it('says where nothing goes wrong', async () => {
    shown([]);
    await screen.findByText(/Nothing goes wrong here/);
  });
});

describe('drive it', () => {
  let frames: FrameRequestCallback[] = [];
  let now = 0;
  beforeEach(() => {
    frames = [];
    now = 1000;
    vi.spyOn(performance, 'now').mockImplementation(() => now);
    vi.stubGlobal('requestAnimationFrame', (f: FrameRequestCallback) => frames.push(f));

    vi.stubGlobal('cancelAnimationFrame', (id: number) => {
      if (id) frames = frames.filter((_, i) => i !== id - 1);
    });
    vi.stubGlobal('matchMedia', () => ({ matches: false }));
    HTMLCanvasElement.prototype.getContext = (() => null) as never;
    localStorage.clear();
  });
  const frame = (at: number) => {
    now = at;
    const due = frames;
    frames = [];
    due.forEach((f) => f(at));
  };
  const shown = (drives: Performed[] = [], faster: RehearsalView['faster'] = []) => {
    const ondriven = vi.fn<(a: Answer) => void>();
    render(DrivePanel, { clock, road: road(), reference, drives, faster, waiting: 0, ondriven });
    return ondriven;
  };
  const press = async (key: string, stamp: number) => {
    const e = new KeyboardEvent('keydown', { key, bubbles: true });
    Object.defineProperty(e, 'timeStamp', { value: stamp });
    await fireEvent(window, e);
  };

  it('times presses by their own stamp, however late the frames are', async () => {
    const ondriven = shown();
    await fireEvent.click(screen.getByRole('button', { name: 'true speed' }));
    await fireEvent.click(screen.getByRole('button', { name: 'Drive the lap' }));
    frame(1010);
    // The line is 4 s ahead of the start; due at 8.6 s of the road, pressed 0.15 s late.
    await press('b', 1000 + (4 + 8.75) * 1000);
    frame(1000 + 40_000);
    frame(1000 + 66_000);
    const sent = ondriven.mock.calls[0]?.[0].answered;
    expect(sent?.presses).toEqual([{ key: 'BRAKE', at: 8.75, hard: true }]);
    expect(sent).toMatchObject({ rate: 1, keys: ['BRAKE'], fact: '' });
    // What was planned then goes along: a plan that is changed later is not held against it.
    expect(sent?.stations).toEqual({ 'c1/brake': 430 });
  });

  it('is right to 10 ms over two hundred presses with frames held back', async () => {
    // Two hundred actions a second apart; frames come when they will, up to half a second late.
    const many: ClockView = {
      ...clock,
      lapTime: 240,
      times: [0, 60, 120, 180],
      due: Array.from({ length: 200 }, (_, i) => ({
        corner: 'c1',
        action: `brake-${i}`,
        key: 'BRAKE' as const,
        at: 10 + i,
        station: i,
      })),
    };
    const ondriven = vi.fn<(a: Answer) => void>();
    render(DrivePanel, { clock: many, road: road(), reference, drives: [], faster: [], waiting: 0, ondriven });
    await fireEvent.click(screen.getByRole('button', { name: 'true speed' }));
    await fireEvent.click(screen.getByRole('button', { name: 'Drive the lap' }));
    let seed = 5;
    const chance = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
    const pressed = many.due.map((d) => d.at + (chance() - 0.5) * 0.6);
    for (const at of pressed) {
      const stamp = 1000 + (4 + at) * 1000;
      // The frame before and the handling of the press both come late.
      frame(stamp - 500 * chance());
      now = stamp + 400 * chance();
      await press('b', stamp);
    }
    frame(1000 + 246_000);
    const sent = ondriven.mock.calls[0]?.[0].answered.presses ?? [];
    expect(sent).toHaveLength(200);
    const off = sent.map((p, i) => Math.abs(p.at - (pressed[i] ?? 0)));
    expect(Math.max(...off)).toBeLessThan(0.01);
  });

  it('says how hard by two keys, and how much by the slide of a thumb', async () => {
    HTMLElement.prototype.setPointerCapture = vi.fn();
    const ondriven = shown();
    await fireEvent.click(screen.getByRole('button', { name: 'true speed' }));
    await fireEvent.click(screen.getByRole('button', { name: 'Drive the lap' }));
    await press('n', 1000 + 5000);
    await press(' ', 1000 + 6000);
    const thumb = (kind: string, y: number) =>
      fireEvent(
        document.querySelector('[data-press="BRAKE"]') as Element,
        new MouseEvent(kind, { clientY: y, bubbles: true }),
      );
    await thumb('pointerdown', 400);
    await thumb('pointermove', 396);
    await thumb('pointerup', 396);
    await thumb('pointerdown', 400);
    await thumb('pointermove', 335);
    frame(1000 + 6000);
    await tick();
    expect(document.querySelector('[data-press="BRAKE"]')?.textContent).toContain('Brake 50 %');
    await thumb('pointerup', 335);
    // Where nothing was pressed a thumb that slides says nothing.
    await thumb('pointermove', 100);
    frame(1000 + 66_000);
    const presses = ondriven.mock.calls[0]?.[0].answered.presses ?? [];
    expect(presses.map((p) => [p.hard, p.amount])).toEqual([
      [false, undefined],
      [undefined, undefined],
      [undefined, undefined],
      [undefined, 0.5],
    ]);
  });

  it.each([
    [{ more: 0.25, enough: false, otherKey: false }, 'brake on it, +25 points'],
    [{ more: -0.1, enough: true, otherKey: false }, 'brake on it, as much as planned'],
    [{ more: null, enough: true, otherKey: true }, 'brake on it, on the other brake key'],
  ])('tells how much was pressed: %j', (how, words) => {
    const due = clock.due[0];
    shown([
      {
        id: 'd',
        at: '2026-06-06T10:00:00Z',
        rate: 1,
        dark: false,
        performance: { met: [{ due, seconds: 0, metres: 0, ...how }], missed: [], extra: [] },
        happened: [],
      } as unknown as Performed,
    ]);
    expect(squeezed(document.querySelector('[data-performance] li'))).toContain(words);
  });

  it('measures the lag of closed eyes by clicks, which are set on the clock of the sound', async () => {
    const clicks: number[] = [];
    let silenced = 0;
    let resumed: () => void = () => undefined;
    const param = {
      value: 0,
      setValueAtTime: vi.fn(),
      setTargetAtTime: vi.fn(),
      linearRampToValueAtTime: vi.fn(),
      exponentialRampToValueAtTime: vi.fn(),
    };
    const node = () => ({
      gain: { ...param },
      frequency: { ...param },
      connect: vi.fn(),
      disconnect: () => silenced++,
      start: (at?: number) => at && clicks.push(at),
      stop: vi.fn(),
    });
    vi.stubGlobal(
      'AudioContext',
      class {
        currentTime = 7;
        sampleRate = 100;
        resume = () => new Promise<void>((done) => (resumed = done));
        close = () => Promise.resolve();
        createOscillator = node;
        createGain = node;
        createBiquadFilter = node;
        createBufferSource = node;
        createBuffer = () => ({ getChannelData: () => new Float32Array(100) });
      },
    );
    shown();
    await fireEvent.click(screen.getByRole('checkbox', { name: 'closed eyes' }));
    await fireEvent.click(screen.getByRole('button', { name: 'Measure the lag' }));
    expect(screen.getByRole('status').textContent).toContain('when you hear the click: 0 of 12');
    // Until the sound runs nothing is set, and what is late then is not the driver.
    expect(clicks).toHaveLength(0);
    now = 1300;
    resumed();
    await waitFor(() => expect(clicks.length).toBeGreaterThan(11));
    expect(clicks[0]).toBeCloseTo(7.1 + 1.6);
    expect(clicks[1]).toBeCloseTo(7.1 + 3.2);
    for (let i = 1; i <= 12; i++) await press('b', 1400 + i * 1600 + 120);
    await screen.findByText('120 ms, taken off from now on.');
    expect(Number(localStorage.getItem('marvek-lag-dark'))).toBeCloseTo(0.12);
    expect(localStorage.getItem('marvek-lag-seen')).toBeNull();
    // The clicks that were still to come are not heard.
    expect(silenced).toBe(1);
    // Away from the page the clicks go on and its time does not: nothing is told from that.
    await fireEvent.click(screen.getByRole('button', { name: 'Measure the lag' }));
    resumed();
    Object.defineProperty(document, 'hidden', { value: true, configurable: true });
    await fireEvent(document, new Event('visibilitychange'));
    Object.defineProperty(document, 'hidden', { value: false, configurable: true });
    await screen.findByText('Interrupted: measure it again.');
  });

  it('runs slower at half speed, and one key does for one layer', async () => {
    const ondriven = shown();
    await fireEvent.click(screen.getByRole('button', { name: 'Drive the lap' }));
    await press('Enter', 1000 + (4 + 8.6) * 2000);
    await press('b', 1000 + (4 + 9) * 2000);
    frame(1000 + 140_000);
    const at = ondriven.mock.calls[0]?.[0].answered.presses.map((p) => p.at) ?? [];
    // By the wall since the line: twice as long.
    expect(at[0]).toBeCloseTo(17.2);
    expect(at[1]).toBeCloseTo(18);
  });

  it('stands still while the page is hidden', async () => {
    const ondriven = shown();
    await fireEvent.click(screen.getByRole('button', { name: 'true speed' }));
    await fireEvent.click(screen.getByRole('button', { name: 'Drive the lap' }));
    const hide = (hidden: boolean, at: number) => {
      now = at;
      Object.defineProperty(document, 'hidden', { value: hidden, configurable: true });
      return fireEvent(document, new Event('visibilitychange'));
    };
    await hide(true, 3000);
    await hide(false, 63_000);
    await press('b', 61_000 + (4 + 8.6) * 1000);
    frame(61_000 + 66_000);
    expect(ondriven.mock.calls[0]?.[0].answered.presses[0]?.at).toBeCloseTo(8.6);
  });

  it('drives a piece, and sends what was due in it', async () => {
    const ondriven = shown();
    await fireEvent.change(screen.getByLabelText('What is driven'), { target: { value: 'c1' } });
    await fireEvent.click(screen.getByRole('button', { name: 'true speed' }));
    await fireEvent.click(screen.getByRole('button', { name: /^Drive T?1/ }));
    await press('b', 1000 + 4000);
    frame(1000 + 9000);
    const sent = ondriven.mock.calls[0]?.[0].answered;
    expect(sent?.start).toBeCloseTo(4.6);
    expect(sent?.end).toBeCloseTo(11.96);
    expect(sent?.presses[0]?.at).toBeCloseTo(8.6);
  });

  it('tells what comes later when the road is fast', () => {
    shown([], [{ corner: 'c1', action: 'brake', key: 'BRAKE', slow: 0.02, fast: 0.17 }]);
    expect(squeezed(document.querySelector('[data-faster]'))).toMatch(
      /When the road is fast: .*1 brake 0\.15 s later than in slow motion\.$/,
    );
  });

  it('measures the lag by passes of a mark, and keeps it for this device', async () => {
    shown();
    await fireEvent.click(screen.getByRole('button', { name: 'Measure the lag' }));
    for (let i = 1; i <= 20; i++) await press('b', 1000 + i * 1600 + 70);
    await screen.findByText('70 ms, taken off from now on.');
    expect(Number(localStorage.getItem('marvek-lag-seen'))).toBeCloseTo(0.07);
  });

  it.each([
    [{ seconds: 0.14, look: 'slow all along' }, 'brake 6 m late → +0.14 s: slow all along'],
    [{ seconds: null, deep: 9, look: 'past the apex' }, 'brake 6 m late → deep by 9 m: past the apex'],
    [{ seconds: null, deep: null, look: 'out of road' }, 'brake 6 m late → not made: out of road'],
    [{ seconds: 0.001, deep: null, look: '' }, 'brake 6 m late'],
  ])('says what would have happened: %j', (became, words) => {
    const due = clock.due[0];
    shown([
      {
        id: 'd',
        at: '2026-06-06T10:00:00Z',
        rate: 1,
        dark: false,
        performance: { met: [{ due, seconds: 0.12, metres: 6 }], missed: [], extra: [] },
        happened: [
          { corner: 'other', action: due?.action, seconds: 9, look: '' },
          { corner: due?.corner, action: due?.action, ...became },
        ],
      } as unknown as Performed,
    ]);
    expect(squeezed(document.querySelector('[data-performance] li'))).toMatch(
      new RegExp(`${words.replace('+', '.')}$`),
    );
  });

  it('tells a bias from six presses on, what was missed and by how many metres', () => {
    const met = Array.from({ length: 6 }, () => ({ due: clock.due[0], seconds: 0.12, metres: 6 }));
    shown([
      {
        id: 'd',
        at: '2026-06-06T10:00:00Z',
        rate: 0.5,
        dark: false,
        performance: { met, missed: [clock.due[1]], extra: [], bias: 0.12, low: 0.1, high: 0.15, spread: 0.02 },
        happened: [],
      } as unknown as Performed,
    ]);
    const told = squeezed(document.querySelector('[data-performance]'));
    expect(told).toContain(
      '0.12 s late on the whole +0.10 to +0.15 s in 95 of 100, spread 0.02 s, 1 missed at 50 % of the speed',
    );
    expect(told).toContain('brake 6 m late');
    expect(told).toContain('turn-in missed');
  });
});

describe('answers', () => {
  const answer = (id: string): Answer => ({
    id,
    at: '2026-06-06T10:00:00Z',
    answered: { fact: 'f', told: 1, right: 1, precision: 1, rate: 0, lag: 0, dark: false, keys: [], presses: [] },
  });

  it('wait on the device until the server has them, and are there once', async () => {
    const shelf = browserAnswers();
    await shelf.put('s1', [answer('a')]);
    await shelf.put('s1', [answer('b')]);
    server.on('POST', /rehearsed$/, () => 503);
    await expect(send(shelf, 's1')).rejects.toThrow();
    expect(await shelf.waiting()).toBe(2);
    server.on('POST', /rehearsed$/, () => ({
      grades: {},
      driven: [],
      known: [],
      ready: { ready: 0, corners: 1, unknown: [] },
    }));
    await send(shelf, 's1');
    expect((server.last('POST')?.body as { answers: Answer[] }).answers.map((a) => a.id)).toEqual(['a', 'b']);
    expect(await shelf.waiting()).toBe(0);
    expect(await send(shelf, 's1')).toBeNull();
    await shelf.clear();
  });
});

describe('what is known', () => {
  const view = {
    session: 's1',
    reference: 'ref1',
    asked: [asked()],
    left: 0,
    leftIn: [],
    known: [
      {
        fact: 'c1/brake/PLACE',
        corner: 'c1',
        asks: 'PLACE',
        station: 430,
        error: 5,
        last: '2026-06-06T10:00:00Z',
        times: 2,
      },
      { fact: 'c1/turn-in/PLACE', corner: 'c1', asks: 'PLACE', station: 498, last: '2026-06-06T10:00:00Z', times: 1 },
    ],
    ready: { ready: 0, corners: 1, unknown: ['c1'] },
    clock,
    calls: [{ start: 5, end: 7.6, at: 8.6, text: 'T1, brake hard' }],
    summary: [],
    missed: [],
    faster: [],
  } as unknown as RehearsalView;

  it('stands on the lap, taller the farther off, hollow where there was no idea', () => {
    render(KnownStrip, { view, corners: [corner()], zone: 'UTC' });
    const [near, none] = [...document.querySelectorAll('[data-known]')];
    expect(Number(near?.getAttribute('height'))).toBeLessThan(Number(none?.getAttribute('height')));
    expect(none?.getAttribute('fill')).toBe('none');
    expect(squeezed(near?.querySelector('title') ?? null)).toContain('5 m off, last right never, asked 2 times');
  });

  it('shows on the lap at once what was told', async () => {
    const timing = { start: { wall: '2026-06-06T14:00:00', zone: 'UTC' } };
    server.on('GET', /sessions\/s2$/, () => ({
      event: 'Weekend',
      line: { session: { name: 'Practice', timing }, begins: '2026-06-06T14:00:00Z', ends: '2026-06-06T14:20:00Z' },
    }));
    server.on('GET', /rehearsal$/, () => ({ ...view, known: [] }));
    server.on('GET', /rehearsed$/, () => []);
    server.on('GET', /references\/ref1$/, () => reference);
    server.on('GET', /references\/ref1\/road$/, () => road());
    server.on('POST', /rehearsed$/, () => ({ grades: {}, driven: [], known: view.known, ready: view.ready }));
    hosted(Rehearse, { params: { id: 's2' } });
    await screen.findByText('Where do you brake?');
    expect(document.querySelectorAll('[data-known]')).toHaveLength(0);
    await fireEvent.click(screen.getByRole('button', { name: 'No idea' }));
    await waitFor(() => expect(document.querySelectorAll('[data-known]')).toHaveLength(2));
  });

  it('leads from the session, keeps an answer without a connection and says so', async () => {
    const timing = { start: { wall: '2026-06-06T14:00:00', zone: 'UTC' } };
    server.on('GET', /sessions\/s1$/, () => ({
      event: 'Weekend',
      line: { session: { name: 'Practice', timing }, begins: '2026-06-06T14:00:00Z', ends: '2026-06-06T14:20:00Z' },
    }));
    server.on('GET', /rehearsal$/, () => view);
    server.on('GET', /rehearsed$/, () => []);
    server.on('GET', /references\/ref1$/, () => reference);
    server.on('GET', /references\/ref1\/road$/, () => road());
    server.on('POST', /rehearsed$/, () => 503);
    hosted(Rehearse, { params: { id: 's1' } });
    await screen.findByText('Where do you brake?');
    expect(squeezed(document.querySelector('[data-ready]'))).toContain('0 of 1 corners within 8 m');
    await fireEvent.click(screen.getByRole('button', { name: 'No idea' }));
    await screen.findByText(/1 kept on this device/);
    await waitFor(() => expect(document.querySelectorAll('[data-known]')).toHaveLength(2));
    await fireEvent.click(screen.getByRole('tab', { name: 'Listen' }));
    expect(screen.getByRole('list', { name: 'Calls of the lap' }).textContent).toContain('T1, brake hard');
    await browserAnswers().clear();
  });
});

describe('the lap aloud', () => {
  it('calls each in time by the voice, and as large words', async () => {
    vi.useFakeTimers();
    const spoken: string[] = [];
    vi.stubGlobal(
      'SpeechSynthesisUtterance',
      class {
        rate = 1;
        constructor(readonly text: string) {}
      },
    );
    vi.stubGlobal('speechSynthesis', { speak: (u: { text: string }) => spoken.push(u.text), cancel: vi.fn() });
    const calls = [
      { start: -1, end: 0.5, at: 1.5, text: 'T1, brake hard' },
      { start: 4, end: 5, at: 6, text: 'turn in' },
    ];
    render(ListenPanel, { calls, summary: ['T1, brake at the 100', 'T2, flat'], clock, session: 's1', spoken: true });
    await fireEvent.click(screen.getByRole('button', { name: 'Call the lap' }));
    await vi.advanceTimersByTimeAsync(2100);
    expect(spoken).toEqual(['T1, brake hard']);
    expect(document.querySelector('[data-call]')?.textContent).toBe('T1, brake hard');
    await vi.advanceTimersByTimeAsync(5000);
    expect(spoken).toEqual(['T1, brake hard', 'turn in']);
    await fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
    vi.useRealTimers();
  });

  it('gives ten seconds to say the lap, then shows what there was to say', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] });
    render(ListenPanel, {
      calls: [],
      summary: ['T1, brake at the 100', 'T2, flat'],
      clock,
      session: 's1',
      spoken: true,
    });
    const ten = () => squeezed(document.querySelector('[data-ten]'));
    expect(ten()).not.toContain('T1');
    await fireEvent.click(screen.getByRole('button', { name: 'Say it aloud' }));
    await vi.advanceTimersByTimeAsync(5000);
    expect(ten()).toContain('5 s');
    expect(ten()).not.toContain('T1');
    await vi.advanceTimersByTimeAsync(5200);
    expect(ten()).toContain('T1, brake at the 100. T2, flat.');
    await fireEvent.click(screen.getByRole('button', { name: 'Cover it' }));
    expect(ten()).not.toContain('T1');
    vi.useRealTimers();
  });

  it('says where there is no voice', () => {
    Reflect.deleteProperty(window, 'speechSynthesis');
    render(ListenPanel, { calls: [], summary: [], clock, session: 's1', spoken: false });
    expect(screen.getByText(/This browser has no voice/)).toBeTruthy();
    expect(screen.getByText(/This server has no voice/)).toBeTruthy();
    expect(screen.queryByText('Make a sound file')).toBeNull();
  });

  it('makes a sound file where the server speaks, and says where that fails', async () => {
    const objects = vi.fn(() => 'blob:sound');
    vi.stubGlobal('URL', Object.assign(URL, { createObjectURL: objects, revokeObjectURL: () => undefined }));
    server.on('GET', /calls.wav$/, () => 503);
    render(ListenPanel, { calls: [], summary: [], clock, session: 's1', spoken: true });
    await fireEvent.click(screen.getByRole('button', { name: 'Make a sound file' }));
    await screen.findByRole('alert');
    expect(objects).not.toHaveBeenCalled();
    server.on('GET', /calls.wav$/, () => ({}));
    await fireEvent.click(screen.getByRole('button', { name: 'Make a sound file' }));
    await screen.findByText('Keep the file');
    expect(document.querySelector('audio')?.getAttribute('src')).toBe('blob:sound');
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
