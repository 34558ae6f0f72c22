// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import FilmPanel from './FilmPanel.svelte';
import { aligned, filmTimeOf, frameMetres, lapTimeOf, rateOf, stationIn, timeAt } from './film';
import type { TraceView } from '../../api/api';
import { corner } from '../../testing/made';
import { squeezed } from '../../testing/shown';

// 2000 m at 50 m/s.
const trace = {
  id: 'lap1',
  lapTime: 40,
  step: 10,
  times: Array.from({ length: 201 }, (_, i) => i / 5),
  speed: Array.from({ length: 201 }, () => 50),
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

describe('a film beside a lap', () => {
  let present: ((film: number) => void) | null = null;
  beforeEach(() => {
    present = null;
    vi.stubGlobal('URL', Object.assign(URL, { createObjectURL: () => 'blob:film', revokeObjectURL: () => undefined }));
    Object.assign(HTMLMediaElement.prototype, { play: () => Promise.resolve(), pause: () => undefined });
    Object.assign(HTMLVideoElement.prototype, {
      requestVideoFrameCallback(f: (now: number, frame: { mediaTime: number }) => void) {
        present = (film) => f(0, { mediaTime: film });
        return 1;
      },
    });
  });
  const opened = async (name: string, given: { at?: number | null } = {}) => {
    const onat = vi.fn<(s: number | null) => void>();
    const shown = render(FilmPanel, { trace, corners: [corner()], at: given.at ?? null, onat });
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

  it('says where the browser does not play it', async () => {
    const { video } = await opened('d.avi');
    await fireEvent(video, new Event('error'));
    expect(screen.getByRole('alert').textContent).toContain('WebM');
  });
});
