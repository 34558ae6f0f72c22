// @vitest-environment jsdom
import { render, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import ProblemBox from './ProblemBox.svelte';
import { Problem } from '../api/api';
import { squeezed } from '../testing/shown';

describe('trouble', () => {
  it('says what, where and what to do, and is heard at once', () => {
    render(ProblemBox, { problem: new Problem(422, 'The speed is missing.', 'row 12, column 3', 'Give it in km/h.') });
    const box = screen.getByRole('alert');
    expect(squeezed(box)).toBe('The speed is missing. Where: row 12, column 3 Give it in km/h.');
  });
});
