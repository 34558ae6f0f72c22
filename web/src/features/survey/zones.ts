import type { Severity, Zone, ZoneWords } from '../../api/api';
import { fromLength, inLength, inSpeed, lengthUnit, plain, speedUnit } from '../../words/units';
import { tell } from '../../words/tell';

/** An amount as it is shown and typed: what it is of, its unit, and the way there and back. */
export interface Amount {
  what: string;
  unit: string;
  step: number;
  shown: (amount: number) => number;
  amount: (shown: number) => number;
}

/** m/s at which bumps take what is said of them. */
const BUMPS_AT = 50;

/** How the amount of a kind of zone is told. */
export function amountOf(effect: ZoneWords['effect']): Amount {
  const share = (what: string, step: number): Amount => ({
    what,
    unit: '%',
    step,
    shown: (a) => Math.round(a * 1000) / 10,
    amount: (v) => v / 100,
  });
  const length = (what: string, step: number): Amount => ({
    what,
    unit: lengthUnit(),
    step,
    shown: (a) => Math.round(inLength(a) * 10) / 10,
    amount: fromLength,
  });
  switch (effect) {
    case 'GRIP':
      return share(tell('zones.grip_left'), 1);
    case 'LOAD':
      return share(tell('zones.load_left_at', { bUMPS_AT: plain(inSpeed(BUMPS_AT)), speedUnit: speedUnit() }), 1);
    case 'CREST':
      return length(tell('zones.radius_of_the_crest'), 10);
    case 'DIP':
      return length(tell('zones.radius_of_the_dip'), 10);
    case 'CAMBER_OUT':
      return share(tell('zones.falls_outwards'), 0.5);
    case 'CAMBER_IN':
      return share(tell('zones.falls_inwards'), 0.5);
    case 'LEVEL':
      return share('Falls', 0.5);
    case 'WIND':
      return {
        what: tell('zones.times_the_wind'),
        unit: '×',
        step: 0.1,
        shown: (a) => Math.round(a * 100) / 100,
        amount: (v) => v,
      };
    case 'ROOM':
      return length(tell('zones.kept_from_the_edge'), 0.1);
    case 'BEYOND':
      return length('Wide', 0.5);
  }
}

/** What slight, plain and severe mean here: by the survey's own table, else what is usual. */
export function severitiesOf(kind: ZoneWords, table: Severity[]): [number, number, number] {
  const own = table.find((s) => s.kind === kind.kind);
  return own ? [own.slight, own.plain, own.severe] : (kind.usual as [number, number, number]);
}

/** How much a zone is, in the unit of its kind. */
export const sizeOf = (zone: Zone, kind: ZoneWords, table: Severity[]): number =>
  zone.amount ?? severitiesOf(kind, table)[zone.severity - 1] ?? 1;

/** A day as far as zones care for it. */
export interface Look {
  wet: boolean;
  windy: boolean;
}

/** Whether the computation feels a zone on a day; the server's core says the same. */
export function felt(zone: Zone, kind: ZoneWords | undefined, table: Severity[], day: Look): boolean {
  if (!kind) return true;
  const size = sizeOf(zone, kind, table);
  if (kind.water !== 'NONE' && !day.wet) return false;
  if (kind.effect === 'WIND') return day.windy && size !== 1;
  if (kind.effect === 'ROOM') return size > 0;
  // Only where a reference opens it.
  if (kind.effect === 'BEYOND') return false;
  return kind.effect === 'GRIP' || kind.effect === 'LOAD' ? size !== 1 : true;
}
