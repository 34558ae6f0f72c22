<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { onDestroy, untrack } from 'svelte';
  import { push } from 'svelte-spa-router';
  import {
    api,
    ask,
    asProblem,
    Problem,
    type PlannedSession,
    type School,
    type SessionKind,
    type TrackSession,
  } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { here } from '../../kit/here.svelte';
  import { same } from '../../kit/same';
  import { History } from '../../kit/history';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import NumberField from '../../kit/NumberField.svelte';
  import Slide from '../../kit/Slide.svelte';
  import { inLength, lapTime, lengthUnit, plain, signed, speedText } from '../../words/units';
  import Coaches from './Coaches.svelte';
  import FeltBeside from './FeltBeside.svelte';
  import SessionRuns from './SessionRuns.svelte';
  import TodayStrip from './TodayStrip.svelte';
  import TrialsPanel from '../trials/TrialsPanel.svelte';
  import TryPanel from '../trials/TryPanel.svelte';
  import FuelPanel from './FuelPanel.svelte';
  import RacePanel from './RacePanel.svelte';
  import RaceStrip from './RaceStrip.svelte';
  import RulesPanel from './RulesPanel.svelte';
  import TyresPanel from './TyresPanel.svelte';
  import WeatherBand from './WeatherBand.svelte';
  import WindRose from './WindRose.svelte';
  import { ERRANDS } from '../../words/errands';
  import { clock, day, until } from '../../words/clock';
  import { KINDS, nextDue } from './sessions';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  const id = $derived(params.id);
  const queries = useQueryClient();
  let view = $state.raw<PlannedSession | null>(null);
  let draft = $state.raw<TrackSession | null>(null);
  let problem = $state<Problem | null>(null);
  let saving = $state(false);
  let selected = $state('');
  let now = $state(Date.now());
  let past = new History<TrackSession>();
  let steps = $state({ back: false, on: false });
  const timer = setInterval(() => (now = Date.now()), 10_000);
  let wait: ReturnType<typeof setTimeout> | undefined;
  onDestroy(() => {
    clearInterval(timer);
    if (wait) void keep();
  });

  // Without it a road is chosen with the grip as it stands.
  catalogue.load().catch(() => undefined);
  const calendar = createQuery(() => ({ queryKey: ['events'], queryFn: () => ask(api.GET('/api/events')) }));
  const reference = createQuery(() => ({
    queryKey: ['session-road', view?.line.reference],
    enabled: !!view?.line.reference,
    queryFn: async () => {
      const path = { path: { id: view?.line.reference ?? '' } };
      const r = await ask(api.GET('/api/references/{id}', { params: path }));
      const road = await ask(api.GET('/api/references/{id}/road', { params: path }));
      return { r, road };
    },
  }));

  async function load() {
    try {
      take(await ask(api.GET('/api/sessions/{id}', { params: { path: { id } } })));
    } catch (e) {
      problem = asProblem(e);
    }
  }
  $effect(() => {
    void id;
    untrack(() => {
      view = null;
      draft = null;
      past = new History<TrackSession>();
      void load();
    });
  });
  function take(v: PlannedSession) {
    view = v;
    draft = v.line.session;
    selected ||= v.plan?.focus[0]?.focus.corner ?? v.plan?.corners[0]?.corner ?? '';
    here.say(
      v.plan?.vehicle ?? v.event,
      `${v.line.session.name}, ${day(v.line.begins, v.line.session.timing.start.zone)}`,
      v.line.reference ?? null,
    );
  }
  /** What another device made of the session meanwhile. */
  let theirs = $state.raw<PlannedSession | null>(null);
  function takeTheirs() {
    if (draft) past.remember(draft);
    if (theirs) take(theirs);
    theirs = null;
    problem = null;
    steps = { back: true, on: false };
  }
  function keepMine() {
    if (theirs) view = theirs;
    theirs = null;
    void keep();
  }
  async function readTheirs() {
    try {
      theirs = await ask(api.GET('/api/sessions/{id}', { params: { path: { id } } }));
    } catch (e) {
      problem = asProblem(e);
    }
  }
  /** What was sent and of which no answer came: it may have arrived. */
  let unanswered: TrackSession | null = null;
  /** What is asked for while an answer is on its way: it needs the version that comes with it. */
  let waiting: (() => void) | null = null;
  async function keep(reference = view?.line.reference) {
    clearTimeout(wait);
    wait = undefined;
    if (!view || !draft) return;
    const of = view.line.id;
    const again = () => void (view?.line.id === of && keep(reference));
    if (saving) {
      waiting = again;
      return;
    }
    saving = true;
    const sent = draft;
    try {
      const v = await ask(
        api.PUT('/api/sessions/{id}', {
          params: { path: { id: view.line.id } },
          body: { version: view.line.version, reference, session: sent },
        }),
      );
      problem = null;
      unanswered = null;
      if (draft === sent) take(v);
      else {
        view = v;
        wait = setTimeout(() => void keep(), 300);
      }
    } catch (e) {
      problem = asProblem(e);
      if (problem.status === 0) {
        unanswered = sent;
        wait = setTimeout(again, 4000);
      }
      // What is here stays; which of the two stands is for the driver to say.
      if (problem.status === 409) await readTheirs();
      // Only the answer was lost: nobody else was here.
      if (theirs && unanswered && same(theirs.line.session, unanswered)) {
        unanswered = null;
        problem = null;
        wait = setTimeout(again, 0);
        view = theirs;
        theirs = null;
      }
    } finally {
      saving = false;
      const then = waiting;
      waiting = null;
      // Where two devices differ the driver says first which stands.
      if (!theirs) then?.();
    }
  }
  /** Changes what is planned; the plan follows when the hand rests. */
  function put(change: Partial<TrackSession>, key: string | null = null) {
    if (!draft) return;
    past.remember(draft, key);
    draft = { ...draft, ...change };
    steps = { back: true, on: false };
    clearTimeout(wait);
    wait = setTimeout(() => void keep(), 350);
  }
  function step(back: boolean) {
    if (!draft) return;
    const other = back ? past.undo(draft) : past.redo(draft);
    if (!other) {
      steps = back ? { ...steps, back: false } : { ...steps, on: false };
      return;
    }
    draft = { ...other, done: draft.done };
    steps = { back: true, on: true };
    void keep();
  }
  const dayPut = (change: Partial<TrackSession['day']['day']>) =>
    draft && put({ day: { ...draft.day, day: { ...draft.day.day, ...change } } }, `day ${Object.keys(change).join()}`);

  const STATES = ['DRY', 'DAMP', 'WET', 'DRYING'] as const;
  /** Another road, with the grip of the reference's day for it, or that of a usual one. */
  function surface(state: (typeof STATES)[number]) {
    if (!draft) return;
    const dry = state === 'DRY';
    const like = reference.data?.r.working.content.variants.find((v) => !dry && v.day.surface?.state === state);
    const usual = catalogue.all?.variants.find((v) => v.kind === state)?.usual;
    put({
      day: {
        ...draft.day,
        like: like?.id ?? '',
        day: {
          ...draft.day.day,
          grip: dry ? 1 : (like?.day.grip ?? usual?.grip ?? draft.day.day.grip),
          surface: dry ? { state, dried: 0 } : (like?.day.surface ?? usual?.surface ?? { state, dried: 0 }),
        },
      },
    });
  }
  async function turn(turn: 'LATER' | 'SHORTENED' | 'STOPPED' | 'CANCELLED' | 'ON', minutes = 0) {
    try {
      if (wait) await keep();
      take(await ask(api.POST('/api/sessions/{id}/turned', { params: { path: { id } }, body: { turn, minutes } })));
      void queries.invalidateQueries({ queryKey: ['events'] });
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function tick(errand: (typeof due)[number]['errand'], done: boolean) {
    try {
      if (wait) await keep();
      await ask(api.POST('/api/sessions/{id}/done', { params: { path: { id } }, body: { errand, done } }));
      await load();
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function like(hoursOn: number) {
    if (!view) return;
    const start = new Date(Date.parse(`${view.line.session.timing.start.wall}Z`) + hoursOn * 3_600_000);
    try {
      if (wait) await keep();
      const made = await ask(
        api.POST('/api/sessions/{id}/like', {
          params: { path: { id } },
          body: { wall: start.toISOString().slice(0, 19), name: view.line.session.name },
        }),
      );
      void queries.invalidateQueries({ queryKey: ['events'] });
      await push(`/session/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function laps() {
    try {
      if (wait) await keep();
      const made = await ask(api.POST('/api/sessions/{id}/runs', { params: { path: { id } } }));
      here.run = made.id;
      await push(`/runs/${view?.line.reference}`);
    } catch (e) {
      problem = asProblem(e);
    }
  }
  function keys(e: KeyboardEvent) {
    if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
    e.preventDefault();
    step(!e.shiftKey);
  }

  const zone = $derived(view?.line.session.timing.start.zone ?? 'UTC');
  const due = $derived(view?.line.due ?? []);
  const next = $derived(view ? nextDue(view.line, now) : null);
  const plan = $derived(view?.plan ?? null);
  const chosen = $derived(plan?.corners.find((c) => c.corner === selected) ?? null);
  const focusIds = $derived(plan?.focus.map((f) => f.focus.corner) ?? []);
  const WHEN = { ALL: '', FIRST: tell('session.first_laps'), LAST: tell('session.last_laps') };
  function number(e: Event & { currentTarget: HTMLInputElement }): number | undefined {
    const v = e.currentTarget.valueAsNumber;
    return Number.isFinite(v) ? v : undefined;
  }
  const wayToday = $derived.by(() => {
    const school = catalogue.all?.schools.find((s) => s.school === chosen?.today.way);
    const question = catalogue.all?.questions.find((q) => q.question === school?.question);
    return school ? `${question?.words ?? ''}: ${school.words}` : '';
  });
  /** Another way of a corner for this session; null for that of the reference. */
  function drive(corner: string, school: School | null) {
    if (!draft) return;
    const ways = draft.ways.filter((w) => w.corner !== corner);
    put({ ways: school ? [...ways, { corner, school }] : ways });
  }
  function focusOn(corner: string) {
    if (!draft) return;
    const on = draft.focus.length ? draft.focus : focusIds;
    const other = on.includes(corner) ? on.filter((c) => c !== corner) : [...on, corner].slice(-3);
    put({ focus: other });
  }
</script>

<svelte:window onkeydown={keys} />

<main class="grid grid-cols-[minmax(0,1fr)] gap-3 p-3 lg:px-5">
  {#if problem}
    <ProblemBox {problem}>
      {#if theirs}
        <span class="mt-2 flex gap-2">
          <button class="btn btn-sm" onclick={keepMine}>{tell('session.keep_what_is_here')}</button>
          <button class="btn btn-sm" onclick={takeTheirs}>{tell('session.take_the_other_one')}</button>
        </span>
      {/if}
    </ProblemBox>
  {/if}
  {#if !view || !draft}
    {#if !problem}<p role="status">{tell('session.opening_the_session')}</p>{/if}
  {:else}
    <section class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <div class="min-w-56 flex-1">
        <h1 class="sr-only">{draft.name}</h1>
        <input
          class="w-full max-w-72 bg-transparent text-xl leading-tight font-bold"
          aria-label={tell('session.name_of_the_session')}
          maxlength="100"
          value={draft.name}
          onchange={(e) => put({ name: e.currentTarget.value.trim() || KINDS[draft?.kind ?? 'TEST'] })}
        />
        <p class="text-sm">
          <a class="link" href="#/session">{view.event}</a>
          {tell('session.to_min_later_than_announced', {
            zone: day(view.line.begins, zone),
            zone2: clock(view.line.begins, zone),
            zone3: clock(view.line.ends, zone),
            hasLater: !!draft.timing.later,
            later: draft.timing.later,
            state: draft.timing.state === 'ON' ? '' : ` · ${few(draft.timing.state)}`,
          })} <span data-countdown>{until(view.line.begins, now)}</span>
          {#if view.line.clocks}<strong class="block" data-clocks>{view.line.clocks}</strong>{/if}
          {#if saving}<span role="status"> {tell('session.working_it_out')}</span>{/if}
        </p>
      </div>
      <div class="flex flex-wrap gap-1" role="group" aria-label={tell('session.what_became_of_it')}>
        {#each [5, 10, 20] as m (m)}<button class="btn btn-sm" onclick={() => turn('LATER', m)}
            >{tell('session.min', { m })}</button
          >{/each}
        <button
          class="btn btn-sm"
          onclick={() =>
            turn(
              'SHORTENED',
              Math.max(
                1,
                Math.round((draft?.timing.shortened ?? draft?.timing.minutes ?? draft?.timing.laps ?? 20) / 2),
              ),
            )}>{tell('session.halved')}</button
        >
        {#if draft.timing.state === 'ON'}
          <button class="btn btn-sm" onclick={() => turn('STOPPED')}>{tell('session.stopped')}</button>
          <button class="btn btn-sm" onclick={() => turn('CANCELLED')}>{tell('session.cancelled')}</button>
        {/if}
        {#if draft.timing.state !== 'ON' || draft.timing.later || draft.timing.shortened != null}
          <button class="btn btn-sm" onclick={() => turn('ON')}>{tell('session.as_announced')}</button>
        {/if}
      </div>
      <div class="flex gap-1">
        <button class="btn btn-sm" disabled={!steps.back} onclick={() => step(true)}>{tell('session.undo')}</button>
        <button class="btn btn-sm" disabled={!steps.on} onclick={() => step(false)}>{tell('session.redo')}</button>
        <a class="btn btn-sm btn-primary" href="#/brief/{id}">{tell('session.brief')}</a>
        <a class="btn btn-sm" href="#/rehearse/{id}">{tell('session.rehearse')}</a>
        <a class="btn btn-sm" href="#/log/{id}">{tell('session.log')}</a>
      </div>
    </section>

    <ol class="flex flex-wrap gap-x-5 gap-y-1 text-sm" aria-label={tell('session.what_is_due')}>
      {#each due as d (d.errand)}
        <li class={['flex items-center gap-1.5', next?.errand === d.errand ? 'font-bold' : '']}>
          <label class="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              class="checkbox checkbox-xs"
              checked={d.done}
              onchange={(e) => tick(d.errand, e.currentTarget.checked)}
            />
            <span title={ERRANDS[d.errand].what}>{clock(d.until, zone)} {ERRANDS[d.errand].word}</span>
          </label>
        </li>
      {/each}
    </ol>

    {#if !view.line.reference}
      <section class="bg-base-100 border-base-300 rounded border p-4">
        <p class="mb-2">{tell('session.a_session_is_planned_from')}</p>
        <select class="select" aria-label={tell('session.reference')} onchange={(e) => keep(e.currentTarget.value)}>
          <option value="">{tell('session.choose')}</option>
          {#each calendar.data?.references ?? [] as r (r.id)}<option value={r.id}>{r.circuit} · {r.name}</option>{/each}
        </select>
      </section>
    {:else if plan}
      <section class="bg-base-100 border-base-300 rounded border px-2 pt-1">
        <p class="px-2 pt-1 text-sm">
          <strong class="text-lg">{lapTime(plan.today.lapTime)}</strong>
          {tell('session.computed_today_s_on_the', {
            base: signed(plan.today.lapTime - plan.today.base, 2),
            laps: plan.today.laps,
            warmFrom: plan.today.warmFrom,
          })}
        </p>
        {#if reference.data}
          <TodayStrip
            road={reference.data.road}
            corners={reference.data.r.corners}
            lines={plan.corners}
            focus={focusIds}
            pits={plan.pits}
            {selected}
            onselect={(c) => (selected = c)}
          />
        {/if}
      </section>

      <div class="grid grid-cols-[minmax(0,1fr)] gap-3 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)_minmax(0,1fr)]">
        <section class="grid content-start gap-2" aria-label={tell('session.corner_today')}>
          {#if chosen}
            <div class="flex items-baseline gap-3">
              <h2 class="text-lg font-bold">{chosen.called}</h2>
              <span class="text-sm"
                >{tell('session.at_the_slowest_in_the', {
                  slowest: speedText(chosen.today.slowest),
                  slowestBase: speedText(chosen.today.slowestBase),
                })}</span
              >
            </div>
            <ul class="grid gap-0.5 text-sm" data-differences>
              {#each chosen.today.differences as d, i (i)}
                <li class="border-base-300 border-l-4 pl-2">
                  {WHEN[d.when]}<strong class="font-semibold">{d.words}</strong>{d.reason &&
                  d.reason !== chosen.today.differences[i - 1]?.reason
                    ? ` — ${d.reason}`
                    : ''}
                </li>
              {:else}
                <li>{tell('session.nothing_a_person_could_use')}</li>
              {/each}
            </ul>
            {#if chosen.today.early.some((m) => m >= 1)}
              <p class="text-sm">
                {tell('session.cold_tyres_brake_sooner_on', {
                  inLength: chosen.today.early.map((m) => plain(inLength(m))).join(', '),
                  lengthUnit: lengthUnit(),
                  early: chosen.today.early.length,
                })}
              </p>
            {/if}
            {#if chosen.today.way}
              <p class="border-base-300 border-l-4 pl-2 text-sm" data-way-today>
                <strong>{wayToday}</strong>{chosen.today.wayCosts == null
                  ? tell('session.cannot_be_driven_today_or')
                  : tell('session.for_this_session_only_s', { wayCosts: signed(chosen.today.wayCosts, 2) })}
                <button class="link" onclick={() => drive(chosen?.corner ?? '', null)}
                  >{tell('session.as_in_the_reference')}</button
                >
              </p>
            {/if}
            <p class="text-sm">{chosen.words.line}</p>
            <p class="text-sm">{chosen.escape}</p>
            <button class="btn btn-sm justify-self-start" onclick={() => focusOn(chosen?.corner ?? '')}
              >{tell('session.not_in_focus_work_on', { hasCorner: !!focusIds.includes(chosen.corner) })}</button
            >
          {/if}
          <h3 class="mt-1 font-bold">{tell('session.focus')}</h3>
          <ul class="grid gap-1 text-sm" data-focus>
            {#each plan.focus as f (f.focus.corner)}
              <li>
                <button class="link font-semibold" onclick={() => (selected = f.focus.corner)}>{f.called}</button>
                {#if f.focus.offer > 0.005}<span
                    >{tell('session.s_on_offer_by_laps', {
                      offer: plain(f.focus.offer, 2),
                      hasAlike: !!plan.alike,
                    })}</span
                  >{/if}
                <span class="block">{f.words} {f.cure}</span>
              </li>
            {:else}
              <li>
                {tell('session.no_laps_yet_choose_up', { noEvidence: plan.evidence === 0, hasAlike: !!plan.alike })}
              </li>
            {/each}
          </ul>
          {#if plan.settling}<p class="text-sm" data-settling>{plan.settling.words}</p>{/if}
          {#if plan.rungs.length}
            <h3 class="mt-1 font-bold">{tell('session.build_up')}</h3>
            <ul class="grid gap-1 text-sm">
              {#each plan.rungs as r (r.rungs.corner)}
                <li>
                  <strong>{r.called}</strong>{tell('session.from_lap', {
                    m: r.rungs.rungs.map((m) => (m ? `−${plain(inLength(m))}` : 'marker')).join(' · '),
                    lengthUnit: lengthUnit(),
                    firstLap: r.firstLap,
                  })}
                </li>
              {/each}
            </ul>
          {/if}
          {#if view.runs.length}
            <FeltBeside session={id} called={(c) => plan?.corners.find((l) => l.corner === c)?.called ?? c} />
          {/if}
          <div class="grid gap-2 text-sm" role="group" aria-label={tell('session.rules')}>
            <RulesPanel
              session={id}
              version={view.line.version}
              {draft}
              device={plan.device}
              {put}
              onselect={(c) => (selected = c)}
            />
          </div>
          <Coaches session={id} onproblem={(p) => (problem = p)} />
        </section>

        <section class="grid content-start gap-2 text-sm" aria-label={tell('session.conditions')}>
          <h3 class="font-bold">{tell('session.conditions')}</h3>
          <WeatherBand line={view.line} ontake={(day) => put({ day })} onproblem={(p) => (problem = p)} />
          <div class="flex flex-wrap gap-1" role="group" aria-label={tell('session.road')}>
            {#each STATES as s (s)}
              <button
                class={['btn btn-sm', (draft.day.day.surface?.state ?? 'DRY') === s ? 'btn-primary' : '']}
                aria-pressed={(draft.day.day.surface?.state ?? 'DRY') === s}
                onclick={() => surface(s)}>{few(s)}</button
              >
            {/each}
          </div>
          <div class="flex items-center gap-3">
            <WindRose
              speed={draft.day.day.windSpeed}
              from={draft.day.day.windFrom}
              onset={(windSpeed, windFrom) => dayPut({ windSpeed, windFrom })}
            />
            <div class="grid flex-1 gap-1">
              <span>{tell('session.grip')}</span>
              <Slide
                label={tell('session.grip_of_the_road_per')}
                min={40}
                max={110}
                step={1}
                value={Math.round(draft.day.day.grip * 100)}
                text="{Math.round(draft.day.day.grip * 100)} %"
                oninput={(v) => dayPut({ grip: v / 100 })}
              />
              <span
                >{tell('session.m_s_from', {
                  windSpeed: draft.day.day.windSpeed,
                  windFrom: draft.day.day.windFrom,
                })}</span
              >
            </div>
          </div>
          <div class="grid grid-cols-2 gap-x-3 gap-y-1">
            <NumberField
              label={tell('session.air_c')}
              placeholder="15"
              value={draft.day.day.airTemperature}
              onset={(airTemperature) => dayPut({ airTemperature })}
            />
            <NumberField
              label={tell('session.road_c')}
              value={draft.day.road}
              onset={(road) => draft && put({ day: { ...draft.day, road } })}
            />
            <NumberField
              label={tell('session.pressure_hpa')}
              value={draft.day.pressure}
              onset={(pressure) => draft && put({ day: { ...draft.day, pressure } })}
            />
            <label class="flex items-center gap-1"
              ><span class="flex-1">{tell('session.rubber')}</span><select
                class="select select-xs w-24"
                value={draft.day.rubber}
                onchange={(e) =>
                  draft &&
                  put({ day: { ...draft.day, rubber: e.currentTarget.value as TrackSession['day']['rubber'] } })}
                ><option value="GREEN">{tell('session.green')}</option><option value="USUAL"
                  >{tell('session.usual')}</option
                ><option value="RUBBERED">{tell('session.rubbered')}</option></select
              ></label
            >
            <label class="flex items-center gap-1"
              ><span class="flex-1">{tell('session.kind')}</span><select
                class="select select-xs w-24"
                value={draft.kind}
                onchange={(e) => put({ kind: e.currentTarget.value as SessionKind })}
                >{#each Object.entries(KINDS) as [k, w] (k)}<option value={k}>{w}</option>{/each}</select
              ></label
            >
            <label class="col-span-2 flex items-center gap-1"
              ><span class="flex-1">{tell('session.starts')}</span><input
                class="input input-xs w-48"
                type="datetime-local"
                value={draft.timing.start.wall.slice(0, 16)}
                onchange={(e) =>
                  draft &&
                  e.currentTarget.value &&
                  put({
                    timing: { ...draft.timing, start: { ...draft.timing.start, wall: `${e.currentTarget.value}:00` } },
                  })}
              /></label
            >
            <label class="flex items-center gap-1"
              ><span class="flex-1">{tell('session.minutes_laps', { noLaps: draft.timing.laps == null })}</span><input
                class="input input-xs w-16"
                type="number"
                min="1"
                value={draft.timing.laps ?? draft.timing.minutes ?? ''}
                onchange={(e) => {
                  const v = number(e);
                  if (draft && v)
                    put({
                      timing: {
                        ...draft.timing,
                        shortened: undefined,
                        ...(draft.timing.laps == null ? { minutes: v } : { laps: v }),
                      },
                    });
                }}
              /></label
            >
          </div>
          {#each plan.light as l, i (i)}<p class="border-base-300 border-l-4 pl-2">{l}</p>{/each}
          <h3 class="mt-1 font-bold">{tell('session.targets')}</h3>
          <ol class="flex flex-wrap gap-1" data-targets>
            {#each plan.targets.tiers as t, i (t.off)}
              {@const planned = draft.pace != null && Math.abs(draft.pace - t.off) < 1e-6}
              <li>
                <button
                  class={[
                    'border-base-300 rounded border px-2 py-0.5 text-center',
                    plan.targets.now === i ? 'bg-base-300 font-bold' : '',
                    planned ? 'ring-2 ring-current' : '',
                  ]}
                  aria-pressed={planned}
                  title={tell('session.over_the_best_computed_where', {
                    off: plain(t.off * 100, 1),
                    isNow: plan.targets.now === i,
                  })}
                  onclick={() => put({ pace: planned ? undefined : t.off })}
                >
                  {lapTime(t.lap)}<span class="block text-xs"
                    >{t.off ? `+${plain(t.off * 100, 1)} %` : tell('session.best_computed')}</span
                  >
                </button>
              </li>
            {/each}
          </ol>
          <p data-pace>
            {draft.pace == null
              ? tell('session.press_one_to_plan_the')
              : tell('session.planned_at_markers_speeds_and', {
                  pace: draft.pace
                    ? tell('session.over_the_best', { pace: plain(draft.pace * 100, 1) })
                    : tell('session.the_best_computed'),
                })}
          </p>
          {#if plan.targets.own}<p>
              {tell('session.your_best_corners_put_together', { own: lapTime(plan.targets.own) })}
            </p>{/if}
          {#each plan.notToday as n, i (i)}<p class="border-base-300 border-l-4 pl-2">{n}</p>{/each}
        </section>

        <section class="grid content-start gap-2 text-sm" aria-label={tell('session.machine')}>
          <TyresPanel session={id} version={view.line.version} {draft} {plan} {put} onselect={(c) => (selected = c)} />
          <FuelPanel {draft} {plan} {put} />
          <RacePanel {plan} />
          <label class="grid gap-1"
            >{tell('session.aim')}
            <input
              class="input input-sm w-full"
              maxlength="500"
              value={draft.aim}
              onchange={(e) => put({ aim: e.currentTarget.value })}
            /></label
          >
          <div class="flex flex-wrap gap-1">
            <button class="btn btn-sm" onclick={laps}>{tell('session.bring_the_laps')}</button>
            <button class="btn btn-sm" onclick={() => like(2)}>{tell('session.like_this_2_h_on')}</button>
            <button class="btn btn-sm" onclick={() => like(24)}>{tell('session.like_this_next_day')}</button>
          </div>
          <SessionRuns
            {view}
            events={calendar.data?.events ?? []}
            onchanged={() => void load()}
            onproblem={(p) => (problem = p)}
          />
          {#each plan.cautions as c, i (i)}<p class="text-xs leading-tight">{c}</p>{/each}
        </section>
      </div>
      {#if reference.data && draft.kind === 'RACE'}
        <section class="bg-base-100 border-base-300 rounded border p-3" aria-label={tell('session.race')}>
          <h2 class="font-bold">{tell('session.racing_others')}</h2>
          <RaceStrip
            session={id}
            version={view.line.version}
            road={reference.data.road}
            corners={reference.data.r.corners}
            {selected}
            onselect={(c) => (selected = c)}
          />
        </section>
      {/if}
      {#if reference.data && view.line.reference}
        <section class="bg-base-100 border-base-300 grid gap-2 rounded border p-3" aria-label={tell('session.trials')}>
          <h2 class="font-bold">{tell('session.trials')}</h2>
          <TryPanel
            session={id}
            corner={selected}
            called={chosen?.called ?? ''}
            hard={chosen?.shortRunOff ?? false}
            ondrive={(school) => drive(selected, school)}
          />
          <TrialsPanel reference={view.line.reference} session={id} length={reference.data.road.length} mine />
        </section>
      {/if}
    {/if}
  {/if}
</main>
