// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { RoadView } from '../api/api';
import { corner } from '../testing/made';
import PlanDrawing from './PlanDrawing.svelte';

const N = 200;
const RADIUS = 300;
/** A circle, driven anticlockwise from the east. */
const circle = (): RoadView => {
  const each = (f: (a: number) => number) => Array.from({ length: N }, (_, i) => f((2 * Math.PI * i) / N));
  return {
    length: 2 * Math.PI * RADIUS,
    step: (2 * Math.PI * RADIUS) / N,
    x: each((a) => RADIUS * Math.cos(a)),
    y: each((a) => RADIUS * Math.sin(a)),
    heading: each((a) => a + Math.PI / 2),
    left: each(() => 5),
    right: each(() => 5),
    height: each(() => 0),
    hasHeight: false,
  } as unknown as RoadView;
};
const shown = (over: Record<string, unknown> = {}) =>
  render(PlanDrawing, { road: circle(), corners: [corner()], selected: '', height: 600, ...over });
const line = () => document.querySelector('[data-start]') as SVGGElement;
const pointer = (type: string, clientX: number, clientY: number) =>
  Object.assign(new MouseEvent(type, { clientX, clientY, bubbles: true }), { pointerId: 1 });

describe('the plan', () => {
  it('moves the line to where the road is nearest to the hand', async () => {
    const onstart = vi.fn();
    shown({ start: true, onstart });
    const box = document.querySelector('svg') as SVGSVGElement;
    const [wide, high] = [Number(box.getAttribute('width')), Number(box.getAttribute('height'))];
    await fireEvent(line(), pointer('pointerdown', wide, high / 2));
    // The north of the circle lies a quarter of the lap on.
    await fireEvent(window, pointer('pointermove', wide / 2, 0));
    await fireEvent(window, pointer('pointerup', wide / 2, 0));
    expect(onstart).toHaveBeenCalledTimes(1);
    expect(onstart.mock.calls[0]?.[0]).toBeCloseTo((2 * Math.PI * RADIUS) / 4, 6);
  });

  it('does not move it for a press alone, and moves it by keys', async () => {
    const onstart = vi.fn();
    shown({ start: true, onstart });
    await fireEvent(line(), pointer('pointerdown', 10, 10));
    await fireEvent(window, pointer('pointerup', 10, 10));
    expect(onstart).not.toHaveBeenCalled();
    await fireEvent.keyDown(line(), { key: 'ArrowLeft' });
    expect(onstart.mock.calls[0]?.[0]).toBeCloseTo(2 * Math.PI * RADIUS - 10, 6);
  });

  it('says which corner was chosen', async () => {
    const onselect = vi.fn();
    shown({ onselect });
    await fireEvent.click(screen.getByRole('button', { name: /corner 1/i }));
    expect(onselect).toHaveBeenCalledWith('c1');
    expect(line()).toBeNull();
  });
});
