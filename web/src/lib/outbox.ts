import { createStore, get, set } from 'idb-keyval';
import type { SurveyChange } from './api';

/** Something to be sent, in the order in which it was made. */
export type Letter =
  { kind: 'change'; change: SurveyChange; own: string[] } | { kind: 'photo'; id: string; file: Blob };

/** Where letters lie while they wait; the browser's own database, so that a reload loses none. */
export interface Shelf {
  read(layout: string): Promise<Letter[]>;
  write(layout: string, letters: Letter[]): Promise<void>;
}

export function browserShelf(): Shelf {
  const store = createStore('marvek-outbox', 'letters');
  return {
    read: async (layout) => (await get<Letter[]>(layout, store)) ?? [],
    write: (layout, letters) => set(layout, letters, store),
  };
}
