// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Kerb, KerbUse } from '../api/api';
import KerbLane from './KerbLane.svelte';
import { corner, LENGTH, road } from '../testing/made';

const kerb = { id: 'k1', corner: 'c1', part: 'EXIT', from: 600, to: 640, left: true, width: 1 } as unknown as Kerb;

describe('what is done with a kerb, on the kerb', () => {
  const lane = (uses: KerbUse[], over: Record<string, unknown> = {}) => {
    const shown = {
      road: road(),
      corner: corner(),
      x: Object.assign((s: number) => s - 350, { invert: (v: number) => v + 350 }),
      y: (m: number) => 100 - 6 * m,
      near: (s: number) => s,
      domain: [350, 700],
      kerbs: [kerb],
      uses,
      onmake: vi.fn(),
      onchange: vi.fn<(use: KerbUse, i: number) => void>(),
      onsettle: vi.fn(),
      onhold: vi.fn(),
      ondrop: vi.fn(),
      ...over,
    };
    return { ...shown, ...render(KerbLane, shown as never) };
  };
  const ride: KerbUse = { part: 'EXIT', how: 'RIDE', why: '' };
  const foot = (end: string) => document.querySelector(`[data-kerb-foot=EXIT-${end}]`) as Element;

  it('is said by a press on it, once', async () => {
    const { onmake } = lane([]);
    await fireEvent.pointerDown(screen.getByLabelText('Say what is done with the exit kerb'));
    expect(onmake).toHaveBeenCalledWith('EXIT');
    document.body.innerHTML = '';
    lane([ride]);
    expect(document.querySelector('[data-kerb-free]')).toBeNull();
  });

  it('has a stroke for each wheel and stands along the kerb until something else is said', () => {
    lane([ride]);
    expect(document.querySelectorAll('[data-kerb-use=EXIT] path[stroke-width="1.4"]')).toHaveLength(2);
    expect(foot('join').getAttribute('aria-valuenow')).toBe('600');
    expect(foot('leave').getAttribute('aria-valuenow')).toBe('640');
  });

  it('goes with the keys: feet by metres on the kerb, wheels up and down, away by Delete', async () => {
    const { onchange, onsettle, ondrop } = lane([ride]);
    await fireEvent.keyDown(foot('join'), { key: 'ArrowRight', shiftKey: true });
    expect(onchange).toHaveBeenLastCalledWith({ ...ride, join: 605 }, 0);
    // It is not joined before it begins.
    await fireEvent.keyDown(foot('join'), { key: 'ArrowLeft' });
    expect(onchange).toHaveBeenLastCalledWith({ ...ride, join: 600 }, 0);
    await fireEvent.keyDown(foot('leave'), { key: 'ArrowUp' });
    expect(onchange).toHaveBeenLastCalledWith({ ...ride, how: 'HALF_THE_CAR' }, 0);
    expect(onsettle).toHaveBeenCalledTimes(3);
    await fireEvent.keyDown(foot('leave'), { key: 'Delete' });
    expect(ondrop).toHaveBeenCalledWith(0);
  });

  it('is not left before it is joined', async () => {
    const { onchange } = lane([{ ...ride, join: 639.5, leave: 640 }]);
    await fireEvent.keyDown(foot('leave'), { key: 'ArrowLeft' });
    expect(onchange).not.toHaveBeenCalled();
  });

  it('only shows what is read', async () => {
    const { onchange, onhold } = lane([ride], { readonly: true });
    await fireEvent.keyDown(foot('join'), { key: 'ArrowRight' });
    expect(onchange).not.toHaveBeenCalled();
    expect(onhold).toHaveBeenCalledWith(0);
    expect(LENGTH).toBeGreaterThan(700);
  });
});
