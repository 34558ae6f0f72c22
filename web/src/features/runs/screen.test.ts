// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { RunsView } from '../../api/api';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import { here } from '../../kit/here.svelte';
import Runs from './Runs.svelte';

// There is no canvas here; what is drawn on it is held by the browser's tests.
vi.mock('uplot', () => ({
  default: class {
    static sync = () => ({ sub: () => undefined, unsub: () => undefined });
    destroy = () => undefined;
    setData = () => undefined;
    setSize = () => undefined;
    setScale = () => undefined;
    setCursor = () => undefined;
    redraw = () => undefined;
  },
}));

const params = { id: weekend.id };
const view = () => told<RunsView>(`/api/references/${weekend.id}/runs`);

describe('the runs', () => {
  beforeEach(() => {
    replay();
    here.run = null;
    server.on('GET', /\/trace$|plan-trace$/, () => 404);
  });

  it('shows the laps of the newest run, the quickest that counts told first', async () => {
    hosted(Runs, { params });
    const run = view().runs[0];
    const best = Math.min(...(run?.laps.filter((l) => l.counts).map((l) => l.lapTime) ?? []));
    const seconds = (best % 60).toFixed(2).padStart(5, '0');
    await waitFor(() =>
      expect(squeezed(document.querySelector('[data-best]'))).toContain(`${Math.floor(best / 60)}:${seconds}`),
    );
    expect(here.title).toBeTruthy();
    expect(here.detail).toBe('3 runs');
  });

  it('turns to another run', async () => {
    hosted(Runs, { params });
    const other = view().runs[1];
    const choose = (await screen.findByLabelText('Run')) as HTMLSelectElement;
    await fireEvent.change(choose, { target: { value: other?.id } });
    await waitFor(() => expect(here.run).toBe(other?.id));
    await waitFor(() =>
      expect(squeezed(document.querySelector('[data-run-on]'))).toContain(`revision ${other?.revision}`),
    );
  });

  it('leads to the first run where nothing was driven', async () => {
    server.on('GET', /\/runs$/, () => ({ ...view(), runs: [] }));
    hosted(Runs, { params });
    await waitFor(() => expect(document.querySelector('[data-bring-laps]')).toBeTruthy());
  });

  it('takes a lap that was timed by hand, and refuses what is no time before it is sent', async () => {
    server.on('POST', /\/laps$/, () => undefined);
    hosted(Runs, { params });
    const typed = (await screen.findByLabelText('Lap timed by hand')) as HTMLInputElement;
    await fireEvent.input(typed, { target: { value: 'quick' } });
    await fireEvent.submit(typed.closest('form') as HTMLFormElement);
    expect(server.last('POST')).toBeUndefined();
    await fireEvent.input(typed, { target: { value: '1:31.5' } });
    await fireEvent.submit(typed.closest('form') as HTMLFormElement);
    await waitFor(() => expect(server.last('POST')?.body).toMatchObject({ lapTime: 91.5 }));
  });
});
