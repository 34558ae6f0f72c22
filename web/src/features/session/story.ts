import type { components } from '../../api/generated/api';
import type { EventView, LogLine, RunLine, TrialView } from '../../api/api';
import { lapTime, signed } from '../../words/units';
import { FELT } from '../../words/felt';
import { few } from '../../words/few';
import { tell } from '../../words/tell';

type Chapter = components['schemas']['Chapter'];

/** What happened at one time of an event. */
export interface Told {
  at: string;
  what: 'SESSION' | 'RUN' | 'LOG' | 'REVISION' | 'TRIAL';
  title: string;
  words: string[];
  link?: string;
}

/** What is known of an event beside its calendar. */
export interface Gathered {
  runs: { reference: string; run: RunLine }[];
  chapters: { reference: string; title: string; chapter: Chapter }[];
  /** With the corners in which feeling and laps agree, where both are there. */
  logs: { session: string; lines: LogLine[]; agreement?: { same: number; told: number } | null }[];
  trials: { session: string; trials: TrialView[] }[];
  /** Corners as they are called, by id. */
  names: Record<string, string>;
}

const DAY = 86_400_000;

function felt(lines: LogLine[], called: (corner: string) => string): string[] {
  const out: string[] = [];
  const standing = lines.filter((l) => !l.removed);
  const corners = standing.filter((l) => l.told.about === 'CORNER' && l.told.corner && l.told.felt);
  if (corners.length)
    out.push(corners.map((l) => `${called(l.told.corner ?? '')} ${FELT[l.told.felt ?? 'AS_PLANNED']}`).join(', '));
  if (standing.some((l) => l.told.about === 'REST')) out.push(tell('story.the_rest_as_planned'));
  for (const l of standing) if (l.told.words) out.push(`“${l.told.words}”`);
  return out;
}

/** The story of an event in the order of time: plan, laps, what was felt, what changed and what came of it. */
export function story(event: EventView, got: Gathered): Told[] {
  const out: Told[] = [];
  const called = (corner: string) => got.names[corner] ?? corner;
  if (!event.sessions.length) return out;
  const begins = event.sessions.map((s) => Date.parse(s.begins));
  const from = Math.min(...begins) - DAY;
  const to = Math.max(...event.sessions.map((s) => Date.parse(s.ends))) + DAY;
  const mine = new Set(event.sessions.map((s) => s.id));
  for (const s of event.sessions)
    out.push({
      at: s.begins,
      what: 'SESSION',
      title: s.session.name,
      words: [
        ...(s.session.aim ? [tell('story.aim', { aim: s.session.aim })] : []),
        ...(s.session.timing.state === 'ON' ? [] : [few(s.session.timing.state)]),
      ],
      link: `#/session/${s.id}`,
    });
  for (const { run } of got.runs) {
    if (!run.session || !mine.has(run.session)) continue;
    const laps = run.laps.filter((l) => l.counts && l.measured);
    const best = Math.min(...laps.map((l) => l.lapTime));
    out.push({
      at: run.drivenAt,
      what: 'RUN',
      title: run.name,
      words: [
        laps.length
          ? tell('story.lap_laps_best', { laps: laps.length, best: lapTime(best) })
          : tell('story.no_lap_yet'),
        tell('story.on_revision', { revision: run.revision, sheet: run.sheet ? `, ${run.sheet}` : '' }),
      ],
      link: `#/debrief/${run.id}`,
    });
  }
  for (const { session, lines, agreement } of got.logs) {
    const words = felt(lines, called);
    if (words.length && agreement)
      words.push(tell('story.feeling_and_laps_agree_in', { same: agreement.same, told: agreement.told }));
    const last = lines.filter((l) => !l.removed).at(-1);
    if (words.length && last && mine.has(session))
      out.push({ at: last.at, what: 'LOG', title: tell('story.said_after_it'), words, link: `#/log/${session}` });
  }
  for (const { reference, title, chapter } of got.chapters) {
    const at = Date.parse(chapter.createdAt);
    if (at < from || at > to) continue;
    out.push({
      at: chapter.createdAt,
      what: 'REVISION',
      title: tell('story.revision_of', { number: chapter.number, title }),
      words: [
        chapter.reason,
        ...chapter.promises.map((p) => `${called(p.evidence.corner)}, ${p.what}: ${p.promise.words}`),
      ].filter(Boolean),
      link: `#/revisions/${reference}`,
    });
  }
  for (const { session, trials } of got.trials) {
    const of = event.sessions.find((s) => s.id === session);
    if (!of) continue;
    for (const t of trials)
      out.push({
        at: of.ends,
        what: 'TRIAL',
        title: tell('story.trial', { called: t.called || tell('story.whole_lap') }),
        words: [
          t.decided
            ? tell('story.b_less_a_s_by', { difference: signed(t.difference, 2), lapsA: t.lapsA, lapsB: t.lapsB })
            : tell('story.and_of_laps_not_decided', { lapsA: t.lapsA, lapsB: t.lapsB, planned: t.planned }),
          ...(t.taken ? ['taken'] : []),
        ],
        link: `#/session/${session}`,
      });
  }
  const ORDER = ['SESSION', 'RUN', 'LOG', 'TRIAL', 'REVISION'];
  return out.sort((a, b) => a.at.localeCompare(b.at) || ORDER.indexOf(a.what) - ORDER.indexOf(b.what));
}
