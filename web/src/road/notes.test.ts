// @vitest-environment jsdom
import { render } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import LapPlan from './LapPlan.svelte';
import StripNotes from './StripNotes.svelte';
import type { TraceView } from '../api/api';
import { catalogue } from '../api/catalogue.svelte';
import { corner, entry, road } from '../testing/made';
import { WORDS } from '../testing/shown';

beforeEach(() => {
  catalogue.all = WORDS;
});

describe('notes on the drawing', () => {
  it('stand where they matter and are never lost where there is no room', () => {
    const details = Object.fromEntries(
      Array.from({ length: 30 }, (_, i) => [`D${i}`, `a rather long remark number ${i}`]),
    );
    const x = Object.assign((s: number) => s - 350, { invert: (v: number) => v + 350 });
    render(StripNotes, {
      x: x as never,
      near: (s: number) => s,
      domain: [350, 650],
      corner: corner(),
      entry: entry({ details: { ...details, AIM: 'the post', BUMPS: 'over bumps' } as never }),
      width: 300,
    });
    const shown = document.querySelectorAll('[data-note]').length;
    const more = document.querySelector('[aria-label$="more notes"]')?.getAttribute('aria-label') ?? '';
    const hidden = parseInt(more || '0');
    expect(shown + hidden).toBe(32);
    expect(hidden).toBeGreaterThan(0);
  });
});

describe('two laps on the ground', () => {
  it('stand apart by what they are apart on the road', () => {
    const r = road();
    r.x = r.x.map((_, i) => i * r.step);
    const trace = (offset: number): TraceView =>
      ({ step: 10, offset: Array.from({ length: 200 }, () => offset) }) as unknown as TraceView;
    render(LapPlan, {
      road: r,
      window: [0, 200],
      laps: [
        { trace: trace(0), station: 50, colour: 'black', name: 'first' },
        { trace: trace(0), station: 100, colour: 'red', name: 'second' },
      ],
      width: 216,
      height: 116,
    });
    const first = Number(document.querySelector('[data-dot="0"]')?.getAttribute('cx'));
    const second = Number(/M([\d.]+)/.exec(document.querySelector('[data-dot="1"]')?.getAttribute('d') ?? '')?.[1]);
    // 200 m lie on 200 pixels.
    expect(second - first).toBeCloseTo(50, 0);
  });
});
