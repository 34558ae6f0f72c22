import { clear, createStore, get, update } from 'idb-keyval';
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
  /** Takes away what the server has, unless it was changed here since. */
  take(session: string, done: Line[]): Promise<void>;
  waiting(): Promise<number>;
  /** Forgets all, when whoever said it signs out. */
  clear(): Promise<void>;
}

export function browserLog(): LogShelf {
  const store = createStore('marvek-log', 'lines');
  // Each change is one step of the database: two presses in a row lose neither.
  const change = (session: string, how: (lines: Line[]) => Line[]) =>
    update<Shelves>('all', (all) => ({ ...(all ?? {}), [session]: how(all?.[session] ?? []) }), store);
  return {
    read: async (session) => (await get<Shelves>('all', store))?.[session] ?? [],
    put: (session, lines) =>
      change(session, (before) => {
        const ids = new Set(lines.map((l) => l.id));
        return [...before.filter((l) => !ids.has(l.id)), ...lines];
      }),
    take: (session, done) =>
      change(session, (before) => before.filter((l) => !done.some((d) => d.id === l.id && d.removed === l.removed))),
    waiting: async () =>
      Object.values((await get<Shelves>('all', store)) ?? {}).reduce((sum, lines) => sum + lines.length, 0),
    clear: () => clear(store),
  };
}

type Shelves = Record<string, Line[]>;

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
    lines.filter((l) => there.get(l.id) === l.removed),
  );
  return answer;
}
