// @vitest-environment jsdom
import { render } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import AnewNote from './AnewNote.svelte';
import { corner } from '../../testing/made';

const shown = (added: unknown[], apexes: string[], newer: unknown = null) => {
  render(AnewNote, { view: { summary: { id: 'l', version: 1 }, anew: { added, apexes }, newer } as never });
  return document.body.textContent ?? '';
};

describe('corners that the road has today', () => {
  it('are told one by one and offered as the next version', () => {
    const long = corner({ number: '4A', left: true, angle: Math.PI / 2, radius: 942 });
    expect(shown([long], ['c1', 'c2'])).toMatch(
      /has 1 corner more \(4A: left, 90° of 942 m radius\) and another place for 2 apexes\.\s+Take it into version 2/,
    );
  });

  it('are no word where there are none, or where a newer version is there already', () => {
    expect(shown([], [])).not.toContain('As corners are found');
    expect(shown([corner()], [], { id: 'm', version: 2 })).not.toContain('As corners are found');
  });
});
