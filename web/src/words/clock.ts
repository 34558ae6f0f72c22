import { tell } from './tell';

const parts = (at: string, zone: string) => {
  const found = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hour12: false,
  }).formatToParts(new Date(at));
  return Object.fromEntries(found.map((p) => [p.type, p.value]));
};

/** The clock on the wall at the circuit. */
export function clock(at: string, zone: string): string {
  const p = parts(at, zone);
  return `${p.hour === '24' ? '00' : p.hour}:${p.minute}`;
}

/** The day at the circuit, with the name that fits its date. */
export function day(at: string, zone: string): string {
  const p = parts(at, zone);
  return `${p.weekday} ${p.day} ${p.month}`;
}

/** Hours of the day at the circuit, 13.5 for half past one. */
export function hours(at: string, zone: string): number {
  const p = parts(at, zone);
  return (Number(p.hour) % 24) + Number(p.minute) / 60 + Number(p.second) / 3600;
}

/** How long until an instant: "in 2 h 05", "in 12 min", "12 min ago". */
export function until(at: string, now: number): string {
  const minutes = Math.round((new Date(at).getTime() - now) / 60_000);
  const size = Math.abs(minutes);
  const words =
    size < 60
      ? tell('clock.min', { size })
      : size < 48 * 60
        ? `${Math.floor(size / 60)} h ${String(size % 60).padStart(2, '0')}`
        : tell('clock.days', { size: Math.round(size / 1440) });
  return minutes >= 0 ? tell('clock.in', { words }) : tell('clock.ago', { words });
}
