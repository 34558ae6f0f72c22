// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import FilmPanel from './FilmPanel.svelte';
import {
  aligned,
  filmTimeOf,
  follow,
  frameMetres,
  keepMarks,
  lapsOf,
  lapTimeOf,
  nextCut,
  nextPoint,
  pieces,
  planTimes,
  rateOf,
  stationIn,
  timeAt,
} from './film';
import Beside from './Beside.svelte';
import CutPanel from './CutPanel.svelte';
import PedalsNow from './PedalsNow.svelte';
import type { TraceView } from '../../api/api';
import { corner } from '../../testing/made';
import { server } from '../../testing/server';
import { squeezed } from '../../testing/shown';
import { partAround, Stills } from './stills.svelte';
import type { Landmark } from '../../api/api';

// 2000 m at 50 m/s.
const trace = {
  id: 'lap1',
  lapTime: 40,
  step: 10,
  times: Array.from({ length: 201 }, (_, i) => i / 5),
  speed: Array.from({ length: 201 }, () => 50),
  channels: {},
} as unknown as TraceView;

describe('lining up', () => {
  it('takes one mark as it is, and the drift off by a second', () => {
    expect(aligned([])).toBeNull();
    expect(aligned([{ film: 12, lap: 0 }])).toEqual({ a: -12, b: 1 });
    const two = aligned([
      { film: 12, lap: 0 },
      { film: 52.1, lap: 40 },
    ]);
    expect(two).toMatchObject({ b: 40 / 40.1 });
    if (!two || typeof two === 'string') throw new Error('not aligned');
    expect(lapTimeOf(two, 12)).toBeCloseTo(0, 9);
    expect(lapTimeOf(two, 52.1)).toBeCloseTo(40, 9);
    expect(filmTimeOf(two, 20)).toBeCloseTo(32.05, 9);
  });

  it('refuses marks that no camera drifts apart by, and takes near ones as one', () => {
    const first = { film: 10, lap: 0 };
    expect(aligned([first, { film: 50, lap: 40.19 }])).toMatchObject({ b: 40.19 / 40 });
    expect(aligned([first, { film: 50, lap: 40.21 }])).toContain('0.5 % off');
    expect(aligned([first, { film: 50, lap: 39.79 }])).toContain('0.5 % off');
    expect(aligned([first, { film: 12, lap: 3 }])).toEqual({ a: -10, b: 1 });
  });

  it('says what a frame is in metres', () => {
    expect(frameMetres(200 / 3.6, 30)).toBeCloseTo(1.85, 2);
    expect(frameMetres(130 / 3.6, 30)).toBeCloseTo(1.2, 2);
  });

  it('tells the rate from the frames shown, also where some are left out', () => {
    const at = (rate: number, skip: number) =>
      Array.from({ length: 60 }, (_, i) => i)
        .filter((i) => !skip || i % skip)
        .map((i) => i / rate);
    expect(rateOf(at(30, 0))).toBe(30);
    expect(rateOf(at(59.94, 4))).toBe(59.94);
    expect(rateOf(at(25, 3))).toBe(25);
    expect(rateOf([0, 0.04])).toBeNull();
  });

  it('finds stations and times of a lap, and nothing outside of it', () => {
    for (const s of [0, 5, 1234, 1999]) {
      const t = timeAt(trace, s);
      expect(t).toBeCloseTo(s / 50, 9);
      expect(stationIn(trace, t)).toBeCloseTo(s, 6);
    }
    expect(stationIn(trace, -0.1)).toBeNull();
    expect(stationIn(trace, 41)).toBeNull();
  });
});

const tree = { id: 't1', kind: 'TREE', label: '', station: 130, left: true } as Landmark;
const reference = {
  role: 'OWNER',
  layoutId: 'l1',
  length: 2000,
  corners: [corner()],
  things: { landmarks: [tree], kerbs: [], zones: [], limits: [], places: [], severities: [] },
  thingVersions: { t1: 4 },
  working: {
    content: {
      corners: [
        { corner: 'c1', points: [{ kind: 'BRAKE', station: 400 }] },
        { corner: 'c2', points: [{ kind: 'APEX', station: 20 }] },
      ],
    },
  },
};

it('says what is due next, over the line too', () => {
  const entries = reference.working.content.corners as never;
  expect(nextPoint(entries, 380, 2000)).toEqual({ corner: 'c1', kind: 'BRAKE', ahead: 20 });
  expect(nextPoint(entries, 1990, 2000)).toEqual({ corner: 'c2', kind: 'APEX', ahead: 30 });
  expect(nextPoint([], 0, 2000)).toBeNull();
});

describe('stills of a film', () => {
  const opened = async () => {
    server.on('GET', /references\/r1$/, () => reference);
    server.on('POST', /survey$/, () => ({}));
    const stills = new Stills('r1');
    await stills.open();
    return stills;
  };
  const place = { station: 262.4, left: false, out: 5.23, along: 2.1, beside: 0.4 };
  const sight = (station: number, across: number) => ({ station, across, down: 0.5 });

  it('place a thing by two presses, put it on the survey, and take it back', async () => {
    const stills = await opened();
    server.on('POST', /stills$/, () => place);
    await stills.press('lap1', sight(250, 0.4), 30);
    expect(stills.place).toBeNull();
    // Pressed going backwards: the server is told the way the road goes.
    await stills.press('lap1', sight(220, 0.2), 30);
    expect(server.last('POST')?.body).toEqual({
      lens: { projection: 'STRAIGHT', degrees: 90, turned: 0 },
      first: { station: 220, across: 0.2 },
      second: { station: 250, across: 0.4 },
      rate: 30,
    });
    expect(stills.place).toEqual(place);
    await stills.make('POST', '', [], null);
    const body = server.last('POST')?.body as { put: { landmarks: Landmark[] }; expected: object };
    expect(body.expected).toEqual({});
    expect(body.put.landmarks[0]).toMatchObject({ kind: 'POST', station: 262.4, left: false, out: 5.2, photo: '' });
    expect(stills.first).toBeNull();
    const id = body.put.landmarks[0]?.id;
    await stills.takeBack();
    expect(server.last('POST')?.body).toMatchObject({ remove: [id] });
    expect(stills.last).toBeNull();
  });

  it('keep what was pressed where the server cannot tell, and say why', async () => {
    const stills = await opened();
    server.on('POST', /stills$/, () => 422);
    await stills.press('lap1', sight(220, 0.2), 30);
    await stills.press('lap1', sight(222, 0.2), 30);
    expect(stills.problem).not.toBeNull();
    expect(stills.first).not.toBeNull();
    server.on('POST', /stills$/, () => place);
    await stills.press('lap1', sight(250, 0.4), 30);
    expect(stills.place).toEqual(place);
    expect(stills.problem).toBeNull();
  });

  it('note where a thing is seen, with the version that was looked at, and take that back', async () => {
    const stills = await opened();
    expect(stills.inReach(100, 2000).map((l) => l.id)).toEqual(['t1']);
    expect(stills.inReach(150, 2000)).toEqual([]);
    stills.held = 't1';
    await stills.seen({ leaves: 121.5 });
    expect(server.last('POST')?.body).toMatchObject({
      put: { landmarks: [{ id: 't1', station: 130, seen: { leaves: 121.5 } }] },
      expected: { t1: 4 },
    });
    await stills.takeBack();
    const back = server.last('POST')?.body as { put: { landmarks: Landmark[] } };
    expect(back.put.landmarks[0]).toEqual(tree);
  });

  it('tell the lens by two known things', async () => {
    const stills = await opened();
    const lens = { projection: 'STRAIGHT', degrees: 71.5, turned: 1.2 };
    server.on('POST', /lens$/, () => lens);
    stills.known = [];
    await stills.press('lap1', sight(100, 0.1), 30);
    expect(stills.known).toEqual([]);
    stills.held = 't1';
    await stills.press('lap1', sight(100, 0.1), 30);
    stills.held = 't2';
    await stills.press('lap1', sight(110, -0.6), 30);
    expect(server.last('POST')?.body).toEqual({
      projection: 'STRAIGHT',
      known: [
        { landmark: 't1', station: 100, across: 0.1 },
        { landmark: 't2', station: 110, across: -0.6 },
      ],
    });
    expect(stills.lens).toEqual(lens);
    expect(stills.known).toBeNull();
    // The next film is of the same camera.
    expect((await opened()).lens).toEqual(lens);
    stills.setLens({ projection: 'STRAIGHT', degrees: 90, turned: 0 });
  });

  it('keep a part that lies inside of the picture', () => {
    for (const across of [-1, -0.4, 0.3, 1]) {
      for (const down of [0, 0.5, 1]) {
        const p = partAround({ station: 0, across, down }, 640, 360);
        expect(p.x).toBeGreaterThanOrEqual(0);
        expect(p.x + p.width).toBeLessThanOrEqual(640);
        expect(p.y).toBeGreaterThanOrEqual(0);
        expect(p.y + p.height).toBeLessThanOrEqual(360);
        const x = ((across + 1) / 2) * 640;
        expect(x >= p.x && x <= p.x + p.width).toBe(true);
      }
    }
  });
});

describe('a film beside a lap', () => {
  let present: ((film: number) => void) | null = null;
  beforeEach(() => {
    present = null;
    vi.stubGlobal('URL', Object.assign(URL, { createObjectURL: () => 'blob:film', revokeObjectURL: () => undefined }));
    Object.assign(HTMLMediaElement.prototype, { play: () => Promise.resolve(), pause: () => undefined });
    Object.assign(HTMLCanvasElement.prototype, { getContext: () => null, toBlob: () => undefined });
    Object.assign(HTMLVideoElement.prototype, {
      requestVideoFrameCallback(f: (now: number, frame: { mediaTime: number }) => void) {
        present = (film) => f(0, { mediaTime: film });
        return 1;
      },
    });
  });
  const opened = async (name: string, given: { at?: number | null } = {}) => {
    const onat = vi.fn<(s: number | null) => void>();
    const shown = render(FilmPanel, { reference: 'r1', trace, corners: [corner()], at: given.at ?? null, onat });
    const file = new File(['film'], name, { type: 'video/webm' });
    const input = document.querySelector('input[type=file]') as HTMLInputElement;
    Object.defineProperty(input, 'files', { value: [file] });
    await fireEvent.change(input);
    const video = await waitFor(() => {
      const v = document.querySelector('video');
      if (!v) throw new Error('no film');
      return v;
    });
    await fireEvent(video, new Event('loadeddata'));
    return { onat, video, shown };
  };
  const frame = async (film: number) => {
    present?.(film);
    await Promise.resolve();
  };

  it('moves the cursor with every frame that is presented, once it is lined up', async () => {
    const { onat } = await opened('a.webm');
    await frame(3);
    expect(onat).not.toHaveBeenCalled();
    await fireEvent.click(screen.getByRole('button', { name: 'This is the line' }));
    await frame(3 + 10.8);
    expect(onat.mock.calls.at(-1)?.[0]).toBeCloseTo(540, 6);
    const place = squeezed(document.querySelector('[data-film-place]'));
    expect(place).toContain('180 km/h');
    expect(document.body.textContent).toContain('One frame is 1.67 m here');
    await frame(60);
    expect(onat.mock.calls.at(-1)?.[0]).toBeNull();
    expect(screen.getByText('This is outside of the lap.')).toBeTruthy();
  });

  it('follows the cursor, and steps from the middle of one frame to that of the next', async () => {
    const { video, shown } = await opened('b.webm');
    await frame(5);
    await fireEvent.click(screen.getByRole('button', { name: 'This is the line' }));
    await shown.rerender({ at: 1000 });
    expect(video.currentTime).toBeCloseTo(25, 9);
    await frame(25);
    await fireEvent.click(screen.getByRole('button', { name: 'One frame on' }));
    expect(video.currentTime).toBeCloseTo((750 + 1.5) / 30, 9);
    await fireEvent.keyDown(window, { key: ',' });
    expect(video.currentTime).toBeCloseTo((750 - 0.5) / 30, 9);
    // A camera that leaves frames out shows the same one for longer: it is left all the same.
    for (let k = 1; k <= 4; k++) {
      await fireEvent.keyDown(window, { key: '.' });
      expect(video.currentTime).toBeCloseTo((750 + k + 0.5) / 30, 9);
    }
  });

  it('goes corner by corner, to some way before each, and round the line', async () => {
    const { video } = await opened('corners.webm');
    await frame(2);
    await fireEvent.click(screen.getByRole('button', { name: 'This is the line' }));
    await frame(3);
    const entry = corner().entry;
    await fireEvent.click(screen.getByRole('button', { name: 'Next corner' }));
    expect(video.currentTime).toBeCloseTo(2 + (entry - 120) / 50, 6);
    // From there on it is the same corner of the next lap: there is but one.
    await frame(2 + (entry - 119) / 50);
    await fireEvent.click(screen.getByRole('button', { name: 'Next corner' }));
    expect(video.currentTime).toBeCloseTo(2 + (entry - 120) / 50, 6);
  });

  it('knows a film again, and refuses a second mark of another lap', async () => {
    const { shown } = await opened('c.webm');
    await frame(5);
    await fireEvent.click(screen.getByRole('button', { name: 'This is the line' }));
    await frame(30);
    await fireEvent.click(screen.getByRole('button', { name: 'The line again' }));
    expect(screen.getByRole('alert').textContent).toMatch(/runs -?37.5 % off/);
    await frame(45.1);
    await fireEvent.click(screen.getByRole('button', { name: 'Forget the marks' }));
    await frame(5);
    await fireEvent.click(screen.getByRole('button', { name: 'This is the line' }));
    await new Promise((r) => setTimeout(r, 50));
    shown.unmount();
    const again = await opened('c.webm');
    await screen.findByText('This is outside of the lap.');
    await frame(7);
    expect(again.onat.mock.calls.at(-1)?.[0]).toBeCloseTo(100, 6);
  });

  it('takes no mark of one lap for another, and is put away', async () => {
    const { onat, shown } = await opened('e.webm');
    await frame(5);
    await fireEvent.click(screen.getByRole('button', { name: 'This is the line' }));
    await frame(6);
    expect(onat.mock.calls.at(-1)?.[0]).toBeCloseTo(50, 6);
    onat.mockClear();
    await shown.rerender({ trace: { ...trace, id: 'lap2' } });
    await screen.findByText(/Line it up/);
    await frame(7);
    expect(onat).not.toHaveBeenCalled();
    await shown.rerender({ trace });
    await screen.findByText(/One frame is/);
    await fireEvent.click(screen.getByRole('button', { name: 'Put the film away' }));
    expect(document.querySelector('video')).toBeNull();
    expect(document.querySelector('input[type=file]')).toBeTruthy();
  });

  it('is pressed where a thing is, by hand and by keys, and says what is due', async () => {
    server.on('GET', /references\/r1$/, () => reference);
    server.on('POST', /stills$/, () => ({ station: 262.4, left: false, out: 5.23, along: 12, beside: 1 }));
    await opened('f.webm');
    await frame(5);
    await fireEvent.click(screen.getByRole('button', { name: 'This is the line' }));
    await frame(5 + 7.6);
    await screen.findByText(/Next: Brake in 20 m, corner 1/);
    const still = document.querySelector('[data-still]') as HTMLButtonElement;
    still.getBoundingClientRect = () => ({ left: 100, top: 50, width: 400, height: 200 }) as DOMRect;
    await fireEvent.click(still, { detail: 1, clientX: 360, clientY: 100 });
    await screen.findByText(/Pressed at 380 m/);
    await frame(5 + 7.8);
    for (let i = 0; i < 20; i++) await fireEvent.keyDown(still, { key: 'ArrowRight' });
    await fireEvent.click(still, { detail: 0 });
    await screen.findByText(/5.2 m outside on/);
    expect(server.last('POST')?.body).toMatchObject({
      first: { station: 380, across: expect.closeTo(0.3, 6) as number },
      second: { station: expect.closeTo(390, 6) as number, across: expect.closeTo(0.4, 6) as number },
    });
    expect(screen.getByText(/That is a lot/)).toBeTruthy();
    // A board needs what is written on it.
    expect((screen.getByRole('button', { name: 'board' }) as HTMLButtonElement).disabled).toBe(true);
    expect((screen.getByRole('button', { name: 'tree' }) as HTMLButtonElement).disabled).toBe(false);
  });

  it('says where the browser does not play it', async () => {
    const { video } = await opened('d.avi');
    await fireEvent(video, new Event('error'));
    expect(screen.getByRole('alert').textContent).toContain('WebM');
  });
});

describe('pedals and hands', () => {
  const driven = (channels: Record<string, number[]>) => ({ ...trace, channels }) as unknown as TraceView;
  it('are drawn as they were at the place, the wheel to the side that it was turned', async () => {
    const many = (v: number) => Array.from({ length: 201 }, (_, i) => (i === 60 ? v : 0));
    const shown = render(PedalsNow, {
      trace: driven({ BRAKE: many(0.75), THROTTLE: many(0), STEERING: many(-0.5), GEAR: many(3) }),
      here: 600,
    });
    const drawing = () => screen.getByRole('img');
    expect(drawing().getAttribute('aria-label')).toBe('brake 75 %, throttle 0 %, hands 29° right, gear 3');
    // Turned to the right is clockwise.
    expect(drawing().querySelector('g')?.getAttribute('transform')).toBe('rotate(90 70 23)');
    expect(drawing().querySelectorAll('rect')[1]?.getAttribute('height')).toBe('33');
    await shown.rerender({ here: 1000 });
    expect(drawing().getAttribute('aria-label')).toContain('brake 0 %');
  });

  it('are left out where they were not recorded', () => {
    render(PedalsNow, { trace: driven({}), here: 600 });
    expect(screen.queryByRole('img')).toBeNull();
  });
});

describe('a film beside another', () => {
  it('runs at the pace that keeps both at one place, and jumps only when far off', () => {
    expect(follow(0, 1, 1)).toEqual({ rate: 1, jump: false });
    // The other is half as fast here: its film needs twice the time for a metre.
    expect(follow(0, 0.5, 2).rate).toBeCloseTo(1);
    expect(follow(0.2, 1, 1)).toEqual({ rate: 1.2, jump: false });
    expect(follow(-3, 1, 1)).toMatchObject({ rate: 0.5, jump: true });
  });

  it('is known by its file, of whichever lap', async () => {
    const file = new File(['film'], 'second run.webm');
    await keepMarks('lapB', file, [{ film: 4, lap: 0 }]);
    await keepMarks('lapC', new File(['film!'], 'second run.webm'), [{ film: 1, lap: 0 }]);
    await keepMarks('lapD', file, []);
    expect(await lapsOf(file)).toEqual([{ lap: 'lapB', alignment: { a: -4, b: 1 } }]);
    expect(await lapsOf(new File(['film'], 'run.webm'))).toEqual([]);
  });

  const given = async (name: string, here: number, marks = true) => {
    vi.stubGlobal('URL', Object.assign(URL, { createObjectURL: () => 'blob:two', revokeObjectURL: () => undefined }));
    const play = vi.fn(() => Promise.resolve());
    Object.assign(HTMLMediaElement.prototype, { play, pause: vi.fn() });
    const file = new File(['film'], name);
    if (marks) await keepMarks('lap2', file, [{ film: 10, lap: 0 }]);
    // The other lap at 40 m/s.
    server.on('GET', /laps\/lap2\/trace$/, () => ({
      ...trace,
      id: 'lap2',
      title: 'Second run, lap 3',
      lapTime: 50,
      times: trace.times.map((t) => t * 1.25),
      speed: trace.speed.map(() => 40),
    }));
    const shown = render(Beside, { trace, here, playing: false, slow: 1, rate: 30, onclose: vi.fn() });
    const input = document.querySelector('input[type=file]') as HTMLInputElement;
    Object.defineProperty(input, 'files', { value: [file] });
    await fireEvent.change(input);
    return { shown, play };
  };

  it('stands at the same place of the road, and says how much later it is there', async () => {
    const { shown, play } = await given('c.webm', 1000);
    const video = await waitFor(() => {
      const v = document.querySelector<HTMLVideoElement>('[data-beside] video');
      if (!v) throw new Error('no film');
      return v;
    });
    // 1000 m are 25 s at 40 m/s, and the line is at 10 s of the film.
    expect(video.currentTime).toBeCloseTo(35);
    expect(squeezed(document.querySelector('[data-beside-apart]'))).toBe(
      'Second run, lap 3: 144 km/h here, +5.00 s since the line',
    );
    await shown.rerender({ playing: true, here: 1010 });
    expect(play).toHaveBeenCalled();
    // A quarter slower: its film runs by a quarter quicker, and it catches up with the 0.25 s that it is behind.
    expect(video.playbackRate).toBeCloseTo(1.25 * 1.25, 2);
    expect(document.querySelector('[data-beside]')?.getAttribute('data-late')).toBe('1/1');
  });

  it('says what to do where it is not lined up', async () => {
    await given('never.webm', 0, false);
    await screen.findByText(/not lined up yet/);
  });
});

describe('a film alone', () => {
  const order = ['c1', 'c2'];
  it('is cut in driving order, and its pieces stand beside the plan', () => {
    expect(nextCut([], order)).toBe('');
    expect(nextCut([{ at: '', film: 3 }], order)).toBe('c1');
    const cuts = [
      { at: 'c2', film: 31 },
      { at: '', film: 3 },
      { at: 'c1', film: 13.5 },
      { at: '', film: 44 },
    ];
    expect(nextCut(cuts.slice(0, 1), order)).toBe('');
    expect(pieces(cuts, order, { c1: 10, c2: 27 }, 40)).toEqual([
      { from: '', to: 'c1', seconds: 10.5, planned: 10 },
      { from: 'c1', to: 'c2', seconds: 17.5, planned: 17 },
      { from: 'c2', to: '', seconds: 13, planned: 13 },
    ]);
    expect(pieces(cuts.slice(0, 2), order, { c1: 10 }, 40)[0]?.planned).toBeNull();
  });

  it('takes the plan’s times from its speeds, to its own lap time', () => {
    const plan = planTimes({ speed: [50, 50, 25, 25], step: 500, lapTime: 60 }, [
      { id: 'c1', station: 500 },
      { id: 'c2', station: 1750 },
    ]);
    const raw = [0, 10, 10 + 500 / 37.5, 30 + 500 / 37.5, 30 + 1000 / 37.5];
    expect(plan.c1).toBeCloseTo((10 / (raw[4] ?? 1)) * 60);
    expect(plan.c2).toBeCloseTo((((raw[3] ?? 0) + (raw[4] ?? 0)) / 2 / (raw[4] ?? 1)) * 60);
  });

  it('is cut by a key, told as a lap, known again, and kept as a table', async () => {
    vi.stubGlobal('URL', Object.assign(URL, { createObjectURL: () => 'blob:cut', revokeObjectURL: () => undefined }));
    const props = { corners: [corner()], plan: { c1: 10 }, lapTime: 40, onclose: vi.fn() };
    const open = async () => {
      const shown = render(CutPanel, props);
      const input = document.querySelector('input[type=file]') as HTMLInputElement;
      Object.defineProperty(input, 'files', { value: [new File(['film'], 'alone.webm')] });
      await fireEvent.change(input);
      await waitFor(() => expect(document.querySelector('video')).toBeTruthy());
      return shown;
    };
    const { unmount } = await open();
    const video = document.querySelector('video') as HTMLVideoElement;
    for (const at of [3, 13.4, 43.9]) {
      video.currentTime = at;
      await fireEvent(video, new Event('seeked'));
      await fireEvent.keyDown(window, { key: 'x' });
    }
    expect(squeezed(document.querySelector('[data-piece="-c1"]'))).toMatch(/line – .*1: 10\.40 s, .0\.40$/);
    expect(squeezed(document.querySelector('[data-cut-lap]'))).toContain('Lap 1: 0:40.90');
    const table = decodeURIComponent(document.querySelector('a[download]')?.getAttribute('href') ?? '');
    expect(table).toContain('from,to,seconds,planned\nline,');
    expect(table).toContain(',10.400,10.000');
    await fireEvent.click(screen.getByRole('button', { name: 'Take the last back' }));
    expect(document.querySelector('[data-cut-lap]')).toBeNull();
    unmount();
    await open();
    await waitFor(() => expect(document.querySelectorAll('[data-piece]')).toHaveLength(1));
  });
});
