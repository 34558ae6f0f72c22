import { IntlMessageFormat } from 'intl-messageformat';
import en from './en.json';

// The interface's own words, in the message format that the server's catalogue is in (ICU: plural and select).
export type Key = keyof typeof en;
export type Value = string | number | boolean | null | undefined;

const MARK = '\u2039';
const END = '\u203a';
/** Who asks for the region XA is told in marked words, by the server too: what bears no mark is not of a catalogue. */
const marked = typeof navigator !== 'undefined' && navigator.languages.some((l) => l.endsWith('-XA'));

const formats = new Map<Key, IntlMessageFormat>();
function format(key: Key): IntlMessageFormat {
  let found = formats.get(key);
  if (!found) {
    found = new IntlMessageFormat(en[key], 'en', undefined, { ignoreTag: true });
    formats.set(key, found);
  }
  return found;
}

/** A yes or no that a pattern may choose by; what is not known is told as nothing. */
const given = (value: Value): string | number => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value ?? ''));

/** Words that come from the catalogue of the server, or went through this one. */
export const ours = (words: string): string => (marked ? MARK + words + END : words);

/** Words by their key, with values for the places of their pattern. */
export function tell(key: Key, values: Record<string, Value> = {}): string {
  return ours(String(format(key).format(Object.fromEntries(Object.entries(values).map(([k, v]) => [k, given(v)])))));
}
