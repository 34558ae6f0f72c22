// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import PacePanel from './PacePanel.svelte';
import { api, type OwnPace } from '../../api/api';
import { hosted, squeezed } from '../../testing/shown';

const reach = { speed: 30, across: 1.4, braking: 1.2, traction: 0.4 };
const view = (pace: OwnPace | null, more: object = {}) => ({
  pace,
  lapTime: 104.5,
  best: 100,
  nextTier: 0.02,
  corners: [
    { corner: 'c1', seconds: 0.31, slowest: 30, best: 32, factor: 1, next: 0.17, hard: true, warnings: ['A wall.'] },
  ],
  reach,
  ...more,
});
const answers = (over: Record<string, unknown> = {}) => {
  const given = (path: string) =>
    over[path] ?? (path.endsWith('tried') ? view(null) : path.endsWith('tier') ? view(pace(0.9)) : null);
  const respond = (path: unknown) =>
    Promise.resolve({ data: given(String(path)), response: new Response(null, { status: 200 }) } as never);
  return {
    post: vi.spyOn(api, 'POST').mockImplementation(respond as never),
    get: vi.spyOn(api, 'GET').mockImplementation(respond as never),
  };
};
const pace = (share: number, corners: OwnPace['corners'] = []): OwnPace => ({
  driving: { braking: share, turning: share, traction: share, margin: 0.2 },
  corners,
});
const desk = (own: OwnPace | null = null, mine = true) => ({
  content: { pace: own ?? undefined },
  view: { id: 'r1' },
  selected: 'c1',
  mine,
  putPace: vi.fn(),
  settle: vi.fn(),
});
const shown = async (d: ReturnType<typeof desk>) => {
  hosted(PacePanel, { desk: d });
  await waitFor(() => expect(document.querySelector('[data-pace-lap]')).not.toBeNull());
};
afterEach(() => vi.restoreAllMocks());

describe('the own pace', () => {
  it('says the lap against the best, what is lost here, what the next tier gives, and why to take care', async () => {
    answers();
    await shown(desk());
    expect(squeezed(document.querySelector('[data-pace-lap]'))).toBe('1:44.50 4.5 % off the best 1:40.00');
    const corner = squeezed(document.querySelector('[data-pace-corner]'));
    expect(corner).toContain('+0.31 s to the best here, 0.17 s of it with the next tier (2.0 % off)');
    expect(corner).toContain('A wall.');
  });

  it('takes a tier as the server solves it, with care where it is asked for', async () => {
    const { post } = answers();
    const d = desk();
    await shown(d);
    await fireEvent.click(screen.getByRole('button', { name: /strong amateur/ }));
    await waitFor(() => expect(d.putPace).toHaveBeenCalled());
    expect(post.mock.lastCall?.[1]).toMatchObject({ body: { off: 0.045, margin: 0.15, careful: true } });
    expect(d.putPace.mock.lastCall?.[0]).toEqual(pace(0.9));
  });

  it('is pulled by keys within what can be, and by the handle of each share', async () => {
    answers();
    const d = desk(pace(0.99));
    await shown(d);
    const braking = document.querySelector('[data-share=braking]') as Element;
    await fireEvent.keyDown(braking, { key: 'ArrowDown' });
    expect(d.putPace.mock.lastCall?.[0].driving).toMatchObject({ braking: 0.98, turning: 0.99 });
    await fireEvent.keyDown(document.querySelector('[data-share=turning]') as Element, { key: 'ArrowUp' });
    expect(d.putPace.mock.lastCall?.[0].driving.turning).toBe(1);
    expect(braking.getAttribute('aria-valuenow')).toBe('99');
  });

  it('raises one corner in small steps and lets it fall back to the others', async () => {
    answers({
      '/api/references/{id}/pace/tried': view(pace(0.9), { corners: [{ ...view(null).corners[0], factor: 0.99 }] }),
    });
    const d = desk(pace(0.9, [{ corner: 'c1', factor: 0.99, why: 'WALL' }]));
    await shown(d);
    await fireEvent.click(screen.getByRole('button', { name: 'Less here' }));
    expect(d.putPace.mock.lastCall?.[0].corners).toEqual([{ corner: 'c1', factor: 0.98, why: 'BY_HAND' }]);
    await fireEvent.click(screen.getByRole('button', { name: 'More here' }));
    expect(d.putPace.mock.lastCall?.[0].corners).toEqual([]);
  });

  it('takes from laps what they tell, and says what they do not', async () => {
    answers({
      '/api/references/{id}/runs': { runs: [{ id: 'x', name: 'Run 2', laps: [{ counts: true }] }] },
      '/api/runs/{id}/pace': { turning: 0.88, braking: null, corners: [] },
    });
    const d = desk(pace(0.95));
    await shown(d);
    await fireEvent.click(screen.getByRole('button', { name: 'from my laps' }));
    await waitFor(() => expect(d.putPace).toHaveBeenCalled());
    expect(d.putPace.mock.lastCall?.[0].driving).toMatchObject({ turning: 0.88, braking: 0.95 });
    expect(document.body.textContent).toContain('too little hard braking tells the brakes');
  });

  it('says when points and speeds stand on another pace, and lets nobody else change it', async () => {
    answers({ '/api/references/{id}/pace/tried': view(pace(0.9), { computedWith: null }) });
    await shown(desk(pace(0.9), false));
    expect(document.querySelector('[data-pace-behind]')).not.toBeNull();
    expect((document.querySelector('fieldset') as HTMLFieldSetElement).disabled).toBe(true);
  });
});
