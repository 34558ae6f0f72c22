import { session } from '../api/session.svelte';
import { tell } from './tell';

const METRES: Record<string, number> = { M: 1, FT: 0.3048, YD: 0.9144 };
const SYMBOLS: Record<string, string> = { M: 'm', FT: 'ft', YD: 'yd' };
const MPH = 1609.344 / 3600;
const MINUS = '−';

const length = () => session.person?.length ?? 'M';
const speed = () => session.person?.speed ?? 'KMH';

/** Numbers with a real minus and thin spaces between thousands. */
export function plain(value: number, digits = 0): string {
  const text = Math.abs(value).toFixed(digits);
  const [whole = '', part] = text.split('.');
  const spaced = whole.replace(/\B(?=(\d{3})+$)/g, '\u202f');
  const zero = Number(text) === 0;
  return (value < 0 && !zero ? MINUS : '') + spaced + (part ? '.' + part : '');
}

export const signed = (value: number, digits = 0): string =>
  (Number(value.toFixed(digits)) > 0 ? '+' : '') + plain(value, digits);

export const inLength = (metres: number): number => metres / (METRES[length()] ?? 1);
export const fromLength = (shown: number): number => shown * (METRES[length()] ?? 1);
export const lengthUnit = (): string => SYMBOLS[length()] ?? 'm';
export const metres = (value: number, digits = 0): string => `${plain(inLength(value), digits)} ${lengthUnit()}`;
/** A radius, with how far it may be out where that is more than a tenth. */
export const radiusText = (c: { radius: number; doubt: number }): string =>
  c.doubt > 0.1 ? `${metres(c.radius)} ± ${metres(c.doubt * c.radius)}` : metres(c.radius);
// Of two units the first is the one for numbers, scales and fields.
const miles = () => speed().startsWith('MPH');
export const inSpeed = (ms: number): number => (miles() ? ms / MPH : ms * 3.6);
export const speedUnit = (): string => (miles() ? 'mph' : 'km/h');
const other = (ms: number) => (miles() ? `${plain(ms * 3.6)} km/h` : `${plain(ms / MPH)} mph`);
export const speedText = (ms: number): string =>
  `${plain(inSpeed(ms))} ${speedUnit()}${speed().includes('_') ? ` (${other(ms)})` : ''}`;
/** Standard gravity, m/s². */
export const G = 9.80665;
export const g = (acceleration: number): string => plain(acceleration / G, 2);

/** 92.56 s as 1:32.56. */
export function lapTime(seconds: number): string {
  const hundredths = Math.round(seconds * 100);
  const minutes = Math.floor(hundredths / 6000);
  const rest = ((hundredths % 6000) / 100).toFixed(2).padStart(5, '0');
  return `${minutes}:${rest}`;
}

/** What a lap as planned leaves out: it takes corners that cannot be made as computed. */
export const butFor = (unmade: number): string =>
  unmade === 0 ? '' : tell('units.but_for_corner_corners_that', { unmade });
export const plannedLap = (lap: { seconds: number; unmade: number }): string =>
  `${lapTime(lap.seconds)} ${butFor(lap.unmade)}`.trim();

/** Bytes in the unit that one would say. */
export function size(bytes: number): string {
  const [unit, one] = bytes >= 2 ** 30 ? ['GB', 2 ** 30] : bytes >= 2 ** 20 ? ['MB', 2 ** 20] : (['kB', 1024] as const);
  const value = bytes / one;
  return `${plain(value, value >= 100 ? 0 : 1)} ${unit}`;
}

export const degrees = (radians: number): number => (radians * 180) / Math.PI;
