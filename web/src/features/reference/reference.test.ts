// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import ConflictDialog from './ConflictDialog.svelte';
import DaysPanel from './DaysPanel.svelte';
import RemarksPanel from './RemarksPanel.svelte';
import WaysPanel from './WaysPanel.svelte';
import type { CornerEntry, Outcome, ReferenceContent, Variant } from '../../api/api';
import { catalogue } from '../../api/catalogue.svelte';
import { made } from '../../road/score';
import { clashes, together, type Conflict } from './clash';
import type { Desk } from './desk.svelte';
import { corner, entry, FakeDesk } from '../../testing/made';
import { server } from '../../testing/server';
import { squeezed, usual, WORDS } from '../../testing/shown';

beforeEach(() => {
  catalogue.all = WORDS;
});

describe('ways of doing it', () => {
  const outcome = (school: string, toNext: number | null, over = {}): Outcome =>
    ({
      school,
      toNext,
      cornerTime: toNext,
      brakingMoved: -4,
      minimumSpeed: 25,
      peak: 0.8,
      gear: 3,
      givenAway: 0,
      tyreWork: 1,
      chosen: false,
      ...over,
    }) as unknown as Outcome;
  const open = async (outcomes: Outcome[]) => {
    server.on('POST', /choices\/arising$/, () => ['APEX']);
    server.on('POST', /choices$/, () => ({ now: outcome('', 8), outcomes, best: 'EARLY_APEX', question: 'APEX' }));
    const fake = new FakeDesk(entry());
    const takeSchool = vi.fn();
    const desk = Object.assign(fake, { base: fake.entry, takeSchool, busy: false });
    render(WaysPanel, { desk: desk as unknown as Desk });
    await fireEvent.click(await screen.findByRole('button', { name: /the apex/ }));
    await waitFor(() => expect(document.querySelector('[data-school]')).toBeTruthy());
    return takeSchool;
  };
  const school = (id: string) => document.querySelector(`[data-school=${id}]`) as Element;

  it('prices each against what is done now, and says which is best here', async () => {
    const takeSchool = await open([outcome('LATE_APEX', 8.05), outcome('EARLY_APEX', 7.9, { tyreWork: 1.12 })]);
    expect(squeezed(school('LATE_APEX'))).toContain('+0.05 s');
    expect(squeezed(school('EARLY_APEX'))).toContain('−0.10 s');
    expect(squeezed(school('EARLY_APEX'))).toContain('best here');
    expect(squeezed(school('EARLY_APEX'))).toContain('4 m sooner');
    expect(squeezed(school('EARLY_APEX'))).toContain('tyres +12 %');
    await fireEvent.click(screen.getByRole('button', { name: /early, for the entry/ }));
    expect(takeSchool).toHaveBeenCalledWith('EARLY_APEX', undefined);
    expect(screen.queryByText(/^Taken in/)).toBeNull();
  });

  it('is taken for a stretch of corners, and says in how many', async () => {
    const takeSchool = await open([outcome('EARLY_APEX', 7.9)]);
    takeSchool.mockResolvedValue(2);
    const stretch = screen.getByLabelText('Taken for') as HTMLSelectElement;
    expect([...stretch.options].map((o) => o.value)).toEqual(['', 'c2', 'c3']);
    await fireEvent.change(stretch, { target: { value: 'c3' } });
    await fireEvent.click(screen.getByRole('button', { name: /early, for the entry/ }));
    expect(takeSchool).toHaveBeenCalledWith('EARLY_APEX', 'c3');
    await screen.findByText(/^Taken in 2 corners/);
  });

  it('cannot be taken where it cannot be made', async () => {
    const takeSchool = await open([outcome('LATE_APEX', null)]);
    expect(squeezed(school('LATE_APEX'))).toContain('cannot be made with the margin of now');
    const button = screen.getByRole('button', { name: /late, for the exit/ }) as HTMLButtonElement;
    expect(button.disabled).toBe(true);
    expect(takeSchool).not.toHaveBeenCalled();
  });

  it('says so where drivers do not differ, and when the server does not answer', async () => {
    server.on('POST', /choices\/arising$/, () => []);
    const fake = new FakeDesk(entry());
    render(WaysPanel, { desk: Object.assign(fake, { base: fake.entry }) as unknown as Desk });
    await screen.findByText('Nothing here on which drivers differ.');
    server.on('POST', /choices\/arising$/, () => 500);
    const other = new FakeDesk(entry());
    render(WaysPanel, { desk: Object.assign(other, { base: other.entry }) as unknown as Desk });
    await screen.findByText(/Trouble 500/);
  });
});

describe('other days', () => {
  const wet: Variant = { id: 'v1', kind: 'WET', name: '', day: { ...usual }, entries: [] } as unknown as Variant;
  const panel = (now: Variant | undefined, over: Record<string, unknown> = {}) => {
    const put = vi.fn();
    const go = vi.fn();
    const desk = {
      content: { variants: now ? [now] : [] },
      variant: now,
      day: now?.id ?? '',
      mine: true,
      view: { corners: [corner()] },
      selected: 'c1',
      lap: { lapTime: 100 },
      dayView: now && {
        lapTime: 108.4,
        adjusted: { changes: [{ words: 'brake 9 m sooner', byHand: false }], byHand: [] },
      },
      putVariant: put,
      dropVariant: vi.fn(),
      go,
      ...over,
    };
    render(DaysPanel, { desk: desk as unknown as Desk });
    return { put, go };
  };

  it('adds one with what is usual for it, and goes there', async () => {
    const { put, go } = panel(undefined);
    await fireEvent.change(screen.getByLabelText('Add a day'), { target: { value: 'WET' } });
    expect(put.mock.calls[0]?.[0]).toMatchObject({ kind: 'WET', day: { grip: 0.7 }, entries: [] });
    expect(go).toHaveBeenCalledWith(put.mock.calls[0]?.[0].id);
  });

  it('tells what it changes here, and the lap against the dry one', () => {
    panel(wet);
    expect(squeezed(document.querySelector('[data-changes]'))).toBe('brake 9 m sooner');
    expect(document.body.textContent).toContain('+8.4 s');
  });

  it('keeps numbers within what a day can be', async () => {
    const { put } = panel(wet);
    const grip = document.querySelector('input[name=grip]') as HTMLInputElement;
    expect(grip.value).toBe('70');
    await fireEvent.change(grip, { target: { value: '500' } });
    expect(put.mock.calls[0]?.[0].day.grip).toBe(1.2);
    await fireEvent.change(grip, { target: { value: '' } });
    expect(put).toHaveBeenCalledTimes(1);
  });

  it('takes back what was set by hand in this corner only', async () => {
    const set = { ...wet, entries: [{ corner: 'c1' }, { corner: 'c9' }] } as unknown as Variant;
    const { put } = panel(set, {
      dayView: { lapTime: 108, adjusted: { changes: [], byHand: ['BRAKE'] } },
    });
    expect(squeezed(document.querySelector('[data-changes]'))).toContain('Nothing changes in this corner.');
    await fireEvent.click(screen.getByRole('button', { name: 'Take what is proposed here' }));
    expect(put.mock.calls[0]?.[0].entries).toEqual([{ corner: 'c9' }]);
  });
});

describe('remarks', () => {
  const remark = (over = {}) => ({
    id: 'm1',
    corner: 'c1',
    author: 'Ana',
    text: 'Later here.',
    kind: 'BRAKE',
    state: 'OPEN',
    changes: ['braking 3 m later'],
    proposed: true,
    mine: false,
    ...over,
  });
  const panel = (role: string, remarks: unknown[], over: Record<string, unknown> = {}) => {
    server.on('GET', /remarks$/, () => remarks);
    server.on('GET', /shares$/, () => []);
    const fake = new FakeDesk(entry());
    const more = {
      base: fake.entry,
      selected: 'c1',
      mine: role === 'OWNER',
      tried: false,
      workingVersion: 4,
      ensureKept: () => Promise.resolve(),
      stored: vi.fn(),
      select: vi.fn(),
      giveUp: vi.fn(),
      ...over,
    };
    const desk = Object.assign(fake, more);
    desk.view = { ...desk.view, role, driver: 'Rui', corners: [corner(), corner({ id: 'c2', number: '2' })] } as never;
    render(RemarksPanel, { desk: desk as unknown as Desk });
    return desk;
  };

  it('let a coach see what is known by heart, and nobody else', async () => {
    const person = (over: object) => ({
      id: 's1',
      name: 'Tomé',
      email: 't@example.org',
      seen: true,
      asks: false,
      ...over,
    });
    panel('OWNER', []);
    server.on('GET', /shares$/, () => [
      person({ role: 'COACH', seesRehearsed: false }),
      person({ id: 's2', email: 'v@example.org', role: 'VIEWER', seesRehearsed: false }),
    ]);
    server.on('PUT', /shares\/s1\/rehearsed$/, () => [person({ role: 'COACH', seesRehearsed: true })]);
    const box = await screen.findByRole('checkbox', { name: 'sees what you know by heart' });
    await fireEvent.click(box);
    await waitFor(() => expect(server.last('PUT')?.body).toEqual({ sees: true }));
    expect(server.last('PUT')?.path).toContain('/shares/s1/rehearsed');
    expect(document.querySelector('[data-heart]')).toBeNull();
  });

  it.each([
    [
      [
        { corner: 'c1', asks: 'PLACE', error: -5.2 },
        { corner: 'c9', asks: 'PLACE', error: 40 },
      ],
      'This corner is told within 5 m.',
    ],
    [
      [
        { corner: 'c1', asks: 'PLACE' },
        { corner: 'c1', asks: 'PLACE', error: 1 },
      ],
      'A place of this corner is not known.',
    ],
    [[{ corner: 'c1', asks: 'SHARE', error: 0.3 }], 'This corner was not asked yet.'],
  ])('show a coach who was let in how well the corner is known: %j', async (known, words) => {
    server.on('GET', /rehearsed$/, () => ({ ready: { ready: 3, corners: 14, unknown: [] }, known }));
    panel('COACH', []);
    await screen.findByText(new RegExp(words));
    expect(squeezed(document.querySelector('[data-heart]'))).toContain('By heart: 3 of 14 corners within 8 m.');
  });

  it('show a coach what was felt in the corner, session by session, spoken notes too', async () => {
    server.on('GET', /sessions-seen$/, () => [
      {
        id: 's1',
        name: 'Qualifying',
        begins: '2026-06-06T13:00:00Z',
        zone: 'Europe/Lisbon',
        lines: [
          { id: 'l1', device: 'p', at: '', removed: false, told: { about: 'NOTE', words: '', seconds: 3 } },
          { id: 'l2', device: 'p', at: '', removed: false, told: { about: 'NOTE', words: 'Wait longer' } },
        ],
        felt: { run: 'u', corners: [{ corner: 'c1', felt: 'DEEP', words: 'you said deep; braking was 6 m late' }] },
      },
      {
        id: 's2',
        name: 'Practice',
        begins: '2026-06-06T09:00:00Z',
        zone: 'Europe/Lisbon',
        lines: [
          { id: 'l3', device: 'p', at: '', removed: false, told: { about: 'CORNER', corner: 'c1', felt: 'WIDE' } },
        ],
        felt: { corners: [] },
      },
    ]);
    panel('COACH', []);
    await screen.findByText(/Qualifying, /);
    const there = squeezed(document.querySelector('[data-felt-there]'));
    expect(there).toContain('said deep; braking was 6 m late');
    expect(there).toContain('“Wait longer”');
    expect(there).toContain('said wide');
    expect(document.querySelector('audio')?.getAttribute('src')).toBe('/api/sessions/s1/log/l1/sound');
  });

  it('show nothing of it to a coach who was not', async () => {
    server.on('GET', /rehearsed$/, () => 403);
    panel('COACH', []);
    await screen.findByText(/No remarks on this corner/);
    expect(document.querySelector('[data-heart]')).toBeNull();
  });

  it('are taken over by the driver, with the version that was looked at', async () => {
    const desk = panel('OWNER', [remark()]);
    server.on('POST', /decision$/, () => ({ version: 5 }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Take it over' }));
    await waitFor(() => expect(desk.stored).toHaveBeenCalledWith({ version: 5 }));
    expect(server.last('POST')?.body).toEqual({ accepted: true, version: 4 });
    expect(server.last('POST')?.path).toContain('/remarks/m1/decision');
  });

  it('are declined without touching the work', async () => {
    const desk = panel('OWNER', [remark()]);
    server.on('POST', /decision$/, () => ({ version: 5 }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Decline' }));
    await waitFor(() => expect(server.last('POST')?.body).toEqual({ accepted: false, version: 4 }));
    expect(desk.stored).not.toHaveBeenCalled();
  });

  it('of a coach go with what was tried, pinned to a point', async () => {
    const desk = panel('COACH', [], { tried: true });
    server.on('POST', /remarks$/, () => [remark({ mine: true })]);
    await fireEvent.change(screen.getByLabelText('To which point'), { target: { value: 'APEX' } });
    await fireEvent.input(screen.getByLabelText('Remark'), { target: { value: 'Try it later' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Propose' }));
    await waitFor(() => expect(desk.giveUp).toHaveBeenCalled());
    expect(server.last('POST')?.body).toMatchObject({ corner: 'c1', text: 'Try it later', kind: 'APEX' });
    expect((server.last('POST')?.body as { proposed: unknown }).proposed).toBeTruthy();
    await screen.findByRole('button', { name: 'Take back' });
  });

  it('are only read by a viewer, and lead to where more is open', async () => {
    const desk = panel('VIEWER', [remark({ corner: 'c2' })]);
    await fireEvent.click(await screen.findByRole('button', { name: '2' }));
    expect(desk.select).toHaveBeenCalledWith('c2');
    expect(screen.queryByLabelText('Remark')).toBeNull();
    expect(screen.queryByText('Open to')).toBeNull();
  });
});

describe('two windows', () => {
  const day = (id: string, entries: unknown[] = []) => ({ id, kind: 'WET', name: id, day: {}, entries });
  const content = (corners: unknown[], variants: unknown[] = [], more = {}) =>
    ({ corners, variants, ...more }) as unknown as ReferenceContent;
  const lift = (station: number, amount: number) => ({ ...made('LIFT', station, 'lift-1', 3), amount });
  const braked = (station: number, over = {}) =>
    entry({ points: entry().points.map((p) => (p.kind === 'BRAKE' ? { ...p, station } : p)), ...over });
  const open = (conflict: Partial<Conflict>) => {
    const resolve = vi.fn<(content: ReferenceContent) => void>();
    const desk = { view: { corners: [corner(), corner({ id: 'c2', number: '2' })], length: 2000 }, resolve };
    render(ConflictDialog, {
      desk: desk as unknown as Desk,
      conflict: { base: null, version: 2, ...conflict } as Conflict,
    });
    return resolve;
  };
  const row = (key: string) => document.querySelector(`[data-clash="${key}"]`) as Element;
  const take = (key: string, side: string) => fireEvent.click(row(key).querySelector(`[data-side=${side}]`) as Element);

  it('put together what each changed, and ask only where both changed the same action', async () => {
    const base = content([braked(430, { actions: [lift(480, 0.4)] }), entry({ corner: 'c2' })], [day('a')]);
    const mine = content(
      [braked(425, { actions: [lift(480, 0.5)], gear: 2 }), entry({ corner: 'c2' })],
      [day('a'), day('b')],
      { pace: { driving: { margin: 0.3 } } },
    );
    const theirs = content(
      [
        braked(418, { actions: [lift(474, 0.4), made('EYES', 400, 'eyes-1', 3)], note: 'careful' }),
        entry({ corner: 'c2', gear: 4 }),
      ],
      [day('a', [{ corner: 'c2', points: [], actions: [], without: [], note: 'wet' }])],
    );
    const resolve = open({ base, mine, theirs });
    expect([...document.querySelectorAll('[data-clash]')].map((r) => r.getAttribute('data-clash'))).toEqual([
      'point/c1/BRAKE',
      'action/c1/lift-1',
    ]);
    expect(squeezed(row('action/c1/lift-1'))).toContain('50 %, 480 m');
    expect(squeezed(row('action/c1/lift-1'))).toContain('40 %, 474 m');
    expect(document.body.textContent).toContain('4 other changes');
    await take('action/c1/lift-1', 'theirs');
    await fireEvent.click(screen.getByRole('button', { name: 'Keep these' }));
    const kept = resolve.mock.calls[0]?.[0] as ReferenceContent;
    const [first, second] = kept.corners as [CornerEntry, CornerEntry];
    expect(first.points.find((p) => p.kind === 'BRAKE')?.station).toBe(425);
    expect(first.points).toHaveLength(7);
    expect(first.actions.map((a) => [a.id, a.station])).toEqual([
      ['lift-1', 474],
      ['eyes-1', 400],
    ]);
    expect([first.gear, first.note, second.gear]).toEqual([2, 'careful', 4]);
    expect(kept.variants.map((v) => [v.id, v.entries.length])).toEqual([
      ['a', 1],
      ['b', 0],
    ]);
    expect(kept.pace).toEqual(mine.pace);
  });

  it('let go what one of them left out, and nothing that the other changed', () => {
    const base = content([braked(430, { actions: [lift(480, 0.4), made('EYES', 400, 'eyes-1', 3)] })]);
    const mine = content([braked(430, { actions: [lift(480, 0.4)] })]);
    const theirs = content([braked(430, { actions: [lift(470, 0.4), made('EYES', 400, 'eyes-1', 3)] })]);
    const conflict = { base, mine, theirs, version: 2 };
    expect(clashes(conflict)).toEqual([]);
    expect(together(conflict, {}).corners[0]?.actions.map((a) => [a.id, a.station])).toEqual([['lift-1', 470]]);
    const gone = {
      ...conflict,
      theirs: content([braked(430, { actions: [] })]),
      mine: content([braked(430, { actions: [lift(476, 0.4)] })]),
    };
    expect(clashes(gone).map((c) => c.key)).toEqual(['action/c1/lift-1']);
    expect(together(gone, { 'action/c1/lift-1': 'theirs' }).corners[0]?.actions).toEqual([]);
  });

  it('lose nothing where nobody knows what they started from', async () => {
    const mine = content([entry(), entry({ corner: 'c2', gear: 2 })], [day('a')], {
      use: { opened: ['k'], gates: [] },
    });
    const theirs = content([entry({ note: 'careful' }), entry({ corner: 'c2', gear: 4 })], [day('a'), day('b')]);
    const resolve = open({ mine, theirs });
    expect(screen.getByText('gear 2')).toBeTruthy();
    expect(screen.getByText('note “careful”')).toBeTruthy();
    await take('field/c2/gear', 'theirs');
    await fireEvent.click(screen.getByRole('button', { name: 'Keep these' }));
    const kept = resolve.mock.calls[0]?.[0] as ReferenceContent;
    expect(kept.corners.map((c) => [c.gear, c.note])).toEqual([
      [3, ''],
      [4, ''],
    ]);
    expect(kept.variants.map((v) => v.id)).toEqual(['a', 'b']);
    expect(kept.use).toEqual(mine.use);
  });
});
