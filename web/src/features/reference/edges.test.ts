// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, type EdgeView, type LaidView } from '../../api/api';
import { corner, entry, FakeDesk, LENGTH } from '../../testing/made';
import { hosted } from '../../testing/shown';
import type { Desk } from './desk.svelte';
import EdgesPanel from './EdgesPanel.svelte';
import LaidAnew from './LaidAnew.svelte';
import { edgesOf, lay, toggled, windowOf } from './edges';

const edge = (over: Partial<EdgeView> = {}): EdgeView => ({
  id: 'e1',
  corner: 'c1',
  kerb: true,
  left: true,
  from: 530,
  to: 555,
  opened: false,
  reach: 1,
  grip: 0.95,
  never: undefined,
  risks: [],
  ...over,
});

describe('edges laid out', () => {
  it('belong to their corner and lie where they are, also over the line', () => {
    const all = [edge(), edge({ id: 'e2', corner: 'c2' })];
    expect(edgesOf(all, corner()).map((e) => e.id)).toEqual(['e1']);
    const first = corner({ entry: 1980, apexes: [5], exit: 40 });
    const over = edge({ from: 1990, to: 20 });
    expect(windowOf([over], first, LENGTH)).toEqual([-30, 50]);
    const [drawn] = lay([over], first, LENGTH, 80, 18);
    expect(drawn?.x1).toBeCloseTo(20);
    expect(drawn?.x2).toBeCloseTo(50);
  });

  it('reach out as far as they may, and what must not be used is a rim', () => {
    const [far, near, never] = lay(
      [edge({ reach: 3 }), edge({ reach: 1.5 }), edge({ reach: 0, never: 'a wall is there' })],
      corner(),
      LENGTH,
      200,
      18,
    );
    expect(far?.out).toBe(18);
    expect(near?.out).toBe(9);
    expect(never?.out).toBe(6);
  });

  it('are opened and shut', () => {
    expect(toggled(['a'], 'b')).toEqual(['a', 'b']);
    expect(toggled(['a', 'b'], 'a')).toEqual(['b']);
  });
});

function desk(over: Record<string, unknown> = {}) {
  const fake = new FakeDesk(entry());
  return Object.assign(fake, {
    layAnew: vi.fn(() => Promise.resolve()),
    takeLaid: vi.fn(() => Promise.resolve()),
    leaveLaid: vi.fn(),
    road: { length: LENGTH },
    lap: { lapTime: 90 },
    workingVersion: 3,
    content: { corners: [], variants: [], use: { opened: ['e9'], gates: [] } },
    ...over,
  });
}
const asDesk = (fake: ReturnType<typeof desk>) => fake as unknown as Desk;

describe('the panel of edges', () => {
  const show = (fake: ReturnType<typeof desk>) => hosted(EdgesPanel, { desk: asDesk(fake), corner: corner() });
  beforeEach(() => {
    vi.restoreAllMocks();
    vi.spyOn(api, 'GET').mockImplementation((() =>
      Promise.resolve({
        data: {
          edges: [
            edge({ risks: ['what lies behind is soft'] }),
            edge({ id: 'e2', left: false, never: 'the survey says keep off', reach: 0 }),
          ],
          gates: [
            { gate: { id: 'c1-apex', station: 541, left: true, metres: 0.3, tolerance: 0.1 }, missing: 0 },
            { gate: { id: 'g', station: 560, left: false, metres: 9, tolerance: 0.1 }, missing: 1.5 },
          ],
        },
        response: new Response(),
      })) as never);
    vi.spyOn(api, 'POST').mockImplementation((() =>
      Promise.resolve({ data: { seconds: 0.067 }, response: new Response() })) as never);
  });

  it('says what each is worth and risks, and has the line laid anew when one is pressed', async () => {
    const fake = desk();
    show(fake);
    expect(await screen.findByText(/0\.067 s a lap/)).toBeTruthy();
    expect(screen.getByText('what lies behind is soft')).toBeTruthy();
    expect(screen.getByText('the survey says keep off')).toBeTruthy();
    await fireEvent.click(screen.getByText('use it'));
    expect(fake.layAnew).toHaveBeenCalledWith({ use: { opened: ['e9', 'e1'], gates: [] } });
    const drawn = document.querySelector('[data-edge=e1]');
    if (drawn) await fireEvent.keyDown(drawn, { key: 'Enter' });
    expect(fake.layAnew).toHaveBeenCalledTimes(2);
    const forbidden = document.querySelector('[data-edge=e2]');
    if (forbidden) await fireEvent.click(forbidden);
    expect(fake.layAnew).toHaveBeenCalledTimes(2);
  });

  it('lists the places that the line passes, and what cannot be met', async () => {
    show(desk());
    expect(await screen.findByText(/0\.3 m from the left edge at 541 m/)).toBeTruthy();
    expect(screen.getByText(/1\.5 m are missing/)).toBeTruthy();
  });

  it('lets nobody but the driver open one', async () => {
    show(desk({ mine: false }));
    const button = await screen.findByText('use it');
    expect((button as HTMLButtonElement).disabled).toBe(true);
    expect(document.querySelector('[data-edge=e1]')?.getAttribute('tabindex')).toBe('-1');
  });
});

describe('a line laid anew', () => {
  const laid = {
    from: 1900,
    metres: 300,
    step: 2,
    before: [],
    after: [],
    lapBefore: 90,
    lapAfter: 89.9,
  } as unknown as LaidView;

  it('says where and what it gives, and is taken or left', async () => {
    const fake = desk();
    render(LaidAnew, { desk: asDesk(fake), laid });
    expect(screen.getByRole('status').textContent).toMatch(/1\s?900 m to 200 m/);
    expect(screen.getByRole('status').textContent).toContain('−0.100 s a lap');
    await fireEvent.click(screen.getByText('Take it'));
    await fireEvent.click(screen.getByText('Leave it'));
    expect(fake.takeLaid).toHaveBeenCalledOnce();
    expect(fake.leaveLaid).toHaveBeenCalledOnce();
  });
});
