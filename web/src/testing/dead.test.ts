import { describe, expect, it } from 'vitest';

const sources = import.meta.glob<string>(['../**/*.ts', '../**/*.svelte', '!../**/*.test.ts', '!../**/generated/**'], {
  query: '?raw',
  import: 'default',
  eager: true,
});
const files = Object.entries(sources)
  // What a comment says uses nothing.
  .map(([path, text]) => [path, text.replace(/\/\*[\s\S]*?\*\/|<!--[\s\S]*?-->|(^|\s)\/\/.*/g, '')] as const)
  .map(([path, text]) => ({ name: path.replace(/^\.\.\//, '').replace(/^\.\//, 'testing/'), text }))
  .filter((f) => !f.name.startsWith('testing/'));

/** What a file gives to others that does something; types are erased. */
const given = (text: string) =>
  [...text.matchAll(/^export (?:async )?(?:const|let|function|class) (\w+)/gm)].map((m) => m[1] ?? '');

describe('what is exported', () => {
  it('is used by another file or its own, not by tests alone', () => {
    const dead = files
      .filter((f) => f.name.endsWith('.ts'))
      .flatMap((f) => given(f.text).map((name) => ({ file: f.name, name })))
      .filter(({ file, name }) => {
        const uses = (text: string) => text.match(new RegExp(`\\b${name}\\b`, 'g'))?.length ?? 0;
        return files.reduce((sum, f) => sum + uses(f.text) - (f.name === file ? 1 : 0), 0) < 1;
      });
    expect(dead).toEqual([]);
  });

  it('is a screen or a part that something shows', () => {
    const parts = files.filter((f) => f.name.endsWith('.svelte'));
    const unseen = parts.filter((p) => {
      const name = p.name.split('/').at(-1) ?? '';
      return !files.some((other) => other !== p && other.text.includes(`/${name}'`));
    });
    expect(unseen.map((p) => p.name)).toEqual([]);
  });
});
