import { scaleLinear } from 'd3-scale';
import type { AnswerView, Corner, CornerEntry, LaidView, LapView, RoadView, Things } from '../api/api';
import { apart, station } from './points';
import { sampleAt } from './strip';

/** What a corner is drawn from. */
export interface Drawn {
  readonly road: RoadView;
  readonly corner: Corner;
  readonly entry: CornerEntry;
  readonly answer: AnswerView | undefined;
  readonly lap: LapView | undefined;
  readonly things: Things | undefined;
  readonly height: number;
}

export type Column = 'speed' | 'throttle' | 'brake' | 'offset';
export type Point = [number, number];

/** Rows of labels, and pixels of one. */
export const ROWS = 3;
export const ROW = 30;
/** Pixels of the road where it is widest, and of what stands left and right of it all. */
export const WIDEST = 88;
export const PADS = 10;
export const SPEED = 62;
export const GEARS = 24;
const AXIS = 18;
// Notes stand in two rows above the road.
const WORDS = 110;

/** Where everything of a corner lies in its drawing: stations along, rows down, and what the columns are there. */
export class CornerView {
  width = $state(900);
  /** The window holds still while something is dragged, and follows afterwards. */
  frozen = $state.raw<[number, number] | null>(null);

  constructor(private readonly of: Drawn) {}

  /** Keeps the window as it is, or lets it follow. */
  hold(still: boolean) {
    this.frozen = still ? this.domain : null;
  }

  readonly apex = $derived.by(() => this.of.corner.apexes[this.of.corner.apexes.length - 1] ?? this.of.corner.entry);
  /** A station unrolled next to the apex, so that a corner across the line stays in one piece. */
  readonly near = $derived.by(() => {
    const middle = this.apex;
    const length = this.of.road.length;
    return (s: number) => middle + apart(middle, s, length);
  });
  /** A station of the lap again. */
  readonly wrapped = $derived.by(() => {
    const length = this.of.road.length;
    return (s: number) => ((s % length) + length) % length;
  });

  private readonly wanted = $derived.by((): [number, number] => {
    const { entry, corner } = this.of;
    const all = [...entry.points, ...entry.actions].map((p) => this.near(p.station));
    const first = Math.min(this.near(corner.entry), ...all);
    const last = Math.max(this.near(corner.exit), ...all);
    const lead = Math.max(45, Math.min(110, (last - first) * 0.28));
    return [Math.floor((first - lead) / 10) * 10, Math.ceil((last + 35) / 10) * 10];
  });
  // As two numbers, so that nothing is drawn anew while they stay the same.
  private readonly from = $derived((this.frozen ?? this.wanted)[0]);
  private readonly to = $derived((this.frozen ?? this.wanted)[1]);
  readonly domain = $derived<[number, number]>([this.from, this.to]);
  readonly x = $derived(scaleLinear([this.from, this.to], [PADS, this.width - PADS]));
  readonly inside = $derived.by(() => {
    const [from, to] = this.domain;
    return (s: number) => s > from && s < to;
  });

  // Places on the left stand above the road.
  private readonly above = $derived.by(() =>
    this.of.things?.places.some((p) => p.left && this.near(p.to) > this.from && this.near(p.from) < this.to),
  );
  readonly top = $derived.by(() => (Object.keys(this.of.entry.details).length ? 62 : this.above ? 50 : 36));
  readonly roadMiddle = $derived(this.top + WIDEST / 2);
  readonly steps = $derived.by(() => {
    const [from, to] = this.domain;
    const out: number[] = [];
    for (let s = from; s <= to; s += Math.max(2, (to - from) / 240)) out.push(s);
    out.push(to);
    return out;
  });
  /** Metres from the middle to an edge, to the left above zero. */
  readonly edge = $derived.by(() => {
    const { road } = this.of;
    return (s: number, left: boolean) =>
      left ? sampleAt(road.left, road.step, road.length, s) : -sampleAt(road.right, road.step, road.length, s);
  });
  readonly widest = $derived.by(() => Math.max(...this.steps.map((s) => this.edge(s, true) - this.edge(s, false))));
  /** Pixels down of metres from the middle. */
  readonly y = $derived.by(() => {
    const middle = this.roadMiddle;
    const by = WIDEST / this.widest;
    return (offset: number) => middle - offset * by;
  });
  readonly leftEdge = $derived.by(() => this.steps.map((s): Point => [this.x(s), this.y(this.edge(s, true))]));
  readonly rightEdge = $derived.by(() => this.steps.map((s): Point => [this.x(s), this.y(this.edge(s, false))]));

  readonly labelTop = $derived(this.top + WIDEST + 38);
  readonly axisY = $derived(this.labelTop + ROWS * ROW + 6);
  readonly speedTop = $derived(this.axisY + AXIS);
  readonly pedalTop = $derived(this.speedTop + SPEED + 4);
  readonly gearTop = $derived.by(() => this.of.height - GEARS - 2);
  readonly pedalMid = $derived(this.pedalTop + (this.gearTop - 6 - this.pedalTop) * 0.45);
  readonly throttleY = $derived.by(() => {
    const [middle, reach] = [this.pedalMid, this.pedalMid - this.pedalTop - 4];
    return (v: number) => middle - v * reach;
  });
  readonly brakeY = $derived.by(() => {
    const [middle, reach] = [this.pedalMid, this.gearTop - 8 - this.pedalMid];
    return (v: number) => middle + Math.min(1.15, v) * reach;
  });
  /** Share of a pedal at a place down. */
  readonly share = $derived.by(() => {
    const [middle, top, bottom] = [this.pedalMid, this.pedalTop + 4, this.gearTop - 8];
    return (lane: string, py: number) =>
      lane === 'throttle' ? (middle - py) / (middle - top) : lane === 'brake' ? (py - middle) / (bottom - middle) : 0;
  });

  readonly profile = $derived.by(() => this.of.answer?.answer.profile);
  readonly profileFrom = $derived.by(() => {
    const profile = this.profile;
    if (!profile) return 0;
    const { length } = this.of.road;
    // The stretch may begin before the line: unroll it so that it ends near the apex.
    let from = profile.from;
    while (from > this.apex) from -= length;
    while (from + length < this.apex && from + profile.step * profile.speed.length < this.apex) from += length;
    return from;
  });
  /** What is planned here; beyond the stretch of this corner, what the computed lap does. */
  readonly valueAt = $derived.by(() => {
    const planned = this.profile;
    const from = this.profileFrom;
    const beyond = this.of.lap;
    const length = this.of.road.length;
    return (column: Column, s: number): number | null => {
      if (!planned) return null;
      const values = planned[column];
      const k = (s - from) / planned.step;
      const i = Math.floor(k);
      if (i < 0 || i >= values.length - 1) return beyond ? sampleAt(beyond[column], beyond.step, length, s) : null;
      const a = values[i] ?? 0;
      return a + ((values[i + 1] ?? a) - a) * (k - i);
    };
  });
  readonly curve = $derived.by(() => {
    const value = this.valueAt;
    const toX = this.x;
    return (column: Column, toY: (v: number) => number): Point[] =>
      this.steps.flatMap((s): Point[] => {
        const v = value(column, s);
        return v === null ? [] : [[toX(s), toY(v)]];
      });
  });
  readonly path = $derived.by(() => (this.profile ? this.curve('offset', this.y) : []));
  /** Pixels down of the path at a station. */
  readonly pathY = $derived.by(() => {
    const [value, toY] = [this.valueAt, this.y];
    return (s: number) => toY(value('offset', s) ?? 0);
  });

  private readonly shown = $derived.by(() =>
    this.steps.map((s) => this.valueAt('speed', s)).filter((v): v is number => v !== null),
  );
  // In whole steps, so that the scale holds still under small changes.
  private readonly slowest = $derived(Math.floor(Math.min(...this.shown, 200) * 0.92));
  private readonly quickest = $derived(Math.ceil(Math.max(...this.shown, 1)));
  readonly speedY = $derived(
    scaleLinear([this.slowest, this.quickest], [this.speedTop + SPEED - 6, this.speedTop + 14]),
  );

  readonly gearRuns = $derived.by(() => {
    const { profile } = this;
    const { lap } = this.of;
    const runs: { gear: number; from: number; to: number }[] = [];
    if (!profile) return runs;
    for (const s of this.steps) {
      const i = Math.round((s - this.profileFrom) / profile.step);
      const gear = profile.gear[i] ?? lap?.gear[Math.round(this.wrapped(s) / lap.step) % lap.gear.length];
      if (gear === undefined) continue;
      const last = runs[runs.length - 1];
      if (last && last.gear === gear) last.to = s;
      else runs.push({ gear, from: last ? last.to : s, to: s });
    }
    return runs;
  });
  readonly topGear = $derived(Math.max(6, ...this.gearRuns.map((r) => r.gear)));

  /** Share of the grip that the pressing asks for, from marker to release. */
  readonly asked = $derived.by(() => {
    const planned = this.profile;
    const { entry, answer } = this.of;
    if (!planned || !answer?.answer.pressing) return [];
    const first = this.profileFrom;
    const from = this.near(station(entry, 'BRAKE') ?? 0);
    const to = this.near(station(entry, 'RELEASE') ?? 0);
    return this.steps.flatMap((s) => {
      const v = planned.use[Math.round((s - first) / planned.step)];
      return v === undefined || s < from || s > to ? [] : [{ s, v }];
    });
  });

  /** Pixels down for words beside a place: in that half of the road in which the path is not, clear of its side's. */
  beside(at: number) {
    const { corner } = this.of;
    const there = this.path.filter(([px]) => px > this.x(at) - 5 && px < this.x(at) + WORDS);
    const middle = there.reduce((sum, [, py]) => sum + py, 0) / Math.max(1, there.length);
    const below = there.length > 0 && middle < this.y(0);
    const clear = below === corner.left && Math.abs(this.x(at) - this.x(this.near(corner.entry))) < WORDS ? 14 : 0;
    return below ? this.y(-this.widest / 2) - 6 - clear : this.y(this.widest / 2) + 13 + clear;
  }

  /** Line and speed of the same corner otherwise. */
  behind(under: AnswerView | null): { line: Point[]; speed: Point[] } | null {
    const p = under?.answer.profile;
    if (!p) return null;
    const { length } = this.of.road;
    const [from, to] = this.domain;
    const [toX, toY, toSpeed, unrolled] = [this.x, this.y, this.speedY, this.near];
    const line: Point[] = [];
    const speed: Point[] = [];
    p.speed.forEach((v, k) => {
      const s = unrolled((p.from + k * p.step + length) % length);
      if (s < from || s > to) return;
      line.push([toX(s), toY(p.offset[k] ?? 0)]);
      speed.push([toX(s), toSpeed(v)]);
    });
    return { line, speed };
  }

  /** The line laid anew. */
  anew(laid: LaidView | null): Point[] {
    if (!laid) return [];
    const { length } = this.of.road;
    const [from, to] = this.domain;
    const [toX, toY, unrolled] = [this.x, this.y, this.near];
    return laid.after.flatMap((offset, k): Point[] => {
      const s = unrolled((laid.from + k * laid.step) % length);
      return s < from || s > to ? [] : [[toX(s), toY(offset)]];
    });
  }
}
