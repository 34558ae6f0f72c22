// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/svelte';
import type { Component } from 'svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import type { EventView } from '../../api/api';
import { corner } from '../../testing/made';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import Story from './Story.svelte';
import { freshSession } from './sessions';
import { story, type Gathered } from './story';

const ZONE = 'Europe/Lisbon';
const session = (id: string, name: string, begins: string, aim = '') => ({
  id,
  reference: 'r1',
  version: 1,
  driven: 1,
  session: { ...freshSession('PRACTICE', begins, ZONE), name, aim },
  begins,
  ends: new Date(Date.parse(begins) + 1_200_000).toISOString(),
});
const event = {
  id: 'e1',
  name: 'Weekend',
  zone: ZONE,
  sessions: [
    session('s1', 'Practice', '2026-06-06T09:00:00Z', 'Two clean laps'),
    session('s2', 'Race', '2026-06-07T14:00:00Z'),
  ],
} as unknown as EventView;
const lap = (lapTime: number, counts = true) => ({ lapTime, counts, measured: true });
const run = (id: string, of: string | undefined, drivenAt: string) => ({
  id,
  name: `Run ${id}`,
  drivenAt,
  session: of,
  revision: 3,
  sheet: 'Stiff',
  laps: [lap(95.5), lap(94.2), lap(90, false)],
  recordings: [],
});
const line = (at: string, told: object, removed = false) => ({ id: at, device: 'phone', at, told, removed });
const got = {
  runs: [
    { reference: 'r1', run: run('a', 's1', '2026-06-06T09:01:00Z') },
    { reference: 'r1', run: run('b', 'elsewhere', '2026-06-06T10:00:00Z') },
  ],
  chapters: [
    {
      reference: 'r1',
      title: 'Mine',
      chapter: {
        number: 4,
        reason: 'Later into 1',
        createdAt: '2026-06-06T11:00:00Z',
        computed: 90,
        driven: [],
        promises: [{ what: 'braking', evidence: { corner: 'c1' }, promise: { words: 'It kept its promise.' } }],
      },
    },
    {
      reference: 'r1',
      title: 'Mine',
      chapter: {
        number: 1,
        reason: 'First',
        createdAt: '2026-01-01T11:00:00Z',
        computed: 90,
        driven: [],
        promises: [],
      },
    },
  ],
  names: { c1: '1' },
  logs: [
    {
      session: 's1',
      agreement: { same: 4, told: 5 },
      lines: [
        line('2026-06-06T09:30:00Z', { about: 'CORNER', corner: 'c1', felt: 'DEEP', words: '' }),
        line('2026-06-06T09:30:10Z', { about: 'CORNER', corner: 'c2', felt: 'GREAT', words: '' }, true),
        line('2026-06-06T09:31:00Z', { about: 'REST', words: '' }),
        line('2026-06-06T09:32:00Z', { about: 'LEARNED', words: 'Wait at 4' }),
      ],
    },
  ],
  trials: [
    {
      session: 's1',
      trials: [{ called: '4', decided: true, difference: -0.12, lapsA: 4, lapsB: 4, planned: 4, taken: 'B' }],
    },
  ],
} as unknown as Gathered;

describe('the story of an event', () => {
  it('is told in the order of time, of this event alone', () => {
    const told = story(event, got);
    expect(told.map((t) => t.what)).toEqual(['SESSION', 'RUN', 'TRIAL', 'LOG', 'REVISION', 'SESSION']);
    expect(told[0]).toMatchObject({ title: 'Practice', words: ['aim: Two clean laps'], link: '#/session/s1' });
    expect(told[1]?.words).toEqual(['2 laps, best 1:34.20', 'on revision 3, Stiff']);
    expect(told[2]?.words).toEqual(['B less A −0.12 s by 4 and 4 laps', 'taken']);
    // What was taken back is not said.
    expect(told[3]?.words).toEqual([
      '1 deep',
      'the rest as planned',
      '“Wait at 4”',
      'feeling and laps agree in 4 of 5 corners',
    ]);
    expect(told[4]?.words).toEqual(['Later into 1', '1, braking: It kept its promise.']);
    expect(story({ ...event, sessions: [] }, got)).toEqual([]);
  });

  beforeEach(() => {
    server.reset();
    server.on('GET', /references\/r1\/runs$/, () => ({
      vehicle: 'Mine',
      corners: [corner({ name: 'Long' })],
      runs: [run('a', 's1', '2026-06-06T09:01:00Z')],
    }));
    server.on('GET', /references\/r1\/history$/, () => got.chapters.map((c) => c.chapter));
    server.on('GET', /sessions\/s1\/log$/, () => got.logs[0]?.lines);
    server.on('GET', /sessions\/s2\/log$/, () => []);
    server.on('GET', /trials$/, () => []);
    server.on('GET', /sessions\/s1\/felt$/, () => ({ corners: [], agreement: { same: 1, told: 2 } }));
  });

  it('is drawn down a line, with the corner as it is called', async () => {
    hosted(Story as unknown as Component<Record<string, unknown>>, { event });
    await waitFor(() => expect(document.querySelector('[data-story]')).toBeTruthy());
    const all = [...document.querySelectorAll('[data-story] li')];
    expect(all.map((l) => l.getAttribute('data-what'))).toEqual(['SESSION', 'RUN', 'LOG', 'REVISION', 'SESSION']);
    expect(squeezed(all[2] ?? null)).toContain('1 deep');
    expect(squeezed(all[2] ?? null)).toContain('agree in 1 of 2 corners');
    // A day lies between the last two, a minute between the first two.
    const gaps = all.map((l) => parseFloat((l as HTMLElement).style.paddingTop || '0'));
    expect(gaps[4]).toBeGreaterThan((gaps[1] ?? 0) + 10);
    expect(screen.getByRole('link', { name: 'Race' }).getAttribute('href')).toBe('#/session/s2');
  });

  it('says what went wrong where it cannot be gathered', async () => {
    server.on('GET', /references\/r1\/history$/, () => 500);
    hosted(Story as unknown as Component<Record<string, unknown>>, { event });
    await waitFor(() => expect(squeezed(document.body)).toContain('Try it otherwise.'));
  });
});
