<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import { onDestroy } from 'svelte';
  import {
    api,
    ask,
    asProblem,
    sendFile,
    type LapLine,
    type Problem,
    type RunLine,
    type Taken,
    type TraceView,
  } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { best, stationAt, typedTime } from '../../road/runs';
  import { clock as clockOf, day } from '../../words/clock';
  import { lapTime, plain, signed } from '../../words/units';
  import LapDots from './LapDots.svelte';
  import LapPlan from '../../road/LapPlan.svelte';
  import LapStrip from '../../road/LapStrip.svelte';
  import LoggerDialog from './LoggerDialog.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import PutAway from '../../kit/PutAway.svelte';
  import RecordingNote from './RecordingNote.svelte';
  import CutPanel from '../film/CutPanel.svelte';
  import { planTimes } from '../film/film';
  import FilmPanel from '../film/FilmPanel.svelte';
  import Traces from './Traces.svelte';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  let filmed = $state(false);
  const queries = useQueryClient();
  const path = $derived({ path: { id: params.id } });

  const road = createQuery(() => ({
    queryKey: ['reference-road', params.id],
    queryFn: () => ask(api.GET('/api/references/{id}/road', { params: path })),
  }));
  const BUSY = ['RECEIVING', 'LIVE', 'STORED', 'WORKING'];
  const all = createQuery(() => ({
    queryKey: ['runs', params.id],
    queryFn: () => ask(api.GET('/api/references/{id}/runs', { params: path })),
    // While a file is read or lines come in, laps appear by themselves.
    refetchInterval: (query) =>
      query.state.data?.runs.some((r) => r.recordings.some((f) => BUSY.includes(f.state))) || query.state.data?.inbox
        ? query.state.data?.runs.some((r) => r.recordings.some((f) => BUSY.includes(f.state)))
          ? 700
          : 4000
        : false,
  }));
  const choices = createQuery(() => ({
    queryKey: ['channels'],
    queryFn: () => ask(api.GET('/api/channels')),
    staleTime: Infinity,
  }));

  let chosen = $state<string | null>(here.run);
  const run = $derived(all.data?.runs.find((r) => r.id === chosen) ?? all.data?.runs[0] ?? null);
  const mine = $derived(all.data?.role === 'OWNER');
  let firstId = $state('');
  let secondId = $state('plan');
  const quickest = $derived(run ? best(run.laps) : undefined);
  const first = $derived(
    run?.laps.find((l) => l.id === firstId && l.measured) ?? quickest ?? run?.laps.find((l) => l.measured),
  );
  const everyLap = $derived(all.data?.runs.flatMap((r) => r.laps.map((l) => ({ ...l, of: r.name }))) ?? []);

  $effect(() => {
    const v = all.data;
    if (v) here.say(v.vehicle, tell('runs.runs', { runs: v.runs.length }), v.reference);
    if (run) here.run = run.id;
  });

  const trace = (id: string | undefined, of: string | undefined) => ({
    queryKey: ['trace', id, of],
    enabled: !!id,
    staleTime: 60_000,
    queryFn: (): Promise<TraceView> =>
      id === 'plan'
        ? ask(api.GET('/api/runs/{id}/plan-trace', { params: { path: { id: of ?? '' } } }))
        : ask(api.GET('/api/laps/{id}/trace', { params: { path: { id: id ?? '' } } })),
  });
  const one = createQuery(() => trace(first?.id, run?.id));
  const two = createQuery(() => trace(secondId && run && secondId !== first?.id ? secondId : undefined, run?.id));

  const corners = $derived(all.data?.corners ?? []);
  /** A film without a recording, cut by hand. */
  let cutting = $state(false);
  const computed = createQuery(() => ({
    queryKey: ['reference-lap', params.id],
    enabled: cutting,
    queryFn: () => ask(api.GET('/api/references/{id}/lap', { params: path })),
  }));
  let cornerId = $state('');
  const length = $derived(road.data?.length ?? 1);
  const shown = $derived.by((): [number, number] => {
    const c = corners.find((k) => k.id === cornerId);
    if (!c) return [0, length];
    const exit = c.exit > c.entry ? c.exit : length;
    return [Math.max(0, c.entry - 190), Math.min(length, exit + 140)];
  });
  let at = $state<number | null>(null);

  // Slow replay: both laps at the same moment since the line.
  let clock = $state<number | null>(null);
  let frame = 0;
  let slow = $state(3);
  function replay() {
    if (clock !== null) return stop();
    const t = one.data;
    if (!t) return;
    let now = performance.now();
    clock = t.times[Math.round(shown[0] / t.step)] ?? 0;
    const step = (then: number) => {
      if (clock === null) return;
      clock += (then - now) / 1000 / slow;
      now = then;
      at = stationAt(t, clock);
      if (clock > t.lapTime || at > shown[1]) stop();
      else frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
  }
  function stop() {
    cancelAnimationFrame(frame);
    clock = null;
  }
  onDestroy(() => {
    stop();
    here.say('', '');
  });
  const moments = $derived.by(() => {
    const a = one.data;
    if (!a) return [];
    const b = two.data;
    const seconds = clock ?? (at === null ? 0 : (a.times[Math.round(at / a.step)] ?? 0));
    return [
      {
        trace: a,
        station: clock === null ? (at ?? 0) : stationAt(a, seconds),
        colour: 'var(--ink)',
        name: tell('runs.first'),
      },
      ...(b
        ? [{ trace: b, station: stationAt(b, seconds), colour: 'var(--throttle)', name: tell('runs.second') }]
        : []),
    ];
  });

  let problem = $state.raw<Problem | null>(null);
  let sending = $state<{ name: string; share: number } | null>(null);
  let known = $state('');
  let over = $state(false);
  let driving = $state(false);
  let byHand = $state('');

  const refresh = () => queries.invalidateQueries({ queryKey: ['runs', params.id] });

  async function act(what: () => Promise<unknown>) {
    problem = null;
    try {
      await what();
      await refresh();
    } catch (e) {
      problem = asProblem(e);
    }
  }

  /** Takes files into the run looked at, or into a new one where there is none. */
  async function bring(files: File[]) {
    if (!files.length || !mine) return;
    known = '';
    await act(async () => {
      let to = run?.id;
      if (!to) {
        to = (await ask(api.POST('/api/references/{id}/runs', { params: path, body: {} as never }))).id;
        chosen = to;
      }
      try {
        for (const file of files) {
          sending = { name: file.name, share: 0 };
          const taken = await sendFile<Taken>(
            `/api/runs/${to}/recordings?name=${encodeURIComponent(file.name)}`,
            file,
            (share) => (sending = { name: file.name, share }),
          );
          if (taken.known) known = tell('runs.had_come_before_nothing_was', { name: file.name });
          await refresh();
        }
      } finally {
        sending = null;
      }
    });
  }
  function driven(taken: Taken | null) {
    driving = false;
    if (taken) {
      chosen = taken.run;
      firstId = '';
      void refresh();
    }
  }
  async function newRun() {
    await act(async () => {
      chosen = (await ask(api.POST('/api/references/{id}/runs', { params: path, body: {} as never }))).id;
    });
  }
  function pick(lap: LapLine, other: boolean) {
    if (!lap.measured) return;
    if (other) secondId = lap.id;
    else firstId = lap.id;
  }
  const say = (lap: LapLine, change: Partial<Pick<LapLine, 'kind' | 'counts' | 'note'>>) =>
    act(() =>
      ask(
        api.PUT('/api/laps/{id}', {
          params: { path: { id: lap.id } },
          body: { kind: lap.kind, counts: lap.counts, note: lap.note, ...change },
        }),
      ),
    );
  const KINDS: [LapLine['kind'], string][] = [
    ['PUSH', tell('runs.push')],
    ['COLD', tell('runs.cold_tyres')],
    ['TRAFFIC', tell('runs.traffic')],
    ['YELLOW', tell('runs.yellow_flag')],
    ['OFF', tell('runs.off_the_road')],
    ['SLOW', tell('runs.slow')],
    ['GUEST', tell('runs.somebody_else_s')],
    ['OUT', tell('runs.out')],
    ['IN', tell('runs.in')],
    ['INCOMPLETE', tell('runs.incomplete')],
  ];
  /** Told from the laps where the driver has not said it. */
  const TOLD = 'told';
  const told = $derived(
    run && (run.day ?? null) === null ? run.parts.map((p) => p.called || tell('runs.no_day_fits')) : [],
  );
  const changeRun = (change: Partial<Pick<RunLine, 'name' | 'note'>> & { day?: string | null }) => {
    const r = run;
    if (!r) return;
    void act(() =>
      ask(
        api.PUT('/api/runs/{id}', {
          params: { path: { id: r.id } },
          body: { name: r.name, day: r.day ?? null, revision: r.revision, note: r.note, ...change } as never,
        }),
      ),
    );
  };
  const intoSession = (session: string | null) => {
    const r = run;
    if (!r) return;
    void act(() =>
      ask(api.PUT('/api/runs/{id}/session', { params: { path: { id: r.id } }, body: { session: session as string } })),
    );
  };
  const when = new Intl.DateTimeFormat(undefined, { weekday: 'short', hour: '2-digit', minute: '2-digit' });
  const theoretical = $derived.by(() => {
    const counted = run?.laps.filter((l) => l.counts && l.sectors.length === 3) ?? [];
    if (counted.length < 2) return null;
    return [0, 1, 2].reduce((sum, i) => sum + Math.min(...counted.map((l) => l.sectors[i] ?? Infinity)), 0);
  });
</script>

<main
  class={['px-5 pb-3', over ? 'outline-2 outline-dashed outline-[var(--brake)]' : '']}
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(e) => {
    e.preventDefault();
    over = false;
    void bring([...(e.dataTransfer?.files ?? [])]);
  }}
>
  {#if all.error}
    <ProblemBox problem={asProblem(all.error)} />
  {:else if !all.data || !road.data}
    <p class="py-5" role="status">{tell('runs.opening_the_runs')}</p>
  {:else}
    {@const view = all.data}
    <LapStrip
      road={road.data}
      {corners}
      selected={cornerId}
      at={at === null ? [] : moments.map((m) => m.station)}
      onselect={(c) => (cornerId = cornerId === c ? '' : c)}
    />
    {#if problem}<ProblemBox {problem} />{/if}
    <div class="grid grid-cols-[300px_minmax(0,1fr)] gap-5">
      <section
        class="border-base-300 flex max-h-[596px] flex-col gap-2 overflow-x-hidden overflow-y-auto border-t pt-2 pr-1"
      >
        {#if view.runs.length === 0}
          <h1 class="text-xl font-bold">{tell('runs.no_run_yet')}</h1>
          <p>
            {tell('runs.bring_what_your_logger_wrote')}
          </p>
        {:else if run}
          <div class="flex items-center gap-2">
            <select
              class="select select-sm min-w-0 flex-1 font-bold"
              aria-label={tell('runs.run')}
              value={run.id}
              onchange={(e) => {
                chosen = e.currentTarget.value;
                firstId = '';
              }}
            >
              {#each view.runs as r (r.id)}<option value={r.id}>{r.name}, {when.format(new Date(r.drivenAt))}</option
                >{/each}
            </select>
            {#if mine}<button class="btn btn-sm" onclick={newRun}>{tell('runs.new_run')}</button>
              <PutAway sort="RUN" id={run.id} name={run.name} onproblem={(p) => (problem = p)} />{/if}
          </div>
          <p class="flex flex-wrap items-center gap-x-2 text-sm">
            <span data-run-on={run.revision}>{tell('runs.revision', { revision: run.revision })}</span>
            {#if run.sheet}<span>· {run.sheet}</span>{/if}
            <label class="flex items-center gap-1"
              >{tell('runs.day')}
              <select
                class="select select-xs w-36"
                name="run-day"
                disabled={!mine}
                value={run.day ?? TOLD}
                onchange={(e) => changeRun({ day: e.currentTarget.value === TOLD ? null : e.currentTarget.value })}
              >
                <option value={TOLD}
                  >{tell('runs.laps_say_told_from_the', { hasTold: !!told.length, told: told.join(', ') })}</option
                >
                {#each view.days as d (d.word)}<option value={d.word}
                    >{tell('runs.it_was_no_such_day', { called: d.called, hasThere: !!d.there })}</option
                  >{/each}
              </select></label
            >
            {#if mine && view.sessions.length}
              <label class="flex items-center gap-1"
                >{tell('runs.in')}
                <select
                  class="select select-xs w-44"
                  name="run-session"
                  aria-label={tell('runs.session_of_this_run')}
                  value={run.session ?? ''}
                  onchange={(e) => intoSession(e.currentTarget.value || null)}
                >
                  <option value="">{tell('runs.no_session')}</option>
                  {#each view.sessions as s (s.id)}<option value={s.id}
                      >{s.name}, {day(s.begins, s.zone)} {clockOf(s.begins, s.zone)}</option
                    >{/each}
                </select></label
              >
              {#if run.session}<a class="link" href="#/session/{run.session}">{tell('runs.open')}</a>{/if}
            {/if}
            {#each run.parts.filter((p) => p.day === undefined || p.day === null || run.parts.length > 1) as p (p.called)}
              <span class="basis-full leading-snug" data-day-part={p.day ?? 'none'}
                >{tell('runs.lap_laps', {
                  laps: p.laps.length,
                  called: p.called ? ` ${p.called}` : '',
                  words: p.words,
                })}</span
              >
            {/each}
          </p>
          <LapDots laps={run.laps} first={first?.id ?? ''} second={secondId} onpick={pick} />
          {#if quickest}
            <p class="text-sm" data-best>
              {tell('runs.best', { lapTime: lapTime(quickest.lapTime) })}{#if theoretical !== null}
                {tell('runs.of_all_thirds', { theoretical: lapTime(theoretical) })}{/if}
            </p>
          {/if}
          {#if one.data}
            <div class="flex-none">
              <LapPlan road={road.data} window={shown} laps={moments} width={286} height={128} />
            </div>
          {/if}
          {#if first}
            <div class="bg-base-100 border-base-300 grid flex-none gap-1 rounded border p-2 text-sm" data-lap-note>
              <p class="flex items-baseline justify-between">
                <strong
                  >{tell('runs.lap', {
                    hasNumber: !!first.number,
                    number: first.number,
                    kindWords: first.kindWords,
                  })}</strong
                >
                <span class="text-lg font-semibold">{lapTime(first.lapTime)}</span>
              </p>
              {#if first.sectors.length}<p>
                  {tell('runs.thirds', { s: first.sectors.map((s) => plain(s, 2)).join(' · ') })}
                </p>{/if}
              <p class="flex flex-wrap items-center gap-2">
                <select
                  class="select select-xs w-28"
                  aria-label={tell('runs.kind_of_lap')}
                  disabled={!mine}
                  value={first.kind}
                  onchange={(e) =>
                    say(first, {
                      kind: e.currentTarget.value as LapLine['kind'],
                      counts: e.currentTarget.value === 'PUSH',
                    })}
                >
                  {#each KINDS as [k, w] (k)}<option value={k}>{w}</option>{/each}
                </select>
                <label class="flex items-center gap-1">
                  <input
                    type="checkbox"
                    class="checkbox checkbox-xs"
                    disabled={!mine || first.kind === 'GUEST'}
                    checked={first.counts}
                    onchange={(e) => say(first, { counts: e.currentTarget.checked })}
                  />
                  {tell('runs.counts')}
                </label>
                {#if first.remark}<span>{first.remark}</span>{/if}
              </p>
              <input
                class="input input-xs w-full"
                placeholder={tell('runs.note_on_this_lap')}
                aria-label={tell('runs.note_on_this_lap_2')}
                disabled={!mine}
                value={first.note}
                onchange={(e) => say(first, { note: e.currentTarget.value })}
              />
              <p class="flex gap-3">
                <a class="link" href="/api/laps/{first.id}/lap.gpx" download>{tell('runs.gpx')}</a>
                <a class="link" href="/api/laps/{first.id}/lap.geojson" download>{tell('runs.geojson')}</a>
                <a class="link" href="/api/runs/{run.id}/laps.csv" download>{tell('runs.laps_as_csv')}</a>
                <a class="link" href="/api/runs/{run.id}/events.csv" download>{tell('runs.events')}</a>
              </p>
            </div>
          {/if}
          {#each run.laps.filter((l) => !l.measured) as l (l.id)}
            <p class="flex items-baseline gap-2 text-sm" data-by-hand>
              <strong>{lapTime(l.lapTime)}</strong>
              {tell('runs.timed_by_hand', { kindWords: l.kindWords })}
              <span class="flex-1">{l.note}</span>
              {#if mine}<button
                  class="link"
                  onclick={() => act(() => ask(api.DELETE('/api/laps/{id}', { params: { path: { id: l.id } } })))}
                  >{tell('runs.remove')}</button
                >{/if}
            </p>
          {/each}
        {/if}
        {#if mine}
          <div class="flex flex-wrap gap-2">
            <label class={['btn btn-sm', view.runs.length ? '' : 'btn-primary']}>
              {tell('runs.bring_files')}
              <input
                type="file"
                multiple
                class="sr-only"
                data-bring-laps
                accept=".csv,.txt,.tsv,.gpx,.nmea,.log"
                onchange={(e) => {
                  // The list empties with the field.
                  void bring([...(e.currentTarget.files ?? [])]);
                  e.currentTarget.value = '';
                }}
              />
            </label>
            <button class="btn btn-sm" onclick={() => (driving = true)}>{tell('runs.simulated_logger')}</button>
            <button class="btn btn-sm" onclick={() => (cutting = true)}>{tell('runs.a_film_alone')}</button>
            {#if run}
              <form
                class="join"
                onsubmit={(e) => {
                  e.preventDefault();
                  const seconds = typedTime(byHand);
                  const to = run.id;
                  if (seconds === null) return;
                  byHand = '';
                  void act(() =>
                    ask(
                      api.POST('/api/runs/{id}/laps', {
                        params: { path: { id: to } },
                        body: { lapTime: seconds, kind: 'PUSH', note: '' },
                      }),
                    ),
                  );
                }}
              >
                <input
                  class="input input-sm join-item w-24"
                  placeholder="1:43.52"
                  aria-label={tell('runs.lap_timed_by_hand')}
                  bind:value={byHand}
                />
                <button class="btn btn-sm join-item" disabled={typedTime(byHand) === null}
                  >{tell('runs.add_lap')}</button
                >
              </form>
            {/if}
          </div>
          {#if sending}
            <p class="flex items-center gap-2 text-sm" role="status">
              <span class="max-w-40 truncate">{sending.name}</span>
              <progress class="progress flex-1" value={sending.share} max="1"></progress>
            </p>
          {/if}
          {#if known}<p class="text-sm" role="status" data-known>{known}</p>{/if}
          {#if view.inbox}
            <p class="text-xs break-all">
              {tell('runs.files_put_into')} <code>{view.inbox}</code>
              {tell('runs.come_in_by_themselves')}
            </p>
          {/if}
        {/if}
        {#each run?.recordings ?? [] as recording (recording.id)}
          <RecordingNote {recording} {mine} choices={choices.data ?? []} onchange={() => void refresh()} />
        {/each}
      </section>
      <section class="border-base-300 min-w-0 border-t pt-1.5">
        {#if cutting && computed.data}
          <CutPanel
            {corners}
            plan={planTimes(
              computed.data,
              corners.map((c) => ({ id: c.id, station: c.apexes[0] ?? c.entry })),
            )}
            lapTime={computed.data.lapTime}
            onclose={() => (cutting = false)}
          />
        {/if}
        {#if one.data}
          <div class="flex flex-wrap items-center gap-3">
            <h2 class="font-bold">
              {first?.number ? tell('runs.lap_2', { number: first.number }) : (first?.kindWords ?? '')}
              <span class="font-normal">{tell('runs.against')}</span>
            </h2>
            <select
              class="select select-sm w-60"
              aria-label={tell('runs.against_2')}
              value={secondId}
              onchange={(e) => (secondId = e.currentTarget.value)}
            >
              <option value="plan">{tell('runs.what_the_reference_computes')}</option>
              <option value="">{tell('runs.nothing')}</option>
              {#each everyLap.filter((l) => l.measured && l.id !== first?.id) as l (l.id)}
                <option value={l.id}
                  >{tell('runs.lap_3', {
                    l: l.of,
                    hasNumber: !!l.number,
                    number: l.number,
                    kindWords: l.kindWords,
                    lapTime: lapTime(l.lapTime),
                  })}</option
                >
              {/each}
            </select>
            {#if two.data}<span class="text-sm"
                ><svg width="26" height="8" class="inline"
                  ><path d="M0 4h26" stroke="var(--throttle)" stroke-width="1.6" stroke-dasharray="5 4" /></svg
                >
                {signed(two.data.lapTime - one.data.lapTime, 2)} s</span
              >{/if}
            <span class="flex-1"></span>
            {#if cornerId}<button class="btn btn-sm" onclick={() => (cornerId = '')}>{tell('runs.whole_lap')}</button
              >{/if}
            <button
              class="btn btn-sm"
              onclick={replay}
              aria-label={tell('runs.slow_replay_stop_the_replay', { noClock: clock === null })}
              data-replay
              >{#if clock === null}<Play class="size-4" />{:else}<Pause class="size-4" />{/if}
              {tell('runs.replay')}</button
            >
            <select class="select select-sm w-24" aria-label={tell('runs.how_slow')} bind:value={slow}>
              <option value={1}>{tell('runs.as_driven')}</option><option value={3}>{tell('runs.3_slow')}</option><option
                value={8}>{tell('runs.8_slow')}</option
              >
            </select>
            {#if run}<a class="btn btn-sm btn-primary" href="#/debrief/{run.id}">{tell('runs.debrief')}</a>{/if}
          </div>
          <FilmPanel
            reference={params.id}
            trace={one.data}
            {corners}
            at={clock === null ? at : null}
            onat={(s) => (at = s)}
            onopen={() => (filmed = true)}
            onclose={() => (filmed = false)}
          />
          <div class="relative">
            <Traces
              first={one.data}
              second={two.data ?? null}
              {corners}
              window={shown}
              {at}
              onat={(s) => {
                if (clock === null) at = s;
              }}
              height={filmed ? 380 : 494}
            />
          </div>
          {#if !one.data.told}<p class="text-sm">
              {tell('runs.the_pedals_were_not_recorded')}
            </p>{/if}
        {:else if one.error}
          <ProblemBox problem={asProblem(one.error)} />
        {:else}
          <p class="py-16 text-center">{tell('runs.laps_that_you_bring_are')}</p>
        {/if}
      </section>
    </div>
  {/if}
</main>
{#if driving && all.data}
  <LoggerDialog reference={params.id} {corners} days={all.data?.days ?? []} {run} onclose={driven} />
{/if}
