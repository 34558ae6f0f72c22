import { createStore, get, update } from 'idb-keyval';
import type { SurveyChange } from '../../api/api';

/** Something to be sent, in the order in which it was made. */
export type Letter =
  { kind: 'change'; change: SurveyChange; own: string[] } | { kind: 'photo'; id: string; file: Blob };

export const letterId = (letter: Letter): string => (letter.kind === 'change' ? letter.change.id : letter.id);

/** Where letters lie while they wait; the browser's own database, so that a reload loses none. */
export interface Shelf {
  read(layout: string): Promise<Letter[]>;
  /** Puts letters there in this order and takes those that are done away; another window's stay. */
  write(layout: string, letters: Letter[], done: string[]): Promise<void>;
}

/** What lies on a shelf after a write. */
export function shelved(before: Letter[], letters: Letter[], done: string[]): Letter[] {
  const mine = new Set([...letters.map(letterId), ...done]);
  return [...before.filter((l) => !mine.has(letterId(l))), ...letters];
}

export function browserShelf(): Shelf {
  const store = createStore('marvek-outbox', 'letters');
  return {
    read: async (layout) => (await get<Letter[]>(layout, store)) ?? [],
    write: (layout, letters, done) => update<Letter[]>(layout, (before) => shelved(before ?? [], letters, done), store),
  };
}
