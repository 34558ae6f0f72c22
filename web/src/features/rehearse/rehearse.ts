import { api, ask, type AskedView, type ClockView, type ToldView, type TraceView } from '../../api/api';
import { browserShelf, type Shelf } from '../../api/shelf';
import { newId } from '../../kit/id';
import type { Alignment } from '../film/film';
import { tell } from '../../words/tell';

export type Control = ClockView['due'][number]['key'];

export interface Press {
  key: Control;
  /** Seconds by the wall since the line was crossed. */
  at: number;
  /** To which the thumb slid, 0 to 1. */
  amount?: number;
  /** Which of the two keys of the brake it was. */
  hard?: boolean;
}

/** Pixels of a full slide of the thumb, and those below which it is a press alone. */
const SLIDE = 130;
const STILL = 12;
/** How much of the pedal a slide upwards is; undefined for a press alone. */
export const slid = (up: number): number | undefined =>
  Math.abs(up) < STILL ? undefined : Math.max(0, Math.min(1, Math.round((up / SLIDE) * 20) / 20));

/** What was answered or driven, as it waits on this device until the server has it. */
export interface Answer {
  id: string;
  at: string;
  answered: {
    fact: string;
    told?: number;
    right: number;
    precision: number;
    rate: number;
    lag: number;
    dark: boolean;
    start?: number;
    end?: number;
    keys: Control[];
    presses: Press[];
    /** Where each action was planned that was asked for, by corner and action. */
    stations?: Record<string, number>;
  };
}

export type Answers = Shelf<Answer>;
export const browserAnswers = (): Answers => browserShelf<Answer>('marvek-rehearsed', 'answers');

const MOST = 400;

/** Sends what waits; what the server has waits no more. */
export async function send(shelf: Answers, session: string): Promise<ToldView | null> {
  const waiting = (await shelf.read(session)).slice(0, MOST);
  if (!waiting.length) return null;
  const told = await ask(
    api.POST('/api/sessions/{id}/rehearsed', { params: { path: { id: session } }, body: { answers: waiting } }),
  );
  await shelf.take(session, waiting);
  return told;
}

/** An answer to a fact; nothing told is "no idea". */
export function answered(asked: AskedView, told: number | undefined, now: Date): Answer {
  return {
    id: newId(),
    at: now.toISOString(),
    answered: {
      fact: asked.fact.id,
      ...(told === undefined ? {} : { told }),
      right: asked.fact.answer,
      precision: asked.fact.precision,
      rate: 0,
      lag: 0,
      dark: false,
      keys: [],
      presses: [],
    },
  };
}

/** A film that is open on this page, and how it goes with a lap. */
export interface Film {
  url: string;
  trace: TraceView;
  alignment: Alignment;
}

/** Where the picture is that asks for a place: 25 to 95 m before it, by its name, so that nothing is given away. */
export function stillBefore(fact: AskedView['fact'], length: number): number {
  let sum = 7;
  for (const letter of fact.id) sum = (sum * 31 + letter.charCodeAt(0)) % 9973;
  return (fact.answer - 25 - (sum % 71) + length) % length;
}

/** Metres from one station to another, the short way round. */
export function apart(from: number, to: number, length: number): number {
  const by = (((to - from) % length) + length) % length;
  return by > length / 2 ? by - length : by;
}

/** Where one is at a time of the road: station and what the engine does. */
export function placeAt(
  clock: ClockView,
  seconds: number,
): { station: number; speed: number; revs: number; gear: number } {
  const lap = clock.lapTime;
  const within = ((seconds % lap) + lap) % lap;
  let low = 0;
  let high = clock.times.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((clock.times[middle] ?? 0) <= within) low = middle;
    else high = middle - 1;
  }
  const from = clock.times[low] ?? 0;
  const last = low + 1 >= clock.times.length;
  const to = last ? lap : (clock.times[low + 1] ?? lap);
  const share = to > from ? (within - from) / (to - from) : 0;
  const next = last ? 0 : low + 1;
  const mix = (values: number[]) => (values[low] ?? 0) + share * ((values[next] ?? 0) - (values[low] ?? 0));
  const start = low * clock.step;
  const way = last ? clock.length - start : clock.step;
  return {
    station: start + share * way,
    speed: mix(clock.speed),
    revs: clock.gear[low] === clock.gear[next] ? mix(clock.revs) : (clock.revs[low] ?? 0),
    gear: clock.gear[low] ?? 1,
  };
}

/** When one is at a station. */
export function timeAt(clock: ClockView, station: number): number {
  const s = ((station % clock.length) + clock.length) % clock.length;
  const i = Math.min(clock.times.length - 1, Math.floor(s / clock.step));
  const from = clock.times[i] ?? 0;
  const last = i + 1 >= clock.times.length;
  const to = last ? clock.lapTime : (clock.times[i + 1] ?? clock.lapTime);
  const way = last ? clock.length - i * clock.step : clock.step;
  return from + ((s - i * clock.step) / Math.max(1e-9, way)) * (to - from);
}

/** A stretch in time: how far along it one is, and how fast, at each moment since its beginning. */
export function replayed(profile: { step: number; speed: number[] }) {
  const { step, speed } = profile;
  const times = [0];
  for (let i = 1; i < speed.length; i++) {
    // Nobody drives backwards; a standstill would take for ever.
    const mean = Math.max(0.5, ((speed[i - 1] ?? 0) + (speed[i] ?? 0)) / 2);
    times.push((times[i - 1] ?? 0) + step / mean);
  }
  const share = (seconds: number): [number, number] => {
    let i = 0;
    while (i < times.length - 2 && (times[i + 1] ?? Infinity) <= seconds) i++;
    const from = times[i] ?? 0;
    const to = times[i + 1] ?? from;
    return [i, to > from ? Math.max(0, Math.min(1, (seconds - from) / (to - from))) : 0];
  };
  return {
    times,
    /** When one is so far along it. */
    when(along: number): number {
      const at = Math.max(0, Math.min(times.length - 1, along / step));
      const i = Math.floor(at);
      const from = times[i] ?? 0;
      return from + (at - i) * ((times[i + 1] ?? from) - from);
    },
    along(seconds: number): number {
      const [i, f] = share(seconds);
      return (i + f) * step;
    },
    speed(seconds: number): number {
      const [i, f] = share(seconds);
      return (speed[i] ?? 0) * (1 - f) + (speed[i + 1] ?? speed[i] ?? 0) * f;
    },
  };
}

/** Pulses a second of an engine: each cylinder fires once in as many turns as half its strokes. */
export const firing = (revs: number, cylinders: number, strokes: number): number =>
  ((revs / 60) * cylinders) / (strokes / 2);

export interface Lag {
  seconds: number;
  spread: number;
}

/** Passes of which the first few do not count, and how unsteady or slow the rest may be. */
const DROPPED = 4;
const UNSTEADY = 0.06;
const SLOW = 0.2;

/** What a device and its driver lag, from passes of a mark; null where it is too unsteady or slow to take off. */
export function lagOf(late: number[]): Lag | null {
  const counted = late.slice(DROPPED).sort((a, b) => a - b);
  if (counted.length < 4) return null;
  const middle = counted.length / 2;
  const median =
    counted.length % 2 ? (counted[Math.floor(middle)] ?? 0) : ((counted[middle - 1] ?? 0) + (counted[middle] ?? 0)) / 2;
  const mean = counted.reduce((s, v) => s + v, 0) / counted.length;
  const spread = Math.sqrt(counted.reduce((s, v) => s + (v - mean) ** 2, 0) / (counted.length - 1));
  return spread > UNSTEADY || Math.abs(median) > SLOW ? null : { seconds: Math.max(0, median), spread };
}

const key = (dark: boolean) => `marvek-lag-${dark ? 'dark' : 'seen'}`;
export const keptLag = (dark: boolean): number => Number(localStorage.getItem(key(dark)) ?? 0) || 0;
export const keepLag = (dark: boolean, seconds: number): void => localStorage.setItem(key(dark), String(seconds));

/** Kinds of action in the order that their numbers stand for. */
export const KINDS: NonNullable<AskedView['fact']['kind']>[] = [
  'PLACE',
  'LIFT',
  'BRAKE',
  'EASE',
  'SHIFT',
  'HANDS',
  'APEX',
  'THROTTLE',
  'FULL',
  'EYES',
  'BODY',
];

const WORDS: Record<(typeof KINDS)[number], string> = {
  PLACE: tell('rehearse.be_in_place'),
  LIFT: tell('rehearse.lift'),
  BRAKE: tell('rehearse.brake'),
  EASE: tell('rehearse.ease_the_brake'),
  SHIFT: tell('rehearse.shift'),
  HANDS: tell('rehearse.turn_in'),
  APEX: tell('rehearse.reach_the_apex'),
  THROTTLE: tell('rehearse.open_the_throttle'),
  FULL: tell('rehearse.go_to_full_throttle'),
  EYES: tell('rehearse.look'),
  BODY: tell('rehearse.move_your_weight'),
};

/** What is asked, in words. */
export const ASKS = Object.assign(
  (fact: AskedView['fact']): string => {
    const what = fact.kind ? WORDS[fact.kind] : '';
    switch (fact.asks) {
      case 'PLACE':
        return tell('rehearse.where_do_you', { what });
      case 'SHARE':
        return fact.kind === 'LIFT'
          ? tell('rehearse.how_much_throttle_do_you')
          : fact.kind === 'BRAKE'
            ? tell('rehearse.how_hard_do_you_brake')
            : tell('rehearse.how_far_do_you', { what });
      case 'GEAR':
        return tell('rehearse.which_gear_at_the_slowest');
      case 'NEXT':
        return tell('rehearse.you_what_comes_after_it', { what });
      case 'BEFORE':
        return tell('rehearse.you_what_came_before_it', { what });
    }
  },
  { kind: (kind: (typeof KINDS)[number]): string => WORDS[kind] },
);
