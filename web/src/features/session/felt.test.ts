// @vitest-environment jsdom
import { screen } from '@testing-library/svelte';
import { beforeEach, expect, it } from 'vitest';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import FeltBeside from './FeltBeside.svelte';

const told = (otherwise: string) => ({
  run: 'run1',
  corners: [
    { corner: 'c1', felt: 'LATE', agrees: true, metres: 30, words: 'you said late; braking was 30 m late' },
    { corner: 'c2', felt: 'AS_PLANNED', words: 'you said as planned' },
  ],
  agreement: { same: 1, told: 1 },
  otherwise,
});
beforeEach(() => server.reset());

it('says of each corner whether feeling and laps agree', async () => {
  server.on('GET', /sessions\/s1\/felt$/, () => told(''));
  hosted(FeltBeside, { session: 's1', called: (c: string) => c.slice(1) });
  await screen.findByText('Felt and driven: the same in 1 of 1 corner');
  const lines = [...document.querySelectorAll('[data-felt] li')].map((l) => squeezed(l));
  expect(lines).toEqual(['1 = you said late; braking was 30 m late', '2 · you said as planned']);
  expect(document.querySelector('[data-otherwise]')).toBeNull();
});

it('says before all where the laps are of another day than was planned for', async () => {
  server.on('GET', /sessions\/s1\/felt$/, () => told('The laps tell 100 % of the grip, planned for was 70 %.'));
  hosted(FeltBeside, { session: 's1', called: (c: string) => c });
  await screen.findByText(/planned for was 70 %/);
});
