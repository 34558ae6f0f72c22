import type { components } from '../../api/generated/api';
import { tell } from '../../words/tell';

export type Balance = components['schemas']['CornerBalance'];

/** The parts of a corner in which a balance is felt. */
export const PARTS = [
  { part: 'entry', word: tell('balance.in'), detail: 'FEELS_IN' },
  { part: 'middle', word: tell('balance.middle'), detail: 'FEELS_MIDDLE' },
  { part: 'exit', word: tell('balance.out'), detail: 'FEELS_OUT' },
] as const;

/** Whether what is felt is something else than what is computed; far from the limit nothing is. */
export const disagrees = (how: Balance['entry']['how'], felt: string | undefined) =>
  !!felt && how !== 'FREE' && how.toLowerCase() !== felt;

/** What can be moved, by one step: what, and which way. */
export const MOVES: Record<Balance['moves'][number]['what'], [string, string]> = {
  TRAIL: [tell('balance.brake_while_turning'), tell('balance.10_more')],
  GEAR: [tell('balance.gear_on_the_way_in'), tell('balance.one_lower')],
  THROTTLE: [tell('balance.throttle_on_the_way_out'), tell('balance.10_more')],
  BRAKES: [tell('balance.brake_balance'), tell('balance.forward')],
  BAR: [tell('balance.front_bar'), tell('balance.stiffer')],
  WING: [tell('balance.rear_wing'), tell('balance.more')],
  SPRINGS: [tell('balance.front_springs'), tell('balance.stiffer')],
  CAMBER: [tell('balance.front_camber'), tell('balance.half_a_degree_more')],
  DAMPERS: [tell('balance.front_dampers'), tell('balance.a_click_firmer')],
};

/** What is done by the driver; the rest is set. */
export const DONE: readonly Balance['moves'][number]['what'][] = ['TRAIL', 'GEAR', 'THROTTLE'];

/** The drawing of a balance: both lines, and where one lies above the other. */
export function lanes(b: Balance, length: number, width: number, height: number) {
  const span = Math.max(1, (b.front.length - 1) * b.step);
  const top = 14;
  const bottom = height - 18;
  const most = 1.2;
  const y = (use: number) => bottom - (Math.min(most, use) / most) * (bottom - top);
  const at = (k: number) => (k / Math.max(1, b.front.length - 1)) * width;
  const line = (use: number[]) => use.map((u, k) => `${k ? 'L' : 'M'}${at(k).toFixed(1)} ${y(u).toFixed(1)}`).join('');
  const between = (above: (k: number) => boolean) => {
    const out: string[] = [];
    let from = -1;
    for (let k = 0; k <= b.front.length; k++) {
      const on = k < b.front.length && above(k);
      if (on && from < 0) from = k;
      if (!on && from >= 0) {
        const ks = Array.from({ length: k - from }, (_, j) => from + j);
        const up = ks.map((j) => `${at(j).toFixed(1)} ${y(b.front[j] ?? 0).toFixed(1)}`);
        const down = ks.map((j) => `${at(j).toFixed(1)} ${y(b.rear[j] ?? 0).toFixed(1)}`).reverse();
        if (ks.length > 1) out.push(`M${[...up, ...down].join('L')}Z`);
        from = -1;
      }
    }
    return out;
  };
  const apart = 0.02;
  return {
    x: (station: number) => {
      const ahead = (((station - b.from) % length) + length) % length;
      return Math.max(14, Math.min(width - 14, (Math.min(span, ahead) / span) * width));
    },
    limit: y(1),
    front: line(b.front),
    rear: line(b.rear),
    pushes: between((k) => (b.front[k] ?? 0) > (b.rear[k] ?? 0) + apart),
    turns: between((k) => (b.rear[k] ?? 0) > (b.front[k] ?? 0) + apart),
  };
}

/** The wheels from above, front up, the inner ones on the left: in the order in which they are told. */
export const WHEELS = [
  { is: 'INNER_FRONT', word: tell('balance.inner_front'), x: 16, y: 22 },
  { is: 'OUTER_FRONT', word: tell('balance.outer_front'), x: 58, y: 22 },
  { is: 'INNER_REAR', word: tell('balance.inner_rear'), x: 16, y: 62 },
  { is: 'OUTER_REAR', word: tell('balance.outer_rear'), x: 58, y: 62 },
] as const;

// Less than this moves nothing, and more no foot would.
const LEAST_POINTS = 0.1;
const MOST_POINTS = 40;

/**
 * What a driver can do on the way in that moves the balance as much as a step of the set-up: for a set-up that is
 * given, or to try before it is touched. Ten points more brake are told with the balance.
 */
export function drivenAs(b: Balance, step: Balance['moves'][number]): string | null {
  const trail = b.moves.find((m) => m.what === 'TRAIL');
  if (!trail || Math.abs(trail.entry) < 1e-4) return null;
  const points = (10 * step.entry) / trail.entry;
  const size = Math.abs(points);
  if (size < LEAST_POINTS || size > MOST_POINTS) return null;
  const much = size < 1 ? tell('balance.less_than_1') : String(Math.round(size));
  return tell('balance.more_less_brake_while_turning', { much, somePoints: points > 0 });
}
