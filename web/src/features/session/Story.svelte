<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type EventView } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { clock, day } from '../../words/clock';
  import { cornerWord } from '../../words/words';
  import { story, type Gathered, type Told } from './story';
  import { tell } from '../../words/tell';

  /** An event told in the order of time, down a line: how far apart the dots stand says how long lay between. */
  let { event }: { event: EventView } = $props();

  const path = (id: string) => ({ params: { path: { id } } });
  const gathered = createQuery(() => ({
    queryKey: ['story', event.id, event.sessions.map((s) => `${s.id} ${s.version} ${s.driven}`).join()],
    queryFn: async (): Promise<Gathered> => {
      const references = [...new Set(event.sessions.map((s) => s.reference).filter((r): r is string => !!r))];
      const got: Gathered = { runs: [], chapters: [], logs: [], trials: [], names: {} };
      for (const r of references) {
        const runs = await ask(api.GET('/api/references/{id}/runs', path(r)));
        for (const c of runs.corners) got.names[c.id] = cornerWord(c);
        got.runs.push(...runs.runs.map((run) => ({ reference: r, run })));
        const chapters = await ask(api.GET('/api/references/{id}/history', path(r)));
        got.chapters.push(...chapters.map((chapter) => ({ reference: r, title: runs.vehicle, chapter })));
      }
      for (const s of event.sessions) {
        const lines = await ask(api.GET('/api/sessions/{id}/log', path(s.id)));
        const both = lines.some((l) => l.told.about === 'CORNER' && !l.removed) && s.driven > 0;
        const agreement = both ? (await ask(api.GET('/api/sessions/{id}/felt', path(s.id)))).agreement : null;
        got.logs.push({ session: s.id, lines, agreement });
        if (s.reference)
          got.trials.push({ session: s.id, trials: await ask(api.GET('/api/sessions/{id}/trials', path(s.id))) });
      }
      return got;
    },
  }));
  const told = $derived(gathered.data ? story(event, gathered.data) : []);
  /** The gap before a dot: wider after a longer time, within what is read at a glance. */
  const gap = (at: number) => {
    const before = told[at - 1];
    const now = told[at];
    if (!before || !now) return 0;
    return Math.min(34, 4 + 7 * Math.log2(1 + (Date.parse(now.at) - Date.parse(before.at)) / 900_000));
  };
  const DOT: Record<Told['what'], string> = {
    SESSION: 'size-3.5 bg-base-content',
    RUN: 'size-3 border-2 border-base-content bg-base-100',
    LOG: 'size-2.5 rotate-45 rounded-none! bg-base-content/50',
    TRIAL: 'size-3 rounded-none! border-2 border-base-content bg-base-100',
    REVISION: 'size-3 rounded-none! bg-base-content/70',
  };
</script>

{#if gathered.error}
  <ProblemBox problem={asProblem(gathered.error)} />
{:else if !gathered.data}
  <p role="status">{tell('story.gathering_what_happened')}</p>
{:else if !told.length}
  <p>{tell('story.nothing_has_happened_yet')}</p>
{:else}
  <ol class="relative ml-2 text-sm" aria-label={tell('story.story_of', { name: event.name })} data-story>
    {#each told as t, i (`${t.what} ${t.at} ${t.title} ${i}`)}
      <li
        class="border-base-content/30 relative border-l-2 pb-1 pl-5"
        style:padding-top="{gap(i)}px"
        data-what={t.what}
      >
        <span
          class={['absolute -left-px -translate-x-1/2 rounded-full', DOT[t.what]]}
          style:top="{gap(i) + 5}px"
          aria-hidden="true"
        ></span>
        <p>
          <span class="inline-block w-28 tabular-nums"
            >{i === 0 || day(t.at, event.zone) !== day(told[i - 1]?.at ?? t.at, event.zone)
              ? `${day(t.at, event.zone)} `
              : ''}{clock(t.at, event.zone)}</span
          >
          {#if t.link}<a class="link font-semibold" href={t.link}>{t.title}</a>{:else}<strong>{t.title}</strong>{/if}
          {#if t.words.length}<span>· {t.words.join(' · ')}</span>{/if}
        </p>
      </li>
    {/each}
  </ol>
{/if}
