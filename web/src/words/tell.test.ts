// @vitest-environment node
import { IntlMessageFormat } from 'intl-messageformat';
import { parse } from 'svelte/compiler';
import { describe, expect, it } from 'vitest';
import en from './en.json';
import { type Key, tell } from './tell';

interface Node {
  type?: string;
  start: number;
  end: number;
  [of: string]: unknown;
}
const files = import.meta.glob<string>(['../**/*.{svelte,ts}', '!../**/*.{test,d}.ts', '!../testing/**'], {
  query: '?raw',
  import: 'default',
  eager: true,
});
const sources = Object.entries(files).map(([name, text]) => {
  const read = name.endsWith('.svelte') ? text : `<script lang="ts">${text}</script>`;
  return { name, tree: parse(read, { modern: true }) as unknown as Node };
});

function walk(of: unknown, see: (node: Node, within: Node | null) => void, within: Node | null = null): void {
  if (Array.isArray(of)) of.forEach((x) => walk(x, see, within));
  else if (of && typeof of === 'object') {
    const node = of as Node;
    if (node.type) see(node, within);
    for (const [k, v] of Object.entries(node))
      if (k !== 'parent' && k !== 'loc') walk(v, see, node.type ? node : within);
  }
}

/** Places of a pattern that values go to. */
function places(pattern: string): Set<string> {
  const out = new Set<string>();
  const see = (parts: unknown): void => {
    for (const p of parts as { type: number; value: string; options?: Record<string, { value: unknown }> }[]) {
      // 0 is words, 7 the number of a plural itself.
      if (p.type !== 0 && p.type !== 7) out.add(p.value);
      for (const o of Object.values(p.options ?? {})) see(o.value);
    }
  };
  see(new IntlMessageFormat(pattern, 'en', undefined, { ignoreTag: true }).getAst());
  return out;
}

/** All that is told: by which key, with values for which places. */
const calls = sources.flatMap(({ name, tree }) => {
  const out: { name: string; key: string; given: Set<string> }[] = [];
  walk(tree, (node) => {
    if (node.type !== 'CallExpression' || (node['callee'] as Node)['name'] !== 'tell') return;
    const [key, values] = node['arguments'] as Node[];
    const of = (values?.['properties'] ?? []) as { key: { name: string } }[];
    out.push({ name, key: String(key?.['value']), given: new Set(of.map((p) => p.key.name)) });
  });
  return out;
});

const WORD = /\p{Ll}{3,}/u;
/** Names and symbols that are the same in every language. */
const SAME = /Marvek|GeoJSON|GPX|CSV|JSON|iCalendar|NMEA|km\/h|mph|kPa|hPa|rpm|[Ss]hift|[Cc]trl|Enter|Esc/g;
const SAID_ALOUD = ['aria-label', 'title', 'placeholder', 'alt', 'label'];

describe('the interface’s words', () => {
  it('are all used, and nothing is told that has none', () => {
    expect(calls.length).toBeGreaterThan(1500);
    expect([...new Set(calls.map((c) => c.key))].sort()).toEqual(Object.keys(en).sort());
  });

  it('have values for just the places of their patterns', () => {
    const wrong = calls.filter(({ key, given }) => {
      const wanted = places(en[key as Key]);
      return wanted.size !== given.size || [...wanted].some((p) => !given.has(p));
    });
    expect(wrong.map((w) => `${w.name}: ${w.key}`)).toEqual([]);
  });

  it('stand in the catalogue and not in what is drawn', () => {
    const own: string[] = [];
    for (const { name, tree } of sources) {
      if (!name.endsWith('.svelte')) continue;
      walk(tree['fragment'], (node, within) => {
        if (node.type !== 'Text' || within?.type === 'StyleDirective') return;
        const attribute = within?.type === 'Attribute' ? String(within['name']) : null;
        if (attribute !== null && !SAID_ALOUD.includes(attribute)) return;
        const text = String(node['data']);
        if (WORD.test(text.replace(SAME, ''))) own.push(`${name}: ${text.trim()}`);
      });
    }
    expect(own).toEqual([]);
  });

  it('choose by number and by yes or no', () => {
    expect(tell('stripNotes.more', { hidden: 3 })).toBe('3 more');
    const one = tell('anewNote.another_place_for_apex_apexes', { apexes: 1 });
    expect(one).toBe('another place for 1 apex');
    expect(tell('anewNote.another_place_for_apex_apexes', { apexes: 2 })).toContain('2 apexes');
    expect(tell('bring.left_right', { hasLeft: true })).toBe('left');
    expect(tell('bring.left_right', { hasLeft: false })).toBe('right');
  });
});
