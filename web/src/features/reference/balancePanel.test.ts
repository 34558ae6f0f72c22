// @vitest-environment jsdom
import { render, waitFor } from '@testing-library/svelte';
import type { Component } from 'svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import BalancePanel from './BalancePanel.svelte';
import type { Balance } from './balance';
import { answer, balance, entry, FakeDesk, LENGTH } from '../../testing/made';
import Host from '../../testing/Host.svelte';
import { server } from '../../testing/server';
import { squeezed } from '../../testing/shown';

const told = (over: Partial<Balance> = {}) =>
  balance({
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
    ...over,
  });

function shown() {
  const e = entry();
  const desk = new FakeDesk(e, answer(e));
  Object.assign(desk, { road: { length: LENGTH }, corner: { left: false } });
  const given = { desk, entry: e } as Record<string, unknown>;
  return render(Host, { shown: BalancePanel as unknown as Component<Record<string, unknown>>, given });
}

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
    expect(document.querySelector('[data-around]')).toBeNull();
    expect(squeezed(document.querySelector('[data-hands]'))).toContain('405 m: the wheel turns at 172° a second.');
    expect(squeezed(document.querySelector('[data-step=BRAKES]'))).toContain(
      'brake balance forward: as much on the way in as 4 % less brake while turning.',
    );
  });

  it('draws what is done apart from what is set, whatever a lap knows of it', async () => {
    const dampers = { what: 'DAMPERS', entry: 0.01, middle: 0, exit: -0.01 } as const;
    const throttle = { what: 'THROTTLE', entry: 0, middle: 0, exit: -0.03 } as const;
    server.on('POST', /balance$/, () => told({ moves: [throttle, dampers] }));
    shown();
    await waitFor(() => expect(document.querySelector('[data-move=DAMPERS]')).toBeTruthy());
    const list = (what: string) => document.querySelector(`[data-move=${what}]`)?.closest('svg')?.ariaLabel;
    expect(list('THROTTLE')).toBe('What moves it here');
    expect(list('DAMPERS')).toBe('One step of the set-up');
  });

  it('says what to do instead where nothing may be set', async () => {
    const words = 'on the way in, 12 % less brake while turning makes it even';
    server.on('POST', /balance$/, () => told({ moves: [], around: [{ what: 'TRAIL', by: -0.12, words }] }));
    shown();
    await waitFor(() => expect(document.querySelector('[data-around]')).toBeTruthy());
    expect(squeezed(document.querySelector('[data-around]'))).toBe(
      'On the way in, 12 % less brake while turning makes it even.',
    );
    expect(document.querySelector('[data-steps]')).toBeNull();
  });
});
