// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import TrialsPanel from './TrialsPanel.svelte';
import TryPanel from './TryPanel.svelte';
import { blocks, takes, wayWords } from './trials';
import { catalogue } from '../../api/catalogue.svelte';
import type { TrialView, WayView } from '../../api/api';
import { entry, lap, LENGTH } from '../../testing/made';
import { server } from '../../testing/server';
import { hosted, squeezed, WORDS } from '../../testing/shown';

const later = entry({ points: entry().points.map((p) => (p.kind === 'BRAKE' ? { ...p, station: 445 } : p)) });
const way = (over: Partial<WayView>): WayView =>
  ({ source: 'REFERENCE', key: '', label: '', ...over }) as unknown as WayView;
const trial = (over: Partial<TrialView> = {}): TrialView =>
  ({
    id: 't1',
    session: 's1',
    sessionName: 'Practice',
    corner: 'c1',
    called: 'T1',
    a: way({ entry: entry(), words: { line: 'brake at the 100 board' } as WayView['words'] }),
    b: way({
      source: 'SCHOOL',
      key: 'LATE_APEX',
      entry: later,
      words: { line: 'brake 15 m past the 100 board' } as WayView['words'],
    }),
    stints: false,
    predicted: -0.08,
    spread: 0.05,
    spreadLaps: 12,
    planned: 7,
    told: true,
    order: ['A', 'A', 'A', 'B', 'B', 'B', 'B', 'B', 'B', 'A', 'A', 'A'],
    from: 3,
    traces: {
      from: 380,
      step: 5,
      a: Array.from({ length: 60 }, (_, i) => 60 - Math.min(35, i)),
      b: Array.from({ length: 60 }, (_, i) => 60 - Math.min(34, Math.max(0, i - 3))),
    },
    marks: {},
    lapsA: 0,
    lapsB: 0,
    difference: 0,
    decided: false,
    verdict: '0 of 7 driven each way.',
    secondsA: [],
    secondsB: [],
    ...over,
  }) as unknown as TrialView;

beforeEach(() => {
  catalogue.all = WORDS;
  server.on('GET', /catalogue$/, () => WORDS);
  server.on('GET', /setup-parameters$/, () => [
    { id: 'brakes.bias', group: 'Brakes', label: 'Brakes at the front', unit: '%', least: 20, most: 100, step: 0.5 },
  ]);
});

const panel = (t: TrialView, mine = true) => {
  server.on('GET', /trials$/, () => [t]);
  server.on('PUT', /marks$/, () => undefined);
  server.on('POST', /taken$/, () => undefined);
  server.on('DELETE', /taken$/, () => undefined);
  const laps = [lap(1, 100), lap(2, 101), lap(3, 102)];
  hosted(TrialsPanel, { reference: 'ref1', length: LENGTH, laps, mine });
};

describe('a trial', () => {
  it('draws both ways together, and says what it takes and in which order', async () => {
    panel(trial());
    await waitFor(() => expect(document.querySelectorAll('[data-curve]')).toHaveLength(2));
    expect(document.querySelectorAll('circle[data-way=A]').length).toBe(7);
    expect(squeezed(document.querySelector('[data-takes]'))).toBe(
      'Reckoned −0.08 s for B; to see that it takes 7 laps of each, by your own 12 laps, which differ by 0.05 s.',
    );
    const order = [...document.querySelectorAll('[data-order] li')].map((l) => squeezed(l));
    expect(order.slice(0, 4)).toEqual(['3–5 A', '6–8 B', '9–11 B', '12–14 A']);
    // Only what is elsewhere is named.
    const named = [...document.querySelectorAll('svg text')].map((t) => t.textContent);
    expect(named).toContain('Brake');
    expect(named).not.toContain('Apex');
  });

  it('marks a lap A, then B, then neither', async () => {
    panel(trial({ marks: { lap2: 'A', lap3: 'B' } }));
    await screen.findByRole('button', { name: 'Lap 1: not marked' });
    for (const [name, expected] of [
      ['Lap 1: not marked', { lap1: 'A', lap2: 'A', lap3: 'B' }],
      ['Lap 2: A', { lap2: 'B', lap3: 'B' }],
      ['Lap 3: B', { lap2: 'A', lap3: '-' }],
    ] as const) {
      await fireEvent.click(screen.getByRole('button', { name }));
      await waitFor(() => expect(server.last('PUT')?.body).toEqual({ marks: expected }));
    }
  });

  it('says the verdict with its interval beside what was reckoned, and takes what won', async () => {
    panel(
      trial({
        decided: true,
        verdict: 'B is quicker.',
        difference: -0.1,
        low: -0.15,
        high: -0.05,
        secondsA: [8.2, 8.1],
        secondsB: [8.0, 8.1],
      }),
    );
    const said = await screen.findByText(/B is quicker/);
    expect(squeezed(said)).toContain('B less A −0.10 s (−0.15 to −0.05 in 95 of 100), reckoned −0.08 s');
    expect(document.querySelectorAll('[data-took]')).toHaveLength(4);
    await fireEvent.click(screen.getByRole('button', { name: 'Take B into the reference' }));
    await waitFor(() => expect(server.last('POST')?.body).toEqual({ way: 'B' }));
  });

  it('is taken back, and not by others', async () => {
    panel(trial({ taken: 'B', decided: true }), false);
    await screen.findByText(/0 of 7/);
    expect(screen.queryByRole('button', { name: 'Take it back' })).toBeNull();
    panel(trial({ taken: 'B', decided: true }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Take it back' }));
    await waitFor(() => expect(server.last('DELETE')?.path).toBe('/api/trials/t1/taken'));
  });

  it('of words only is read and cannot be taken', async () => {
    panel(
      trial({
        a: way({ source: 'WORDS', label: 'one gear lower' }),
        b: way({ source: 'WORDS', label: 'as planned' }),
        planned: 0,
        order: [],
        traces: undefined,
        decided: true,
        verdict: 'No difference that matters.',
      }),
    );
    expect(squeezed((await screen.findByText('T1')).parentElement)).toContain('A one gear lower · B as planned');
    expect(screen.queryByRole('button', { name: /Take B/ })).toBeNull();
  });

  it('says where there is no room for it', () => {
    expect(takes(trial({ told: false, spreadLaps: 0, predicted: undefined }))).toBe(
      'What it gives is not computed; to see 0.1 s it takes 7 laps of each, by a usual 0.05 s from lap to lap, ' +
        'for you have no laps on a day like it. This session has no room for so many: it is not worth trying in it.',
    );
    expect(blocks(trial({ stints: true, order: ['A', 'B', 'B'] }))).toEqual([
      { way: 'A', from: 1, to: 1 },
      { way: 'B', from: 2, to: 2 },
      { way: 'B', from: 3, to: 3 },
    ]);
  });

  it('calls each way by where it comes from', () => {
    expect(wayWords(way({ source: 'SCHOOL', key: 'LATE_APEX' }))).toBe('the apex: late, for the exit');
    expect(wayWords(way({ source: 'DAY', key: 'WET' }))).toBe('as on “wet”');
    expect(wayWords(way({ source: 'REVISION', key: '3' }))).toBe('as in revision 3');
    expect(wayWords(way({ source: 'SHEET', label: 'low fuel' }))).toBe('sheet “low fuel”');
  });
});

describe('what can be tried', () => {
  const ondrive = vi.fn();
  const shown = () => hosted(TryPanel, { session: 's1', corner: 'c1', called: 'T1', hard: true, ondrive });

  it('says of each way what it gives and what it takes, and plans one with a press', async () => {
    server.on('GET', /tryable$/, () => ({
      ways: [
        { way: way({ source: 'SCHOOL', key: 'LATE_APEX' }), predicted: -0.07, laps: 9, told: true },
        { way: way({ source: 'REVISION', key: '2' }), predicted: 0.02, laps: 80, told: false },
        { way: way({ source: 'REVISION', key: '1' }), predicted: 0.001, laps: 2000, told: false },
      ],
      spread: 0.05,
      spreadLaps: 8,
      laps: 20,
      warmFrom: 3,
    }));
    server.on('POST', /trials$/, () => ({ id: 't1' }));
    shown();
    await fireEvent.click(screen.getByRole('button', { name: 'Try two ways at T1' }));
    await screen.findByText('9 laps each: fits');
    expect(screen.getByText('80 laps each: no room')).toBeTruthy();
    expect(screen.getByText('more laps than anybody drives')).toBeTruthy();
    expect(screen.getByText(/something hard is near/)).toBeTruthy();
    // Only a school can be computed for any day; what is written elsewhere is tried.
    expect(screen.getAllByRole('button', { name: 'Drive it so today' })).toHaveLength(1);
    await fireEvent.click(screen.getByRole('button', { name: 'Drive it so today' }));
    expect(ondrive.mock.calls).toEqual([['LATE_APEX']]);
    await fireEvent.click(screen.getByRole('button', { name: 'the apex: late, for the exit' }));
    await waitFor(() =>
      expect(server.last('POST')?.body).toEqual({ corner: 'c1', source: 'SCHOOL', key: 'LATE_APEX' }),
    );
  });

  it('plans one setting by its number', async () => {
    server.on('GET', /tryable$/, () => ({ ways: [], spreadLaps: 0, laps: 20, warmFrom: 3 }));
    server.on('POST', /trials$/, () => ({ id: 't1' }));
    shown();
    await fireEvent.click(screen.getByRole('button', { name: 'Try a sheet or a setting' }));
    await screen.findByText('This vehicle has no other sheet.');
    await fireEvent.input(screen.getByLabelText('to, %'), { target: { value: '58.5' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Plan it' }));
    await waitFor(() =>
      expect(server.last('POST')?.body).toEqual({ corner: '', source: 'SETTING', key: 'brakes.bias', number: 58.5 }),
    );
  });
});
