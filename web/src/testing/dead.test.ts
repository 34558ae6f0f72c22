import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { describe, expect, it } from 'vitest';

const root = join(import.meta.dirname, '..');
const files = readdirSync(root, { recursive: true, encoding: 'utf8' })
  .filter((f) => /\.(ts|svelte)$/.test(f) && !f.includes('generated') && !f.endsWith('.test.ts'))
  .map((f) => ({ name: relative(root, join(root, f)), text: readFileSync(join(root, f), 'utf8') }));

/** What a file gives to others that does something; types are erased. */
const given = (text: string) =>
  [...text.matchAll(/^export (?:async )?(?:const|let|function|class) (\w+)/gm)].map((m) => m[1] ?? '');

describe('what is exported', () => {
  it('is used by another file or its own, not by tests alone', () => {
    const dead = files
      .filter((f) => f.name.endsWith('.ts') && !f.name.startsWith('testing'))
      .flatMap((f) => given(f.text).map((name) => ({ file: f.name, name })))
      .filter(({ file, name }) => {
        const uses = (text: string) => text.match(new RegExp(`\\b${name}\\b`, 'g'))?.length ?? 0;
        const others = files.filter((f) => !f.name.startsWith('testing'));
        return others.reduce((sum, f) => sum + uses(f.text) - (f.name === file ? 1 : 0), 0) < 1;
      });
    expect(dead).toEqual([]);
  });

  it('is a screen or a part that something shows', () => {
    const parts = files.filter((f) => f.name.endsWith('.svelte') && !f.name.startsWith('testing'));
    const unseen = parts.filter((p) => {
      const name = p.name.split('/').at(-1) ?? '';
      return !files.some((other) => other !== p && other.text.includes(`/${name}'`));
    });
    expect(unseen.map((p) => p.name)).toEqual([]);
  });
});
