import { api, ask, type LogLine, type Told } from '../../api/api';
import { browserShelf, type Shelf } from '../../api/shelf';

/** A line as it waits on this device until the server has it. */
export interface Line {
  id: string;
  device: string;
  at: string;
  told: Told;
  removed: boolean;
}

/** Where lines wait. */
export type LogShelf = Shelf<Line>;

export const browserLog = (): LogShelf =>
  browserShelf<Line>('marvek-log', 'lines', (here, there) => here.removed === there.removed);

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
