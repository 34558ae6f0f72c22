import { clear, createStore, get, update } from 'idb-keyval';

/** Where things wait until the server has them, in the browser's own database: a reload or a dead battery loses none. */
export interface Shelf<T extends { id: string }> {
  read(of: string): Promise<T[]>;
  put(of: string, things: T[]): Promise<void>;
  /** Takes away what the server has, unless it was changed here since. */
  take(of: string, done: T[]): Promise<void>;
  waiting(): Promise<number>;
  /** Forgets all, when whoever made it signs out. */
  clear(): Promise<void>;
}

/**
 * A shelf of the browser.
 *
 * @param same whether what the server has is still what lies here
 */
export function browserShelf<T extends { id: string }>(
  database: string,
  name: string,
  same: (here: T, there: T) => boolean = () => true,
): Shelf<T> {
  const store = createStore(database, name);
  type All = Record<string, T[]>;
  // Each change is one step of the database: two presses in a row lose neither.
  const change = (of: string, how: (things: T[]) => T[]) =>
    update<All>('all', (all) => ({ ...(all ?? {}), [of]: how(all?.[of] ?? []) }), store);
  return {
    read: async (of) => (await get<All>('all', store))?.[of] ?? [],
    put: (of, things) =>
      change(of, (before) => {
        const ids = new Set(things.map((t) => t.id));
        return [...before.filter((t) => !ids.has(t.id)), ...things];
      }),
    take: (of, done) => change(of, (before) => before.filter((t) => !done.some((d) => d.id === t.id && same(t, d)))),
    waiting: async () =>
      Object.values((await get<All>('all', store)) ?? {}).reduce((sum, things) => sum + things.length, 0),
    clear: () => clear(store),
  };
}
