import type { ScoredAction } from '../../api/api';
import { mostOf, unitOf } from '../../road/score';
import type { Desk } from './desk.svelte';
import { tell } from '../../words/tell';

/** What keys on an action reach beside it. */
export interface Beside {
  nextCue: () => void;
  find: () => void;
}

type Worked = Pick<Desk, 'view' | 'typed' | 'putAction' | 'dropAction' | 'letGo' | 'settle'>;

// Seconds that a lift may last, and metres for which a gear may be held.
const LONGEST = 10;
const FARTHEST = 1000;

/**
 * A key on the action in hand: digits are its amount, arrows its place and amount. Gives what is refused in words, an
 * empty text where something was done, null where the key means nothing here.
 */
export function pressed(desk: Worked, event: KeyboardEvent, s: ScoredAction, beside: Beside): string | null {
  if (event.ctrlKey || event.metaKey || event.altKey) return null;
  const a = s.action;
  const along = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
  const more = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
  const unit = unitOf(a);
  let said = '';
  if (along) {
    const by = along * (event.shiftKey ? 5 : 1);
    const until = a.until == null ? undefined : (a.until + by + desk.view.length) % desk.view.length;
    desk.putAction({ ...a, station: a.station + by, until }, true, `nudge ${a.id}`);
  } else if (more && unit === 'gear') {
    const gear = Math.max(1, Math.min(desk.view.gears, (a.gear ?? 1) + more));
    desk.putAction({ ...a, gear }, false, `amount ${a.id}`);
  } else if (more && unit === '%') {
    const now = a.amount ?? s.amount ?? 0;
    const next = Math.round(Math.max(0, Math.min(mostOf(a.kind), now + more * 0.05)) * 100) / 100;
    desk.putAction({ ...a, amount: next }, false, `amount ${a.id}`);
  } else if (/^[0-9.]$/.test(event.key) || (desk.typed && /^[%ms]$/.test(event.key))) {
    desk.typed += event.key;
  } else if (event.key === 'Enter' && desk.typed) {
    const text = desk.typed;
    desk.typed = '';
    said = entered(desk, s, text);
  } else if (event.key === 'Escape') {
    if (desk.typed) desk.typed = '';
    else {
      desk.letGo();
      (event.currentTarget as SVGGElement | null)?.blur();
    }
  } else if (event.key === 'Backspace') {
    if (desk.typed) desk.typed = desk.typed.slice(0, -1);
    else if (a.kind === 'SHIFT' && a.until != null) desk.putAction({ ...a, until: undefined }, false);
    else if (a.kind === 'BRAKE' || a.kind === 'LIFT' || a.kind === 'EASE' || a.kind === 'BODY')
      desk.putAction({ ...a, amount: undefined }, false);
  } else if (event.key === 'Delete') desk.dropAction(a.id);
  else if (event.key === 'c') beside.nextCue();
  else if (event.key === '/') beside.find();
  else return null;
  event.preventDefault();
  event.stopPropagation();
  return said;
}

/** Takes what was typed: "65", "65%", "0.5s" for how long, "80m" for how far a gear is held, "12m" past its thing. Gives what is refused. */
export function entered(desk: Worked, s: ScoredAction, text: string): string {
  const a = s.action;
  const number = Number(text.replace(/[%ms]$/, ''));
  const unit = /[%ms]$/.exec(text)?.[0] ?? '';
  const length = desk.view.length;
  if (!text) return '';
  if (Number.isNaN(number)) return tell('actionKeys.is_no_number', { text });
  if (unit === 's' && a.kind === 'LIFT') {
    if (number <= 0 || number > LONGEST) return tell('actionKeys.a_lift_lasts_up_to', { lONGEST: LONGEST });
    desk.putAction({ ...a, until: (a.station + number * s.speed) % length }, false);
  } else if ((unit === 's' || unit === 'm') && a.kind === 'SHIFT') {
    const metres = unit === 's' ? number * s.speed : number;
    if (metres <= 0 || metres > FARTHEST) return tell('actionKeys.a_gear_is_held_for', { fARTHEST: FARTHEST });
    desk.putAction({ ...a, until: (a.station + metres) % length }, false);
  } else if (unit === 's' && (a.cue?.kind === 'SECONDS' || a.cue?.kind === 'LIMITER')) {
    desk.putAction({ ...a, cue: { ...a.cue, number } }, false);
  } else if (unit === 'm' && a.cue?.kind === 'PAST') {
    desk.putAction({ ...a, cue: { ...a.cue, number } }, false);
  } else if (unit === 's' || unit === 'm') {
    return tell('actionKeys.means_nothing_on_this_action', { text });
  } else if (unitOf(a) === 'gear') {
    if (number < 1 || number > desk.view.gears || number % 1)
      return tell('actionKeys.gears_go_from_1_to', { gears: desk.view.gears });
    desk.putAction({ ...a, gear: number }, false);
  } else if (unitOf(a) === '%') {
    const most = mostOf(a.kind) * 100;
    if (number > most) return tell('actionKeys.at_most', { most });
    desk.putAction({ ...a, amount: number / 100 }, false);
  } else return tell('actionKeys.means_nothing_on_this_action', { text });
  desk.settle();
  return '';
}
