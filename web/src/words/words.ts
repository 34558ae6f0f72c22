import { tell } from './tell';
import type { Corner } from '../api/api';
import { session } from '../api/session.svelte';

/** What a corner is called: by number, by name, or both, as the driver chose. */
export function cornerWord(c: Pick<Corner, 'number' | 'name'>): string {
  const how = session.person?.corners ?? 'NUMBERS';
  if (how === 'NAMES' && c.name) return c.name;
  if (how === 'BOTH' && c.name) return `${c.number} ${c.name}`;
  return c.number || c.name || tell('words.kink');
}

/** A sentence to be put into another one: without its own full stop. */
export function inside(sentence: string): string {
  return sentence.replace(/\.\s*$/, '');
}
