import type { SetupParameter, TrialView, WayView } from '../../api/api';
import { catalogue } from '../../api/catalogue.svelte';
import { plain, signed } from '../../words/units';
import { tell } from '../../words/tell';

/** What a way is called. */
export function wayWords(way: WayView, parameters: SetupParameter[] = []): string {
  switch (way.source) {
    case 'REFERENCE':
      return way.label ? tell('trials.as_it_is_on', { label: way.label }) : tell('trials.as_planned');
    case 'SCHOOL': {
      const school = catalogue.all?.schools.find((s) => s.school === way.key);
      const question = catalogue.all?.questions.find((q) => q.question === school?.question);
      return school ? `${question?.words ?? ''}: ${school.words}` : way.key;
    }
    case 'DAY':
      return tell('trials.as_on', {
        key: way.label || catalogue.all?.variants.find((v) => v.kind === way.key)?.words || way.key,
      });
    case 'REVISION':
      return tell('trials.as_in_revision', { key: way.key });
    case 'SHEET':
      return tell('trials.sheet', { label: way.label });
    case 'SETTING': {
      const p = parameters.find((o) => o.id === way.key);
      return `${p?.label ?? way.key} ${way.label}${p?.unit ? ` ${p.unit}` : ''}`;
    }
    case 'WORDS':
      return way.label;
  }
}

/** So many laps of each are not worth a number. */
export const NOBODY = 500;

const unit = (t: { stints: boolean }, n: number) =>
  t.stints
    ? n === 1
      ? tell('trials.stint')
      : tell('trials.stints')
    : n === 1
      ? tell('trials.lap')
      : tell('trials.laps');

/** What it takes to tell both ways apart. */
export function takes(t: TrialView): string {
  if (!t.planned) return '';
  const each =
    t.planned >= NOBODY
      ? tell('trials.more_than_anybody_drives', { planned: unit(t, t.planned) })
      : tell('trials.of_each', { planned: t.planned, planned2: unit(t, t.planned) });
  const by = t.spreadLaps
    ? tell('trials.by_your_own_laps_which', { spreadLaps: t.spreadLaps, spread: plain(t.spread ?? 0, 2) })
    : tell('trials.by_a_usual_s_from', { spread: plain(t.spread ?? 0, 2) });
  const difference =
    t.predicted == null
      ? tell('trials.what_it_gives_is_not')
      : tell('trials.reckoned_s_for_b_to', { predicted: signed(t.predicted, 2) });
  return `${difference} ${each}, ${by}.${t.told ? '' : tell('trials.this_session_has_no_room')}`;
}

export interface Block {
  way: 'A' | 'B';
  /** First and last lap, or the one stint. */
  from: number;
  to: number;
}

/** The order of a trial in blocks of laps, counted from the pits. */
export function blocks(t: TrialView): Block[] {
  const out: Block[] = [];
  t.order.forEach((way, i) => {
    const n = t.stints ? i + 1 : t.from + i;
    const last = out[out.length - 1];
    // Two blocks of one way beside each other are two: the first lap of each finds the way again.
    if (last && !t.stints && last.way === way && i % 3 !== 0) last.to = n;
    else out.push({ way, from: n, to: n });
  });
  return out;
}
