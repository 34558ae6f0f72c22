// @vitest-environment jsdom
import { render } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import ZoneEffect from './ZoneEffect.svelte';
import { catalogue } from '../../api/catalogue.svelte';

const kinds = [
  { kind: 'DAMP', words: 'stays damp', water: 'LAST', grip: [0.93, 0.85, 0.75] },
  { kind: 'POLISHED', words: 'polished', water: 'NONE', grip: [0.97, 0.94, 0.9] },
  { kind: 'WALL', words: 'wall', water: 'NONE', grip: [1, 1, 1] },
];

describe('what a zone does on which day', () => {
  beforeEach(() => {
    catalogue.load = () => Promise.resolve(catalogue.all as never);
    catalogue.all = { zones: kinds } as never;
  });
  afterEach(() => {
    catalogue.all = null;
  });

  const shown = (kind: string, severity: number, grip?: number) => {
    render(ZoneEffect, { zone: { kind, severity, grip } as never });
    return document.body.textContent ?? '';
  };

  it('counts nothing on a dry day where it is about water, with the driver’s own share where given', () => {
    expect(shown('DAMP', 3)).toMatch(/Dry day: nothing\..*leaves 75 %/s);
    expect(shown('DAMP', 3, 0.6)).toContain('60 %');
  });

  it('counts on every day where it is not', () => {
    expect(shown('POLISHED', 2)).toContain('Counts on every day: leaves 94 %');
  });

  it('says so where it changes no number', () => {
    expect(shown('WALL', 2)).toContain('changes no number yet');
  });
});
