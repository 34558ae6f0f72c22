// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import type { Component } from 'svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { EventView, PlannedSession, SessionPlan, TrackSession } from '../../api/api';
import { corner, LENGTH, road } from '../../testing/made';
import Host from '../../testing/Host.svelte';
import { server } from '../../testing/server';
import { squeezed } from '../../testing/shown';
import RacePanel from './RacePanel.svelte';
import RaceStrip from './RaceStrip.svelte';
import RulesPanel from './RulesPanel.svelte';
import SessionRuns from './SessionRuns.svelte';
import TyresPanel from './TyresPanel.svelte';
import { freshSession } from './sessions';

type Any = Component<Record<string, unknown>>;
const shown = (what: unknown, given: Record<string, unknown>) => render(Host, { shown: what as Any, given });

const draft = (): TrackSession => freshSession('RACE', '2026-06-06T14:00:00', 'Europe/Lisbon');
const plan = {
  motorcycle: false,
  tread: [],
  wheels: [{ wheel: 0, hot: 190, cold: 141, low: 138, high: 144, hotAt: 76, learned: true, refused: '' }],
  corners: [
    { corner: 'c1', called: 'Long' },
    { corner: 'c2', called: '2' },
  ],
  straights: {
    budget: 500_000,
    rounding: 0.03,
    shares: [
      { after: 'c1', part: 0.68, tenths: 7, seconds: 0.41 },
      { after: 'c2', part: 0.32, tenths: 2, seconds: 0.2 },
      // A corner that is braked for twice has a stretch after each.
      { after: 'c2', part: 0.1, tenths: 1, seconds: 0.05 },
    ],
    device: [{ from: 100, to: 600, into: 'c2', faster: 2.5, seconds: 0.21, metres: 6 }],
  },
} as unknown as SessionPlan;

const corners = [corner(), corner({ id: 'c2', number: '2', entry: 1200, apexes: [1240], exit: 1290 })];

beforeEach(() => {
  server.reset();
  server.on('GET', /sessions\/s1\/tyres$/, () => ({
    wheels: [0.3, 0.4, 0.12, 0.18],
    most: 1,
    rate: 0.8,
    costs: 0.09,
    words: ['The front right tyre works most, 40 % of all sliding.'],
    corners: [
      { corner: 'c1', called: 'Long', share: 0.6, saved: 0.05, seconds: 0.04, rank: 1 },
      { corner: 'c2', called: '2', share: 0.4, saved: 0.02, seconds: 0.06, rank: 2 },
    ],
  }));
  server.on('GET', /sessions\/s1\/race$/, () => ({
    craft: {
      held: [
        { corner: 'c1', seconds: 0.2 },
        { corner: 'c2', seconds: 0.6 },
      ],
      breathing: [{ from: 1900, to: 100, seconds: 3.2 }],
      posts: [{ label: '7', station: 1100, left: true, sight: 180, seconds: 4, corner: 'c2' }],
      gauges: [
        { corner: 'c1', at: 300, arriving: 58, slowest: 24 },
        { corner: 'c2', at: 1170, arriving: 41, slowest: 19 },
      ],
    },
    pass: [{ id: 'p', kind: 'PASS', left: true, from: 1150, to: 1190, label: '', note: '' }],
    called: { c1: 'Long', c2: '2' },
  }));
  server.on('GET', /sessions\/s1\/inside\/c1$/, () => ({
    inside: {
      corner: 'c1',
      metres: 9,
      slowest: 22,
      usual: 25,
      seconds: 0.31,
      until: 900,
      from: 380,
      step: 1,
      offset: Array.from({ length: 240 }, (_, k) => Math.sin(k / 40)),
    },
  }));
  server.on('GET', /sessions\/s1\/inside\/c2$/, () => ({}));
});

describe('tyres of a session', () => {
  const at = () => shown(TyresPanel, { session: 's1', version: 1, draft: draft(), plan, put, onselect });
  const put = vi.fn();
  const onselect = vi.fn();

  it('fills each by its share, and spares where one ticks', async () => {
    at();
    await waitFor(() => expect(screen.getByText(/front right tyre works most/)).toBeTruthy());
    const filled = [...document.querySelectorAll('[data-tyres] rect[rx="4"]')].map((r) =>
      Number(r.getAttribute('height')),
    );
    expect(filled[1]).toBeGreaterThan(filled[0] ?? 0);
    expect((filled[0] ?? 0) / (filled[1] ?? 1)).toBeCloseTo(0.75, 6);
    const lines = screen.getAllByRole('checkbox', { name: /Spare them/ });
    expect(lines).toHaveLength(2);
    await fireEvent.click(screen.getByRole('checkbox', { name: 'Spare them in Long' }));
    expect(put.mock.calls.at(-1)?.[0]).toMatchObject({ tyres: { spared: ['c1'] } });
  });

  it('draws what was read across a tread the way the wheel stands, and keeps one reading beside the others', async () => {
    const tread = [
      {
        wheel: 0,
        outer: 60,
        middle: 80,
        inner: 100,
        words: ['the inner side is 40 °C hotter: try a step less camber'],
      },
      { wheel: 1, outer: 60, middle: 80, inner: 100, words: ['as it should be'] },
    ];
    const read = draft();
    read.tyres.tread = [60, 80, 100, 60, 80, 100];
    shown(TyresPanel, { session: 's1', version: 1, draft: read, plan: { ...plan, tread }, put, onselect });
    const drawn = (name: RegExp) =>
      [...screen.getByRole('img', { name }).querySelectorAll('rect')]
        .sort((a, b) => Number(a.getAttribute('x')) - Number(b.getAttribute('x')))
        .map((r) => Number(r.getAttribute('height')));
    // The inner sides face each other.
    const left = drawn(/^front left: the inner side is 40 °C hotter/);
    expect(left[0]).toBeLessThan(left[2] ?? 0);
    expect(drawn(/^front right: as it should be/)).toEqual([...left].reverse());
    const field = screen.getByLabelText('rear left, middle °C');
    await fireEvent.change(field, { target: { value: '75' } });
    const kept = put.mock.calls.at(-1)?.[0].tyres.tread;
    expect(kept).toHaveLength(12);
    expect(kept.slice(0, 8)).toEqual([60, 80, 100, 60, 80, 100, null, 75]);
  });

  it('takes a hot pressure of one wheel and leaves the others', async () => {
    at();
    const field = screen.getByLabelText('rear left, hot kPa');
    await fireEvent.change(field, { target: { value: '185' } });
    expect(put.mock.calls.at(-1)?.[0]).toMatchObject({ tyres: { hot: [null, null, 185, null] } });
  });
});

describe('rules that cost', () => {
  it('weighs the edge against what going over it costs, and asks for nothing where nothing is counted', async () => {
    server.on('GET', /sessions\/s1\/limits$/, () => ({
      cost: { seconds: 0.3, corners: [{ corner: 'c2', seconds: 0.2 }], breach: 1.5, pays: 5 },
      words: 'Keeping 0.5 m off the edges costs 0.30 s a lap.',
      corners: [
        { corner: 'c2', called: '2', seconds: 0.2 },
        { corner: 'c1', called: 'Long', seconds: 0.1 },
      ],
    }));
    const put = vi.fn();
    const onselect = vi.fn();
    const of = { session: 's1', version: 1, device: false, put, onselect };
    const free = shown(RulesPanel, { ...of, draft: draft() });
    expect(screen.queryByLabelText('then it costs, s')).toBeNull();
    free.unmount();
    const warned = { ...draft(), rules: { ...draft().rules, limits: 'WARNINGS' as const } };
    shown(RulesPanel, { ...of, draft: warned });
    await screen.findByText(/Keeping 0.5 m off the edges/);
    const bars = [...document.querySelectorAll('ul[aria-label="Where the edge is worth most"] .h-2\\.5')];
    expect(bars.map((e) => (e as HTMLElement).style.width)).toEqual(['100%', '50%']);
    await fireEvent.click(screen.getByRole('button', { name: 'Long' }));
    expect(onselect.mock.calls).toEqual([['c1']]);
    await fireEvent.change(screen.getByLabelText('then it costs, s'), { target: { value: '5' } });
    expect(put.mock.calls.at(-1)?.[0]).toMatchObject({ rules: { limits: 'WARNINGS', penalty: 5 } });
    await fireEvent.change(screen.getByLabelText('place on the grid'), { target: { value: '4' } });
    expect(put.mock.calls.at(-1)?.[0]).toMatchObject({ rules: { grid: 4 } });
  });

  it('asks for a second set and draws when to change', async () => {
    const put = vi.fn();
    const of = { session: 's1', version: 1, put, onselect: vi.fn() };
    const one = shown(TyresPanel, { ...of, draft: draft(), plan });
    await fireEvent.click(screen.getByRole('checkbox', { name: 'two sets must be used' }));
    expect(put.mock.calls.at(-1)?.[0]).toMatchObject({ tyres: { second: { grip: 1, age: 0 } } });
    one.unmount();
    const two = { ...draft(), tyres: { ...draft().tyres, second: { set: 'harder', grip: 0.985, age: 0 } } };
    const split = { change: 9, laps: 20, earliest: 7, latest: 11, gained: 4.2 };
    shown(TyresPanel, { ...of, draft: two, plan: { ...plan, split } });
    expect(squeezed(document.querySelector('[data-split]')!)).toContain('Change after lap 9 of 20; from 7 to 11');
    const bars = [...document.querySelectorAll('[data-split] rect')].map((r) => Number(r.getAttribute('width')));
    expect(bars[0]).toBe(9);
    expect(bars[1]).toBe(11);
    await fireEvent.change(screen.getByLabelText('its grip, %'), { target: { value: '97' } });
    expect(put.mock.calls.at(-1)?.[0]).toMatchObject({ tyres: { second: { set: 'harder', grip: 0.97 } } });
  });
});

describe('boost and device', () => {
  it('shows tenths, what they gain, and where to shut the device', () => {
    shown(RacePanel, { plan });
    const list = screen.getByRole('list', { name: 'Where the boost goes' });
    expect(squeezed(list)).toContain('after Long');
    expect(squeezed(list)).toContain('70 %, 0.41 s');
    expect(list.querySelectorAll('li')).toHaveLength(3);
    expect(list.querySelectorAll('li:first-child .bg-base-content\\/60')).toHaveLength(7);
    expect(squeezed(document.body)).toContain('brake 6 m sooner. Shut it before you brake.');
  });

  it('asks for zones only where the vehicle has a device', async () => {
    const put = vi.fn();
    const of = { session: 's1', version: 1, onselect: vi.fn() };
    const none = shown(RulesPanel, { ...of, draft: draft(), device: false, put });
    expect(screen.queryByRole('button', { name: /device zone/ })).toBeNull();
    none.unmount();
    shown(RulesPanel, { ...of, draft: draft(), device: true, put });
    await fireEvent.click(screen.getByRole('button', { name: 'One more device zone' }));
    expect(put.mock.calls.at(-1)?.[0]).toMatchObject({ rules: { device: [{ from: 0, to: 300 }] } });
  });
});

describe('racing others', () => {
  it('draws what following costs, names the dearest, and tells the chosen corner from the inside', async () => {
    const onselect = vi.fn();
    shown(RaceStrip, { session: 's1', version: 1, road: road(), corners, selected: 'c1', onselect });
    await waitFor(() => expect(document.querySelector('[data-inside]')).toBeTruthy());
    expect(squeezed(document.querySelector('[data-inside]'))).toContain('Long from the inside: brake 9 m sooner');
    expect(squeezed(document.body)).toContain('you lose most in 2 (0.60 s), Long (0.20 s)');
    expect(squeezed(document.body)).toContain('post 7 left, 180 m');
    expect(squeezed(document.querySelector('[data-gauge-words]'))).toContain(
      'a second ahead into Long is 58 m in front as you come to it (drawn) and 24 m in it',
    );
    expect(document.querySelectorAll('[data-gauge] path')).toHaveLength(2);
    // The stretch that runs over the line is drawn in two pieces.
    expect(document.querySelectorAll('[data-race-strip] rect[rx="5"]')).toHaveLength(2);
    await fireEvent.keyDown(screen.getByRole('button', { name: /2: 0.60 s behind/ }), { key: 'Enter' });
    expect(onselect).toHaveBeenCalledWith('c2');
    expect(road().length).toBe(LENGTH);
  });

  it('says where there is no way alongside', async () => {
    shown(RaceStrip, { session: 's1', version: 1, road: road(), corners, selected: 'c2', onselect: vi.fn() });
    await waitFor(() => expect(squeezed(document.body)).toContain('2: no way to come alongside before it.'));
  });
});

describe('runs of a session', () => {
  const view = {
    line: { id: 's1', event: 'e1', reference: 'r1', session: draft(), begins: '2026-06-06T13:00:00Z' },
    runs: [
      { id: 'a', name: 'Run 1', drivenAt: '2026-06-06T13:00:00Z' },
      { id: 'b', name: 'Run 2', drivenAt: '2026-06-06T13:20:00Z' },
    ],
    parts: [{ id: 's9', name: 'Morning', begins: '2026-06-06T09:00:00Z' }],
  } as unknown as PlannedSession;
  const events = [
    {
      id: 'e1',
      name: 'Weekend',
      zone: 'Europe/Lisbon',
      sessions: [
        { id: 's1', reference: 'r1', session: draft(), begins: '2026-06-06T13:00:00Z' },
        { id: 's2', reference: 'r1', session: draft(), begins: '2026-06-06T15:00:00Z' },
        { id: 's3', reference: 'other', session: draft(), begins: '2026-06-06T16:00:00Z' },
      ],
    },
    { id: 'e2', name: 'Lesson', zone: 'Europe/Lisbon', sessions: [] },
  ] as unknown as EventView[];
  const given = () => ({ view, events, onchanged: vi.fn(), onproblem: vi.fn() });

  it('makes a run a session of its own, and takes that back', async () => {
    server.on('POST', /sessions\/s1\/parts$/, () => ({ id: 's7' }));
    server.on('PUT', /joined$/, () => undefined);
    shown(SessionRuns, given());
    await fireEvent.click(screen.getByRole('button', { name: 'Make Run 2 a session of its own' }));
    await waitFor(() => expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy());
    expect(server.last('POST')?.body).toEqual({ runs: ['b'] });
    await fireEvent.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(server.last('PUT')?.path).toContain('/sessions/s7/joined'));
    expect(server.last('PUT')?.body).toEqual({ into: 's1' });
  });

  it('takes in sessions of the same reference only, parts one again, and moves it to another event', async () => {
    server.on('PUT', /joined$|event$/, () => undefined);
    shown(SessionRuns, given());
    const take = screen.getByLabelText('Take another session in');
    expect(take.querySelectorAll('option')).toHaveLength(2);
    await fireEvent.change(take, { target: { value: 's2' } });
    await waitFor(() => expect(server.last('PUT')?.path).toContain('/sessions/s2/joined'));
    await fireEvent.click(screen.getByRole('button', { name: 'Part' }));
    await waitFor(() => expect(server.last('PUT')?.path).toContain('/sessions/s9/joined'));
    expect(server.last('PUT')?.body).toEqual({ into: null });
    await fireEvent.change(screen.getByLabelText('Event of this session'), { target: { value: 'e2' } });
    await waitFor(() => expect(server.last('PUT')?.body).toEqual({ event: 'e2' }));
  });
});
