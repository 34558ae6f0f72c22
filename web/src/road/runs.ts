import type { BandView, DrivenView, LapLine, TraceView } from '../api/api';

/** Columns on the stations of one lap, those of another lap brought to them by straight lines. */
export function onStations(values: number[], from: number, to: number, count: number): number[] {
  if (from === to && values.length === count) return values;
  return Array.from({ length: count }, (_, i) => {
    const at = (i * to) / from;
    const k = Math.min(Math.floor(at), values.length - 1);
    const a = values[k] ?? 0;
    const b = values[Math.min(k + 1, values.length - 1)] ?? a;
    return a + (b - a) * (at - k);
  });
}

/** Seconds that the second lap is behind the first at each station of the first. */
export function behind(first: TraceView, second: TraceView): number[] {
  const times = onStations(second.times, second.step, first.step, first.speed.length);
  return times.map((t, i) => t - (first.times[i] ?? 0));
}

/** The station at which a lap is after some seconds. */
export function stationAt(trace: TraceView, seconds: number): number {
  const t = trace.times;
  let low = 0;
  let high = t.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((t[middle] ?? 0) <= seconds) low = middle;
    else high = middle;
  }
  const a = t[low] ?? 0;
  const b = t[high] ?? a;
  const share = b > a ? Math.max(0, Math.min(1, (seconds - a) / (b - a))) : 0;
  return (low + share) * trace.step;
}

/** A lap time as typed: 1:43.52, 1:43,52, 1.43,52 or 103.52. */
export function typedTime(text: string): number | null {
  const clean = text.trim();
  const minutes = /^(\d{1,2})(?::([0-5]?\d)(?:[.,](\d+))?|\.([0-5]\d),(\d+))$/.exec(clean);
  if (minutes) {
    const [, m, s = minutes[4], part = minutes[5] ?? '0'] = minutes;
    return Number(m) * 60 + Number(`${s}.${part}`);
  }
  return /^\d+([.,]\d+)?$/.test(clean) ? Number(clean.replace(',', '.')) : null;
}

/** The quickest lap that counts. */
export function best(laps: LapLine[]): LapLine | undefined {
  return laps
    .filter((l) => l.counts && l.measured)
    .reduce<LapLine | undefined>((a, b) => (!a || b.lapTime < a.lapTime ? b : a), undefined);
}

/** The values of a band that lie in a window, on stations unrolled as the drawing wants them. */
export function bandPoints(
  driven: Pick<DrivenView, 'from' | 'step'>,
  band: BandView,
  near: (station: number) => number,
  window: [number, number],
): { s: number; low: number; middle: number; high: number }[] {
  const first =
    near(driven.from + ((band.middle.length - 1) / 2) * driven.step) - ((band.middle.length - 1) / 2) * driven.step;
  return band.middle
    .map((middle, i) => ({
      s: first + i * driven.step,
      low: band.low[i] ?? middle,
      middle,
      high: band.high[i] ?? middle,
    }))
    .filter((p) => p.s >= window[0] && p.s <= window[1]);
}
