// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import CornerStrip from './CornerStrip.svelte';
import LapStrip from './LapStrip.svelte';
import type { DrivenView, Gate, Landmark } from '../api/api';
import { answer, corner, entry, road } from '../testing/made';
import { made } from './score';

const strip = (over: Record<string, unknown> = {}) => {
  const e = (over.entry as ReturnType<typeof entry>) ?? entry();
  return render(CornerStrip, {
    road: road(),
    corner: corner(),
    entry: e,
    answer: answer(e),
    landmarks: [],
    ...over,
  });
};
const flag = (kind: string) => document.querySelector(`[data-flag=${kind}]`) as SVGGElement;

describe('the corner strip', () => {
  it('plants a flag for every point, in the order of the road', () => {
    strip();
    const at = ['BRAKE', 'TURN_IN', 'RELEASE', 'APEX', 'FULL_THROTTLE', 'EXIT'].map((k) =>
      Number(flag(k).getAttribute('data-station')),
    );
    expect(at).toEqual([430, 498, 520, 540, 580, 600]);
  });

  it('says at a gate what half a metre either way costs, and what cannot be met', () => {
    const ongatehold = vi.fn();
    const gate = { id: 'g', station: 480, left: true, metres: 2, tolerance: 0.3, over: 0 };
    strip({
      gates: [gate],
      wide: 1.9,
      ongate: vi.fn(),
      ongatehold,
      gateCosts: { id: 'g', nearer: null, farther: 0.04 },
    });
    const bar = (which: string) => document.querySelector(`[data-gate-cost=${which}]`);
    expect(bar('farther')?.querySelector('title')?.textContent).toContain('+0.040 s a lap');
    expect(bar('nearer')?.textContent).toContain('cannot be met');
    (document.querySelector('[data-place-across]') as SVGGElement).focus();
    expect(ongatehold).toHaveBeenCalledWith('g');
  });

  it('draws a place out alongside the edge, by mouse and by keys', async () => {
    const moved: Gate[] = [];
    const gate = { id: 'g', station: 480, left: true, metres: 2, tolerance: 0.3, over: 0 };
    const { rerender } = strip({ gates: [gate], wide: 1.9, ongate: (g: Gate) => moved.push(g) });
    expect(document.querySelectorAll('[data-held-alongside]')).toHaveLength(0);
    const place = () => document.querySelector('[data-place-across]') as SVGGElement;
    const begin = document.querySelector('[data-begin]') as SVGGElement;
    // Beside what moves the whole of it, not over it: a press there would draw it out.
    const whole = place().querySelector('rect') as SVGRectElement;
    const target = begin.querySelector('rect') as SVGRectElement;
    const side = (e: Element, name: string) => Number(e.getAttribute(name));
    expect(side(target, 'x') + side(target, 'width')).toBeLessThanOrEqual(side(whole, 'x'));
    const press = (e: Element, type: string, clientX: number) =>
      fireEvent(e, Object.assign(new MouseEvent(type, { clientX, clientY: 100, bubbles: true }), { pointerId: 1 }));
    await press(begin, 'pointerdown', 300);
    await press(document.body, 'pointermove', 260);
    await press(document.body, 'pointerup', 260);
    expect(moved.at(-1)?.over).toBeGreaterThan(5);
    expect([moved.at(-1)?.station, moved.at(-1)?.metres]).toEqual([480, 2]);
    place().focus();
    await fireEvent.keyDown(place(), { key: '+' });
    expect(moved.at(-1)?.over).toBe(5);
    await rerender({ gates: [{ ...gate, over: 40 }] });
    expect(document.querySelectorAll('[data-held-alongside]')).toHaveLength(2);
    expect(place().getAttribute('aria-valuetext')).toContain('held over 40 m');
    await fireEvent.keyDown(place(), { key: '-' });
    expect(moved.at(-1)?.over).toBe(35);
  });

  it('draws no cost at another gate than the one in hand', () => {
    const gate = { id: 'g', station: 480, left: true, metres: 2, tolerance: 0.3, over: 0 };
    strip({ gates: [gate], wide: 1.9, gateCosts: { id: 'other', nearer: 0.1, farther: 0.1 } });
    expect(document.querySelector('[data-gate-cost]')).toBeNull();
  });

  it('draws how a place is found, also by no thing at all, and what the eyes are on', () => {
    const e = entry();
    const none = { thing: '', spoken: '', other: '', otherSpoken: '', number: 1 };
    const score = [{ action: made('APEX', 540, 'apex', 3), cues: [] }];
    for (const [kind, other] of [
      ['LIMITER', ''],
      ['SECONDS', 'apex'],
      ['INTO_VIEW', 'apex'],
    ]) {
      const { unmount } = strip({
        entry: e,
        answer: { ...answer(e), answer: { ...answer(e).answer, score } },
        pointed: { cue: { ...none, kind, other }, station: 470 },
        cueThings: [],
      });
      expect(document.querySelector(`[data-cue-drawn=${kind}] [data-cue-at="470"]`)).toBeTruthy();
      expect(!!document.querySelector('[data-sight]')).toBe(kind === 'INTO_VIEW');
      unmount();
    }
  });

  it('nudges by a metre, by five with shift, and lets go on escape', async () => {
    const onnudge = vi.fn();
    strip({ onnudge });
    const brake = flag('BRAKE');
    brake.focus();
    await fireEvent.keyDown(brake, { key: 'ArrowLeft' });
    await fireEvent.keyDown(brake, { key: 'ArrowRight', shiftKey: true });
    expect(onnudge.mock.calls).toEqual([
      ['BRAKE', -1],
      ['BRAKE', 5],
    ]);
    await fireEvent.keyDown(brake, { key: 'Escape' });
    expect(document.activeElement).not.toBe(brake);
  });

  it('moves nothing where one may only read', async () => {
    const onnudge = vi.fn();
    strip({ onnudge, readonly: true });
    await fireEvent.keyDown(flag('BRAKE'), { key: 'ArrowLeft' });
    expect(onnudge).not.toHaveBeenCalled();
  });

  it('moves a landmark with the keys too', async () => {
    const onlandmark = vi.fn();
    const board = { id: 'b', kind: 'BOARD', label: '100', station: 440, left: true, out: 3 } as unknown as Landmark;
    strip({ landmarks: [board], onlandmark });
    const drawn = document.querySelector('[data-landmark="100"]') as SVGGElement;
    expect(drawn.getAttribute('aria-label')).toContain('100');
    await fireEvent.keyDown(drawn, { key: 'ArrowRight' });
    expect(onlandmark.mock.calls[0]?.[1]).toBe(441);
  });

  it('says where more is asked than there is, and for how much', () => {
    const e = entry({ pedals: { rise: 0.1, hold: 0.5, trail: 0.6, maintain: 0, peak: 1.1 } });
    const said = answer(e, { pressing: { peak: 1.1, asks: 1.12 } });
    (said.answer.profile as { use: number[] }).use = Array.from({ length: 301 }, (_, i) =>
      i > 100 && i < 130 ? 1.12 : 0.8,
    );
    strip({ entry: e, answer: said });
    expect(document.querySelectorAll('[data-over-asked]')).toHaveLength(1);
    expect(screen.getByText('asks 112 % of the grip')).toBeTruthy();
  });

  it('shapes the pedals with the keys: harder is down, and never beyond its bounds', async () => {
    const onpedals = vi.fn();
    const e = entry({ pedals: { rise: 0.1, hold: 0.5, trail: 0.6, maintain: 0, peak: 1.18 } });
    strip({ entry: e, answer: answer(e, { pressing: { peak: 1.18, asks: 1 } }), onpedals });
    const peak = document.querySelector('[data-pedal="Peak of the brake"]') as SVGGElement;
    await fireEvent.keyDown(peak, { key: 'ArrowDown' });
    expect(onpedals.mock.calls[0]?.[0].peak).toBeCloseTo(1.2);
    const hold = document.querySelector('[data-pedal="Hold of the brake"]') as SVGGElement;
    for (let i = 0; i < 3; i++) await fireEvent.keyDown(hold, { key: 'ArrowLeft', shiftKey: true });
    // Held no shorter than it takes to press.
    expect(onpedals.mock.calls.at(-1)?.[0].hold).toBeGreaterThanOrEqual(0.1);
  });

  it('lays the laps behind the plan, and marks where the points were driven', () => {
    const n = 200;
    const column = (v: number) => Array.from({ length: n }, () => v);
    const band = { low: column(20), middle: column(25), high: column(30) };
    const driven: DrivenView = {
      laps: 9,
      run: 'Run 1',
      from: 300,
      step: 2,
      speed: band,
      brake: { low: column(0), middle: column(0.1), high: column(0.3) },
      points: { BRAKE: [428, 433, 436], APEX: [541], SHORT_SHIFT: [560] },
    };
    strip({ driven });
    expect(document.querySelector('[data-driven="9"]')?.querySelectorAll('path').length).toBeGreaterThanOrEqual(4);
    expect(document.querySelectorAll('[data-driven-at=BRAKE]')).toHaveLength(3);
    // A point that the reference has not got is not marked.
    expect(document.querySelectorAll('[data-driven-at=SHORT_SHIFT]')).toHaveLength(0);
  });

  it('draws nothing behind when there are no laps', () => {
    strip({ driven: { laps: 0, run: '', from: 0, step: 1, points: {} } });
    expect(document.querySelector('[data-driven]')).toBeNull();
  });

  it('keeps a corner across the line in one piece', () => {
    const e = entry({
      points: [
        { kind: 'BRAKE', station: 1950 },
        { kind: 'APEX', station: 20 },
        { kind: 'EXIT', station: 70 },
      ],
    });
    strip({ entry: e, corner: corner({ entry: 1985, apexes: [20], exit: 60 }), answer: undefined });
    const x = (kind: string) => {
      const drawn = flag(kind).querySelector('[transform^="translate"]') ?? flag(kind);
      return Number(/translate\(\s*(-?[\d.]+)/.exec(drawn.getAttribute('transform') ?? '')?.[1]);
    };
    expect(x('BRAKE')).toBeLessThan(x('APEX'));
    expect(x('APEX')).toBeLessThan(x('EXIT'));
    expect(flag('APEX').getAttribute('data-station')).toBe('20');
  });
});

describe('the lap strip', () => {
  const corners = [corner(), corner({ id: 'c2', number: '2', left: false, entry: 1200, apexes: [1240], exit: 1290 })];

  it('chooses a corner by pointer and by key, and says which has changed', async () => {
    const onselect = vi.fn();
    render(LapStrip, { road: road(), corners, selected: 'c1', changed: ['c2'], onselect });
    await fireEvent.click(document.querySelector('[data-corner=c2]') as Element);
    await fireEvent.keyDown(document.querySelector('[data-corner=c1]') as Element, { key: 'Enter' });
    await fireEvent.keyDown(document.querySelector('[data-corner=c1]') as Element, { key: 'x' });
    expect(onselect.mock.calls).toEqual([['c2'], ['c1']]);
    expect(screen.getByRole('button', { name: 'Corner 2, changed' }).getAttribute('aria-pressed')).toBe('false');
    expect(screen.getByRole('button', { name: 'Corner 1' }).getAttribute('aria-pressed')).toBe('true');
  });

  it('shows where the first lap is', () => {
    render(LapStrip, { road: road(), corners, at: [412.4, 430] });
    expect(document.querySelector('[data-at]')?.getAttribute('data-at')).toBe('412');
  });

  it('numbers a kink that does not count by a dot', () => {
    render(LapStrip, { road: road(), corners: [corner({ uncounted: true })] });
    expect(document.querySelector('[data-corner=c1] text')?.textContent).toBe('·');
  });
});
