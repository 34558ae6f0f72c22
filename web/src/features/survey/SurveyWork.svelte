<script lang="ts">
  import Slide from '../../kit/Slide.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { onDestroy, onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import {
    api,
    ask,
    asProblem,
    sendForm,
    type Kerb,
    type KerbClearance,
    type Problem,
    type Job,
    type Zone,
  } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { felt } from './zones';
  import { here } from '../../kit/here.svelte';
  import { typing } from '../../kit/keys';
  import { follow } from '../../api/jobs';
  import { SurveyDesk } from './survey.svelte';
  import { cornerAt, newLandmark, type Sort, type Thing } from '../../road/things';
  import { metres } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import AnewNote from './AnewNote.svelte';
  import CornerEditor from './CornerEditor.svelte';
  import KerbSection from './KerbSection.svelte';
  import LapStrip from '../../road/LapStrip.svelte';
  import MarkerPanel from './MarkerPanel.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import JobNote from '../../kit/JobNote.svelte';
  import SunPlan from './SunPlan.svelte';
  import SurveyFiles from './SurveyFiles.svelte';
  import SurveyStrip, { type Tool } from './SurveyStrip.svelte';
  import ThingEditor from './ThingEditor.svelte';
  import ToolBar from './ToolBar.svelte';
  import { tell } from '../../words/tell';

  let { id }: { id: string } = $props();

  // svelte-ignore state_referenced_locally
  const desk = new SurveyDesk(id);
  // svelte-ignore state_referenced_locally
  const path = { path: { id } };
  const road = createQuery(() => ({
    queryKey: ['road', id],
    queryFn: () => ask(api.GET('/api/layouts/{id}/road', { params: { ...path, query: { step: 2 } } })),
    staleTime: Infinity,
  }));
  const vehicles = createQuery(() => ({ queryKey: ['vehicles'], queryFn: () => ask(api.GET('/api/vehicles')) }));
  const classes = createQuery(() => ({
    queryKey: ['vehicle-classes'],
    queryFn: () => ask(api.GET('/api/vehicle-classes')),
  }));
  const references = createQuery(() => ({ queryKey: ['references'], queryFn: () => ask(api.GET('/api/references')) }));

  let tool = $state<Tool>({ kind: 'look' });
  let selected = $state('');
  let sort = $state<Sort | 'corners' | null>(null);
  let tab = $state<'thing' | 'markers' | 'draft' | 'files'>('markers');
  let middle = $state(0);
  let span = $state(460);
  let date = $state(new Date().toISOString().slice(0, 10));
  let minutes = $state(14 * 60);
  let traffic = $state(false);
  let wet = $state(false);
  let windy = $state(false);
  let busy = $state(false);
  let job = $state.raw<Job | null>(null);
  let vehicle = $state('');
  let problem = $state<Problem | null>(null);

  onMount(async () => {
    void catalogue.load();
    await desk.open();
  });
  onDestroy(() => {
    desk.close();
    here.say('', '');
  });

  let begun = false;
  $effect(() => {
    const first = desk.corners[0];
    if (begun || !road.data || !first) return;
    begun = true;
    look(first.id);
    tab = 'markers';
    void references.refetch().then((r) => {
      if (r.data && !r.data.some((k) => k.layoutId === id) && tab === 'markers') tab = 'draft';
    });
  });

  const length = $derived(road.data?.length ?? 1);
  const wrap = (s: number) => ((s % length) + length) % length;
  const reference = $derived(references.data?.find((r) => r.layoutId === id) ?? null);
  const mine = $derived(reference?.vehicleId ?? vehicles.data?.[0]?.id ?? null);
  const at = $derived(
    `${date}T${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`,
  );
  const stored = $derived(desk.waiting === 0 ? desk.steps : -1);
  // The last state that the server knows: markers are judged on that.
  let known = $state(0);
  $effect(() => {
    if (stored >= 0) known = stored;
  });
  const markers = createQuery(() => ({
    queryKey: ['markers', reference?.id, at, traffic, known],
    queryFn: () =>
      ask(
        api.GET('/api/references/{id}/markers', {
          params: { path: { id: reference?.id ?? '' }, query: { at, traffic } },
        }),
      ),
    enabled: !!reference,
    placeholderData: (old) => old,
  }));
  const sun = createQuery(() => ({
    queryKey: ['sun', id, at, known],
    queryFn: () => ask(api.GET('/api/layouts/{id}/sun', { params: { ...path, query: { at } } })),
    enabled: !!desk.view?.place,
    placeholderData: (old) => old,
  }));
  const clearances = createQuery(() => ({
    queryKey: ['clearances', mine, desk.things.kerbs],
    queryFn: () => {
      const kerbs = desk.things.kerbs;
      return ask(api.POST('/api/vehicles/{id}/clearances', { params: { path: { id: mine ?? '' } }, body: kerbs })).then(
        (list) => Object.fromEntries(list.map((c, i) => [kerbs[i]?.id ?? '', c])),
      );
    },
    enabled: !!mine,
    placeholderData: (old) => old,
  }));
  const clearance = $derived<Record<string, KerbClearance>>(clearances.data ?? {});
  const reach = $derived(Object.fromEntries(Object.entries(clearance).map(([k, c]) => [k, c.reach ?? null])));
  const judgements = $derived(Object.fromEntries((markers.data?.all ?? []).map((j) => [j.landmark, j])));
  const grades = $derived(Object.fromEntries(Object.entries(judgements).map(([k, j]) => [k, j.grade])));

  /** Whether a zone acts on the day looked at. */
  const acts = $derived.by(() => {
    const kinds = new Map(catalogue.all?.zones.map((z) => [z.kind, z]));
    const table = desk.things.severities ?? [];
    const day = { wet, windy };
    return (zone: Zone) => felt(zone, kinds.get(zone.kind), table, day);
  });

  const thing = $derived.by<Thing | null>(() => {
    if (!sort || sort === 'corners') return null;
    return (desk.things[sort] as Thing[]).find((t) => t.id === selected) ?? null;
  });
  const kerb = $derived(sort === 'kerbs' ? (thing as Kerb | null) : null);
  const kerbClearance = $derived(kerb ? clearance[kerb.id] : undefined);
  // The plan follows when the strip comes to rest: drawn at every frame it would make the strip late.
  let plan = $state({ middle: 0, span: 460 });
  $effect(() => {
    const next = { middle, span };
    const timer = setTimeout(() => (plan = next), 120);
    return () => clearTimeout(timer);
  });
  const corner = $derived(sort === 'corners' ? (desk.corners.find((c) => c.id === selected) ?? null) : null);
  const inView = $derived(cornerAt(desk.corners, length, wrap(middle)));

  $effect(() => {
    const s = desk.view?.summary;
    if (!s) return;
    const state = desk.offline
      ? tell('surveyWork.no_connection_change_changes_kept', { waiting: desk.waiting })
      : desk.waiting
        ? tell('surveyWork.storing')
        : tell('surveyWork.stored');
    here.say(
      `${s.circuit} ${s.layout} v${s.version}`,
      tell('surveyWork.corners_landmarks', {
        s: metres(s.length),
        corners: s.corners,
        landmarks: desk.things.landmarks.length,
        state,
      }),
      null,
    );
  });

  function look(cornerId: string) {
    const c = desk.corners.find((k) => k.id === cornerId);
    if (!c) return;
    const to = wrap(c.exit - c.entry);
    middle = wrap(c.entry + to / 2 - 70);
    span = Math.max(320, Math.min(900, to + 330));
    select('corners', cornerId);
  }
  function select(what: Sort | 'corners' | null, which: string) {
    if (which === selected && what === sort) return;
    sort = what;
    selected = which;
    desk.settle();
    if (what) tab = 'thing';
  }
  function show(landmark: string | null, cornerId: string) {
    const l = desk.things.landmarks.find((k) => k.id === landmark);
    if (l) middle = l.station;
    else {
      const c = desk.corners.find((k) => k.id === cornerId);
      if (c) middle = wrap(c.entry - 60);
    }
    if (landmark) {
      sort = 'landmarks';
      selected = landmark;
    }
  }

  async function boards() {
    const c = corner ?? inView;
    if (!c) return;
    try {
      const set = await ask(
        api.POST('/api/layouts/{id}/boards', {
          params: path,
          body: {
            corner: c.id,
            distances: [300, 200, 150, 100, 50],
            countedTo: c.entry,
            left: !c.left,
            readable: true,
          },
        }),
      );
      desk.put('landmarks', set);
      const last = set[set.length - 1];
      if (last) select('landmarks', last.id);
      problem = null;
    } catch (e) {
      problem = asProblem(e);
    }
  }

  async function glances() {
    if (!reference) return;
    try {
      const found = await ask(api.GET('/api/references/{id}/glances', { params: { path: { id: reference.id } } }));
      desk.put('places', found);
      problem = null;
    } catch (e) {
      problem = asProblem(e);
    }
  }

  function addOnPlan(station: number, offset: number) {
    if (tool.kind !== 'landmark') return;
    const left = offset >= 0;
    const i = Math.round(station / (road.data?.step ?? 1));
    const edge = (left ? road.data?.left[i] : road.data?.right[i]) ?? 5;
    const made = newLandmark(
      tool.of,
      Math.round(station * 2) / 2,
      left,
      cornerAt(desk.corners, length, station)?.id ?? '',
    );
    made.out = Math.round((Math.abs(offset) - edge) * 2) / 2;
    desk.put('landmarks', [made]);
    select('landmarks', made.id);
    middle = station;
  }

  function remove() {
    if (!thing) return;
    desk.remove([thing.id]);
    select(null, '');
    tab = 'markers';
  }

  const TOOLS: Record<string, Tool> = {
    v: { kind: 'look' },
    l: { kind: 'landmark', of: 'BOARD' },
    k: { kind: 'kerb' },
    z: { kind: 'zone', of: 'DAMP' },
    m: { kind: 'limit' },
    p: { kind: 'place', of: 'PASS' },
  };
  function onkeydown(event: KeyboardEvent) {
    if (typing(event) || event.altKey) return;
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === 'z') {
      event.preventDefault();
      if (event.shiftKey) desk.redo();
      else desk.undo();
      return;
    }
    if (command) return;
    const pressed = TOOLS[event.key];
    if (pressed) tool = pressed;
    else if (event.key === 'Escape') {
      tool = { kind: 'look' };
      select(null, '');
    } else if (event.key === 'Delete' && thing) remove();
    else if (event.key === '[' || event.key === ']') {
      const i = desk.corners.findIndex((c) => c.id === (corner ?? inView)?.id);
      const n = desk.corners.length;
      const next = desk.corners[(i + (event.key === ']' ? 1 : n - 1)) % n];
      if (next) look(next.id);
    } else if (event.key === '+' || event.key === '-') {
      span = Math.max(60, Math.min(1600, event.key === '+' ? span / 1.25 : span * 1.25));
    } else if ((event.key === 'ArrowLeft' || event.key === 'ArrowRight') && thing && sort) {
      event.preventDefault();
      const by = (event.key === 'ArrowRight' ? 1 : -1) * (event.shiftKey ? 5 : 1);
      if ('station' in thing)
        desk.put(sort as Sort, [{ ...thing, station: wrap(thing.station + by) }], `${thing.id} nudge`);
      else if ('from' in thing)
        desk.put(
          sort as Sort,
          [{ ...thing, from: wrap(thing.from + by), to: wrap(thing.to + by) }],
          `${thing.id} nudge`,
        );
    } else if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
      event.preventDefault();
      middle = wrap(middle + (event.key === 'ArrowRight' ? 1 : -1) * span * 0.1);
    }
  }

  const chosen = $derived(
    vehicle || vehicles.data?.[0]?.id || (classes.data?.[0] ? `class:${classes.data[0].id}` : ''),
  );
  async function draft() {
    busy = true;
    problem = null;
    try {
      let vehicleId = chosen;
      if (chosen.startsWith('class:')) {
        const from = classes.data?.find((c) => `class:${c.id}` === chosen);
        if (!from) throw new Error(tell('surveyWork.no_such_class'));
        const made = await ask(
          api.POST('/api/vehicles', {
            body: { name: tell('surveyWork.my', { name: from.name }), basedOn: from.id, numbers: from.vehicle },
          }),
        );
        vehicleId = made.id;
      }
      const started = await ask(api.POST('/api/references', { body: { layoutId: id, vehicleId } }));
      const made = await follow(started, (s) => (job = s));
      if (made) await push(`/reference/${made}`);
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
      job = null;
    }
  }
  async function bring(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    try {
      const made = await sendForm<{ id: string }>(`/api/layouts/${id}/references`, { file });
      await push(`/reference/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const clock = $derived(at.slice(11));
  const TABS = [
    ['thing', tell('surveyWork.selected')],
    ['markers', tell('surveyWork.markers_judged')],
    ['draft', tell('surveyWork.draft')],
    ['files', tell('surveyWork.files_versions')],
  ] as const;
</script>

<svelte:window {onkeydown} ononline={() => void desk.flush()} />

<main class="px-5 pb-3" data-waiting={desk.waiting} data-steps={desk.steps}>
  {#if desk.problem}<div class="py-1">
      <ProblemBox problem={desk.problem} />{#if desk.aside}<button
          type="button"
          class="btn btn-sm mt-1"
          onclick={() => desk.makeAgain()}>{tell('surveyWork.make_my_change_all_the')}</button
        >{/if}
    </div>{/if}
  {#if problem}<div class="py-1"><ProblemBox {problem} /></div>{/if}
  {#if desk.view && road.data}
    <LapStrip
      road={road.data}
      corners={desk.corners}
      landmarks={desk.things.landmarks}
      selected={corner?.id ?? inView?.id ?? ''}
      window={[wrap(middle - span / 2), wrap(middle + span / 2)]}
      onselect={look}
    />
    {#if desk.view.newer}
      <p class="text-sm">
        {tell('surveyWork.the_circuit_has_changed_since', {
          version: desk.view.newer.version,
          validFrom: desk.view.newer.validFrom,
        })}
        <a class="link" href="#/survey/{desk.view.newer.id}">{tell('surveyWork.open_it')}</a>
      </p>
    {/if}
    <AnewNote view={desk.view} />
    <ToolBar
      {tool}
      canUndo={desk.canUndo}
      canRedo={desk.canRedo}
      ontool={(t) => (tool = t)}
      onboards={boards}
      onundo={() => desk.undo()}
      onredo={() => desk.redo()}
    />
    <div class="border-base-300 bg-base-100 border-y">
      <SurveyStrip
        road={road.data}
        {desk}
        {tool}
        relief={desk.view.relief}
        {middle}
        {span}
        {selected}
        {grades}
        {reach}
        felt={acts}
        height={262}
        onselect={select}
        onwindow={(m, s) => {
          middle = wrap(m);
          span = s;
        }}
      />
    </div>
    <div class="grid grid-cols-[minmax(0,1fr)_420px] gap-5 pt-2">
      <div class="grid min-h-0 content-start gap-2">
        <div class="flex items-center gap-1">
          <div class="flex items-center gap-1" role="tablist" aria-label={tell('surveyWork.what_to_look_at')}>
            {#each TABS as [key, word] (key)}
              <button
                type="button"
                role="tab"
                aria-selected={tab === key}
                class={['btn btn-xs', tab === key ? 'btn-primary' : '']}
                onclick={() => (tab = key)}
                >{tell('surveyWork.draft_another', { hasReference: !!(key === 'draft' && reference), word })}</button
              >
            {/each}
          </div>
          <fieldset class="ml-3 flex items-center gap-2 text-sm" title={tell('surveyWork.zones_that_do_not_act')}>
            <legend class="sr-only">{tell('surveyWork.the_day_looked_at')}</legend>
            <div class="join">
              {#each [false, true] as v (v)}
                <button
                  type="button"
                  class={['btn btn-xs join-item', v === wet ? 'btn-primary' : '']}
                  aria-pressed={v === wet}
                  onclick={() => (wet = v)}>{tell('surveyWork.wet_dry', { hasV: !!v })}</button
                >
              {/each}
            </div>
            <label class="flex items-center gap-1">
              <input type="checkbox" class="checkbox checkbox-xs" bind:checked={windy} />
              {tell('surveyWork.wind')}
            </label>
          </fieldset>
          <span class="flex-1"></span>
          <a class="link text-sm" href="#/walk/{id}">{tell('surveyWork.track_walk_on_a_phone')}</a>
        </div>
        <div class="max-h-[262px] overflow-y-auto pr-2">
          {#if tab === 'thing' && corner}
            <CornerEditor {desk} {corner} {length} onselect={look} />
          {:else if tab === 'thing' && thing && sort && sort !== 'corners'}
            <ThingEditor
              {desk}
              {sort}
              {thing}
              zone={desk.view.zone}
              reference={reference?.id}
              clearance={clearance[thing.id]}
              judgement={judgements[thing.id]}
              onremove={remove}
            />
          {:else if tab === 'markers' || tab === 'thing'}
            {#if markers.data}
              <MarkerPanel review={markers.data} corners={desk.corners} onselect={show} />
            {:else if reference}
              <p role="status">{tell('surveyWork.judging')}</p>
            {:else}
              <p>
                {tell('surveyWork.choose_a_drawing_above_and')}
                <button type="button" class="link" onclick={() => (tab = 'draft')}
                  >{tell('surveyWork.draft_one')}</button
                >
              </p>
            {/if}
          {:else if tab === 'draft'}
            <form
              class="flex items-end gap-2"
              onsubmit={(e) => {
                e.preventDefault();
                void draft();
              }}
            >
              <label class="grid flex-1 gap-1">
                {tell('surveyWork.vehicle')}
                <select
                  class="select w-full"
                  name="vehicle"
                  value={chosen}
                  onchange={(e) => (vehicle = e.currentTarget.value)}
                >
                  {#if vehicles.data?.length}
                    <optgroup label={tell('surveyWork.mine')}>
                      {#each vehicles.data as v (v.id)}<option value={v.id}>{v.name}</option>{/each}
                    </optgroup>
                  {/if}
                  <optgroup label={tell('surveyWork.classes_to_start_from')}>
                    {#each classes.data ?? [] as c (c.id)}<option value="class:{c.id}">{c.name}</option>{/each}
                  </optgroup>
                </select>
              </label>
              <button class="btn btn-primary" disabled={busy || !chosen}>
                {tell('surveyWork.computing_draft_the_reference', { hasBusy: !!busy })}
              </button>
            </form>
            {#if job}<div class="mt-2"><JobNote {job} onproblem={(p) => (problem = p)} /></div>{/if}
            {#if reference}
              <p class="mt-2 text-sm">
                <a class="link" href="#/reference/{reference.id}">{tell('surveyWork.open', { name: reference.name })}</a
                >
                <button type="button" class="btn btn-sm ml-3" onclick={glances}
                  >{tell('surveyWork.propose_places_to_look_at')}</button
                >
              </p>
            {/if}
            <label class="link mt-2 block text-sm">
              {tell('surveyWork.bring_a_reference_saved_as')}
              <input type="file" class="sr-only" accept=".json" onchange={(e) => bring(e.currentTarget.files)} />
            </label>
          {:else}
            <SurveyFiles
              {desk}
              view={desk.view}
              stretch={[Math.round(wrap(middle - span / 2)), Math.round(wrap(middle + span / 2))]}
              onplaced={() => desk.open()}
            />
          {/if}
        </div>
      </div>
      <section class="grid content-start gap-1" aria-label={tell('surveyWork.plan_sun_and_shadows')}>
        {#if kerb && kerbClearance}
          <KerbSection {kerb} clearance={kerbClearance} height={232} />
        {:else}
          <SunPlan
            road={road.data}
            things={desk.things}
            corners={desk.corners}
            sun={desk.view.place ? (sun.data ?? null) : null}
            middle={plan.middle}
            span={plan.span}
            {selected}
            height={232}
            onmove={(s) => (middle = s)}
            onadd={tool.kind === 'landmark' ? addOnPlan : undefined}
          />
        {/if}
        <div class="flex items-center gap-2 text-sm">
          <input
            class="input input-sm w-34"
            type="date"
            aria-label={tell('surveyWork.date_of_the_session')}
            bind:value={date}
          />
          <span class="flex-1" data-clock={clock}>
            <Slide
              value={minutes}
              min={0}
              max={1425}
              step={15}
              label={tell('surveyWork.hour_of_the_session')}
              text={clock}
              name="hour"
              oninput={(v) => (minutes = v)}
            />
          </span>
          <label class="flex items-center gap-1">
            <input type="checkbox" class="checkbox checkbox-sm" bind:checked={traffic} />
            {tell('surveyWork.traffic')}
          </label>
        </div>
        {#if !desk.view.place}
          <p class="text-sm">
            {tell('surveyWork.no_sun_without_a_place')}
            <button type="button" class="link" onclick={() => (tab = 'files')}>{tell('surveyWork.say_where')}</button>.
          </p>
        {/if}
      </section>
    </div>
    <p class="sr-only" role="status">
      {inView ? tell('surveyWork.looking_at_corner', { inView: cornerWord(inView) }) : ''}
    </p>
  {:else if !desk.problem}
    <p class="py-5" role="status">{tell('surveyWork.opening')}</p>
  {/if}
</main>
