// @vitest-environment jsdom
import { render } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import LoadChart from './LoadChart.svelte';
import { squeezed } from '../../testing/shown';

const load = (over: object = {}) =>
  ({
    from: 4100,
    step: 4,
    load: Array.from({ length: 60 }, (_, k) => (k > 20 && k < 30 ? 0.7 : 1.1)),
    begin: 4190,
    atBegin: 0.8,
    best: 4170,
    atBest: 1.1,
    light: [],
    ...over,
  }) as never;

describe('the load along an approach', () => {
  it('says where braking is better begun, over the line as well, and by how much', () => {
    render(LoadChart, { load: load(), length: 4200 });
    expect(squeezed(document.querySelector('p'))).toBe('Begun 20 m sooner, braking finds 38 % more load on the tyres.');
    document.body.innerHTML = '';
    render(LoadChart, { load: load({ begin: 4190, best: 10 }), length: 4200 });
    expect(document.body.textContent).toContain('20 m later');
  });

  it('says nothing where the own place is as good, and names light and bumpy places', () => {
    render(LoadChart, { load: load({ best: 4190, atBest: 0.8 }), length: 4200 });
    expect(document.querySelector('p')).toBeNull();
    document.body.innerHTML = '';
    const light = [{ from: 4180, to: 4195, why: 'BUMPS' }];
    render(LoadChart, { load: load({ best: 4190, atBest: 0.8, light }), length: 4200 });
    expect(squeezed(document.querySelector('p'))).toBe('bumps on the approach: 4 180 m to 4 195 m.');
    expect(document.querySelectorAll('rect')).toHaveLength(1);
  });
});
