<script lang="ts">
  import FlipHorizontal2 from '@lucide/svelte/icons/flip-horizontal-2';
  import Upload from '@lucide/svelte/icons/upload';
  import { push } from 'svelte-spa-router';
  import { asProblem, sendForm, type LayoutSummary, type PreviewView, type Problem } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { degrees, metres, radiusText } from '../../words/units';
  import PlanDrawing from '../../road/PlanDrawing.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  here.say('', '', null);

  let file = $state.raw<File | null>(null);
  let preview = $state.raw<PreviewView | null>(null);
  let problem = $state<Problem | null>(null);
  let busy = $state(false);
  let reverse = $state(false);
  let start = $state(0);
  let width = $state(10);
  let bridges = $state(false);
  let circuit = $state('');
  let layout = $state('Full');
  let selected = $state('');
  let over = $state(false);
  let turn = 0;

  const fields = (f: File) => ({
    file: f,
    reverse: String(reverse),
    start: String(start),
    width: String(width),
    bridges: String(bridges),
  });

  async function look() {
    if (!file) return;
    const mine = ++turn;
    busy = true;
    try {
      const seen = await sendForm<PreviewView>('/api/outlines/preview', fields(file));
      if (mine !== turn) return;
      preview = seen;
      problem = null;
    } catch (e) {
      if (mine !== turn) return;
      problem = asProblem(e);
      preview = null;
    } finally {
      if (mine === turn) busy = false;
    }
  }

  function take(files: FileList | null | undefined) {
    const first = files?.[0];
    if (!first) return;
    file = first;
    reverse = false;
    start = 0;
    bridges = false;
    preview = null;
    circuit ||= first.name.replace(/\.[^.]*$/, '').replace(/[-_]+/g, ' ');
    void look();
  }

  function turnRound() {
    const length = preview?.road.length ?? 0;
    start = start === 0 ? 0 : length - start;
    reverse = !reverse;
    void look();
  }

  function moveStart(by: number) {
    const length = preview?.road.length ?? 1;
    start = (start + by) % length;
    void look();
  }

  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (!file) return;
    busy = true;
    try {
      const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
      const made = await sendForm<LayoutSummary>('/api/layouts', { ...fields(file), circuit, layout, zone });
      await push(`/survey/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
    }
  }

  function drop(event: DragEvent) {
    event.preventDefault();
    over = false;
    take(event.dataTransfer?.files);
  }
</script>

<svelte:window ondragover={(e) => e.preventDefault()} ondrop={drop} />

<main class="grid grid-cols-[minmax(0,1fr)_380px] gap-5 p-5">
  <section>
    {#if preview}
      <PlanDrawing
        road={preview.road}
        corners={preview.corners}
        {selected}
        height={640}
        start
        onstart={moveStart}
        onselect={(c) => (selected = c)}
      />
      <p class="text-sm">{tell('bring.drag_the_line_with_the')}</p>
    {:else}
      <label
        class={[
          'bg-base-100 grid h-[420px] cursor-pointer place-content-center justify-items-center gap-3 rounded border-2 border-dashed text-center',
          over ? 'border-base-content' : 'border-base-300',
        ]}
        ondragenter={() => (over = true)}
        ondragleave={() => (over = false)}
      >
        <Upload class="size-8" aria-hidden="true" />
        <span class="text-xl font-bold">{tell('bring.reading_drop_the_outline_of', { hasBusy: !!busy })}</span>
        <span>{tell('bring.geojson_gpx_or_csv_in')}</span>
        <input
          type="file"
          class="sr-only"
          data-outline
          accept=".geojson,.json,.gpx,.csv,.txt,.nmea,.log"
          onchange={(e) => {
            take(e.currentTarget.files);
            e.currentTarget.value = '';
          }}
        />
      </label>
      <p class="mt-3">
        {tell('bring.to_try')}
        <a class="link" href="/api/outlines/samples/outline.geojson" download>{tell('bring.a_geojson_sample')}</a>,
        <a class="link" href="/api/outlines/samples/outline.gpx" download>{tell('bring.a_gpx_sample')}</a>,
        <a class="link" href="/api/outlines/samples/outline.csv" download>{tell('bring.a_csv_sample')}</a>.
      </p>
    {/if}
    {#if problem}
      <div class="mt-3">
        <ProblemBox {problem}>
          {#if problem.kind === 'CROSSES_ITSELF' && file}
            <button
              class="btn btn-sm mt-2"
              onclick={() => {
                bridges = true;
                void look();
              }}>{tell('bring.a_bridge_take_it')}</button
            >
          {/if}
        </ProblemBox>
      </div>
    {/if}
  </section>

  <section class="grid content-start gap-4">
    <h1 class="text-2xl font-bold">{tell('bring.bring_a_circuit')}</h1>
    {#if preview}
      <p>
        <strong>{metres(preview.road.length)}</strong>{tell('bring.corners_from_points_near_scattered', {
          corners: preview.corners.length,
          points: preview.points,
          hasPlace: !!preview.place,
          place: preview.place,
          isNoise: preview.noise > 0.1,
          noise: metres(preview.noise, 1),
        })}
      </p>
      {#each preview.remarks as remark (remark)}<p class="border-base-300 border-l-4 pl-2 text-sm">{remark}</p>{/each}
      <div class="flex flex-wrap items-center gap-3">
        <button class="btn btn-sm" onclick={turnRound}
          ><FlipHorizontal2 class="size-4" /> {tell('bring.other_direction')}</button
        >
        {#if !preview.road.hasWidth}
          <label class="flex items-center gap-2">
            {tell('bring.road_width')}
            <input
              class="input input-sm w-20"
              type="number"
              min="3"
              max="40"
              step="0.5"
              bind:value={width}
              onchange={look}
            /> m
          </label>
        {/if}
        <button
          class="btn btn-sm btn-ghost"
          onclick={() => {
            file = null;
            preview = null;
          }}>{tell('bring.another_file')}</button
        >
      </div>
      <div class="bg-base-100 border-base-300 max-h-[290px] overflow-y-auto rounded border">
        <table class="table-xs table" aria-label={tell('bring.corners_found')}>
          <thead
            ><tr
              ><th>{tell('bring.corner')}</th><th>{tell('bring.from')}</th><th>{tell('bring.way')}</th><th
                >{tell('bring.radius')}</th
              ><th>{tell('bring.angle')}</th><th>{tell('bring.kind')}</th></tr
            ></thead
          >
          <tbody>
            {#each preview.corners as c (c.id)}
              <tr
                class={['cursor-pointer', selected === c.id ? 'bg-base-300' : '']}
                onclick={() => (selected = c.id)}
                data-found={c.number}
              >
                <th scope="row">{c.number}</th>
                <td>{metres(c.entry)}</td>
                <td>{tell('bring.left_right', { hasLeft: !!c.left })}</td>
                <td>{radiusText(c)}</td>
                <td>{Math.round(degrees(c.angle))}°</td>
                <td>{few(c.kind)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <form class="grid gap-3" onsubmit={save}>
        <div class="grid grid-cols-[2fr_1fr] gap-3">
          <label class="grid gap-1"
            >{tell('bring.circuit')}
            <input class="input w-full" bind:value={circuit} required maxlength="100" name="circuit" /></label
          >
          <label class="grid gap-1"
            >{tell('bring.layout')}
            <input class="input w-full" bind:value={layout} required maxlength="100" name="layout" /></label
          >
        </div>
        <button class="btn btn-primary" disabled={busy}
          >{tell('bring.working_save_as_a_layout', { hasBusy: !!busy })}</button
        >
      </form>
    {:else}
      <p>
        {tell('bring.the_road_is_fitted_through')}
      </p>
      <table class="table-sm table">
        <thead><tr><th>{tell('bring.file')}</th><th>{tell('bring.what_it_holds')}</th></tr></thead>
        <tbody>
          <tr><td>{tell('bring.geojson')}</td><td>{tell('bring.a_linestring_or_polygon_longitude')}</td></tr>
          <tr><td>{tell('bring.gpx')}</td><td>{tell('bring.a_recorded_track_one_lap')}</td></tr>
          <tr><td>{tell('bring.csv')}</td><td>{tell('bring.x_m_y_m_and')}</td></tr>
        </tbody>
      </table>
    {/if}
  </section>
</main>
