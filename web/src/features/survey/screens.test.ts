// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LayoutView, MarkerReview } from '../../api/api';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import Bring from './Bring.svelte';
import Survey from './Survey.svelte';
import SurveyWork from './SurveyWork.svelte';

const shelf = vi.hoisted(() => ({ letters: [] as unknown[] }));
vi.mock('./outbox', () => ({
  browserShelf: () => ({
    read: () => Promise.resolve([]),
    write: (_: string, letters: unknown[]) => {
      shelf.letters = letters;
      return Promise.resolve(letters);
    },
  }),
}));

const layout = () => told<LayoutView>(`/api/layouts/${weekend.layout}`);
const things = () => layout().things;

beforeEach(() => {
  replay();
  server.on('GET', /\/sun$/, () => ({ path: [], shadows: [], sun: null }));
  server.on('POST', /\/clearances$/, () => []);
});

describe('the circuits', () => {
  it('leads to each, and to bringing another', async () => {
    server.on('GET', /\/road$/, () => told(`/api/layouts/${weekend.layout}/road`));
    hosted(Survey, {});
    for (const l of told<{ id: string; circuit: string }[]>('/api/layouts'))
      expect((await screen.findByRole('link', { name: new RegExp(l.circuit) })).getAttribute('href')).toBe(
        `#/survey/${l.id}`,
      );
    expect(screen.getByRole('link', { name: 'Bring a circuit' })).toBeTruthy();
  });

  it('is asked for a file, and says what is wrong with one', async () => {
    server.on('POST', /outlines\/preview$/, () => 422);
    hosted(Bring, {});
    const input = document.querySelector('input[type=file]') as HTMLInputElement;
    await fireEvent.change(input, { target: { files: [new File(['x_m,y_m\n1,1'], 'loop.csv')] } });
    expect(await screen.findByText('Trouble 422')).toBeTruthy();
    expect(server.last('POST')?.body).toMatchObject({ file: 'loop.csv', reverse: 'false', bridges: 'false' });
  });
});

describe('the survey', () => {
  const shown = async () => {
    hosted(SurveyWork, { id: weekend.layout });
    await waitFor(() => expect(document.querySelector('[data-strip]')).toBeTruthy());
  };

  it('draws what stands along the stretch, and judges markers', async () => {
    await shown();
    const strip = document.querySelector('[data-strip]') as SVGElement;
    const from = Number(strip.getAttribute('data-from'));
    const to = Number(strip.getAttribute('data-to'));
    const here = things().landmarks.filter((l) => l.station > from + 5 && l.station < to - 5);
    expect(here.length).toBeGreaterThan(0);
    for (const l of here) expect(document.querySelector(`[data-landmark="${l.id}"]`), l.label).toBeTruthy();
    await fireEvent.click(await screen.findByRole('tab', { name: /Markers judged/ }));
    const review = told<MarkerReview>(`/api/references/${weekend.id}/markers`);
    const better = review.points.find((p) => p.judgement && p.better);
    if (better) await waitFor(() => expect(squeezed(document.body)).toContain(better.better?.spoken));
  });

  it('moves what is taken by the keys, sends it once with its version, and undoes it', async () => {
    const sent: { put: { landmarks: { id: string; station: number }[] } }[] = [];
    server.on('POST', /\/survey$/, (s) => {
      sent.push(s.body as (typeof sent)[number]);
      return layout();
    });
    await shown();
    const strip = document.querySelector('[data-strip]') as SVGElement;
    const from = Number(strip.getAttribute('data-from'));
    const to = Number(strip.getAttribute('data-to'));
    const board = things().landmarks.find((l) => l.station > from + 20 && l.station < to - 20);
    const drawn = document.querySelector(`[data-landmark="${board?.id}"]`) as SVGElement;
    drawn.focus();
    await fireEvent.keyDown(drawn, { key: 'ArrowRight' });
    await waitFor(() => expect(sent.length).toBe(1));
    expect(sent[0]?.put.landmarks).toMatchObject([
      { id: board?.id, station: expect.closeTo((board?.station ?? 0) + 1, 6) as number },
    ]);
    await fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true });
    await waitFor(() => expect(sent.length).toBe(2));
    expect(sent[1]?.put.landmarks).toMatchObject([
      { id: board?.id, station: expect.closeTo(board?.station ?? 0, 6) as number },
    ]);
  });
});
