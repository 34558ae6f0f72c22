// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import FitPanel from './FitPanel.svelte';
import OfferLane from './OfferLane.svelte';
import type { CornerFinding } from '../../api/api';
import { corner, LENGTH } from '../../testing/made';
import { server } from '../../testing/server';
import { squeezed, hosted } from '../../testing/shown';

describe('the vehicle as the laps show it', () => {
  const fit = {
    acrossFactor: 0.95,
    alongFactor: 1,
    powerFactor: 0.9,
    dragFactor: 1.05,
    words: ['Grip across: 95 % of the computed, from the 7 corners that ask most.'],
    before: 99,
    after: 100.2,
    measured: 100.9,
    vehicle: {},
  };

  it('shows before and after against the driver, and is taken as a new version', async () => {
    server.on('GET', /vehicle-fit$/, () => fit);
    server.on('POST', /vehicle-fit$/, () => ({ vehicle: 'veh1', version: 3 }));
    hosted(FitPanel, { run: 'r1', mine: true, theoretical: 100 });
    await waitFor(() => expect(document.querySelector('[data-fit]')).toBeTruthy());
    const text = squeezed(document.querySelector('[data-fit]'));
    expect(text).toContain('as entered1:39.00−1.0 %');
    expect(text).toContain('what the laps show1:40.20+0.2 %');
    await fireEvent.click(screen.getByRole('button', { name: /vehicle/i }));
    expect((await screen.findByText('Look at it')).getAttribute('href')).toBe('#/vehicle/veh1');
  });

  it('says why there is none', async () => {
    server.on('GET', /vehicle-fit$/, () => 422);
    hosted(FitPanel, { run: 'r1', mine: true, theoretical: 100 });
    await screen.findByText(/Trouble 422/);
  });
});

describe('seconds on offer', () => {
  it('fills what a habit explains, and goes to the corner', async () => {
    const onselect = vi.fn();
    const finding = (id: string, offer: number, habits: unknown[]) =>
      ({ corner: id, offer, habits }) as unknown as CornerFinding;
    render(OfferLane, {
      findings: [finding('c1', 0.3, [{}]), finding('c2', 0.1, []), finding('gone', 1, [])],
      corners: [corner(), corner({ id: 'c2', number: '2', entry: 1200, exit: 1290 })],
      length: LENGTH,
      selected: 'c1',
      onselect,
    });
    const bar = (id: string) => document.querySelectorAll(`[data-offer=${id}] rect`)[1] as Element;
    expect(bar('c1').getAttribute('fill')).toBe('var(--ink)');
    expect(bar('c2').getAttribute('fill')).not.toBe('var(--ink)');
    expect(Number(bar('c1').getAttribute('height'))).toBeGreaterThan(2 * Number(bar('c2').getAttribute('height')));
    expect(document.querySelector('[data-offer=gone]')).toBeNull();
    await fireEvent.keyDown(screen.getByRole('button', { name: 'Corner 2, 0.10 s on offer' }), { key: 'Enter' });
    expect(onselect).toHaveBeenCalledWith('c2');
  });
});
