// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import LapDots from './LapDots.svelte';
import LoggerDialog from './LoggerDialog.svelte';
import RecordingNote from './RecordingNote.svelte';
import type { ChannelChoice, RecordingLine } from '../../api/api';
import { corner, lap } from '../../testing/made';
import { server } from '../../testing/server';
import { hosted } from '../../testing/shown';

describe('laps as marks', () => {
  const laps = [
    lap(0, 130, { id: 'out', kind: 'OUT', kindWords: 'out', counts: false }),
    lap(1, 101.2),
    lap(2, 100.4),
    lap(3, 104, { counts: false, kind: 'TRAFFIC', kindWords: 'traffic' }),
  ];

  it('shows laps from line to line, picks one or the other to compare', async () => {
    const onpick = vi.fn();
    render(LapDots, { laps, first: 'lap2', second: 'lap1', onpick });
    expect(document.querySelectorAll('[data-lap]')).toHaveLength(3);
    const third = screen.getByRole('button', { name: 'Lap 3, 1:44.00, traffic, does not count' });
    await fireEvent.keyDown(third, { key: 'Enter', shiftKey: true });
    await fireEvent.click(document.querySelector('[data-lap="1"]') as Element);
    expect(onpick.mock.calls.map(([l, other]) => [l.id, other])).toEqual([
      ['lap3', true],
      ['lap1', false],
    ]);
    expect(document.querySelector('[data-lap="2"]')?.getAttribute('aria-pressed')).toBe('true');
  });

  it('puts the quicker lap higher', () => {
    render(LapDots, { laps, first: '', second: '', onpick: () => undefined });
    const y = (n: number) =>
      Number(document.querySelector(`[data-lap="${n}"] circle:last-of-type`)?.getAttribute('cy'));
    expect(y(2)).toBeLessThan(y(1));
    expect(y(1)).toBeLessThan(y(3));
  });

  it('stands empty without laps', () => {
    render(LapDots, { laps: [], first: '', second: '', onpick: () => undefined });
    expect(document.querySelectorAll('[data-lap]')).toHaveLength(0);
  });
});

describe('a file of a run', () => {
  const choices = [
    { channel: 'TIME', words: 'time', units: [{ unit: 'SECOND', symbol: 's' }] },
    {
      channel: 'SPEED',
      words: 'speed',
      units: [
        { unit: 'METRE_PER_SECOND', symbol: 'm/s' },
        { unit: 'KM_PER_HOUR', symbol: 'km/h' },
      ],
    },
  ] as unknown as ChannelChoice[];
  const recording = (over: Record<string, unknown>): RecordingLine =>
    ({
      id: 'rec1',
      run: 'r1',
      name: 'saturday.csv',
      state: 'DONE',
      progress: 1,
      report: [],
      problem: null,
      truth: false,
      mapping: {
        format: 'TABLE',
        columns: [
          { index: 0, header: 'aa', channel: null, unit: null, guessed: false },
          { index: 1, header: 'bb', channel: 'SPEED', unit: 'KM_PER_HOUR', guessed: true },
        ],
      },
      ...over,
    }) as unknown as RecordingLine;
  const note = (over: Record<string, unknown>, mine = true) => {
    const onchange = vi.fn();
    render(RecordingNote, { recording: recording(over), mine, choices, onchange });
    return onchange;
  };

  it('asks what a column holds, and sends what the driver says with a unit that fits', async () => {
    server.on('PUT', /mapping$/, () => undefined);
    const onchange = note({
      state: 'ASKS',
      problem: { what: 'No column holds the time.', where: null, remedy: 'Say which one it is.' },
    });
    expect(document.body.textContent).toContain('Say which one it is.');
    await fireEvent.change(screen.getByLabelText('aa holds'), { target: { value: 'TIME' } });
    await fireEvent.change(screen.getByLabelText('Unit of bb'), { target: { value: 'METRE_PER_SECOND' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Read it so, and remember' }));
    await waitFor(() => expect(onchange).toHaveBeenCalled());
    expect(server.last('PUT')?.path).toBe('/api/recordings/rec1/mapping');
    expect(server.last('PUT')?.body).toEqual({
      columns: [
        { index: 0, header: 'aa', channel: 'TIME', unit: 'SECOND', guessed: false },
        { index: 1, header: 'bb', channel: 'SPEED', unit: 'METRE_PER_SECOND', guessed: false },
      ],
    });
  });

  it('keeps what was chosen when the server refuses', async () => {
    server.on('PUT', /mapping$/, () => 422);
    const onchange = note({ state: 'ASKS' });
    await fireEvent.change(screen.getByLabelText('aa holds'), { target: { value: 'TIME' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Read it so, and remember' }));
    await screen.findByText(/Trouble 422/);
    expect(onchange).not.toHaveBeenCalled();
    expect((screen.getByLabelText('aa holds') as HTMLSelectElement).value).toBe('TIME');
  });

  it('tells what was done to the file, sorted', () => {
    note({
      report: [
        { sort: 'READ', words: '9000 rows.' },
        { sort: 'CLEANED', words: 'Spikes are bridged.' },
        { sort: 'DERIVED', words: 'Gear from revs and speed.' },
        { sort: 'DROPPED', words: 'Oil is zero throughout.' },
      ],
    });
    const said = [...document.querySelectorAll('[data-report] li')].map((l) =>
      l.textContent?.replace(/\s+/g, ' ').trim(),
    );
    expect(said).toEqual([
      'Read: 9000 rows.',
      'Cleaned: Spikes are bridged.',
      'Worked out: Gear from revs and speed.',
      'Left out: Oil is zero throughout.',
    ]);
  });

  it('is cancelled while it is read, ended when a line broke off, removed when it is done', async () => {
    server.on('POST', /./, () => undefined);
    server.on('DELETE', /./, () => undefined);
    note({ state: 'WORKING', progress: 0.4 });
    expect(document.querySelector('progress')?.getAttribute('value')).toBe('0.4');
    await fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    await waitFor(() => expect(server.last('POST')?.path).toBe('/api/recordings/rec1/cancel'));
    note({ state: 'LIVE' });
    await fireEvent.click(screen.getByRole('button', { name: /Broken off/ }));
    await waitFor(() => expect(server.last('POST')?.path).toBe('/api/recordings/rec1/again'));
    note({ state: 'DONE' });
    await fireEvent.click(screen.getByRole('button', { name: 'Remove it and its laps' }));
    await waitFor(() => expect(server.last('DELETE')?.path).toBe('/api/recordings/rec1'));
  });

  it('offers nothing to do to whom it does not belong', () => {
    note({ state: 'WORKING' }, false);
    note({ state: 'DONE' }, false);
    expect(screen.queryAllByRole('button')).toHaveLength(0);
  });
});

describe('the simulated logger', () => {
  const open = (run: unknown = null) => {
    server.on('GET', /mistakes$/, () => [
      { mistake: 'COASTS', words: 'rolls' },
      { mistake: 'BRAKES_LATE_RUNS_DEEP', words: 'brakes late' },
    ]);
    const onclose = vi.fn();
    const corners = [corner(), corner({ id: 'c2', number: '2' })];
    const days = [
      { word: '', called: 'dry, warm', there: true },
      { word: 'WET', called: 'wet', there: false },
    ];
    hosted(LoggerDialog, { reference: 'ref1', corners, days, run, onclose });
    return onclose;
  };

  it('drives what was chosen', async () => {
    server.on('POST', /logger$/, () => ({ id: 'job', state: 'DONE', share: 1, made: 'rec', run: 'run' }));
    const onclose = open();
    await fireEvent.click(screen.getByRole('button', { name: 'Add a mistake' }));
    await waitFor(() => expect(screen.getByLabelText('Mistake').querySelectorAll('option')).toHaveLength(2));
    await fireEvent.change(screen.getByLabelText('Mistake'), { target: { value: 'COASTS' } });
    await fireEvent.change(screen.getByLabelText('Day'), { target: { value: 'WET' } });
    await fireEvent.change(screen.getByLabelText('At corner'), { target: { value: 'c2' } });
    await fireEvent.input(screen.getByLabelText('Laps'), { target: { value: '12' } });
    await fireEvent.input(screen.getByLabelText('Same again'), { target: { value: '11' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Drive' }));
    await waitFor(() => expect(onclose).toHaveBeenCalledWith({ id: 'rec', run: 'run', known: false }));
    expect(server.last('POST')?.body).toMatchObject({
      seed: 11,
      laps: 12,
      live: false,
      day: 'WET',
      habits: [{ mistake: 'COASTS', corner: 'c2', size: 1 }],
    });
  });

  it('drives into a run that waits, on the day that it is said to be', async () => {
    server.on('POST', /logger$/, () => ({ id: 'job', state: 'DONE', share: 1, made: 'rec', run: 'waits' }));
    open({ id: 'waits', day: 'WET', recordings: [], laps: [] });
    await fireEvent.click(screen.getByRole('button', { name: 'Drive' }));
    await waitFor(() => expect(server.last('POST')?.body).toMatchObject({ run: 'waits', day: 'WET' }));
  });

  it('stays open with what was entered when the drive is refused', async () => {
    server.on('POST', /logger$/, () => 422);
    const onclose = open();
    await fireEvent.click(screen.getByRole('button', { name: 'Drive' }));
    await screen.findByText(/Trouble 422/);
    expect(onclose).not.toHaveBeenCalled();
    expect((screen.getByRole('button', { name: 'Drive' }) as HTMLButtonElement).disabled).toBe(false);
  });

  it('drops a mistake again', async () => {
    open();
    await fireEvent.click(screen.getByRole('button', { name: 'Add a mistake' }));
    await fireEvent.click(screen.getByRole('button', { name: 'Drop' }));
    expect(screen.queryByLabelText('Mistake')).toBeNull();
  });
});
