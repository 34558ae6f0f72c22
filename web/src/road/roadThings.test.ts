// @vitest-environment jsdom
import { render } from '@testing-library/svelte';
import { scaleLinear } from 'd3-scale';
import { describe, expect, it, vi } from 'vitest';
import { LENGTH, road } from '../testing/made';
import RoadThings from './RoadThings.svelte';
import type { Zone } from '../api/api';
import { ZONES, nothing, type ZoneKind } from './things';

const zone = (kind: ZoneKind): Zone =>
  ({ id: kind, kind, side: 'LEFT', from: 100, to: 200, severity: 2, amount: null, note: '' }) as unknown as Zone;
const shown = (kinds: ZoneKind[], over: Record<string, unknown> = {}) =>
  render(RoadThings, {
    road: road(),
    things: { ...nothing(), zones: kinds.map(zone) },
    near: (s: number) => s,
    domain: [0, LENGTH] as [number, number],
    x: scaleLinear([0, LENGTH], [0, 900]),
    y: (offset: number) => 80 - offset * 8,
    ...over,
  });

describe('what stands on the road', () => {
  it('is drawn whatever its kind: none refers to a pattern that is not there', () => {
    const kinds = Object.keys(ZONES) as ZoneKind[];
    expect(kinds.length).toBeGreaterThan(15);
    shown(kinds);
    const drawn = [...document.querySelectorAll('[data-zone]')];
    expect(drawn.length).toBeGreaterThan(10);
    for (const d of drawn) {
      const pattern = /url\(#([^)]*)\)/.exec(d.getAttribute('fill') ?? '')?.[1];
      expect(pattern && document.getElementById(pattern), d.getAttribute('data-zone') ?? '').toBeTruthy();
    }
  });

  it('is only outlined where it does not count on the day looked at', () => {
    shown(['DAMP'], { felt: () => false });
    const damp = document.querySelector('[data-zone=DAMP]');
    expect(damp?.getAttribute('fill')).toBe('transparent');
    expect(damp?.getAttribute('data-felt')).toBe('false');
  });

  it('says which thing was pressed', () => {
    const onpick = vi.fn();
    shown(['POLISHED'], { onpick });
    document.querySelector('[data-zone=POLISHED]')?.dispatchEvent(new MouseEvent('pointerdown', { bubbles: true }));
    expect(onpick).toHaveBeenCalledWith(expect.anything(), 'zones', 'POLISHED');
  });
});
