<script lang="ts">
  import Slide from '../../kit/Slide.svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { onDestroy } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type CornerFinding, type DebriefView, type Problem } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { metres, lapTime, plain, signed, speedText } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import DayNote from './DayNote.svelte';
  import FitPanel from './FitPanel.svelte';
  import OfferLane from './OfferLane.svelte';
  import LapStrip from '../../road/LapStrip.svelte';
  import PlacePosts from './PlacePosts.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import ProposalCard from './ProposalCard.svelte';
  import SpreadStrip from './SpreadStrip.svelte';
  import TrialsPanel from '../trials/TrialsPanel.svelte';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  const queries = useQueryClient();
  const path = $derived({ path: { id: params.id } });
  // Which of the run's days is looked at; without a choice the one with most laps.
  let part = $state<string | undefined>(undefined);
  const debrief = createQuery(() => ({
    queryKey: ['debrief', params.id, part],
    queryFn: () => ask(api.GET('/api/runs/{id}/debrief', { params: { ...path, query: { day: part } } })),
  }));
  const reference = $derived(debrief.data?.reference);
  const road = createQuery(() => ({
    queryKey: ['reference-road', reference],
    enabled: !!reference,
    queryFn: () => ask(api.GET('/api/references/{id}/road', { params: { path: { id: reference ?? '' } } })),
  }));
  const runs = createQuery(() => ({
    queryKey: ['runs', reference],
    enabled: !!reference,
    queryFn: () => ask(api.GET('/api/references/{id}/runs', { params: { path: { id: reference ?? '' } } })),
  }));
  const pace = createQuery(() => ({
    queryKey: ['pace-now', reference],
    enabled: !!reference,
    queryFn: () => ask(api.GET('/api/references/{id}/pace', { params: { path: { id: reference ?? '' } } })),
  }));
  /** Seconds that the next tier gives in a corner, where the reference is made for less than all of the grip. */
  const nextTier = (corner: string) => {
    const p = pace.data;
    if (!p || p.lapTime / p.best - 1 < 0.002) return null;
    const seconds = p.corners.find((c) => c.corner === corner)?.next ?? 0;
    return { seconds, off: p.nextTier };
  };
  let longest = $state(5);
  const proposals = createQuery(() => ({
    queryKey: ['proposals', params.id, longest, part],
    queryFn: () => ask(api.GET('/api/runs/{id}/proposals', { params: { ...path, query: { longest, day: part } } })),
  }));

  type Sheet = 'matters' | 'corners' | 'proposals' | 'trials' | 'vehicle';
  const SHEETS: { id: Sheet; word: string }[] = [
    { id: 'matters', word: tell('debrief.what_matters') },
    { id: 'corners', word: tell('debrief.corner_by_corner') },
    { id: 'proposals', word: tell('debrief.proposals') },
    { id: 'trials', word: tell('debrief.trials') },
    { id: 'vehicle', word: tell('debrief.vehicle_from_laps') },
  ];
  let sheet = $state<Sheet>('matters');
  let picked = $state('');
  let lap = $state('');
  const view = $derived(debrief.data);
  const corners = $derived(view?.corners ?? []);
  const found = $derived(view?.debrief.corners ?? []);
  const focus = $derived(
    (view?.debrief.focus ?? []).map((id) => found.find((f) => f.corner === id)).filter((f): f is CornerFinding => !!f),
  );
  const selected = $derived(picked || view?.debrief.focus[0] || corners[0]?.id || '');
  const finding = $derived(found.find((f) => f.corner === selected));
  const corner = $derived(corners.find((c) => c.id === selected));
  const run = $derived(runs.data?.runs.find((r) => r.id === params.id));
  const mine = $derived(view?.role === 'OWNER');
  const lapName = $derived((id: string) => {
    for (const r of runs.data?.runs ?? []) {
      const l = r.laps.find((k) => k.id === id);
      if (l)
        return r.id === params.id
          ? tell('debrief.lap', { number: l.number })
          : tell('debrief.lap_2', { name: r.name, number: l.number });
    }
    return tell('debrief.a_lap');
  });

  $effect(() => {
    if (view) {
      here.say(view.vehicle, tell('debrief.revision', { name: view.name, revision: view.revision }), view.reference);
      here.run = view.run;
    }
  });
  onDestroy(() => here.say('', ''));

  let accepted = $state<Record<string, number>>({});
  const changes = $derived(proposals.data?.proposals.filter((p) => p.change) ?? []);
  const none = $derived(proposals.data?.proposals.filter((p) => !p.change && p.corner === selected) ?? []);
  const keyOf = (p: { corner: string; action: string; share: boolean }) => `${p.corner}-${p.action}-${p.share}`;
  let reason = $state('');
  let problem = $state.raw<Problem | null>(null);
  let busy = $state(false);
  async function save(event: SubmitEvent) {
    event.preventDefault();
    const p = proposals.data;
    if (!p || !view) return;
    busy = true;
    problem = null;
    try {
      const moves = changes
        .filter((c) => accepted[keyOf(c)] !== undefined)
        .map((c) => ({ corner: c.corner, action: c.action, share: c.share, to: c.from + (accepted[keyOf(c)] ?? 0) }));
      await ask(
        api.POST('/api/runs/{id}/accept', {
          params: path,
          body: { version: p.version, reason, moves, longest, day: part ?? null } as never,
        }),
      );
      accepted = {};
      reason = '';
      await queries.invalidateQueries();
      await push(`/revisions/${view.reference}`);
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
    }
  }
  const sayDay = (of: DebriefView, day: string) =>
    onDay(() =>
      ask(
        api.PUT('/api/runs/{id}', {
          params: path,
          body: { name: of.name, day, revision: of.revision, note: run?.note ?? '' } as never,
        }),
      ),
    );
  /** A day is added or named for the run; its recordings are then read once more. */
  async function onDay(act: () => Promise<unknown>) {
    busy = true;
    problem = null;
    try {
      await act();
      part = undefined;
      rereading = true;
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
      await queries.invalidateQueries();
    }
  }
  let rereading = $state(false);
  const reading = $derived(!!run?.recordings.some((r) => r.state === 'STORED' || r.state === 'WORKING'));
  $effect(() => {
    if (!rereading) return;
    const timer = setInterval(() => {
      void queries.invalidateQueries();
      if (!reading) rereading = false;
    }, 700);
    return () => clearInterval(timer);
  });
  const PHASES = ['APPROACH', 'BRAKING', 'ENTRY', 'EXIT', 'STRAIGHT'] as const;
  const PHASE_WORDS: Record<string, string> = {
    APPROACH: tell('debrief.approach'),
    BRAKING: tell('debrief.braking'),
    ENTRY: tell('debrief.entry'),
    EXIT: tell('debrief.exit'),
    STRAIGHT: tell('debrief.straight_after'),
  };
</script>

<main class="px-5 pb-3">
  {#if debrief.error}
    <ProblemBox problem={asProblem(debrief.error)} />
  {:else if !view || !road.data}
    <p class="py-5" role="status">{tell('debrief.reading_the_laps')}</p>
  {:else if view.debrief.laps === 0}
    <div class="grid justify-items-start gap-2 py-6">
      <h1 class="text-2xl font-bold">{tell('debrief.no_lap_of_this_run')}</h1>
      <p>{tell('debrief.bring_laps_or_let_some')}</p>
      <a class="btn btn-primary" href="#/runs/{view.reference}">{tell('debrief.open_the_runs')}</a>
    </div>
  {:else}
    {@const d = view.debrief}
    <LapStrip road={road.data} {corners} {selected} changed={d.focus} onselect={(c) => (picked = c)} />
    <div class="border-base-300 flex items-center gap-4 border-t pt-1.5">
      <div class="flex gap-x-4 border-b border-[var(--ink-soft)]" role="tablist" aria-label={tell('debrief.debrief')}>
        {#each SHEETS as t (t.id)}
          <button
            role="tab"
            aria-selected={sheet === t.id}
            data-tab={t.id}
            class={['pb-0.5', sheet === t.id ? 'border-b-2 border-[var(--ink)] font-bold' : '']}
            onclick={() => (sheet = t.id)}
            >{t.word}{#if t.id === 'proposals' && changes.length}<sup>{changes.length}</sup>{/if}</button
          >
        {/each}
      </div>
      <p class="flex-1 text-right text-sm" data-summary>
        {tell('debrief.laps_count_best', { laps: d.laps })} <strong>{lapTime(d.best)}</strong>
        {tell('debrief.median_best_of_all_corners', { median: lapTime(d.median) })}
        <strong>{lapTime(d.theoretical)}</strong>
        {tell('debrief.computed', { planned: lapTime(d.planned) })}
      </p>
      <details class="dropdown dropdown-end">
        <summary class="btn btn-sm">{tell('debrief.file')}</summary>
        <ul class="menu dropdown-content bg-base-100 border-base-300 z-10 mt-1 w-56 rounded border">
          <li><a href="/api/runs/{view.run}/debrief.pdf" download>{tell('debrief.debrief_as_pdf')}</a></li>
          <li><a href="/api/runs/{view.run}/debrief" download="debrief.json">{tell('debrief.debrief_as_json')}</a></li>
          <li><a href="/api/runs/{view.run}/laps.csv" download>{tell('debrief.laps_as_csv')}</a></li>
          <li><a href="/api/runs/{view.run}/events.csv" download>{tell('debrief.events_as_csv')}</a></li>
          <li><a href="/api/runs/{view.run}/actions.csv" download>{tell('debrief.written_actions_as_csv')}</a></li>
        </ul>
      </details>
      <a class="btn btn-sm" href="#/runs/{view.reference}">{tell('debrief.traces')}</a>
    </div>
    {#if rereading || reading}
      <p role="status" class="pt-1 text-sm">{tell('debrief.reading_the_recordings_once_more')}</p>
    {/if}
    {#if problem && sheet !== 'proposals'}<ProblemBox {problem} />{/if}
    <DayNote
      {view}
      {mine}
      busy={busy || reading}
      onpart={(day) => (part = day)}
      onadd={() => onDay(() => ask(api.POST('/api/runs/{id}/day', { params: path })))}
      onown={() => sayDay(view, '')}
      onyes={() => sayDay(view, view.day?.id ?? '')}
    />
    {#if (view.day?.id ?? null) === null && sheet !== 'trials'}
      <p class="py-3">{tell('debrief.their_times_stand_above_what')}</p>
    {:else if sheet === 'matters'}
      {#if focus.length === 0}
        <p class="py-8 text-lg">{tell('debrief.nothing_stands_out_your_laps')}</p>
      {/if}
      <div class="grid grid-cols-3 gap-4 pt-3">
        {#each focus as f (f.corner)}
          {@const c = corners.find((k) => k.id === f.corner)}
          {#if c}
            <article
              class="bg-base-100 border-base-300 grid content-start gap-2 rounded border p-3"
              data-focus={f.corner}
            >
              <h2 class="flex items-baseline justify-between">
                <span class="text-xl font-bold">{c.number}{c.name ? ` · ${c.name}` : ''}</span>
                <span class="text-2xl font-bold">{plain(f.offer, 2)} s</span>
              </h2>
              {#if nextTier(f.corner)}
                {@const next = nextTier(f.corner)}
                <p class="-mt-1 text-right text-sm" data-next-tier>
                  {tell('debrief.at_your_own_pace_s', {
                    seconds: plain(next?.seconds ?? 0, 2),
                    off: next?.off ? tell('debrief.off', { off: plain(next.off * 100, 1) }) : tell('debrief.the_best'),
                  })}
                </p>
              {/if}
              {#if f.habits[0]}
                {@const h = f.habits[0]}
                <p class="text-lg leading-snug font-semibold" data-cause={h.cause}>{h.words}</p>
                <p class="text-sm">
                  {tell('debrief.on_of_laps', {
                    measure: h.measure,
                    laps: Math.round(h.share * d.laps),
                    laps2: d.laps,
                  })}{#if h.seconds !== null && h.seconds !== undefined && h.seconds > 0.02}{tell(
                      'debrief.those_laps_take_s_longer',
                      { seconds: plain(h.seconds, 2) },
                    )}{/if}
                  {#if h.before}<span class="block"
                      >{tell('debrief.look_at_corner_first', {
                        number: corners.find((k) => k.id === h.before)?.number,
                      })}</span
                    >{/if}
                </p>
              {:else}
                <p class="text-lg leading-snug font-semibold">{f.why}</p>
              {/if}
              <SpreadStrip finding={f} corner={c} length={road.data.length} small />
              {#if f.habits[0]}<p class="leading-snug"><strong>{tell('debrief.do')}</strong> {f.habits[0].cure}</p>{/if}
              <button
                class="link justify-self-start text-sm"
                onclick={() => {
                  picked = f.corner;
                  sheet = 'corners';
                }}>{tell('debrief.what_it_rests_on')}</button
              >
            </article>
          {/if}
        {/each}
      </div>
      <div class="pt-2">
        <OfferLane
          findings={found}
          {corners}
          length={road.data.length}
          {selected}
          onselect={(c) => {
            picked = c;
            sheet = 'corners';
          }}
        />
      </div>
    {:else if sheet === 'corners' && finding && corner}
      <div class="grid grid-cols-[minmax(0,1fr)_330px] gap-6 pt-2">
        <section aria-label={tell('debrief.corner', { number: corner.number })}>
          <h2 class="text-xl font-bold">{corner.number}{corner.name ? ` · ${corner.name}` : ''}</h2>
          <p class="mb-1 leading-snug">{finding.words}</p>
          <SpreadStrip {finding} {corner} length={road.data.length} {lap} onlap={(l) => (lap = l)} />
          {#each d.places.filter((p) => p.corner === corner.id) as place (place.gate)}
            <PlacePosts {place} {lap} onlap={(l) => (lap = l)} />
          {/each}
          {#if lap}
            <p class="text-sm" role="status" data-lap-picked>
              {tell('debrief.stands_out', { lap: lapName(lap) })}
              <a class="link" href="#/runs/{view.reference}">{tell('debrief.its_traces')}</a>
            </p>
          {/if}
        </section>
        <aside class="border-base-300 grid content-start gap-3 border-l pl-5 text-sm">
          <table class="w-full" aria-label={tell('debrief.where_the_time_goes')}>
            <tbody>
              {#each PHASES as p (p)}
                {@const lost = finding.lost[p] ?? 0}
                <tr>
                  <td class="pr-2">{PHASE_WORDS[p]}</td>
                  <td class="w-40">
                    <svg width="150" height="14" aria-hidden="true"
                      ><path d="M75 0V14" stroke="var(--ink-soft)" /><path
                        d="M75 7h{Math.max(-74, Math.min(74, lost * 180))}"
                        stroke={lost > 0 ? 'var(--turn)' : 'var(--sky)'}
                        stroke-width="8"
                      /></svg
                    >
                  </td>
                  <td class="text-right">{signed(lost, 2)} s</td>
                </tr>
              {/each}
            </tbody>
          </table>
          <p>{tell('debrief.median_against_your_own_best', { bestLap: lapName(finding.bestLap) })}</p>
          <p>
            {tell('debrief.slowest_place_spread_planned_section', {
              minimumSpeed: speedText(finding.minimumSpeed),
              speedSpread: speedText(finding.speedSpread),
              plannedSpeed: speedText(finding.plannedSpeed),
              median: plain(finding.median, 2),
              best: plain(finding.best, 2),
              spread: plain(finding.spread, 2),
            })}
          </p>
          {#each finding.habits as h (h.cause)}
            <div class="border-base-300 border-t pt-1.5" data-habit={h.cause}>
              <p class="font-semibold">{h.words}</p>
              <p>{tell('debrief.of_laps', { measure: h.measure, share: Math.round(h.share * 100), cure: h.cure })}</p>
              <p class="flex flex-wrap gap-x-2">
                {#each h.laps as l (l)}<button class="link" onclick={() => (lap = l)}>{lapName(l)}</button>{/each}
              </p>
            </div>
          {:else}
            <p class="border-base-300 border-t pt-1.5">{tell('debrief.no_habit_is_seen_here')}</p>
          {/each}
        </aside>
      </div>
    {:else if sheet === 'proposals'}
      <div class="grid grid-cols-[minmax(0,1fr)_300px] gap-6 pt-2">
        <section class="max-h-[540px] overflow-y-auto pr-2">
          <p class="text-sm" data-rests-on={proposals.data?.laps}>
            {tell('debrief.from_laps_of_the_same', {
              laps: proposals.data?.laps ?? 0,
              onOtherSheets: proposals.data?.onOtherSheets
                ? tell('debrief.on_another_sheet_are_left', { onOtherSheets: proposals.data.onOtherSheets })
                : '',
            })}
          </p>
          {#each changes as p (keyOf(p))}
            {@const c = corners.find((k) => k.id === p.corner)}
            {#if c}
              <ProposalCard
                proposal={p}
                corner={c}
                {mine}
                accepted={accepted[keyOf(p)] ?? null}
                ondecide={(m) => {
                  if (m === null) delete accepted[keyOf(p)];
                  else accepted[keyOf(p)] = m;
                }}
                onlap={(l) => {
                  lap = l;
                  picked = p.corner;
                  sheet = 'corners';
                }}
              />
            {/if}
          {:else}
            <p class="py-4 font-semibold" role="status">
              {tell('debrief.no_change_is_proposed_there', { hasProposals: !!proposals.data })}
            </p>
          {/each}
          {#if none.length && corner}
            <h3 class="mt-3 font-bold">{tell('debrief.no_change_at', { corner: cornerWord(corner) })}</h3>
            <ul class="ml-4 list-disc text-sm">
              {#each none as p (keyOf(p))}<li>
                  <strong>{tell('debrief.share', { what: p.what, hasShare: !!p.share })}</strong>
                  {p.reason}
                </li>{/each}
            </ul>
          {/if}
        </section>
        <aside class="border-base-300 grid content-start gap-3 border-l pl-5">
          <div class="grid gap-1 text-sm">
            <span>{tell('debrief.longest_step')}</span>
            <Slide
              value={longest}
              min={1}
              max={5}
              step={0.5}
              label={tell('debrief.longest_step')}
              text={metres(longest, 1)}
              oninput={(v) => (longest = v)}
            />
          </div>
          {#if mine}
            <form class="grid gap-2" onsubmit={save}>
              <p>{tell('debrief.accepted', { accepted: Object.keys(accepted).length })}</p>
              <label class="grid gap-1 text-sm">
                {tell('debrief.why')}
                <textarea
                  class="textarea w-full"
                  maxlength="500"
                  required
                  bind:value={reason}
                  placeholder={tell('debrief.what_you_take_from_this')}></textarea>
              </label>
              {#if problem}<ProblemBox {problem} />{/if}
              <button
                class="btn btn-primary"
                disabled={busy || Object.keys(accepted).length === 0 || reason.trim() === ''}
                >{tell('debrief.save_as_a_revision')}</button
              >
              <p class="text-xs">
                {tell('debrief.the_revision_keeps_what_spoke')}
              </p>
            </form>
          {:else}
            <p>{tell('debrief.only_the_driver_changes_the')}</p>
          {/if}
        </aside>
      </div>
    {:else if sheet === 'trials'}
      <div class="pt-2">
        <TrialsPanel reference={view.reference} length={road.data.length} laps={run?.laps ?? []} {mine} />
      </div>
    {:else if sheet === 'vehicle'}
      <div class="pt-3"><FitPanel run={view.run} {mine} theoretical={d.theoretical} /></div>
    {/if}
  {/if}
</main>
