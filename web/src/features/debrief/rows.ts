import type { ActionFinding, CornerFinding, PointFinding } from '../../api/api';
import { POINTS } from '../../road/points';
import { metres, plain } from '../../words/units';

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
  LIFT: ['Lift', 'var(--throttle)'],
  BRAKE: ['Brake again', 'var(--brake)'],
  EASE: ['Ease', 'var(--brake)'],
  THROTTLE: ['Stage', 'var(--throttle)'],
  FULL: ['Full again', 'var(--throttle)'],
  SHIFT: ['Shift', 'var(--ink)'],
};

const where = (late: number, what: string) =>
  Math.abs(late) < 0.5 ? `on ${what}` : `${metres(Math.abs(late))} ${late > 0 ? 'late' : 'early'}`;

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
    head: where(p.median, 'the flag') + (p.trendTells ? `, ${p.trend > 0 ? 'later' : 'sooner'} lap by lap` : ''),
    foot: `spread ${metres(p.spread, 1)} · hit ${Math.round(p.hits * p.late.length)} of ${p.late.length}${p.told ? '' : ' · from speed'}`,
    off: Math.abs(p.median) > p.tolerance,
  };
}

/** What a written action came to, in two short lines. */
export function actionWords(a: ActionFinding): { head: string; foot: string } {
  if (!a.seen) return { head: 'cannot be seen', foot: a.unseen };
  if (a.laps.length === 0) return { head: 'not done on any lap', foot: a.unseen };
  const late = a.late ?? null;
  const more = a.more ?? null;
  const parts = [
    late === null ? '' : where(late, 'its place'),
    more === null || a.amount == null ? '' : `${percent(a.amount + more)}, ${percent(a.amount)} written`,
  ].filter(Boolean);
  const rare = a.done < 0.95 ? `done on ${Math.round(a.done * 100)} % of laps` : '';
  const spread = late === null ? '' : `spread ${metres(a.spread, 1)}`;
  const shares = more === null ? '' : `± ${plain(a.moreSpread * 100, 0)} points`;
  return {
    head: parts.join(' · ') || 'done',
    foot: [a.unseen, rare, spread, shares].filter(Boolean).slice(0, 2).join(' · '),
  };
}

function ofAction(a: ActionFinding): SpreadRow {
  const [word, colour] = WORDS[a.kind] ?? ['Action', 'var(--ink)'];
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
