<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import ArrowRight from '@lucide/svelte/icons/arrow-right';
  import { onDestroy } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type Problem, type RoadView, type Job } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { follow } from '../../api/jobs';
  import { clock, day, until } from '../../words/clock';
  import { ERRANDS } from '../../words/errands';
  import { butFor, lapTime, metres } from '../../words/units';
  import LapStrip from '../../road/LapStrip.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import PutAway from '../../kit/PutAway.svelte';
  import JobNote from '../../kit/JobNote.svelte';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  here.say('', '', null);

  const paddock = createQuery(() => ({ queryKey: ['paddock'], queryFn: () => ask(api.GET('/api/paddock')) }));
  const view = $derived(paddock.data);
  const latest = $derived(view?.references[0]);

  const strip = createQuery(() => ({
    queryKey: ['paddock-strip', latest?.id, latest?.changedAt],
    enabled: !!latest,
    queryFn: async () => {
      if (!latest) throw new Error(tell('paddock.no_reference'));
      const reference = await ask(api.GET('/api/references/{id}', { params: { path: { id: latest.id } } }));
      const road: RoadView = await ask(
        api.GET('/api/layouts/{id}/road', { params: { path: { id: latest.layoutId }, query: { step: 6 } } }),
      );
      return { reference, road };
    },
  }));

  let now = $state(Date.now());
  const next = $derived(view?.due.find((d) => Date.parse(d.begins) > now));
  // How much of the next session is known by heart takes a moment to work out, and comes when it is there.
  const ready = createQuery(() => ({
    queryKey: ['readiness', next?.session],
    enabled: !!next,
    retry: false,
    queryFn: () => ask(api.GET('/api/sessions/{id}/readiness', { params: { path: { id: next?.session ?? '' } } })),
  }));

  const due = $derived.by(() => {
    switch (view?.step) {
      case 'BRING_CIRCUIT': {
        const open = view.shared[0];
        if (open)
          return {
            title: tell('paddock.look_at_what_is_open'),
            words: tell('paddock.opened_a_reference_to_you', { driver: open.driver, role: few(open.role) }),
            action: tell('paddock.open_it'),
            href: `/reference/${open.id}`,
          };
        return {
          title: tell('paddock.bring_a_circuit'),
          words: tell('paddock.drop_the_outline_of_a'),
          action: tell('paddock.bring_a_circuit'),
          href: '/survey/bring',
        };
      }
      case 'PICK_VEHICLE':
        return {
          title: tell('paddock.pick_a_vehicle'),
          words: tell('paddock.start_from_a_class_and'),
          action: tell('paddock.pick_a_vehicle'),
          href: '/vehicle',
        };
      case 'DRAFT':
        return {
          title: tell('paddock.draft_the_reference'),
          words: tell('paddock.everything_is_there_the_computation'),
          action: null,
          href: null,
        };
      case 'SAVE_FIRST':
        return {
          title: tell('paddock.look_through_the_draft'),
          words: tell('paddock.every_point_is_proposed_make'),
          action: tell('paddock.open_the_draft'),
          href: `/reference/${view.reference}`,
        };
      case 'SAVE_CHANGES':
        return {
          title: tell('paddock.finish_what_you_changed'),
          words: tell('paddock.there_are_changes_since_revision', { revision: latest?.revision }),
          action: tell('paddock.open_the_reference'),
          href: `/reference/${view.reference}`,
        };
      default:
        return {
          title: tell('paddock.ready_for_the_next_session'),
          words: tell('paddock.revision_is_saved_print_the', { revision: latest?.revision }),
          action: tell('paddock.print_the_card'),
          href: `/card/${view?.reference}/${latest?.revision}`,
        };
    }
  });

  let layoutId = $state('');
  let vehicleId = $state('');
  let busy = $state(false);
  let problem = $state<Problem | null>(null);
  let job = $state.raw<Job | null>(null);
  const layout = $derived(layoutId || view?.layouts[0]?.id || '');
  const vehicle = $derived(vehicleId || view?.vehicles[0]?.id || '');

  async function draft() {
    busy = true;
    problem = null;
    try {
      const started = await ask(api.POST('/api/references', { body: { layoutId: layout, vehicleId: vehicle } }));
      const made = await follow(started, (s) => (job = s));
      if (made) await push(`/reference/${made}`);
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
      job = null;
    }
  }
  const timer = setInterval(() => (now = Date.now()), 15_000);
  onDestroy(() => clearInterval(timer));
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
</script>

{#snippet planned(r: { lapTime: number; unmade: number })}
  <span class="text-right" title={tell('paddock.the_lap_as_planned')}>
    <span class="text-lg font-semibold">{lapTime(r.lapTime)}</span>
    {#if r.unmade > 0}<span class="block text-sm">{butFor(r.unmade)}</span>{/if}
  </span>
{/snippet}

<main class="grid grid-cols-[minmax(0,1fr)] gap-5 p-5">
  {#if paddock.error}
    <ProblemBox problem={asProblem(paddock.error)} />
  {:else if !view}
    <p role="status">{tell('paddock.opening_the_paddock')}</p>
  {:else}
    {#if view.due.length}
      <section class="bg-base-100 border-base-300 rounded border p-4" aria-label={tell('paddock.due')}>
        <ul class="grid gap-2">
          {#each view.due as d, i (d.session)}
            <li class="flex flex-wrap items-center gap-x-4 gap-y-1" data-due={d.errand}>
              <a class={['min-w-0 flex-1', i === 0 ? 'text-xl font-bold' : '']} href="#/session/{d.session}">
                {tell('paddock.now', {
                  what: ERRANDS[d.errand].what,
                  isGetTime: new Date(d.from).getTime() > now,
                  now: until(d.from, now),
                })}
                <span class="block text-sm font-normal"
                  >{tell('paddock.at_the_circuit', {
                    event: d.event,
                    name: d.name,
                    zone: day(d.begins, d.zone),
                    zone2: clock(d.begins, d.zone),
                  })}</span
                >
              </a>
              {#if ready.data && d === next}
                <a class="link text-sm" href="#/rehearse/{d.session}" data-readiness
                  >{tell('paddock.by_heart_of_corners', { ready: ready.data.ready, corners: ready.data.corners })}</a
                >
              {/if}
              {#if i === 0}
                <a
                  class="btn btn-primary min-h-11"
                  href={d.errand === 'LOG'
                    ? `#/log/${d.session}`
                    : d.errand === 'BRIEF'
                      ? `#/brief/${d.session}`
                      : d.errand === 'REHEARSE'
                        ? `#/rehearse/${d.session}`
                        : `#/session/${d.session}`}
                  >{tell('paddock.log_brief_rehearse_session', {
                    isLog: d.errand === 'LOG',
                    isBrief: d.errand === 'BRIEF',
                    isRehearse: d.errand === 'REHEARSE',
                  })}</a
                >
              {/if}
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    <section class="bg-base-100 border-base-300 rounded border">
      <div class="flex flex-wrap items-center gap-6 p-5">
        <div class="min-w-60 flex-1">
          <p class="text-sm">{tell('paddock.next')}</p>
          <h1 class="text-2xl font-bold">{due.title}</h1>
          <p>{due.words}</p>
        </div>
        {#if due.action && due.href}
          <a class="btn btn-primary" href="#{due.href}">{due.action} <ArrowRight class="size-4" /></a>
        {/if}
        {#if view.reference && latest && latest.revision > 0}
          <a class="btn" href="#/runs/{view.reference}">{tell('paddock.bring_the_laps')}</a>
        {/if}
      </div>
      {#if strip.data}
        <div class="px-3 pb-2">
          <LapStrip
            road={strip.data.road}
            corners={strip.data.reference.corners}
            entries={strip.data.reference.working.content.corners}
            onselect={() => push(`/reference/${latest?.id}`)}
          />
        </div>
      {/if}
    </section>

    <div class="grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-[2fr_1fr]">
      <section>
        {#if view.shared.length}
          <h2 class="mb-2 font-bold">{tell('paddock.open_to_you')}</h2>
          <ul class="mb-4 grid gap-2">
            {#each view.shared as r (r.id)}
              <li
                class="bg-base-100 border-base-300 flex items-center gap-4 rounded border px-4 py-2"
                data-shared-reference
              >
                <a class="min-w-0 flex-1" href="#/reference/{r.id}">
                  <span class="font-semibold">{r.driver}</span> · {r.circuit} · {r.vehicle}
                  <span class="block text-sm">
                    {tell('paddock.draft_no_revision_revision_you', {
                      noRevision: r.revision === 0,
                      revision: r.revision,
                      role: few(r.role),
                      openRemarks: r.openRemarks
                        ? tell('paddock.remark_remarks_not_decided', { openRemarks: r.openRemarks })
                        : '',
                    })}
                  </span>
                </a>
                {@render planned(r)}
              </li>
            {/each}
          </ul>
        {/if}
        <h2 class="mb-2 font-bold">{tell('paddock.references')}</h2>
        {#if view.references.length === 0}
          <p class="mb-3">{tell('paddock.none_yet')}</p>
        {/if}
        <ul class="grid gap-2">
          {#each view.references as r (r.id)}
            <li
              class="bg-base-100 border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 rounded border px-4 py-2"
            >
              <a class="min-w-52 flex-1" href="#/reference/{r.id}">
                <span class="font-semibold">{r.circuit}</span> · {r.vehicle}
                <span class="block text-sm">
                  {tell('paddock.draft_no_revision_revision_with', {
                    noRevision: r.revision === 0,
                    revision: r.revision,
                    hasRevision: !!(r.changed && r.revision > 0),
                    changedAt: when.format(new Date(r.changedAt)),
                  })}
                </span>
              </a>
              {@render planned(r)}
              <a class="btn btn-sm" href="#/revisions/{r.id}">{tell('paddock.revisions')}</a>
              <PutAway sort="REFERENCE" id={r.id} name={r.name} onproblem={(p) => (problem = p)} />
            </li>
          {/each}
        </ul>
        {#if view.layouts.length > 0 && view.vehicles.length > 0}
          <form
            class="bg-base-100 border-base-300 mt-3 flex flex-wrap items-end gap-3 rounded border p-4"
            onsubmit={(e) => {
              e.preventDefault();
              void draft();
            }}
          >
            <label class="grid min-w-44 flex-1 gap-1">
              {tell('paddock.circuit')}
              <select class="select w-full" value={layout} onchange={(e) => (layoutId = e.currentTarget.value)}>
                {#each view.layouts as l (l.id)}
                  <option value={l.id}>{l.circuit} · {l.layout} v{l.version}</option>
                {/each}
              </select>
            </label>
            <label class="grid min-w-44 flex-1 gap-1">
              {tell('paddock.vehicle')}
              <select class="select w-full" value={vehicle} onchange={(e) => (vehicleId = e.currentTarget.value)}>
                {#each view.vehicles as v (v.id)}<option value={v.id}>{v.name}</option>{/each}
              </select>
            </label>
            <button class={['btn', view.step === 'DRAFT' ? 'btn-primary' : '']} disabled={busy}>
              {tell('paddock.computing_line_and_lap_draft', { hasBusy: !!busy })}
            </button>
          </form>
          {#if job}<div class="mt-3"><JobNote {job} onproblem={(p) => (problem = p)} /></div>{/if}
          {#if problem}<div class="mt-3"><ProblemBox {problem} /></div>{/if}
        {/if}
      </section>
      <section class="grid content-start gap-5">
        <div>
          <h2 class="mb-2 font-bold">{tell('paddock.circuits')}</h2>
          <ul class="mb-2 grid gap-1">
            {#each view.layouts as l (l.id)}
              <li>
                <a class="link" href="#/survey/{l.id}">{l.circuit}</a>
                {tell('paddock.v_corners', {
                  layout: l.layout,
                  version: l.version,
                  l: metres(l.length),
                  corners: l.corners,
                })}
              </li>
            {/each}
          </ul>
          <a class="btn btn-sm" href="#/survey/bring">{tell('paddock.bring_a_circuit')}</a>
        </div>
        <div>
          <h2 class="mb-2 font-bold">{tell('paddock.vehicles')}</h2>
          <ul class="mb-2 grid gap-1">
            {#each view.vehicles as v (v.id)}<li><a class="link" href="#/vehicle/{v.id}">{v.name}</a></li>{/each}
          </ul>
          <a class="btn btn-sm" href="#/vehicle">{tell('paddock.pick_a_vehicle')}</a>
        </div>
      </section>
    </div>
  {/if}
</main>
