<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { push, router } from 'svelte-spa-router';
  import { tick, untrack } from 'svelte';
  import { api, ask, asProblem, type AnswerView, type Problem, type Job } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { follow } from '../../api/jobs';
  import { plannedLap, signed } from '../../words/units';
  import CornerStrip from '../../road/CornerStrip.svelte';
  import LapStrip from '../../road/LapStrip.svelte';
  import LinesDrawing from './LinesDrawing.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import JobNote from '../../kit/JobNote.svelte';
  import { tell } from '../../words/tell';

  /** A reference computed anew beside what it is: nothing changes before it is taken. */
  let { params }: { params: { id: string } } = $props();
  const queries = useQueryClient();
  const path = $derived({ path: { id: params.id } });
  let job = $state.raw<Job | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let left = $state(false);
  /** Whether what was taken last is looked at, and not what is proposed. */
  let taken = $state(false);

  const reference = createQuery(() => ({
    queryKey: ['reference', params.id],
    queryFn: async () => {
      const view = await ask(api.GET('/api/references/{id}', { params: path }));
      const road = await ask(api.GET('/api/references/{id}/road', { params: path }));
      return { view, road };
    },
  }));
  const anew = createQuery(() => ({
    queryKey: ['recomputation', params.id, taken],
    enabled: false,
    retry: false,
    queryFn: () => ask(api.GET('/api/references/{id}/recomputation', { params: { ...path, query: { taken } } })),
  }));

  /** Which sheet is asked for: none named keeps the one that it is on. */
  function asked() {
    const query = new URLSearchParams(router.querystring ?? '');
    const sheet = query.get('sheet');
    return sheet === null ? { otherSheet: false } : { otherSheet: true, ...(sheet ? { sheet } : {}) };
  }

  async function compute() {
    problem = null;
    left = false;
    taken = false;
    try {
      const started = await ask(api.POST('/api/references/{id}/recomputation', { params: path, body: asked() }));
      const done = await follow(started, (s) => (job = s));
      left = done === null;
      if (done !== null) await anew.refetch();
    } catch (e) {
      problem = asProblem(e);
    } finally {
      job = null;
    }
  }
  async function open() {
    const view = await ask(api.GET('/api/references/{id}', { params: path }));
    const query = new URLSearchParams(router.querystring ?? '');
    if (view.recomputed && !query.has('again') && !query.has('sheet')) {
      taken = true;
      await tick();
      await anew.refetch();
    } else await compute();
  }
  $effect(() => {
    void params.id;
    void router.querystring;
    untrack(() => void open().catch((e: unknown) => (problem = asProblem(e))));
  });

  $effect(() => {
    const v = reference.data?.view;
    if (v)
      here.say(`${v.circuit} ${v.layout} v${v.layoutVersion} · ${v.vehicle}`, tell('recompute.computed_anew'), v.id);
  });

  const touched = $derived([
    ...new Set([
      ...(anew.data?.corners.map((c) => c.corner) ?? []),
      ...(anew.data?.differences.map((d) => d.corner) ?? []),
    ]),
  ]);
  let picked = $state('');
  const selected = $derived(picked || (anew.data?.corners.find((c) => c.lost)?.corner ?? touched[0] ?? ''));
  const corner = $derived(reference.data?.view.corners.find((c) => c.id === selected));
  const after = $derived(anew.data?.after.corners.find((e) => e.corner === selected));
  const before = $derived(anew.data?.before.corners.find((e) => e.corner === selected));
  const here_ = $derived(anew.data?.differences.filter((d) => d.corner === selected) ?? []);
  const answer = createQuery(() => ({
    queryKey: ['answer', params.id, anew.data?.taken, after],
    // What is proposed is answered by its own line, which is the reference's only once it is taken.
    enabled: !!after && !!anew.data?.taken,
    queryFn: async (): Promise<AnswerView> => {
      if (!after) throw new Error(tell('recompute.no_corner'));
      return ask(api.POST('/api/references/{id}/answer', { params: path, body: after }));
    },
  }));

  async function act(call: () => Promise<unknown>, then: string) {
    problem = null;
    try {
      await call();
      await queries.invalidateQueries();
      await push(then);
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const take = () =>
    act(() => ask(api.POST('/api/references/{id}/recomputation/taken', { params: path })), `/reference/${params.id}`);
  const drop = () =>
    act(() => ask(api.DELETE('/api/references/{id}/recomputation', { params: path })), `/reference/${params.id}`);
  const undo = () =>
    act(async () => {
      const now = await ask(api.GET('/api/references/{id}', { params: path }));
      await ask(
        api.POST('/api/references/{id}/recomputation/undone', {
          params: path,
          body: { version: now.working.version },
        }),
      );
    }, `/reference/${params.id}`);
</script>

<main class="px-5 pb-4">
  {#if problem}<div class="py-3"><ProblemBox {problem} /></div>{/if}
  {#if job}
    <div class="py-6"><JobNote {job} onproblem={(p) => (problem = p)} /></div>
  {:else if left}
    <div class="grid justify-items-start gap-3 py-6">
      <h1 class="text-2xl font-bold">{tell('recompute.cancelled')}</h1>
      <p>{tell('recompute.the_reference_is_as_it')}</p>
      <a class="btn" href="#/reference/{params.id}">{tell('recompute.back_to_the_reference')}</a>
    </div>
  {:else if anew.data && reference.data}
    {@const view = reference.data.view}
    {@const road = reference.data.road}
    {@const data = anew.data}
    <LapStrip
      {road}
      corners={view.corners}
      entries={data.after.corners}
      {selected}
      changed={touched}
      onselect={(c) => (picked = c)}
    />
    <div class="grid grid-cols-[300px_minmax(0,1fr)] gap-6">
      <section class="border-base-300 grid max-h-[600px] content-start gap-3 overflow-y-auto border-t pt-3">
        <h1 class="text-xl font-bold">{tell('recompute.computed_anew_as_it_would', { hasTaken: !!data.taken })}</h1>
        <p class="leading-snug" data-recomputed-lap>
          {tell('recompute.the_lap_as_you_plan', {
            lapAfter: plannedLap(data.lapAfter),
            seconds: signed(data.lapAfter.seconds - data.lapBefore.seconds, 2),
            hasSheet: !!data.sheet,
            sheet: data.sheet,
            hasTaken: !!data.taken,
          })}
        </p>
        <div class="flex flex-wrap gap-2">
          {#if data.taken}
            <button class="btn btn-sm" data-undo-recomputed onclick={undo}
              >{tell('recompute.bring_back_what_was')}</button
            >
            <a class="btn btn-sm" href="#/reference/{params.id}">{tell('recompute.to_the_reference')}</a>
          {:else if data.stale}
            <p class="text-sm">{tell('recompute.the_reference_was_changed_since')}</p>
            <button class="btn btn-sm btn-primary" onclick={compute}>{tell('recompute.compute_it_again')}</button>
          {:else}
            <button class="btn btn-sm btn-primary" data-take-recomputed onclick={take}
              >{tell('recompute.take_it')}</button
            >
            <button class="btn btn-sm" onclick={drop}>{tell('recompute.leave_it_as_it_is')}</button>
          {/if}
        </div>
        {#if data.taken}
          <p class="text-sm">{tell('recompute.what_you_changed_since_then')}</p>
        {/if}
        <ol class="grid gap-1.5" data-recomputed-corners>
          {#each view.corners.filter((c) => touched.includes(c.id)) as c (c.id)}
            {@const change = data.corners.find((k) => k.corner === c.id)}
            <li>
              <button
                class={[
                  'w-full border-l-4 pl-2 text-left text-sm leading-snug hover:underline',
                  change?.lost ? 'border-error' : c.id === selected ? 'border-base-content' : 'border-base-300',
                ]}
                aria-pressed={c.id === selected}
                onclick={() => (picked = c.id)}
              >
                <strong>{c.number}{c.name ? ` · ${c.name}` : ''}</strong>
                {change?.words ?? tell('recompute.points_move_with_the_corners')}
              </button>
            </li>
          {:else}
            <li>{tell('recompute.nothing_changes_the_line_is')}</li>
          {/each}
        </ol>
      </section>
      <section class="border-base-300 min-w-0 border-t pt-3">
        {#if corner && after}
          <LinesDrawing
            {road}
            {corner}
            step={data.step}
            before={data.lineBefore}
            after={data.lineAfter}
            entryBefore={before}
            entryAfter={after}
          />
          <p class="text-sm">
            {tell('recompute.corner_hollow_flags_are_as', {
              number: corner.number,
              name: corner.name ? ` · ${corner.name}` : '',
              hasTaken: !!data.taken,
            })}
          </p>
          <ul class="grid max-h-20 grid-cols-2 gap-x-6 overflow-y-auto text-sm leading-snug" data-recomputed-points>
            {#each here_ as d, i (i)}<li>{d.words}</li>{/each}
          </ul>
          <CornerStrip
            {road}
            {corner}
            entry={after}
            {before}
            answer={answer.data}
            landmarks={view.things.landmarks}
            things={{ ...view.things, landmarks: [] }}
            readonly
            height={330}
          />
        {/if}
      </section>
    </div>
  {:else if !problem}
    <p class="py-5" role="status">{tell('recompute.computing')}</p>
  {/if}
</main>
