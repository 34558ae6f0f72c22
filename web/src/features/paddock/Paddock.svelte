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

  here.say('', '', null);

  const paddock = createQuery(() => ({ queryKey: ['paddock'], queryFn: () => ask(api.GET('/api/paddock')) }));
  const view = $derived(paddock.data);
  const latest = $derived(view?.references[0]);

  const strip = createQuery(() => ({
    queryKey: ['paddock-strip', latest?.id, latest?.changedAt],
    enabled: !!latest,
    queryFn: async () => {
      if (!latest) throw new Error('no reference');
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
            title: 'Look at what is open to you',
            words: `${open.driver} opened a reference to you. You are its ${open.role.toLowerCase()}.`,
            action: 'Open it',
            href: `/reference/${open.id}`,
          };
        return {
          title: 'Bring a circuit',
          words: 'Drop the outline of a circuit: GeoJSON, GPX or CSV. There are samples to try.',
          action: 'Bring a circuit',
          href: '/survey/bring',
        };
      }
      case 'PICK_VEHICLE':
        return {
          title: 'Pick a vehicle',
          words: 'Start from a class and make it yours later.',
          action: 'Pick a vehicle',
          href: '/vehicle',
        };
      case 'DRAFT':
        return {
          title: 'Draft the reference',
          words: 'Everything is there. The computation proposes every point of every corner.',
          action: null,
          href: null,
        };
      case 'SAVE_FIRST':
        return {
          title: 'Look through the draft',
          words: 'Every point is proposed. Make it yours, then save the first revision.',
          action: 'Open the draft',
          href: `/reference/${view.reference}`,
        };
      case 'SAVE_CHANGES':
        return {
          title: 'Finish what you changed',
          words: `There are changes since revision ${latest?.revision}. Look at them and save them with a reason.`,
          action: 'Open the reference',
          href: `/reference/${view.reference}`,
        };
      default:
        return {
          title: 'Ready for the next session',
          words: `Revision ${latest?.revision} is saved. Print the card, or revise after the next run.`,
          action: 'Print the card',
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
  <span class="text-right" title="the lap as planned">
    <span class="text-lg font-semibold">{lapTime(r.lapTime)}</span>
    {#if r.unmade > 0}<span class="block text-sm">{butFor(r.unmade)}</span>{/if}
  </span>
{/snippet}

<main class="grid grid-cols-[minmax(0,1fr)] gap-5 p-5">
  {#if paddock.error}
    <ProblemBox problem={asProblem(paddock.error)} />
  {:else if !view}
    <p role="status">Opening the paddock…</p>
  {:else}
    {#if view.due.length}
      <section class="bg-base-100 border-base-300 rounded border p-4" aria-label="Due">
        <ul class="grid gap-2">
          {#each view.due as d, i (d.session)}
            <li class="flex flex-wrap items-center gap-x-4 gap-y-1" data-due={d.errand}>
              <a class={['min-w-0 flex-1', i === 0 ? 'text-xl font-bold' : '']} href="#/session/{d.session}">
                {ERRANDS[d.errand].what}, {new Date(d.from).getTime() > now ? until(d.from, now) : 'now'}
                <span class="block text-sm font-normal"
                  >{d.event} · {d.name}, {day(d.begins, d.zone)} {clock(d.begins, d.zone)} at the circuit</span
                >
              </a>
              {#if ready.data && d === next}
                <a class="link text-sm" href="#/rehearse/{d.session}" data-readiness
                  >by heart: {ready.data.ready} of {ready.data.corners} corners</a
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
                  >{d.errand === 'LOG'
                    ? 'Log'
                    : d.errand === 'BRIEF'
                      ? 'Brief'
                      : d.errand === 'REHEARSE'
                        ? 'Rehearse'
                        : 'Session'}</a
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
          <p class="text-sm">Next</p>
          <h1 class="text-2xl font-bold">{due.title}</h1>
          <p>{due.words}</p>
        </div>
        {#if due.action && due.href}
          <a class="btn btn-primary" href="#{due.href}">{due.action} <ArrowRight class="size-4" /></a>
        {/if}
        {#if view.reference && latest && latest.revision > 0}
          <a class="btn" href="#/runs/{view.reference}">Bring the laps</a>
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
          <h2 class="mb-2 font-bold">Open to you</h2>
          <ul class="mb-4 grid gap-2">
            {#each view.shared as r (r.id)}
              <li
                class="bg-base-100 border-base-300 flex items-center gap-4 rounded border px-4 py-2"
                data-shared-reference
              >
                <a class="min-w-0 flex-1" href="#/reference/{r.id}">
                  <span class="font-semibold">{r.driver}</span> · {r.circuit} · {r.vehicle}
                  <span class="block text-sm">
                    {r.revision === 0 ? 'draft, no revision' : `revision ${r.revision}`} · you are its {r.role.toLowerCase()}{r.openRemarks
                      ? ` · ${r.openRemarks} ${r.openRemarks === 1 ? 'remark' : 'remarks'} not decided`
                      : ''}
                  </span>
                </a>
                {@render planned(r)}
              </li>
            {/each}
          </ul>
        {/if}
        <h2 class="mb-2 font-bold">References</h2>
        {#if view.references.length === 0}
          <p class="mb-3">None yet.</p>
        {/if}
        <ul class="grid gap-2">
          {#each view.references as r (r.id)}
            <li
              class="bg-base-100 border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 rounded border px-4 py-2"
            >
              <a class="min-w-52 flex-1" href="#/reference/{r.id}">
                <span class="font-semibold">{r.circuit}</span> · {r.vehicle}
                <span class="block text-sm">
                  {r.revision === 0 ? 'draft, no revision' : `revision ${r.revision}`}{r.changed && r.revision > 0
                    ? ', with changes'
                    : ''} · {when.format(new Date(r.changedAt))}
                </span>
              </a>
              {@render planned(r)}
              <a class="btn btn-sm" href="#/revisions/{r.id}">Revisions</a>
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
              Circuit
              <select class="select w-full" value={layout} onchange={(e) => (layoutId = e.currentTarget.value)}>
                {#each view.layouts as l (l.id)}
                  <option value={l.id}>{l.circuit} · {l.layout} v{l.version}</option>
                {/each}
              </select>
            </label>
            <label class="grid min-w-44 flex-1 gap-1">
              Vehicle
              <select class="select w-full" value={vehicle} onchange={(e) => (vehicleId = e.currentTarget.value)}>
                {#each view.vehicles as v (v.id)}<option value={v.id}>{v.name}</option>{/each}
              </select>
            </label>
            <button class={['btn', view.step === 'DRAFT' ? 'btn-primary' : '']} disabled={busy}>
              {busy ? 'Computing line and lap…' : 'Draft a reference'}
            </button>
          </form>
          {#if job}<div class="mt-3"><JobNote {job} onproblem={(p) => (problem = p)} /></div>{/if}
          {#if problem}<div class="mt-3"><ProblemBox {problem} /></div>{/if}
        {/if}
      </section>
      <section class="grid content-start gap-5">
        <div>
          <h2 class="mb-2 font-bold">Circuits</h2>
          <ul class="mb-2 grid gap-1">
            {#each view.layouts as l (l.id)}
              <li>
                <a class="link" href="#/survey/{l.id}">{l.circuit}</a>
                · {l.layout} v{l.version} · {metres(l.length)} · {l.corners} corners
              </li>
            {/each}
          </ul>
          <a class="btn btn-sm" href="#/survey/bring">Bring a circuit</a>
        </div>
        <div>
          <h2 class="mb-2 font-bold">Vehicles</h2>
          <ul class="mb-2 grid gap-1">
            {#each view.vehicles as v (v.id)}<li><a class="link" href="#/vehicle/{v.id}">{v.name}</a></li>{/each}
          </ul>
          <a class="btn btn-sm" href="#/vehicle">Pick a vehicle</a>
        </div>
      </section>
    </div>
  {/if}
</main>
