import type { ActionFinding, CornerFinding, PointFinding } from '../../api/api';
import { POINTS } from '../../road/points';
import { metres, plain } from '../../words/units';
import { tell } from '../../words/tell';

/** One line of a corner's drawing: where something is written, and where each lap did it. */
export interface SpreadRow {
  id: string;
  word: string;
  colour: string;
  planned: number;
  tolerance: number;
  /** Metres late, and the lap; only those that can be told. */
  dots: { lap: string; late: number }[];
  median: number | null;
  spread: number;
  told: boolean;
  /** Shares written and driven, where both are known. */
  written: number | null;
  driven: number | null;
  shares: { lap: string; share: number }[];
  head: string;
  foot: string;
  off: boolean;
}

const POINT_ORDER = ['BRAKE', 'TURN_IN', 'RELEASE', 'FIRST_APEX', 'APEX', 'FIRST_THROTTLE', 'FULL_THROTTLE', 'EXIT'];

const WORDS: Partial<Record<ActionFinding['kind'], [string, string]>> = {
  LIFT: [tell('rows.lift'), 'var(--throttle)'],
  BRAKE: [tell('rows.brake_again'), 'var(--brake)'],
  EASE: [tell('rows.ease'), 'var(--brake)'],
  THROTTLE: [tell('rows.stage'), 'var(--throttle)'],
  FULL: [tell('rows.full_again'), 'var(--throttle)'],
  SHIFT: [tell('rows.shift'), 'var(--ink)'],
};

const where = (late: number, what: string) =>
  Math.abs(late) < 0.5
    ? tell('rows.on', { what })
    : `${metres(Math.abs(late))} ${late > 0 ? tell('rows.late') : tell('rows.early')}`;

const percent = (share: number) => `${Math.round(share * 100)} %`;

function ofPoint(p: PointFinding): SpreadRow {
  return {
    id: p.kind,
    word: POINTS[p.kind].word,
    colour: POINTS[p.kind].colour,
    planned: p.planned,
    tolerance: p.tolerance,
    dots: p.late.map((late, k) => ({ lap: p.laps[k] ?? '', late })),
    median: p.median,
    spread: p.spread,
    told: p.told,
    written: null,
    driven: null,
    shares: [],
    head:
      where(p.median, tell('rows.the_flag')) +
      (p.trendTells ? tell('rows.later_sooner_lap_by_lap', { someTrend: p.trend > 0 }) : ''),
    foot: tell('rows.spread_hit_of_from_speed', {
      spread: metres(p.spread, 1),
      late: Math.round(p.hits * p.late.length),
      late2: p.late.length,
      hasTold: !!p.told,
    }),
    off: Math.abs(p.median) > p.tolerance,
  };
}

/** What a written action came to, in two short lines. */
export function actionWords(a: ActionFinding): { head: string; foot: string } {
  if (!a.seen) return { head: tell('rows.cannot_be_seen'), foot: a.unseen };
  if (a.laps.length === 0) return { head: tell('rows.not_done_on_any_lap'), foot: a.unseen };
  const late = a.late ?? null;
  const more = a.more ?? null;
  const parts = [
    late === null ? '' : where(late, tell('rows.its_place')),
    more === null || a.amount == null
      ? ''
      : tell('rows.written', { more: percent(a.amount + more), amount: percent(a.amount) }),
  ].filter(Boolean);
  const rare = a.done < 0.95 ? tell('rows.done_on_of_laps', { done: Math.round(a.done * 100) }) : '';
  const spread = late === null ? '' : tell('rows.spread', { spread: metres(a.spread, 1) });
  const shares = more === null ? '' : tell('rows.points', { moreSpread: plain(a.moreSpread * 100, 0) });
  return {
    head: parts.join(' · ') || tell('rows.done'),
    foot: [a.unseen, rare, spread, shares].filter(Boolean).slice(0, 2).join(' · '),
  };
}

function ofAction(a: ActionFinding): SpreadRow {
  const [word, colour] = WORDS[a.kind] ?? [tell('rows.action'), 'var(--ink)'];
  const words = actionWords(a);
  const late = a.late ?? null;
  const more = a.more ?? null;
  return {
    id: a.action,
    word,
    colour,
    planned: a.planned,
    tolerance: a.tolerance,
    dots: a.laps.flatMap((lap, k) => {
      const metresLate = a.lates[k];
      return metresLate == null ? [] : [{ lap, late: metresLate }];
    }),
    median: late,
    spread: a.spread,
    told: true,
    written: a.amount ?? null,
    driven: a.amount == null || more === null ? null : a.amount + more,
    shares: a.laps.flatMap((lap, k) => {
      const share = a.amounts[k];
      return share == null ? [] : [{ lap, share }];
    }),
    ...words,
    off: a.off,
  };
}

/**
 * The lines of a corner in driving order.
 *
 * @param near a station as it is counted near the corner
 * @param small only what a small drawing has room for
 */
export function rowsOf(finding: CornerFinding, near: (station: number) => number, small: boolean): SpreadRow[] {
  const points = POINT_ORDER.map((k) => finding.points.find((p) => p.kind === k)).filter(
    (p): p is PointFinding => !!p && (!small || !['EXIT', 'FIRST_APEX'].includes(p.kind)),
  );
  const rows = [...points.map(ofPoint), ...finding.actions.map(ofAction)];
  rows.sort((a, b) => near(a.planned) - near(b.planned));
  // Several of a kind are told apart by their number.
  return rows.map((r) => {
    const alike = rows.filter((o) => o.word === r.word);
    return alike.length > 1 ? { ...r, word: `${r.word} ${alike.indexOf(r) + 1}` } : r;
  });
}
