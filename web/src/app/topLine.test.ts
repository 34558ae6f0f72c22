// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import { session } from '../api/session.svelte';
import { browserLog } from '../features/session/log';
import { server } from '../testing/server';
import { hosted } from '../testing/shown';
import TopLine from './TopLine.svelte';

const shelf = browserLog();
const line = {
  id: 'l1',
  device: 'phone',
  at: '2026-06-06T12:00:00Z',
  told: { about: 'REST' as const, words: '', hot: [], bled: false },
  removed: false,
};

beforeEach(async () => {
  await shelf.clear();
  session.person = { name: 'Ana', theme: 'PAPER', speed: 'KMH', length: 'M', corners: 'NUMBERS' } as never;
  server.on('GET', /paddock$/, () => ({ reference: null }));
  server.on('GET', /used$/, () => ({ bytes: 0, bytesAllowed: 1, runs: 0, runsAllowed: 1 }));
  server.on('DELETE', /session$/, () => undefined);
});

describe('signing out', () => {
  it('tells of what was said without a connection before it is lost', async () => {
    await shelf.put('s1', [line]);
    hosted(TopLine, {});
    await fireEvent.click(screen.getByRole('button', { name: 'Sign out Ana' }));
    const lose = await screen.findByRole('button', { name: 'Sign out and lose it' });
    expect(session.person).not.toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: 'Stay' }));
    expect(await shelf.waiting()).toBe(1);
    expect(lose.isConnected).toBe(false);
    await fireEvent.click(screen.getByRole('button', { name: 'Sign out Ana' }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Sign out and lose it' }));
    await waitFor(() => expect(session.person).toBeNull());
    await waitFor(async () => expect(await shelf.waiting()).toBe(0));
  });

  it('asks nothing where all was sent', async () => {
    hosted(TopLine, {});
    await fireEvent.click(screen.getByRole('button', { name: 'Sign out Ana' }));
    await waitFor(() => expect(session.person).toBeNull());
  });
});
