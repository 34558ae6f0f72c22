<script lang="ts">
  import { push } from 'svelte-spa-router';
  import {
    api,
    ask,
    asProblem,
    sendForm,
    type Corner,
    type LayoutView,
    type Problem,
    type Things,
  } from '../../api/api';
  import type { SurveyDesk } from './survey.svelte';
  import { metres } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  interface Props {
    desk: SurveyDesk;
    view: LayoutView;
    stretch: [number, number];
    onplaced: () => void;
  }
  let { desk, view, stretch, onplaced }: Props = $props();

  interface Read {
    things: Things;
    corners?: Corner[] | null;
    report: string;
  }
  const id = $derived(view.summary.id);
  let read = $state.raw<Read | null>(null);
  let done = $state('');
  let problem = $state<Problem | null>(null);
  let date = $state(new Date().toISOString().slice(0, 10));
  let reason = $state('');
  // svelte-ignore state_referenced_locally
  let latitude = $state(view.place?.latitude ?? 0);
  // svelte-ignore state_referenced_locally
  let longitude = $state(view.place?.longitude ?? 0);
  // svelte-ignore state_referenced_locally
  let altitude = $state(view.place?.altitude ?? 0);

  async function bring(input: HTMLInputElement) {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    done = '';
    try {
      read = await sendForm<Read>(`/api/layouts/${id}/survey/read`, { file });
      problem = null;
    } catch (e) {
      read = null;
      problem = asProblem(e);
    }
  }
  function take() {
    if (!read) return;
    desk.apply({ put: read.things, remove: [], corners: read.corners ?? null });
    done = tell('surveyFiles.put_in_undo_takes_them', { report: read.report });
    read = null;
  }
  async function startVersion(event: SubmitEvent) {
    event.preventDefault();
    try {
      const made = await ask(
        api.POST('/api/layouts/{id}/versions', {
          params: { path: { id } },
          body: { from: date, reason, changes: [{ from: stretch[0], to: stretch[1], what: reason }], anew: false },
        }),
      );
      await push(`/survey/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function place(event: SubmitEvent) {
    event.preventDefault();
    try {
      await ask(
        api.PUT('/api/layouts/{id}/place', { params: { path: { id } }, body: { latitude, longitude, altitude } }),
      );
      problem = null;
      onplaced();
    } catch (e) {
      problem = asProblem(e);
    }
  }
</script>

<div class="grid grid-cols-2 gap-x-6 gap-y-3 text-sm">
  {#if problem}<div class="col-span-2"><ProblemBox {problem} /></div>{/if}
  <section class="grid content-start gap-1">
    <h3 class="font-bold">{tell('surveyFiles.in')}</h3>
    <label class="btn btn-sm justify-self-start">
      {tell('surveyFiles.landmarks_gpx_csv_or_a')}
      <input type="file" class="sr-only" name="survey-file" onchange={(e) => bring(e.currentTarget)} />
    </label>
    {#if read}
      <p role="status">
        {tell('surveyFiles.in_the_file', { report: read.report })}
        <button type="button" class="btn btn-sm btn-primary" onclick={take}>{tell('surveyFiles.put_them_in')}</button>
      </p>
    {:else if done}<p role="status">{done}</p>{/if}
  </section>
  <section class="grid content-start gap-1">
    <h3 class="font-bold">{tell('surveyFiles.out')}</h3>
    <p class="flex flex-wrap gap-3">
      <a class="link" href="/api/layouts/{id}/survey.geojson" download>{tell('surveyFiles.whole_survey_geojson')}</a>
      <a class="link" href="/api/layouts/{id}/landmarks.csv" download>{tell('surveyFiles.landmarks_csv')}</a>
      <a class="link" href="/api/layouts/{id}/landmarks.gpx" download>{tell('surveyFiles.landmarks_gpx')}</a>
    </p>
  </section>
  <section class="grid content-start gap-1">
    <h3 class="font-bold">{tell('surveyFiles.something_changed_here')}</h3>
    {#if view.newer}
      <p>
        {tell('surveyFiles.version_follows_this_one_from', {
          version: view.newer.version,
          validFrom: view.newer.validFrom,
        })}
        <a class="link" href="#/survey/{view.newer.id}">{tell('surveyFiles.open_it')}</a>
      </p>
    {:else}
      <form class="flex flex-wrap items-end gap-2" onsubmit={startVersion}>
        <label class="grid gap-0.5"
          >{tell('surveyFiles.from')} <input class="input input-sm" type="date" bind:value={date} required /></label
        >
        <label class="grid flex-1 gap-0.5">
          {tell('surveyFiles.what_to', { stretch: metres(stretch[0]), stretch2: metres(stretch[1]) })}
          <input
            class="input input-sm w-full"
            name="reason"
            bind:value={reason}
            maxlength="500"
            placeholder={tell('surveyFiles.new_tarmac_boards_moved')}
            required
          />
        </label>
        <button class="btn btn-sm">{tell('surveyFiles.start_version', { version: view.summary.version + 1 })}</button>
      </form>
      <p>{tell('surveyFiles.the_stretch_is_what_the')}</p>
    {/if}
    {#if view.reason}<p>{tell('surveyFiles.this_version', { reason: view.reason })}</p>{/if}
  </section>
  <section class="grid content-start gap-1">
    <h3 class="font-bold">{tell('surveyFiles.where_on_the_earth')}</h3>
    <form class="flex flex-wrap items-end gap-2" onsubmit={place}>
      <label class="grid gap-0.5"
        >{tell('surveyFiles.latitude')}
        <input class="input input-sm w-28" type="number" step="any" bind:value={latitude} /></label
      >
      <label class="grid gap-0.5"
        >{tell('surveyFiles.longitude')}
        <input class="input input-sm w-28" type="number" step="any" bind:value={longitude} /></label
      >
      <label class="grid gap-0.5"
        >{tell('surveyFiles.height_m')}
        <input class="input input-sm w-20" type="number" step="any" bind:value={altitude} /></label
      >
      <button class="btn btn-sm">{tell('surveyFiles.move_it_put_it_there', { hasPlace: !!view.place })}</button>
    </form>
    <p>{tell('surveyFiles.degrees_wgs84_the_sun_gpx')}</p>
  </section>
</div>
