// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import type { Component } from 'svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import BalancePanel from './BalancePanel.svelte';
import type { Balance } from './balance';
import { answer, entry, FakeDesk, LENGTH } from '../../testing/made';
import Host from '../../testing/Host.svelte';
import { server } from '../../testing/server';
import { squeezed } from '../../testing/shown';

const part = (station: number) => ({
  station,
  front: 0.9,
  rear: 0.8,
  how: 'PUSHES' as const,
  understeer: 0.01,
  words: 'pushes by 10 %',
});
const told = (over: Partial<Balance> = {}): Balance => ({
  from: 400,
  step: 3,
  front: [0.2, 0.5, 0.9],
  rear: [0.4, 0.5, 0.7],
  bears: [1, 1, 0.5],
  entry: part(403),
  middle: part(404),
  exit: part(406),
  moves: [
    { what: 'TRAIL', entry: -0.05, middle: 0, exit: 0 },
    { what: 'BRAKES', entry: 0.02, middle: 0, exit: 0, corner: 0.001, lap: 0.012 },
  ],
  locks: [
    {
      station: 402,
      turning: false,
      first: 'INNER_FRONT',
      alike: true,
      at: 0.96,
      planned: 0.9,
      use: [0.94, 0.94, 0.7, 0.7],
      words: 'straight ahead the front locks first, at 96 % of the brake',
    },
  ],
  hands: { station: 405, rolls: false, rate: 3, share: 0.7, words: 'the wheel turns at 172° a second' },
  usual: false,
  ...over,
});

function shown() {
  const e = entry();
  const desk = new FakeDesk(e, answer(e));
  Object.assign(desk, { road: { length: LENGTH }, corner: { left: false } });
  const given = { desk, entry: e } as Record<string, unknown>;
  return render(Host, { shown: BalancePanel as unknown as Component<Record<string, unknown>>, given });
}

const job = (state: string, share: number) => ({ id: 'j', state, share, made: state === 'DONE' ? 'm' : null });

beforeEach(() => server.reset());

describe('how a corner uses front and rear', () => {
  it('says which wheel locks, what the hands have to do, and what a driver does in place of a step', async () => {
    server.on('POST', /balance$/, () => told());
    shown();
    await waitFor(() => expect(document.querySelector('[data-locks]')).toBeTruthy());
    expect(squeezed(document.querySelector('[data-locks]'))).toContain(
      'Straight ahead the front locks first, at 96 % of the brake.',
    );
    // Both wheels of the axle that locks are thick.
    const wheels = [...document.querySelectorAll('[data-locks] rect[rx="4"]')].map((r) =>
      r.getAttribute('stroke-width'),
    );
    expect(wheels).toEqual(['3', '3', '1', '1']);
    expect(squeezed(document.querySelector('[data-hands]'))).toContain('405 m: the wheel turns at 172° a second.');
    expect(squeezed(document.querySelector('[data-step=BRAKES]'))).toContain(
      'brake balance forward: as much on the way in as 4 % less brake while turning.',
    );
  });

  it('lays the line anew for a step when asked, shows how far it is, and gives up when told', async () => {
    server.on('POST', /balance$/, () => told());
    let asked = 0;
    server.on('POST', /balance\/laid$/, () => job('WORKING', 0.2));
    server.on('GET', /jobs\/j$/, () => (++asked < 2 ? job('WORKING', 0.6) : job('DONE', 1)));
    server.on('GET', /balance\/laid\/m$/, () => ({ what: 'BRAKES', corner: -0.004, lap: -0.02, across: 0.1 }));
    shown();
    await fireEvent.click(await screen.findByRole('button', { name: 'With a line of its own' }));
    expect(await screen.findByRole('progressbar', { name: 'Laying the line' })).toBeTruthy();
    expect(await screen.findByRole('button', { name: 'Cancel' })).toBeTruthy();
    await waitFor(() => expect(squeezed(document.querySelector('[data-laid]'))).toBe('−0.020 s a lap, −0.004 s here'), {
      timeout: 3000,
    });
    expect(server.sent.find((s) => s.path.endsWith('/laid'))?.body).toMatchObject({ what: 'BRAKES' });
  });

  it('says what is wrong where the line cannot be laid', async () => {
    server.on('POST', /balance$/, () => told());
    server.on('POST', /balance\/laid$/, () => 409);
    shown();
    await fireEvent.click(await screen.findByRole('button', { name: 'With a line of its own' }));
    expect(await screen.findByText(/Trouble 409/)).toBeTruthy();
  });
});
