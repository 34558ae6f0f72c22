import { render } from '@testing-library/svelte';
import type { Component } from 'svelte';
import type { Catalogue } from '../api/api';
import Host from './Host.svelte';

/** What stands in a piece of the page, spaces made one. */
export const squeezed = (node: Element | null) => node?.textContent?.replace(/\s+/g, ' ').trim() ?? '';

/** Shows what asks the server by queries. */
export const hosted = (shown: unknown, given: Record<string, unknown>) =>
  render(Host, { shown: shown as Component<Record<string, unknown>>, given });

/** A day as its kind usually is. */
export const usual = { grip: 0.7, extraMass: 0, windSpeed: 0, windFrom: 0, drag: 1, downforce: 1, hour: '' };

/** Words of the server, as far as panels read them. */
export const WORDS = {
  questions: [{ question: 'APEX', words: 'the apex' }],
  schools: [
    { school: 'LATE_APEX', question: 'APEX', words: 'late, for the exit' },
    { school: 'EARLY_APEX', question: 'APEX', words: 'early, for the entry' },
  ],
  variants: [{ kind: 'WET', words: 'wet', usual }],
  kinds: [],
  details: [
    { detail: 'AIM', phase: 'TURN_IN', words: 'look at', choices: [], motorcycle: false },
    { detail: 'BUMPS', phase: 'BRAKING', words: 'bumps', choices: ['over bumps'], motorcycle: false },
  ],
} as unknown as Catalogue;
