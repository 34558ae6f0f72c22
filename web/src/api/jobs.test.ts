import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Job } from './api';

const server = vi.hoisted(() => ({
  answer: (request: Request): Promise<Response> => Promise.reject(new Error(`unset: ${request.url}`)),
}));
vi.hoisted(() => {
  globalThis.fetch = (input) => server.answer(input as Request);
});

import { follow } from './jobs';

const job = (state: Job['state'], share = 0): Job => ({ id: 's1', state, share });
let coming: Job[];

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('document', { cookie: '' });
  vi.stubGlobal('location', { href: 'http://localhost/' });
  server.answer = () =>
    Promise.resolve(
      new Response(JSON.stringify(coming.shift()), { status: 200, headers: { 'content-type': 'application/json' } }),
    );
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

async function followed(first: Job) {
  const shares: number[] = [];
  const end = follow(first, (s) => shares.push(s.share)).catch((e: unknown) => e);
  await vi.runAllTimersAsync();
  return { end: await end, shares };
}

it('asks nothing of a job that was done at once', async () => {
  coming = [];
  expect(await followed({ ...job('DONE', 1), made: 'r1' })).toEqual({ end: 'r1', shares: [] });
});

it('tells how far it is until it is done', async () => {
  coming = [job('WORKING', 0.4), { ...job('DONE', 1), made: 'r1' }];
  expect(await followed(job('WAITING'))).toEqual({ end: 'r1', shares: [0, 0.4] });
});

it('gives nothing where it was cancelled', async () => {
  coming = [job('CANCELLED', 0.6)];
  expect((await followed(job('WORKING', 0.5))).end).toBeNull();
});

it('says why it failed and what to do', async () => {
  coming = [{ ...job('FAILED'), problem: 'No room.', remedy: 'Widen the road.' }];
  expect((await followed(job('WORKING'))).end).toMatchObject({ message: 'No room.', remedy: 'Widen the road.' });
});
