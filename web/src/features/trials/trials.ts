import type { SetupParameter, TrialView, WayView } from '../../api/api';
import { catalogue } from '../../api/catalogue.svelte';
import { plain, signed } from '../../words/units';

/** What a way is called. */
export function wayWords(way: WayView, parameters: SetupParameter[] = []): string {
  switch (way.source) {
    case 'REFERENCE':
      return way.label ? `${way.label}, as it is on` : 'as planned';
    case 'SCHOOL': {
      const school = catalogue.all?.schools.find((s) => s.school === way.key);
      const question = catalogue.all?.questions.find((q) => q.question === school?.question);
      return school ? `${question?.words ?? ''}: ${school.words}` : way.key;
    }
    case 'DAY':
      return `as on “${way.label || catalogue.all?.variants.find((v) => v.kind === way.key)?.words || way.key}”`;
    case 'REVISION':
      return `as in revision ${way.key}`;
    case 'SHEET':
      return `sheet “${way.label}”`;
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
  t.stints ? (n === 1 ? 'stint' : 'stints') : n === 1 ? 'lap' : 'laps';

/** What it takes to tell both ways apart. */
export function takes(t: TrialView): string {
  if (!t.planned) return '';
  const each =
    t.planned >= NOBODY
      ? `more ${unit(t, t.planned)} than anybody drives`
      : `${t.planned} ${unit(t, t.planned)} of each`;
  const by = t.spreadLaps
    ? `by your own ${t.spreadLaps} laps, which differ by ${plain(t.spread ?? 0, 2)} s`
    : `by a usual ${plain(t.spread ?? 0, 2)} s from lap to lap, for you have no laps on a day like it`;
  const difference =
    t.predicted == null
      ? 'What it gives is not computed; to see 0.1 s it takes'
      : `Reckoned ${signed(t.predicted, 2)} s for B; to see that it takes`;
  return `${difference} ${each}, ${by}.${t.told ? '' : ` This session has no room for so many: it is not worth trying in it.`}`;
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
