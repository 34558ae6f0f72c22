import { createStore, get, set, update } from 'idb-keyval';
import { api, ask, type LogLine, type Told } from '../../api/api';

/** A line as it waits on this device until the server has it. */
export interface Line {
  id: string;
  device: string;
  at: string;
  told: Told;
  removed: boolean;
}

/** Where lines wait, in the browser's own database: a reload or a dead battery loses none. */
export interface LogShelf {
  read(session: string): Promise<Line[]>;
  put(session: string, lines: Line[]): Promise<void>;
  take(session: string, ids: string[]): Promise<void>;
  waiting(): Promise<number>;
}

export function browserLog(): LogShelf {
  const store = createStore('marvek-log', 'lines');
  const count = async (session: string, lines: Line[]) =>
    update<Record<string, number>>('waiting', (w) => ({ ...(w ?? {}), [session]: lines.length }), store);
  return {
    read: async (session) => (await get<Line[]>(session, store)) ?? [],
    async put(session, lines) {
      const before = (await get<Line[]>(session, store)) ?? [];
      const ids = new Set(lines.map((l) => l.id));
      const next = [...before.filter((l) => !ids.has(l.id)), ...lines];
      await set(session, next, store);
      await count(session, next);
    },
    async take(session, ids) {
      const gone = new Set(ids);
      const next = ((await get<Line[]>(session, store)) ?? []).filter((l) => !gone.has(l.id));
      await set(session, next, store);
      await count(session, next);
    },
    waiting: async () =>
      Object.values((await get<Record<string, number>>('waiting', store)) ?? {}).reduce((a, b) => a + b, 0),
  };
}

/** A name for this device, so that two on one log can be told apart. */
export function deviceName(): string {
  const key = 'marvek-device';
  let name = localStorage.getItem(key);
  if (!name) {
    name = `${/Mobi/.test(navigator.userAgent) ? 'phone' : 'computer'} ${Math.random().toString(36).slice(2, 6)}`;
    localStorage.setItem(key, name);
  }
  return name;
}

/** Lines of both, each once; what waits here is newer than what the server shows. */
export function merged(server: LogLine[], waiting: Line[]): Line[] {
  const mine = new Map(waiting.map((l) => [l.id, l]));
  return [...server.filter((l) => !mine.has(l.id)), ...waiting].sort((a, b) => a.at.localeCompare(b.at));
}

/** Sends what waits; what the server has taken waits no more. Fails quietly without a connection. */
export async function send(shelf: LogShelf, session: string): Promise<LogLine[] | null> {
  const lines = await shelf.read(session);
  if (!lines.length) return null;
  const answer = await ask(api.POST('/api/sessions/{id}/log', { params: { path: { id: session } }, body: { lines } }));
  const there = new Map(answer.map((l) => [l.id, l.removed]));
  await shelf.take(
    session,
    lines.filter((l) => there.get(l.id) === l.removed).map((l) => l.id),
  );
  return answer;
}
