// @vitest-environment jsdom
import { render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import ProblemBox from './ProblemBox.svelte';
import { Problem, type Catalogue } from '../api/api';
import { catalogue } from '../api/catalogue.svelte';

const squeezed = (node: Element | null) => node?.textContent?.replace(/\s+/g, ' ').trim() ?? '';

beforeEach(() => {
  catalogue.all = {
    questions: [],
    schools: [],
    variants: [],
    kinds: [
      { kind: 'BRAKE', words: 'braking marker', drafted: true },
      { kind: 'BACK_UP', words: 'back-up marker', drafted: false },
      { kind: 'BUILD_UP', words: 'build-up marker', drafted: false },
    ],
    details: [
      { detail: 'AIM', phase: 'TURN_IN', words: 'look at', choices: [], motorcycle: false },
      { detail: 'BUMPS', phase: 'BRAKING', words: 'bumps', choices: ['none', 'over bumps'], motorcycle: false },
      { detail: 'KNEE', phase: 'BODY', words: 'knee', choices: [], motorcycle: true },
      { detail: 'ESCAPE', phase: 'HAZARDS', words: 'escape plan', choices: [], motorcycle: false },
    ],
  } as unknown as Catalogue;
});

describe('trouble', () => {
  it('says what, where and what to do, and is heard at once', () => {
    render(ProblemBox, { problem: new Problem(422, 'The speed is missing.', 'row 12, column 3', 'Give it in km/h.') });
    const box = screen.getByRole('alert');
    expect(squeezed(box)).toBe('The speed is missing. Where: row 12, column 3 Give it in km/h.');
  });
});
