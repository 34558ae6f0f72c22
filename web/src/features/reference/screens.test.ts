// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import type { AnswerView, CornerEntry, OverviewView, ReferenceView } from '../../api/api';
import { session } from '../../api/session.svelte';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import Card from './Card.svelte';
import Recompute from './Recompute.svelte';
import Reference from './Reference.svelte';
import Whole from './Whole.svelte';

const params = { id: weekend.id };
const path = `/api/references/${weekend.id}`;
const reference = () => told<ReferenceView>(path);
const flag = (kind: string) => document.querySelector(`[data-flag=${kind}]`) as SVGGElement;

beforeEach(async () => {
  replay();
  await session.load();
});

describe('the desk', () => {
  /** The server answers as it did, with what was asked. */
  const answers = (over: (e: CornerEntry) => Partial<AnswerView['answer']> = () => ({})) =>
    server.on('POST', /\/answer$/, (sent) => {
      const entry = sent.body as CornerEntry;
      const was = told<AnswerView>(`POST ${path}/answer`);
      return { ...was, entry, answer: { ...was.answer, corner: entry.corner, ...over(entry) } };
    });
  const shown = async () => {
    hosted(Reference, { params });
    await waitFor(() => expect(flag('BRAKE')).toBeTruthy());
  };

  it('opens on a corner with every point of it planted where it is written', async () => {
    answers();
    await shown();
    const first = reference().working.content.corners[0];
    const planted = [...document.querySelectorAll('[data-flag]')].map((f) => Number(f.getAttribute('data-station')));
    expect(planted.sort()).toEqual(first?.points.map((p) => p.station).sort());
    expect(squeezed(document.querySelector('main'))).toContain(reference().corners[0]?.name);
  });

  it('asks for a flag that the keys move, keeps it as one step, and brings it back', async () => {
    answers();
    await shown();
    const from = Number(flag('BRAKE').getAttribute('data-station'));
    flag('BRAKE').focus();
    for (let i = 0; i < 3; i++) await fireEvent.keyDown(flag('BRAKE'), { key: 'ArrowLeft' });
    await fireEvent.keyDown(flag('BRAKE'), { key: 'Enter' });
    await waitFor(() => expect(Number(flag('BRAKE').getAttribute('data-station'))).toBeCloseTo(from - 3, 6));
    await waitFor(() => {
      const asked = server.sent.filter((s) => s.path.endsWith('/answer')).map((s) => s.body as CornerEntry);
      expect(asked.at(-1)?.points.find((p) => p.kind === 'BRAKE')?.station).toBeCloseTo(from - 3, 6);
    });
    flag('BRAKE').blur();
    await fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true });
    await waitFor(() => expect(Number(flag('BRAKE').getAttribute('data-station'))).toBeCloseTo(from, 6));
  });

  it('stores what was changed with the version it stands on, and says what to do where another was first', async () => {
    answers();
    server.on('PUT', /\/working$/, () => 500);
    await shown();
    flag('BRAKE').focus();
    await fireEvent.keyDown(flag('BRAKE'), { key: 'ArrowLeft' });
    await fireEvent.keyDown(flag('BRAKE'), { key: 'Enter' });
    await waitFor(() => expect(server.last('PUT')?.path).toBe(`${path}/working`));
    expect(server.last('PUT')?.body).toMatchObject({ version: reference().working.version });
    expect(await screen.findByText('Trouble 500')).toBeTruthy();
  });

  it('is worked on with fingers on a phone: a tap chooses, the ruler moves, and the page scrolls', async () => {
    answers();
    window.innerWidth = 390;
    window.dispatchEvent(new Event('resize'));
    await shown();
    const at = () => Number(flag('BRAKE').getAttribute('data-station'));
    const from = at();
    const press = (e: Element, type: string, clientX: number) =>
      fireEvent(
        e,
        Object.assign(new MouseEvent(type, { clientX, bubbles: true, cancelable: true }), {
          pointerId: 1,
          pointerType: 'touch',
        }),
      );
    expect(document.querySelector('[data-ruler]')).toBeNull();
    await press(flag('BRAKE'), 'pointerdown', 100);
    await press(document.body, 'pointermove', 160);
    expect(screen.queryByText('whole corner'), 'not under the finger').toBeNull();
    await press(document.body, 'pointerup', 160);
    expect(document.activeElement).toBe(flag('BRAKE'));
    expect(at()).toBe(from);
    const ruler = await waitFor(() => document.querySelector('[data-ruler] svg') as Element);
    await press(ruler, 'pointerdown', 200);
    await press(document.body, 'pointermove', 170);
    await press(document.body, 'pointerup', 170);
    await waitFor(() => expect(at()).toBeCloseTo(from - 3, 6));
    await fireEvent.keyDown(ruler, { key: 'ArrowRight', shiftKey: true });
    await waitFor(() => expect(at()).toBeCloseTo(from + 2, 6));
    // Nothing is laid out here, so that all handles stand together: the tap has opened the corner up.
    await fireEvent.click(await screen.findByText('whole corner'));
    expect(screen.getByText('wider')).toBeTruthy();
    window.innerWidth = 1280;
    window.dispatchEvent(new Event('resize'));
  });

  it('says what is wrong where it cannot be opened', async () => {
    server.on('GET', new RegExp(`^${path}$`), () => 404);
    hosted(Reference, { params });
    expect(await screen.findByText('Trouble 404')).toBeTruthy();
  });

  it('turns to the next corner by its key', async () => {
    answers();
    await shown();
    const [one, two] = reference().corners;
    expect(squeezed(document.querySelector('h1'))).toContain(one?.name);
    await fireEvent.keyDown(document.body, { key: ']' });
    await waitFor(() => expect(squeezed(document.querySelector('h1'))).toContain(two?.name));
  });
});

describe('the whole lap', () => {
  it('has a line for each corner with what it is worth, and the ten seconds', async () => {
    hosted(Whole, { params });
    const view = told<OverviewView>(`${path}/overview`);
    await waitFor(() => expect(document.querySelectorAll('tbody tr').length).toBe(view.corners.length));
    expect(squeezed(document.body)).toContain(view.summary);
    for (const w of view.unsure) expect(squeezed(document.body)).toContain(String(w).replace(/\.$/, ''));
  });
});

describe('the card', () => {
  it('prints the revision that was asked for, and each corner as it is said', async () => {
    hosted(Card, { params: { ...params, revision: '2' } });
    const revision = told<{ words: { line: string }[]; summary: { reason: string } }>(`${path}/revisions/2`);
    await waitFor(() => expect(squeezed(document.body)).toContain('revision 2'));
    for (const w of revision.words) expect(squeezed(document.body)).toContain(w.line);
    expect(squeezed(document.body)).toContain(revision.summary.reason.replace(/\.$/, ''));
    expect(squeezed(document.body)).not.toContain('..');
  });

  it('says in place of lift whose brakes are still on', async () => {
    const was = told<{ content: { corners: CornerEntry[] }; words: AnswerView['words'][] }>(`${path}/revisions/2`);
    const corners = was.content.corners.map((e, i) =>
      i < 2 ? { ...e, slowing: 'LIFT' as const, points: e.points.filter((p) => p.kind !== 'BRAKE'), actions: [] } : e,
    );
    const words = was.words.map((w, i) => ({ ...w, braked: i === 1 ? '1' : '' }));
    server.on('GET', new RegExp(`^${path}/revisions/2$`), () => ({
      ...was,
      content: { ...was.content, corners },
      words,
    }));
    hosted(Card, { params: { ...params, revision: '2' } });
    await waitFor(() => expect(document.querySelectorAll('tbody tr').length).toBe(corners.length));
    const brakes = [...document.querySelectorAll('tbody tr td:first-of-type')].map((td) => squeezed(td));
    expect(brakes.slice(0, 2)).toEqual(['lift', 'brakes for 1']);
  });
});

describe('recomputing', () => {
  it('asks the server to work it out, and shows why where it cannot', async () => {
    server.on('GET', new RegExp(`^${path}$`), () => ({ ...reference(), recomputed: false }));
    server.on('POST', /recomputation$/, () => 422);
    hosted(Recompute, { params });
    await waitFor(() => expect(server.last('POST')?.path).toBe(`${path}/recomputation`));
    expect(await screen.findByText('Trouble 422')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /take/i })).toBeNull();
  });
});
