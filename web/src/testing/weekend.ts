import { server } from './server';
import recorded from './weekend.json';

/** The demo as the server told it once; see record.mjs. */
export const weekend = recorded as { id: string; layout: string; vehicle: string; run: string; said: unknown };
const said = recorded.said as unknown as Record<string, unknown>;

/** What was said of something. */
export const told = <T>(path: string): T => structuredClone(said[path]) as T;

/** The server says what it said then. */
export function replay(): void {
  for (const [key, answer] of Object.entries(said)) {
    const [method, path] = key.startsWith('POST ') ? ['POST', key.slice(5)] : ['GET', key];
    server.on(method, new RegExp(`^${path}$`), () => answer);
  }
}
