// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LayoutView } from '../../api/api';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import { withStep, type Step } from '../survey/steps';
import Walk from './Walk.svelte';

vi.mock('../survey/outbox', () => ({
  browserShelf: () => ({
    read: () => Promise.resolve([]),
    write: (_: string, letters: unknown[]) => Promise.resolve(letters),
  }),
}));
vi.mock('../../api/offline', () => ({ keepForTheWalk: () => Promise.resolve() }));

interface Sent {
  put: {
    landmarks: { kind: string; station: number; left: boolean }[];
    zones: { kind: string; side: string; from: number; to: number }[];
  };
  remove: string[];
}
const sent = () => server.sent.filter((s) => s.path.endsWith('/survey')).map((s) => s.body as Sent);
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const layout = () => told<LayoutView>(`/api/layouts/${weekend.layout}`);

describe('the track walk', () => {
  beforeEach(async () => {
    replay();
    let things = layout().things;
    server.on('POST', /\/survey$/, (s) => {
      things = withStep(things, s.body as Step);
      return { ...layout(), things };
    });
    hosted(Walk, { params: { id: weekend.layout } });
    await waitFor(() => expect(document.querySelector('[data-walk] svg')).toBeTruthy());
    await waitFor(() => expect(squeezed(document.querySelector('header strong'))).toBe(layout().summary.circuit));
  });

  it('puts a landmark where the walker stands, on the side looked at, and takes it back', async () => {
    for (let i = 0; i < 4; i++) await press('Ten metres on');
    await press('Right');
    await press('Landmark');
    await press('seam');
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]?.put.landmarks).toMatchObject([{ kind: 'SEAM', station: 40, left: false }]);
    await press('Undo');
    await waitFor(() => expect(sent()).toHaveLength(2));
    expect(sent()[1]?.remove).toHaveLength(1);
  });

  it('draws out a zone from where it begins to where it ends', async () => {
    await press('Zone');
    await press('left');
    for (let i = 0; i < 6; i++) await press('Ten metres on');
    await press(/ends here/);
    await waitFor(() =>
      expect(sent().at(-1)?.put.zones).toMatchObject([{ kind: 'DAMP', side: 'LEFT', from: 0, to: 60 }]),
    );
  });

  it('goes on to the next thing that stands there, and ten metres back over the line', async () => {
    const first = layout()
      .things.landmarks.map((l) => l.station)
      .sort((a, b) => a - b)[0];
    await press(/^At /);
    expect(document.querySelector('[data-walk]')?.getAttribute('data-station')).toBe(String(Math.round(first ?? -1)));
    for (let back = 0; back * 10 <= (first ?? 0); back++) await press('Ten metres back');
    const now = Number(document.querySelector('[data-walk]')?.getAttribute('data-station'));
    expect(now).toBeGreaterThan(4000);
  });
});
