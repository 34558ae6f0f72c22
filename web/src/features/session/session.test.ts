// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LogLine, PlannedLine, PlannedSession, SessionLine } from '../../api/api';
import { corner, entry, LENGTH, road } from '../../testing/made';
import { server } from '../../testing/server';
import { hosted, squeezed, usual, WORDS } from '../../testing/shown';
import { catalogue } from '../../api/catalogue.svelte';
import Brief from './Brief.svelte';
import DayLine from './DayLine.svelte';
import Log from './Log.svelte';
import { merged, type Line } from './log';
import Session from './Session.svelte';
import Sessions from './Sessions.svelte';
import TodayStrip from './TodayStrip.svelte';
import WeatherBand from './WeatherBand.svelte';
import WindRose from './WindRose.svelte';
import { clock, day, hours, until } from '../../words/clock';
import { byDay, changedSince, freshSession, nextDue, said, span, standing } from './sessions';

const ZONE = 'Europe/Lisbon';
const line = (over: Partial<SessionLine> = {}): SessionLine => ({
  id: 's1',
  event: 'e1',
  reference: 'r1',
  title: 'Vale, Mine',
  session: { ...freshSession('QUALIFYING', '2026-06-06T14:00:00', ZONE), name: 'Qualifying' },
  begins: '2026-06-06T13:00:00Z',
  ends: '2026-06-06T13:20:00Z',
  local: '2026-06-06T14:00:00',
  clocks: '',
  made: false,
  version: 3,
  due: [
    {
      errand: 'BRIEF',
      from: '2026-06-06T12:10:00Z',
      until: '2026-06-06T12:20:00Z',
      last: '2026-06-06T12:20:00Z',
      done: false,
    },
    {
      errand: 'OUT',
      from: '2026-06-06T12:55:00Z',
      until: '2026-06-06T13:00:00Z',
      last: '2026-06-06T13:00:00Z',
      done: false,
    },
    {
      errand: 'LOG',
      from: '2026-06-06T13:20:00Z',
      until: '2026-06-06T13:30:00Z',
      last: '2026-06-06T15:30:00Z',
      done: false,
    },
  ],
  driven: 0,
  ...over,
});
const planned = (id: string, brake: number): PlannedLine => ({
  corner: id,
  called: id.slice(1),
  apex: 540,
  words: { line: `Brake for ${id}`, full: '', pocket: '', spoken: '', plain: '', own: '', due: false, braked: '' },
  today: {
    corner: id,
    entry: entry({ corner: id }),
    differences: [
      { when: 'ALL', kind: 'BRAKE', words: `braking ${-brake} m sooner`, reason: 'wet, grip 70 %', metres: brake },
      { when: 'ALL', words: 'gear 2 instead of 3', reason: 'wet, grip 70 %', metres: 0 },
      { when: 'LAST', words: 'no 55 % throttle', reason: 'worn tyres', metres: 0 },
      { when: 'LAST', words: 'no 55 % throttle', reason: 'worn tyres', metres: 0 },
    ],
    brake,
    early: [6, 3, 1],
    slowest: 20,
    slowestBase: 25,
  },
  escape: 'straight on',
  blind: false,
  shortRunOff: id === 'c2',
  unsure: [],
});
const view = (over: Partial<SessionLine> = {}): PlannedSession => ({
  line: line(over),
  event: 'Weekend',
  runs: [],
  parts: [],
  conditions: 'dry, grip 100 %',
  brief: [
    {
      kind: 'DIFFERS',
      head: 'Differs today',
      lines: [{ corner: 'c1', called: '1', words: 'braking 40 m sooner' }],
    },
    { kind: 'FOCUS', head: 'Focus', lines: [{ corner: 'c1', called: '1', words: 'You open late. Squeeze.' }] },
    { kind: 'MARKERS', head: 'Markers', lines: [] },
    { kind: 'WARM', head: 'Warm-up', lines: [{ words: 'Tyres count as warm from lap 4.' }] },
    { kind: 'LAPS', head: 'Plan by lap', lines: [{ words: '11 laps fit.' }] },
    { kind: 'NUMBERS', head: 'Numbers', lines: [{ words: 'Off the road: the lap is deleted.' }] },
    { kind: 'WRONG', head: 'When it goes wrong', lines: [{ corner: 'c2', called: '2', words: 'grass' }] },
  ],
  briefRead: undefined,
  briefReadAt: undefined,
  plan: {
    asOf: '2026-06-06T12:00:00Z',
    reference: 'r1',
    circuit: 'Vale',
    vehicle: 'Vale · Mine',
    revision: 4,
    changed: false,
    today: { lapTime: 104, base: 95, laps: 11, warmFrom: 4, corners: [] },
    corners: [planned('c1', -40), planned('c2', -12)],
    focus: [
      {
        focus: { corner: 'c1', cause: 'FULL_LATE', worth: 0.1, offer: 0.2, share: 0.5 },
        called: '1',
        words: 'You open late.',
        cure: 'Squeeze.',
        chosen: false,
      },
    ],
    notToday: ['2: nothing later or faster, something hard is near'],
    rungs: [],
    targets: { tiers: [{ off: 0, lap: 104, corners: [] }] },
    fuel: { need: { perLap: 1.7, spread: 0.1, own: 0 }, laps: 12, litres: 21.3, weighed: true },
    tread: [],
    wheels: [
      { wheel: 0, hot: 190, cold: 141, low: 138, high: 144, hotAt: 76, learned: true, refused: '' },
      { wheel: 1, hot: 150, low: 0, high: 0, hotAt: 76, learned: true, refused: '104 kPa cold is under the least' },
    ],
    motorcycle: false,
    device: false,
    light: [],
    cautions: ['Flags and marshals come first.'],
    evidence: 8,
    alike: true,
    settling: { by: { lap: 5, sessions: 3, costs: 4.2 }, words: 'You settle on lap 5.' },
  },
});

beforeEach(() => {
  catalogue.all = {
    ...WORDS,
    variants: [{ kind: 'WET', words: 'wet', usual: { ...usual, surface: { state: 'WET', dried: 0 } } }],
  } as never;
  server.on('GET', /catalogue$/, () => catalogue.all);
  server.on('GET', /sessions\/s1$/, () => view());
  server.on('GET', /sessions\/s1\/log$/, () => []);
  server.on('GET', /events$/, () => ({
    events: [{ id: 'e1', name: 'Weekend', zone: ZONE, sessions: [line()] }],
    references: [],
  }));
  server.on('GET', /references\/r1$/, () => ({
    corners: [corner(), corner({ id: 'c2', number: '2', entry: 1200, apexes: [1240], exit: 1290 })],
    working: { content: { variants: [] } },
  }));
  server.on('GET', /references\/r1\/road$/, () => road());
});

describe('clocks of a session', () => {
  it('reads the wall at the circuit, wherever one is', () => {
    expect(clock('2026-06-06T13:00:00Z', ZONE)).toBe('14:00');
    expect(clock('2026-12-06T23:30:00Z', 'Asia/Tokyo')).toBe('08:30');
    expect(day('2026-12-06T23:30:00Z', 'Asia/Tokyo')).toBe('Mon 7 Dec');
    expect(hours('2026-06-06T23:30:00Z', 'UTC')).toBe(23.5);
    expect(hours('2026-06-06T00:00:00Z', 'UTC')).toBe(0);
  });

  it('counts down and up', () => {
    const now = Date.parse('2026-06-06T12:00:00Z');
    expect(until('2026-06-06T12:45:00Z', now)).toBe('in 45 min');
    expect(until('2026-06-06T14:05:00Z', now)).toBe('in 2 h 05');
    expect(until('2026-06-06T11:48:00Z', now)).toBe('12 min ago');
  });

  it('knows what is due next, and for how long what was felt is worth saying', () => {
    const at = (t: string) => nextDue(line(), Date.parse(t))?.errand;
    expect(at('2026-06-06T12:00:00Z')).toBe('BRIEF');
    expect(at('2026-06-06T12:30:00Z')).toBe('OUT');
    expect(at('2026-06-06T15:00:00Z')).toBe('LOG');
    expect(at('2026-06-06T15:31:00Z')).toBeUndefined();
  });

  it('parts an event by the days of the circuit and spans what is due', () => {
    const event = {
      id: 'e',
      name: '',
      zone: ZONE,
      sessions: [line(), line({ id: 's2', begins: '2026-06-06T23:30:00Z' })],
    };
    expect(byDay(event).map((d) => d.day)).toEqual(['Sat 6 Jun', 'Sun 7 Jun']);
    const [from, to] = span([line()], ZONE);
    expect(from).toBeLessThanOrEqual(12.5);
    expect(to).toBeGreaterThanOrEqual(15.5);
  });
});

describe('the weekend as a line', () => {
  it('adds a session at the hour that is pressed and opens what is on it', async () => {
    const onadd = vi.fn();
    const onopen = vi.fn();
    render(DayLine, {
      title: 'Sat 6 Jun',
      date: '2026-06-06',
      zone: ZONE,
      sessions: [line()],
      now: 0,
      onadd,
      onopen,
      onmove: vi.fn(),
    });
    await fireEvent.click(screen.getByRole('button', { name: /Qualifying, qualifying, 14:00/ }));
    expect(onopen).toHaveBeenCalledOnce();
    expect(onadd).not.toHaveBeenCalled();
    await fireEvent.click(screen.getByRole('group', { name: /hours at the circuit/ }));
    expect(onadd.mock.calls[0]?.[0]).toMatch(/^2026-06-06T\d\d:\d[05]:00$/);
  });

  it('moves a session by key in steps of five minutes', async () => {
    const onmove = vi.fn();
    render(DayLine, {
      title: '',
      date: '2026-06-06',
      zone: ZONE,
      sessions: [line()],
      now: 0,
      onadd: vi.fn(),
      onopen: vi.fn(),
      onmove,
    });
    await fireEvent.keyDown(screen.getByRole('button', { name: /Qualifying/ }), { key: 'ArrowRight' });
    expect(onmove.mock.calls[0]?.[1]).toBe('2026-06-06T14:05:00');
  });

  it('lists sessions with one press for a delay', async () => {
    server.on('POST', /turned$/, () => view());
    hosted(Sessions, {});
    await fireEvent.click(await screen.findByRole('button', { name: 'Qualifying 10 min later' }));
    await waitFor(() => expect(server.last('POST')?.body).toEqual({ turn: 'LATER', minutes: 10 }));
  });
});

describe('a session planned', () => {
  it('draws what comes sooner and says why', async () => {
    hosted(Session, { params: { id: 's1' } });
    const list = await waitFor(() => {
      const found = document.querySelector('[data-differences]');
      expect(found).not.toBeNull();
      return found;
    });
    expect([...(list?.querySelectorAll('li') ?? [])].map((li) => squeezed(li))).toEqual([
      'braking 40 m sooner — wet, grip 70 %',
      'gear 2 instead of 3',
      // Two actions may be said alike.
      'last laps: no 55 % throttle — worn tyres',
      'last laps: no 55 % throttle',
    ]);
    expect(document.body.textContent).toContain('104 kPa cold is under the least');
    await fireEvent.click(await screen.findByRole('button', { name: /^2: braking 12 m sooner/ }));
    expect(squeezed(document.querySelector('[data-differences]'))).toContain('braking 12 m sooner');
    expect(squeezed(document.querySelector('[data-settling]'))).toBe('You settle on lap 5.');
  });

  it('keeps a change of the road when the hand rests, and takes it back', async () => {
    server.on('PUT', /sessions\/s1$/, (sent) => {
      const v = view();
      v.line.session = (sent.body as { session: SessionLine['session'] }).session;
      return v;
    });
    hosted(Session, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'wet' }));
    await waitFor(() => expect(server.last('PUT')).toBeDefined(), { timeout: 10_000 });
    const body = server.last('PUT')?.body as { version: number; session: SessionLine['session'] };
    expect(body.version).toBe(3);
    expect(body.session.day.day.surface?.state).toBe('WET');
    expect(body.session.day.day.grip).toBe(0.7);
    await fireEvent.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect((server.last('PUT')?.body as typeof body).session.day.day.surface?.state).toBe('DRY'));
  });

  it('is planned at the pace of a tier, and with a corner driven otherwise until that is taken back', async () => {
    server.on('GET', /sessions\/s1$/, () => {
      const v = view();
      v.plan!.corners[0]!.today.way = 'LATE_APEX';
      v.plan!.corners[0]!.today.wayCosts = 0.07;
      v.line.session.ways = [{ corner: 'c1', school: 'LATE_APEX' }];
      v.plan!.targets.tiers = [
        { off: 0.045, lap: 108, corners: [] },
        { off: 0, lap: 104, corners: [] },
      ];
      return v;
    });
    server.on('PUT', /sessions\/s1$/, (sent) => {
      const v = view();
      v.line.session = (sent.body as { session: SessionLine['session'] }).session;
      return v;
    });
    const put = () => (server.last('PUT')?.body as { session: SessionLine['session'] } | undefined)?.session;
    hosted(Session, { params: { id: 's1' } });
    await screen.findByText(/for this session only: \+0.07 s/);
    await fireEvent.click(screen.getByRole('button', { name: /\+4.5 %/ }));
    await waitFor(() => expect(put()?.pace).toBe(0.045), { timeout: 10_000 });
    expect(put()?.ways).toEqual([{ corner: 'c1', school: 'LATE_APEX' }]);
    await fireEvent.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(put()?.pace).toBeUndefined(), { timeout: 10_000 });
  });

  it('takes a way of one session back', async () => {
    server.on('GET', /sessions\/s1$/, () => {
      const v = view();
      v.plan!.corners[0]!.today.way = 'LATE_APEX';
      v.line.session.ways = [{ corner: 'c1', school: 'LATE_APEX' }];
      return v;
    });
    server.on('PUT', /sessions\/s1$/, () => view());
    hosted(Session, { params: { id: 's1' } });
    await screen.findByText(/cannot be driven today, or leads to the same/);
    await fireEvent.click(screen.getByRole('button', { name: 'As in the reference' }));
    await waitFor(
      () => expect((server.last('PUT')?.body as { session: SessionLine['session'] }).session.ways).toEqual([]),
      { timeout: 10_000 },
    );
  });

  it('keeps what is here where another device was first, and lets the driver say which stands', async () => {
    let first = true;
    server.on('PUT', /sessions\/s1$/, () => {
      if (first) {
        first = false;
        return 409;
      }
      return view();
    });
    hosted(Session, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'wet' }));
    const mine = await screen.findByRole('button', { name: 'Keep what is here' }, { timeout: 10_000 });
    expect(screen.getByRole('button', { name: 'wet' }).getAttribute('aria-pressed')).toBe('true');
    server.sent = [];
    await fireEvent.click(mine);
    await waitFor(() =>
      expect((server.last('PUT')?.body as { session: SessionLine['session'] }).session.day.day.surface?.state).toBe(
        'WET',
      ),
    );
  });

  it('waits with what is changed while an answer is on its way, and conflicts with nobody', async () => {
    let there = view();
    const answers: (() => void)[] = [];
    server.on('PUT', /sessions\/s1$/, ({ body }) => {
      const sent = body as { version: number; session: SessionLine['session'] };
      if (sent.version !== there.line.version) return 409;
      there = { ...there, line: { ...there.line, version: sent.version + 1, session: sent.session } };
      const now = there;
      return new Promise((then) => answers.push(() => then(now)));
    });
    hosted(Session, { params: { id: 's1' } });
    const puts = () => server.sent.filter((s) => s.method === 'PUT').length;
    await fireEvent.click(await screen.findByRole('button', { name: 'wet' }));
    await waitFor(() => expect(puts()).toBe(1));
    await fireEvent.click(screen.getByRole('button', { name: 'damp' }));
    // Longer than the hand rests before a change is sent.
    await new Promise((then) => setTimeout(then, 700));
    expect(puts()).toBe(1);
    answers.shift()?.();
    await waitFor(() => expect(puts()).toBe(2), { timeout: 5_000 });
    answers.shift()?.();
    await waitFor(() => expect(there.line.session.day.day.surface?.state).toBe('DAMP'));
    expect(screen.getByRole('button', { name: 'damp' }).getAttribute('aria-pressed')).toBe('true');
    expect(screen.queryByRole('button', { name: 'Keep what is here' })).toBeNull();
  });

  it('sends again what found no connection, and knows its own change when only the answer was lost', async () => {
    let there = view();
    let lost = true;
    server.on('GET', /sessions\/s1$/, () => there);
    server.on('PUT', /sessions\/s1$/, ({ body }) => {
      const sent = body as { version: number; session: SessionLine['session'] };
      if (sent.version !== there.line.version) return 409;
      there = { ...there, line: { ...there.line, version: sent.version + 1, session: sent.session } };
      if (!lost) return there;
      lost = false;
      throw new TypeError('the answer was lost');
    });
    hosted(Session, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'wet' }));
    await waitFor(() => expect(lost).toBe(false), { timeout: 10_000 });
    const before = there.line.version;
    await waitFor(() => expect(there.line.version).toBe(before + 1), { timeout: 10_000 });
    expect(screen.queryByRole('button', { name: 'Keep what is here' })).toBeNull();
    expect(there.line.session.day.day.surface?.state).toBe('WET');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  }, 15000);

  it('keeps what is here where the other one cannot be read either', async () => {
    server.on('PUT', /sessions\/s1$/, () => 409);
    hosted(Session, { params: { id: 's1' } });
    const wet = await screen.findByRole('button', { name: 'wet' });
    server.on('GET', /sessions\/s1$/, () => 404);
    await fireEvent.click(wet);
    expect(await screen.findByText('Trouble 404', undefined, { timeout: 10_000 })).toBeTruthy();
    expect(wet.getAttribute('aria-pressed')).toBe('true');
    expect(screen.queryByRole('button', { name: 'Take the other one' })).toBeNull();
  });

  it('takes what another device made of it, and undo brings back what was here', async () => {
    server.on('PUT', /sessions\/s1$/, () => 409);
    hosted(Session, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'wet' }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Take the other one' }, { timeout: 10_000 }));
    expect(screen.getByRole('button', { name: 'dry' }).getAttribute('aria-pressed')).toBe('true');
    await fireEvent.click(screen.getByRole('button', { name: 'Undo' }));
    expect(screen.getByRole('button', { name: 'wet' }).getAttribute('aria-pressed')).toBe('true');
  });

  it('sends a change that waits before an errand is ticked', async () => {
    server.on('PUT', /sessions\/s1$/, () => view());
    server.on('POST', /done$/, () => undefined);
    hosted(Session, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'wet' }));
    await fireEvent.click(screen.getAllByRole('checkbox')[0] as Element);
    await waitFor(() => expect(server.last('POST')?.path).toMatch(/done$/));
    const order = server.sent.filter((x) => x.method !== 'GET').map((x) => x.method);
    expect(order).toEqual(['PUT', 'POST']);
  });

  it('shows the lap with a stem a corner', () => {
    render(TodayStrip, {
      road: road(),
      corners: [corner()],
      lines: [planned('c1', -40)],
      focus: ['c1'],
      selected: 'c1',
      onselect: vi.fn(),
    });
    // The first three rectangles are where one presses, what comes sooner, and the coldest lap on top.
    expect(document.querySelectorAll('[data-today="1"] rect').length).toBe(5);
    expect(LENGTH).toBeGreaterThan(0);
    expect(document.querySelector('[data-pits]')).toBeNull();
  });

  it('shows where one brakes for the pits, on their side of the road', () => {
    const pits = { line: 1500, limit: 16.7, aimed: 15.8, from: 50, marker: 1380, metres: 120, left: true };
    const props = { road: road(), corners: [corner()], lines: [], focus: [], selected: '', onselect: vi.fn(), pits };
    const { rerender } = render(TodayStrip, props);
    const at = () =>
      (document.querySelector('[data-pits] path')?.getAttribute('d') ?? '').match(/-?[\d.]+/g)!.map(Number);
    const above = at();
    expect(above[2]! > above[0]!).toBe(true);
    void rerender({ ...props, pits: { ...pits, left: false } });
    return waitFor(() => expect(at()[1]! - above[1]!).toBeCloseTo(18, 6));
  });

  it('draws what the station says and plans for it in one press', async () => {
    const proposed = {
      ...line().session.day,
      day: { ...line().session.day.day, grip: 0.7, airTemperature: 16, surface: { state: 'WET', dried: 0 } },
    };
    const at = (m: number, low: number, high: number) => ({
      at: new Date(Date.parse('2026-06-06T12:00:00Z') + m * 60_000).toISOString(),
      air: 16,
      rainLow: low,
      rainHigh: high,
    });
    server.on('GET', /weather$/, () => ({
      there: true,
      stale: true,
      trouble: null,
      proposed,
      weather: { readings: [at(0, 0, 0)], forecast: [at(30, 1, 2), at(60, 2, 5)] },
    }));
    const ontake = vi.fn();
    hosted(WeatherBand, { line: line(), ontake });
    await fireEvent.click(await screen.findByRole('button', { name: 'Plan for that' }));
    expect(ontake.mock.calls[0]?.[0]).toMatchObject({ day: { surface: { state: 'WET' } } });
    expect(document.body.textContent).toContain('more than 10 minutes old');
    expect(screen.getByRole('img', { name: /Rain read and forecast/ })).toBeTruthy();
  });

  it('says nothing of the weather where there is no station', async () => {
    server.on('GET', /weather$/, () => ({ there: false, stale: false, weather: null, proposed: null }));
    hosted(WeatherBand, { line: line(), ontake: vi.fn() });
    await waitFor(() => expect(server.last('GET')?.path).toMatch(/weather$/));
    expect(document.querySelector('[data-weather]')).toBeNull();
  });

  it('draws the wind by key', async () => {
    const onset = vi.fn();
    render(WindRose, { speed: 4, from: 355, onset });
    const rose = screen.getByRole('slider', { name: 'Wind' });
    await fireEvent.keyDown(rose, { key: 'ArrowRight' });
    await fireEvent.keyDown(rose, { key: 'ArrowUp' });
    expect(onset.mock.calls).toEqual([
      [4, 0],
      [5, 355],
    ]);
  });
});

describe('the brief', () => {
  it('says in order what differs, focus, markers, and marks what changed since it was read', async () => {
    const read = view();
    read.briefRead = said(read.plan!, read);
    read.briefRead['corner c2'] = 'something else';
    read.briefReadAt = '2026-06-06T11:00:00Z';
    server.on('GET', /sessions\/s1$/, () => read);
    window.innerWidth = 1280;
    hosted(Brief, { params: { id: 's1' } });
    await screen.findByText('Differs today');
    expect([...document.querySelectorAll('h2')].map((h) => squeezed(h))).toEqual([
      'Differs today',
      'Focus',
      'Markers',
      'Warm-up',
      'Plan by lap',
      'Numbers',
      'When it goes wrong',
    ]);
    expect(screen.getByRole('status').textContent).toContain('One thing has changed');
    expect(document.body.textContent).toContain('Off the road: the lap is deleted');
    expect(document.querySelectorAll('tbody th')[1]?.textContent).toContain('▸');
    expect(document.querySelectorAll('tbody th')[0]?.textContent).not.toContain('▸');
  });

  it('goes corner by corner on a phone', async () => {
    window.innerWidth = 390;
    hosted(Brief, { params: { id: 's1' } });
    await screen.findByText('1 / 2');
    await fireEvent.click(screen.getByRole('button', { name: 'Next' }));
    expect(screen.getByText('2 / 2')).toBeTruthy();
    expect(document.body.textContent).toContain('braking 12 m sooner');
    window.innerWidth = 1280;
  });

  it('notes that it was read, with what it said', async () => {
    server.on('POST', /read$/, () => undefined);
    hosted(Brief, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'I have read it' }));
    await waitFor(() => expect(server.last('POST')?.path).toMatch(/read$/));
    expect((server.last('POST')?.body as { said: Record<string, string> }).said['corner c1']).toContain('40 m sooner');
    expect(changedSince({ a: 'x' }, { a: 'x', b: 'y' })).toEqual(new Set(['b']));
    expect(changedSince(null, { a: 'x' }).size).toBe(0);
  });
});

describe('the log', () => {
  const told = (cornerId: string, felt: 'EARLY' | 'GREAT', at: string, removed = false): Line => ({
    id: at,
    device: 'phone',
    at,
    removed,
    told: { about: 'CORNER', corner: cornerId, felt, words: '', hot: [], bled: false },
  });

  it('counts the last said of a corner, without what was taken back', () => {
    const lines = [told('c1', 'EARLY', '1'), told('c1', 'GREAT', '2'), told('c2', 'EARLY', '3', true)];
    expect([...standing(lines).felt]).toEqual([['c1', 'GREAT']]);
  });

  it('puts lines of two devices together, each once, what waits here on top', () => {
    const server: LogLine[] = [told('c1', 'EARLY', '1'), told('c2', 'EARLY', '2')];
    expect(
      merged(server, [told('c1', 'EARLY', '1', true), told('c3', 'GREAT', '0')]).map((l) => [l.id, l.removed]),
    ).toEqual([
      ['0', false],
      ['1', true],
      ['2', false],
    ]);
  });

  it('says a corner in two presses, the rest in one, and keeps it until the server has it', async () => {
    const sent: Line[] = [];
    server.on('POST', /sessions\/s1\/log$/, (s) => {
      sent.push(...(s.body as { lines: Line[] }).lines);
      return sent;
    });
    hosted(Log, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: '2' }));
    await fireEvent.click(screen.getByRole('button', { name: 'deep' }));
    await fireEvent.click(await screen.findByRole('button', { name: 'The rest as planned' }));
    await waitFor(() => expect(sent.map((l) => l.told.about).sort()).toEqual(['CORNER', 'REST']));
    expect(sent.find((l) => l.told.about === 'CORNER')?.told).toMatchObject({ corner: 'c2', felt: 'DEEP' });
    await waitFor(() => expect(document.body.textContent).toContain('All sent.'));
  });

  it('keeps what is said without a connection', async () => {
    server.on('POST', /sessions\/s1\/log$/, () => 503);
    hosted(Log, { params: { id: 's1' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'The rest as planned' }));
    await waitFor(() => expect(document.body.textContent).toContain('1 kept on this device, no connection'));
  });
});
