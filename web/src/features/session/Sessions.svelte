<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import Plus from '@lucide/svelte/icons/plus';
  import { onDestroy } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type EventView, type Problem, type SessionLine } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import DayLine from './DayLine.svelte';
  import Story from './Story.svelte';
  import CalendarFiles from './CalendarFiles.svelte';
  import { ERRANDS } from '../../words/errands';
  import { clock, day, until } from '../../words/clock';
  import { byDay, freshSession, KINDS, nextDue } from './sessions';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  here.say('', '');
  const queries = useQueryClient();
  const calendar = createQuery(() => ({ queryKey: ['events'], queryFn: () => ask(api.GET('/api/events')) }));
  const view = $derived(calendar.data);
  let problem = $state<Problem | null>(null);
  let now = $state(Date.now());
  const timer = setInterval(() => (now = Date.now()), 15_000);
  onDestroy(() => clearInterval(timer));

  let name = $state('');
  let zone = $state(Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC');
  let opened = $state(false);
  let gone = $state<SessionLine | null>(null);
  /** Events whose story is open. */
  let stories = $state<Record<string, boolean>>({});

  const all = $derived(view?.events.flatMap((e) => e.sessions) ?? []);
  const due = $derived(
    all
      .filter((s) => !s.made)
      .map((s) => ({ s, d: nextDue(s, now) }))
      .filter((x) => x.d && new Date(x.s.ends).getTime() > now - 12 * 3_600_000)
      .sort((a, b) => (a.d?.from ?? '').localeCompare(b.d?.from ?? ''))[0],
  );
  $effect(() => {
    if (view && !view.events.length && !opened) void open();
  });
  const latestFirst = $derived(
    [...(view?.events ?? [])].sort((a, b) =>
      (b.sessions.at(-1)?.begins ?? '9').localeCompare(a.sessions.at(-1)?.begins ?? '9'),
    ),
  );

  async function tried(work: () => Promise<unknown>) {
    problem = null;
    try {
      await work();
      await queries.invalidateQueries({ queryKey: ['events'] });
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const addEvent = () =>
    tried(async () => {
      await ask(api.POST('/api/events', { body: { name, zone } }));
      name = '';
      opened = false;
    });

  /** A session at an hour of a day that was pressed on its line. */
  async function add(event: EventView, wall: string) {
    const reference = here.reference ?? view?.references[0]?.id;
    await tried(async () => {
      const made = await ask(
        api.POST('/api/events/{id}/sessions', {
          params: { path: { id: event.id } },
          body: { version: 0, reference, session: freshSession('PRACTICE', wall, event.zone) },
        }),
      );
      await push(`/session/${made.id}`);
    });
  }
  /** The same session at another time, dragged there. */
  const move = (s: SessionLine, wall: string) =>
    tried(() =>
      ask(
        api.PUT('/api/sessions/{id}', {
          params: { path: { id: s.id } },
          body: {
            version: s.version,
            reference: s.reference,
            session: {
              ...s.session,
              timing: { ...s.session.timing, later: 0, start: { ...s.session.timing.start, wall } },
            },
          },
        }),
      ),
    );
  const later = (s: SessionLine, minutes: number) =>
    tried(() =>
      ask(
        api.POST('/api/sessions/{id}/turned', {
          params: { path: { id: s.id } },
          body: { turn: 'LATER', minutes },
        }),
      ),
    );
  const remove = (s: SessionLine) =>
    tried(async () => {
      await ask(api.DELETE('/api/sessions/{id}', { params: { path: { id: s.id } } }));
      gone = s;
    });
  const back = () =>
    tried(async () => {
      if (gone) await ask(api.POST('/api/sessions/{id}/back', { params: { path: { id: gone.id } } }));
      gone = null;
    });
  const removeEvent = (e: EventView) =>
    tried(() => ask(api.DELETE('/api/events/{id}', { params: { path: { id: e.id } } })));
  /** Days that an event's line can be pressed on: those it has, and the next one. */
  function days(e: EventView): { day: string; date: string; sessions: SessionLine[] }[] {
    const out = byDay(e).map((d) => ({ ...d, date: d.sessions[0]?.local.slice(0, 10) ?? '' }));
    if (out.length) return out;
    const tomorrow = new Date(now + 86_400_000).toISOString();
    return [{ day: day(tomorrow, e.zone), date: tomorrow.slice(0, 10), sessions: [] }];
  }
  /** Two hours after the last session, without the mouse. */
  async function after(e: EventView) {
    const last = e.sessions.at(-1)?.local ?? `${new Date(now + 86_400_000).toISOString().slice(0, 10)}T08:00:00`;
    await add(e, new Date(Date.parse(`${last.slice(0, 16)}:00Z`) + 7_200_000).toISOString().slice(0, 19));
  }
  /** The clock of the circuit that is worked on, for a new event. */
  async function open() {
    opened = true;
    const id = here.reference ?? view?.references[0]?.id;
    if (!id) return;
    try {
      zone = (await ask(api.GET('/api/references/{id}', { params: { path: { id } } }))).zone;
    } catch {
      // The clock of this device stands, to be corrected.
    }
  }
  async function nextDay(e: EventView) {
    const last = e.sessions.at(-1)?.local.slice(0, 10) ?? new Date(now).toISOString().slice(0, 10);
    const d = new Date(Date.parse(`${last}T12:00:00Z`) + 86_400_000);
    await add(e, `${d.toISOString().slice(0, 10)}T10:00:00`);
  }
</script>

<main class="grid grid-cols-[minmax(0,1fr)] gap-4 p-3 sm:p-5">
  {#if calendar.error}
    <ProblemBox problem={asProblem(calendar.error)} />
  {:else if !view}
    <p role="status">{tell('sessions.opening_the_calendar')}</p>
  {:else}
    {#if due?.d}
      <section class="bg-base-100 border-base-300 flex flex-wrap items-center gap-x-6 gap-y-2 rounded border p-4">
        <div class="min-w-56 flex-1">
          <p class="text-sm">{tell('sessions.next', { now: until(due.d.from, now) })}</p>
          <h1 class="text-2xl font-bold">{ERRANDS[due.d.errand].what}</h1>
          <p>
            {due.s.session.name},
            {day(due.s.begins, due.s.session.timing.start.zone)}
            {clock(due.s.begins, due.s.session.timing.start.zone)}
          </p>
        </div>
        <a class="btn btn-primary min-h-11" href="#/session/{due.s.id}">{tell('sessions.open_the_session')}</a>
        <a class="btn min-h-11" href="#/brief/{due.s.id}">{tell('sessions.brief')}</a>
        <a class="btn min-h-11" href="#/log/{due.s.id}">{tell('sessions.log')}</a>
      </section>
    {/if}
    {#if problem}<ProblemBox {problem} />{/if}
    {#if gone}
      <p role="status" class="flex items-center gap-3">
        {tell('sessions.was_taken_out_of_the', { name: gone.session.name })}
        <button class="btn btn-sm" onclick={back}>{tell('sessions.bring_it_back')}</button>
      </p>
    {/if}
    {#each latestFirst as e (e.id)}
      <section class="bg-base-100 border-base-300 rounded border p-3" aria-label={e.name} data-event={e.id}>
        <div class="mb-1 flex flex-wrap items-baseline gap-x-4">
          <h2 class="text-lg font-bold">{e.name}</h2>
          <p class="text-sm">{e.zone}</p>
          <span class="flex-1"></span>
          <button class="btn btn-xs btn-ghost" onclick={() => after(e)}>{tell('sessions.one_more_session')}</button>
          <button class="btn btn-xs btn-ghost" onclick={() => nextDay(e)}>{tell('sessions.next_day')}</button>
          {#if !e.sessions.length}
            <button class="btn btn-xs btn-ghost" onclick={() => removeEvent(e)}>{tell('sessions.remove')}</button>
          {/if}
        </div>
        {#each days(e) as d (d.day)}
          <DayLine
            title={d.day}
            date={d.date}
            zone={e.zone}
            sessions={d.sessions}
            {now}
            onadd={(wall) => add(e, wall)}
            onmove={move}
            onopen={(s) => push(`/session/${s.id}`)}
          />
        {/each}
        <ul class="mt-1 grid gap-1 text-sm">
          {#each e.sessions.filter((s) => !s.made) as s (s.id)}
            <li class="flex flex-wrap items-center gap-x-3 gap-y-1" data-session={s.session.name}>
              <a class="link font-semibold" href="#/session/{s.id}">{s.session.name}</a>
              <span
                >{tell('sessions.min_later_than_announced', {
                  zone: day(s.begins, e.zone),
                  zone2: clock(s.begins, e.zone),
                  kind: KINDS[s.session.kind],
                  state: few(s.session.day.day.surface?.state ?? 'DRY'),
                  state2: s.session.timing.state === 'ON' ? '' : ` · ${few(s.session.timing.state)}`,
                  hasLater: !!s.session.timing.later,
                  later: s.session.timing.later,
                  driven: s.driven ? tell('sessions.run_runs', { driven: s.driven }) : '',
                })}</span
              >
              <span class="flex-1"></span>
              {#each [5, 10, 20] as m (m)}
                <button
                  class="btn btn-xs"
                  onclick={() => later(s, m)}
                  aria-label={tell('sessions.min_later', { name: s.session.name, m })}
                  >{tell('sessions.min', { m })}</button
                >
              {/each}
              <a class="btn btn-xs" href="#/brief/{s.id}">{tell('sessions.brief')}</a>
              <a class="btn btn-xs" href="#/log/{s.id}">{tell('sessions.log')}</a>
              <button
                class="btn btn-xs btn-ghost"
                onclick={() => remove(s)}
                aria-label={tell('sessions.take_out', { name: s.session.name })}>{tell('sessions.take_out_2')}</button
              >
            </li>
          {/each}
        </ul>
        {#if e.sessions.length}
          <details class="mt-1 text-sm" ontoggle={(x) => (stories = { ...stories, [e.id]: x.currentTarget.open })}>
            <summary class="cursor-pointer">{tell('sessions.what_happened_in_order')}</summary>
            {#if stories[e.id]}<Story event={e} />{/if}
          </details>
        {/if}
        {#if e.sessions.some((s) => s.made)}
          <details class="mt-1 text-sm">
            <summary class="cursor-pointer">{tell('sessions.made_from_runs_driven_before')}</summary>
            <ul class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
              {#each e.sessions.filter((s) => s.made) as s (s.id)}
                <li>
                  <a class="link" href="#/session/{s.id}">{s.session.name}</a>, {day(s.begins, e.zone)}
                  {clock(s.begins, e.zone)}{s.driven ? tell('sessions.run_runs', { driven: s.driven }) : ''}
                </li>
              {/each}
            </ul>
          </details>
        {/if}
      </section>
    {:else}
      <p>
        {tell('sessions.no_event_yet_an_event')}
      </p>
    {/each}
    {#if opened || !view.events.length}
      <form
        class="bg-base-100 border-base-300 flex flex-wrap items-end gap-3 rounded border p-4"
        onsubmit={(e) => {
          e.preventDefault();
          void addEvent();
        }}
      >
        <label class="grid min-w-44 flex-1 gap-1"
          >{tell('sessions.event')}
          <input
            class="input w-full"
            maxlength="100"
            required
            bind:value={name}
            placeholder={tell('sessions.summer_meeting')}
          /></label
        >
        <label class="grid min-w-44 flex-1 gap-1"
          >{tell('sessions.time_zone_of_the_circuit')} <input class="input w-full" required bind:value={zone} /></label
        >
        <button class="btn btn-primary">{tell('sessions.make_the_event')}</button>
      </form>
    {:else}
      <div class="flex flex-wrap gap-3">
        <button class="btn btn-sm" onclick={open}><Plus class="size-4" /> {tell('sessions.event')}</button>
        <CalendarFiles onproblem={(p) => (problem = p)} />
      </div>
    {/if}
  {/if}
</main>
