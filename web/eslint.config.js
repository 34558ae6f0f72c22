import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import { readdirSync } from 'node:fs';
import ts from 'typescript-eslint';

/** What a room may import from, beside itself: app → features → road → kit → words → api. */
const order = ['api', 'words', 'kit', 'road', 'features', 'app'];
const neighbours = {
  walk: ['survey'],
  session: ['trials'],
  debrief: ['trials'],
  runs: ['film', 'trials'],
  rehearse: ['film'],
};
const restricted = (files, group, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
});
const features = readdirSync(new URL('./src/features', import.meta.url));
const boundaries = [
  ...order.slice(0, -1).map((room, i) =>
    restricted(
      [`src/${room}/**`],
      order.slice(i + 1).map((above) => `**/${above}/**`),
      `${room} knows nothing of the rooms above it.`,
    ),
  ),
  ...features.map((feature) =>
    restricted(
      [`src/features/${feature}/**`],
      [
        '**/app/**',
        ...features.filter((f) => f !== feature && !neighbours[feature]?.includes(f)).map((f) => `../${f}/**`),
      ],
      'A feature knows no other one and not the app.',
    ),
  ),
];

export default ts.config(
  { ignores: ['dist', 'coverage', 'src/api/generated'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs['flat/recommended'],
  prettier,
  ...svelte.configs['flat/prettier'],
  { languageOptions: { globals: globals.browser } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  { rules: { 'svelte/no-navigation-without-resolve': 'off' } },
  ...boundaries,
  {
    // A press is followed in one place.
    ignores: ['src/kit/drag.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...["Literal[value='pointermove']", "SvelteAttribute[key.name='onpointermove']"].map((selector) => ({
          selector,
          message: 'Follow a press with kit/drag.',
        })),
      ],
    },
  },
);
