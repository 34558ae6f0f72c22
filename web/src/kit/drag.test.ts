// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { follow, lifted, onlyChooses } from './drag';

function at(type: string, x: number, y = 0, pointerId = 1): PointerEvent {
  return Object.assign(new MouseEvent(type, { clientX: x, clientY: y }), { pointerId }) as unknown as PointerEvent;
}

describe('a finger', () => {
  it('takes in hand what it taps first, and moves only what it has in hand', () => {
    const pressed = document.createElementNS('http://www.w3.org/2000/svg', 'g');
    pressed.setAttribute('tabindex', '0');
    document.body.append(pressed);
    const by = (pointerType: string) => Object.assign(at('pointerdown', 0), { pointerType });
    expect(onlyChooses(by('mouse'), pressed)).toBe(false);
    expect(onlyChooses(by('touch'), pressed)).toBe(true);
    expect(document.activeElement).toBe(pressed);
    expect(onlyChooses(by('touch'), pressed)).toBe(false);
    pressed.remove();
  });

  it('is waited for until it is lifted and its click has gone, and given up where it scrolls', async () => {
    await expect(lifted(false)).resolves.toBe(true);
    let up: boolean | null = null;
    void lifted(true).then((is) => (up = is));
    await Promise.resolve();
    expect(up).toBe(null);
    window.dispatchEvent(at('pointerup', 0));
    await new Promise((over) => setTimeout(over, 30));
    expect(up, 'its click is still to come').toBe(null);
    window.dispatchEvent(at('click', 0));
    await vi.waitFor(() => expect(up).toBe(true), 100);
    const held = lifted(true);
    window.dispatchEvent(at('pointerup', 0));
    await expect(held, 'a long press has no click').resolves.toBe(true);
    const scrolled = lifted(true);
    window.dispatchEvent(at('pointercancel', 0));
    await expect(scrolled).resolves.toBe(false);
  });
});

describe('a press that is followed', () => {
  beforeEach(() => void vi.useFakeTimers({ toFake: ['requestAnimationFrame', 'cancelAnimationFrame'] }));
  afterEach(() => void vi.useRealTimers());

  function followed(from?: number) {
    const moves: number[] = [];
    const ends: boolean[] = [];
    follow(at('pointerdown', 100), { from, onmove: (e) => moves.push(e.clientX), onend: (m) => ends.push(m) });
    return { moves, ends };
  }

  it('is told where the hand is last, once a frame, and as it lets go', () => {
    const { moves, ends } = followed();
    window.dispatchEvent(at('pointermove', 110));
    window.dispatchEvent(at('pointermove', 120));
    expect(moves).toEqual([]);
    vi.advanceTimersToNextFrame();
    expect(moves).toEqual([120]);
    window.dispatchEvent(at('pointermove', 130));
    window.dispatchEvent(at('pointerup', 130));
    expect(moves).toEqual([120, 130]);
    expect(ends).toEqual([true]);
    vi.advanceTimersToNextFrame();
    window.dispatchEvent(at('pointermove', 140));
    vi.advanceTimersToNextFrame();
    expect(moves).toEqual([120, 130]);
  });

  it('does not take another finger for its own', () => {
    const { moves, ends } = followed();
    window.dispatchEvent(at('pointermove', 300, 0, 2));
    window.dispatchEvent(at('pointerup', 300, 0, 2));
    vi.advanceTimersToNextFrame();
    expect([moves, ends]).toEqual([[], []]);
    window.dispatchEvent(at('pointercancel', 100));
    expect(ends).toEqual([false]);
  });

  it('is no drag before the hand has gone far enough', () => {
    const { moves, ends } = followed(6);
    window.dispatchEvent(at('pointermove', 104));
    window.dispatchEvent(at('pointerup', 104));
    expect([moves, ends]).toEqual([[], [false]]);
    const far = followed(6);
    window.dispatchEvent(at('pointermove', 104, 5));
    window.dispatchEvent(at('pointermove', 101));
    window.dispatchEvent(at('pointerup', 101));
    expect([far.moves, far.ends]).toEqual([[101], [true]]);
  });
});
