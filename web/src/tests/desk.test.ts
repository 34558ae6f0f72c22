// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import type { Component } from 'svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import ConflictDialog from '../components/ConflictDialog.svelte';
import DaysPanel from '../components/DaysPanel.svelte';
import FitPanel from '../components/FitPanel.svelte';
import LapPlan from '../components/LapPlan.svelte';
import OfferLane from '../components/OfferLane.svelte';
import RemarksPanel from '../components/RemarksPanel.svelte';
import StripNotes from '../components/StripNotes.svelte';
import ThingEditor from '../components/ThingEditor.svelte';
import WaysPanel from '../components/WaysPanel.svelte';
import type { Catalogue, CornerFinding, Outcome, Things, TraceView, Variant } from '../lib/api';
import { catalogue } from '../lib/catalogue.svelte';
import type { Desk } from '../lib/desk.svelte';
import type { SurveyDesk } from '../lib/survey.svelte';
import { corner, entry, FakeDesk, LENGTH, road } from './made';
import Host from './Host.svelte';
import { server } from './server';

const squeezed = (node: Element | null) => node?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
const hosted = (shown: unknown, given: Record<string, unknown>) =>
  render(Host, { shown: shown as Component<Record<string, unknown>>, given });
const usual = { grip: 0.7, extraMass: 0, windSpeed: 0, windFrom: 0, drag: 1, downforce: 1, hour: '' };

beforeEach(() => {
  catalogue.all = {
    questions: [{ question: 'APEX', words: 'the apex' }],
    schools: [
      { school: 'LATE_APEX', question: 'APEX', words: 'late, for the exit' },
      { school: 'EARLY_APEX', question: 'APEX', words: 'early, for the entry' },
    ],
    variants: [{ kind: 'WET', words: 'wet', usual }],
    kinds: [],
    details: [
      { detail: 'AIM', phase: 'TURN_IN', words: 'look at', choices: [], motorcycle: false },
      { detail: 'BUMPS', phase: 'BRAKING', words: 'bumps', choices: ['over bumps'], motorcycle: false },
    ],
  } as unknown as Catalogue;
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
    expect(takeSchool).toHaveBeenCalledWith('EARLY_APEX');
  });

  it('cannot be taken where it cannot be made', async () => {
    const takeSchool = await open([outcome('LATE_APEX', null)]);
    expect(squeezed(school('LATE_APEX'))).toContain('cannot be made from any marker');
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
      store: () => Promise.resolve(),
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
  it('let the driver choose corner by corner, and lose no day', async () => {
    const mine = {
      corners: [entry(), entry({ corner: 'c2', gear: 2 })],
      variants: [{ id: 'a' }],
    };
    const theirs = {
      corners: [entry({ note: 'careful' }), entry({ corner: 'c2', gear: 4 })],
      variants: [{ id: 'a' }, { id: 'b' }],
    };
    const resolve = vi.fn();
    const desk = { view: { corners: [corner(), corner({ id: 'c2', number: '2' })] }, resolve };
    render(ConflictDialog, { desk: desk as unknown as Desk, conflict: { mine, theirs } as never });
    expect(screen.getByText('gear 2')).toBeTruthy();
    expect(screen.getByText('note “careful”')).toBeTruthy();
    const second = document.querySelectorAll('input[name=c2]');
    await fireEvent.click(second[1] as Element);
    await fireEvent.click(screen.getByRole('button', { name: 'Keep these' }));
    const kept = resolve.mock.calls[0]?.[0];
    expect(kept.corners.map((c: { gear: number; note: string }) => [c.gear, c.note])).toEqual([
      [3, ''],
      [4, ''],
    ]);
    expect(kept.variants.map((v: { id: string }) => v.id)).toEqual(['a', 'b']);
  });
});

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

describe('notes on the drawing', () => {
  it('stand where they matter and are never lost where there is no room', () => {
    const details = Object.fromEntries(
      Array.from({ length: 30 }, (_, i) => [`D${i}`, `a rather long remark number ${i}`]),
    );
    const x = Object.assign((s: number) => s - 350, { invert: (v: number) => v + 350 });
    render(StripNotes, {
      x: x as never,
      near: (s: number) => s,
      domain: [350, 650],
      corner: corner(),
      entry: entry({ details: { ...details, AIM: 'the post', BUMPS: 'over bumps' } as never }),
      width: 300,
    });
    const shown = document.querySelectorAll('[data-note]').length;
    const more = document.querySelector('[aria-label$="more notes"]')?.getAttribute('aria-label') ?? '';
    const hidden = parseInt(more || '0');
    expect(shown + hidden).toBe(32);
    expect(hidden).toBeGreaterThan(0);
  });
});

describe('two laps on the ground', () => {
  it('stand apart by what they are apart on the road', () => {
    const r = road();
    r.x = r.x.map((_, i) => i * r.step);
    const trace = (offset: number): TraceView =>
      ({ step: 10, offset: Array.from({ length: 200 }, () => offset) }) as unknown as TraceView;
    render(LapPlan, {
      road: r,
      window: [0, 200],
      laps: [
        { trace: trace(0), station: 50, colour: 'black', name: 'first' },
        { trace: trace(0), station: 100, colour: 'red', name: 'second' },
      ],
      width: 216,
      height: 116,
    });
    const first = Number(document.querySelector('[data-dot="0"]')?.getAttribute('cx'));
    const second = Number(/M([\d.]+)/.exec(document.querySelector('[data-dot="1"]')?.getAttribute('d') ?? '')?.[1]);
    // 200 m lie on 200 pixels.
    expect(second - first).toBeCloseTo(50, 0);
  });
});

describe('a thing of the survey', () => {
  const board = {
    id: 'b1',
    kind: 'BOARD',
    label: '100',
    station: 440,
    left: true,
    out: 3,
    height: 1.4,
    permanence: 'FIXED',
    corner: 'c1',
    readable: true,
    note: '',
    photo: '',
  };
  const editor = (sort: keyof Things, thing: unknown) => {
    const put = vi.fn();
    const desk = { corners: [corner()], put, addPhoto: () => 'p1' } as unknown as SurveyDesk;
    render(ThingEditor, { desk, sort, thing: thing as never, zone: 'Europe/Lisbon', onremove: vi.fn() });
    return put;
  };
  const field = (name: string) => document.querySelector(`[name=${name}]`) as Element;

  it('changes one thing at a time, each as a step of its own', async () => {
    const put = editor('landmarks', board);
    await fireEvent.change(field('station'), { target: { value: '445.5' } });
    expect(put).toHaveBeenLastCalledWith('landmarks', [{ ...board, station: 445.5 }], 'b1 station');
    await fireEvent.click(screen.getByRole('button', { name: 'right' }));
    expect(put.mock.lastCall?.[1][0].left).toBe(false);
    await fireEvent.click(screen.getByLabelText('cannot be read'));
    expect(put.mock.lastCall?.[1][0].readable).toBe(false);
    await fireEvent.change(field('out'), { target: { value: 'x' } });
    expect(put).toHaveBeenCalledTimes(3);
  });

  it('keeps centimetres of a kerb as metres', async () => {
    const kerb = {
      id: 'k1',
      profile: 'RAMP',
      left: true,
      part: 'EXIT',
      from: 590,
      to: 620,
      width: 1.2,
      height: 0.05,
      behind: 'GRASS',
      verdict: 'OPEN',
      corner: 'c1',
      slippery: false,
      note: '',
      photo: '',
    };
    const put = editor('kerbs', kerb);
    expect((field('width') as HTMLInputElement).value).toBe('120');
    await fireEvent.change(field('height'), { target: { value: '7' } });
    expect(put.mock.lastCall?.[1][0].height).toBeCloseTo(0.07, 9);
  });

  it('takes the hour of a shadow by the clock of the circuit', async () => {
    const put = editor('landmarks', { ...board, kind: 'SHADOW', noted: null });
    // Summer time in Lisbon is one hour ahead of UTC, winter time none.
    await fireEvent.change(screen.getByLabelText('Seen there at'), { target: { value: '2026-07-01T16:30' } });
    expect(put.mock.lastCall?.[1][0].noted).toBe('2026-07-01T15:30:00.000Z');
    await fireEvent.change(screen.getByLabelText('Seen there at'), { target: { value: '2026-01-10T16:30' } });
    expect(put.mock.lastCall?.[1][0].noted).toBe('2026-01-10T16:30:00.000Z');
  });
});
