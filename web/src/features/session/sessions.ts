import { tell } from '../../words/tell';
import type { EventView, Felt, SessionKind, SessionLine, Told, TrackSession } from '../../api/api';
import { day, hours } from '../../words/clock';

export const KINDS: Record<SessionKind, string> = {
  TEST: tell('sessions.test'),
  PRACTICE: tell('sessions.practice'),
  QUALIFYING: tell('sessions.qualifying'),
  RACE: tell('sessions.race'),
  COACHING: tell('sessions.coaching'),
};

/** Sessions of an event by the day at the circuit. */
export function byDay(event: EventView): { day: string; sessions: SessionLine[] }[] {
  const out: { day: string; sessions: SessionLine[] }[] = [];
  for (const s of event.sessions) {
    const d = day(s.begins, event.zone);
    const last = out.at(-1);
    if (last?.day === d) last.sessions.push(s);
    else out.push({ day: d, sessions: [s] });
  }
  return out;
}

/** The hours that a day's line spans: what is due, and an hour around. */
export function span(sessions: SessionLine[], zone: string): [number, number] {
  let from = 24;
  let to = 0;
  for (const s of sessions) {
    const begin = hours(s.begins, zone);
    const lasts = (new Date(s.ends).getTime() - new Date(s.begins).getTime()) / 3_600_000;
    from = Math.min(from, begin - 1.5);
    to = Math.max(to, begin + lasts + 1.5);
  }
  return from > to ? [8, 18] : [Math.max(0, Math.floor(from)), Math.min(30, Math.ceil(to))];
}

/** What is due next of a session at a time; null when nothing is. */
export const nextDue = (s: SessionLine, now: number): SessionLine['due'][number] | null =>
  s.due.find((d) => !d.done && new Date(d.last).getTime() > now) ?? null;

export function freshSession(kind: SessionKind, wall: string, zone: string): TrackSession {
  return {
    kind,
    name: KINDS[kind].replace(/^./, (c) => c.toUpperCase()),
    timing: { start: { wall, zone }, minutes: kind === 'RACE' ? 40 : 20, later: 0, state: 'ON' },
    day: {
      like: '',
      day: {
        grip: 1,
        extraMass: 0,
        windSpeed: 0,
        windFrom: 0,
        drag: 1,
        downforce: 1,
        hour: '',
        surface: { state: 'DRY', dried: 0 },
      },
      rubber: 'USUAL',
    },
    tyres: { set: '', age: 0, warmers: false, hot: [], lastCold: [], lastHot: [], spared: [] },
    fuel: { rest: 0, formation: 0, oneMore: false, used: [] },
    rules: { limits: 'UNKNOWN', must: '', device: [], warnings: 0 },
    focus: [],
    done: [],
    aim: '',
    ways: [],
  };
}

/** What of the log stands: the last said of each corner, and whether the rest went as planned. */
export function standing(lines: { told: Told; removed: boolean }[]): { felt: Map<string, Felt>; rest: boolean } {
  const felt = new Map<string, Felt>();
  let rest = false;
  for (const l of lines) {
    if (l.removed) continue;
    if (l.told.about === 'REST') rest = true;
    if (l.told.about === 'CORNER' && l.told.corner && l.told.felt) felt.set(l.told.corner, l.told.felt);
  }
  return { felt, rest };
}

/** Parts of a brief with what each says, to tell later what has changed since it was read. */
export function said(
  plan: {
    corners: { corner: string; words: { line: string }; today: { differences: { words: string }[] } }[];
    focus: { called: string; words: string }[];
    today: { laps: number; warmFrom: number };
  },
  view: { line: { begins: string; session: TrackSession }; conditions: string },
): Record<string, string> {
  const out: Record<string, string> = {
    begins: view.line.begins,
    state: view.line.session.timing.state,
    conditions: view.conditions ?? '',
    laps: String(plan.today.laps),
    warm: String(plan.today.warmFrom),
    focus: plan.focus.map((f) => f.called).join(', '),
  };
  for (const c of plan.corners)
    out[`corner ${c.corner}`] = [c.words.line, ...c.today.differences.map((d) => d.words)].join('; ').slice(0, 399);
  return out;
}

/** Keys of parts that say something else now. */
export function changedSince(
  read: Record<string, string> | null | undefined,
  now: Record<string, string>,
): Set<string> {
  const out = new Set<string>();
  if (!read) return out;
  for (const [key, words] of Object.entries(now)) if (read[key] !== words) out.add(key);
  return out;
}
