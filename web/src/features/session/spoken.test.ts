// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { hosted, squeezed } from '../../testing/shown';
import { server } from '../../testing/server';
import type { Line } from './log';
import Log from './Log.svelte';
import { freshSession } from './sessions';
import { browserSounds, sendSounds } from './spoken';

const stopped = vi.fn();
class Recorder {
  mimeType = 'audio/webm';
  ondataavailable: ((e: { data: Blob }) => void) | null = null;
  onstop: (() => void) | null = null;
  start() {}
  stop() {
    this.ondataavailable?.({ data: new Blob(['abc']) });
    this.onstop?.();
  }
}

beforeEach(async () => {
  server.reset();
  await browserSounds().clear();
  vi.stubGlobal('MediaRecorder', Recorder);
  vi.stubGlobal('isSecureContext', true);
  Object.assign(window, { MediaRecorder: Recorder, isSecureContext: true });
  Object.assign(navigator, {
    mediaDevices: { getUserMedia: () => Promise.resolve({ getTracks: () => [{ stop: stopped }] }) },
  });
  URL.createObjectURL = () => 'blob:here';
  URL.revokeObjectURL = () => undefined;
  const line = { id: 's1', event: 'e1', session: freshSession('PRACTICE', '2026-06-06T14:00:00', 'Europe/Lisbon') };
  server.on('GET', /sessions\/s1$/, () => ({ line, event: 'Weekend', runs: [], parts: [] }));
  server.on('GET', /sessions\/s1\/log$/, () => []);
  server.on('POST', /sessions\/s1\/log$/, (sent) => (sent.body as { lines: Line[] }).lines);
});

describe('a note that is spoken', () => {
  it('is kept on the device, sent with its line under one id, and the microphone is let go', async () => {
    const sent: string[] = [];
    vi.stubGlobal('fetch', (request: Request | string, init?: RequestInit) => {
      const path = typeof request === 'string' ? request : request.url;
      if (path.endsWith('/sound')) {
        sent.push(`${init?.method ?? 'GET'} ${path}`);
        return Promise.resolve(new Response('null', { status: 200 }));
      }
      return server.take(request as Request);
    });
    hosted(Log, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: /Say it aloud/ }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Stop, and keep it' }));
    await waitFor(() => expect(document.querySelector('audio')).toBeTruthy());
    expect(stopped).toHaveBeenCalled();
    expect(squeezed(document.querySelector('[data-log]'))).toMatch(/spoken, \d+ s/);
    await waitFor(() => expect(sent).toHaveLength(1));
    const line = (server.last('POST')?.body as { lines: Line[] }).lines[0];
    expect(sent[0]).toBe(`POST /api/sessions/s1/log/${line?.id}/sound`);
    expect(line?.told.seconds).toBeGreaterThan(0);
    await waitFor(async () => expect(await browserSounds().waiting()).toBe(0));
  });

  it('stays where there is no connection, and goes where it is refused for what it is', async () => {
    const shelf = browserSounds();
    await shelf.put('s1', [{ id: 'a', sound: new Blob(['x']) }]);
    vi.stubGlobal('fetch', () => Promise.reject(new Error('away')));
    expect(await sendSounds(shelf, 's1')).toBeNull();
    expect(await shelf.waiting()).toBe(1);
    vi.stubGlobal('fetch', () =>
      Promise.resolve(new Response(JSON.stringify({ detail: 'No sound.', remedy: 'Speak again.' }), { status: 422 })),
    );
    expect((await sendSounds(shelf, 's1'))?.status).toBe(422);
    expect(await shelf.waiting()).toBe(0);
  });

  it('is not asked for where the page is not safe', async () => {
    Object.assign(window, { isSecureContext: false });
    hosted(Log, { params: { id: 's1' } });
    await waitFor(() => expect(squeezed(document.body)).toContain('Speaking needs HTTPS here'));
    expect(screen.queryByRole('button', { name: /Say it aloud/ })).toBeNull();
  });
});
