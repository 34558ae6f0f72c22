<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type AnswerView, type Problem } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { lapTime, plannedLap, signed } from '../../words/units';
  import { apart } from '../../road/points';
  import CornerStrip from '../../road/CornerStrip.svelte';
  import LapStrip from '../../road/LapStrip.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  const queries = useQueryClient();
  const path = $derived({ path: { id: params.id } });
  const reference = createQuery(() => ({
    queryKey: ['reference', params.id],
    queryFn: async () => {
      const view = await ask(api.GET('/api/references/{id}', { params: path }));
      const road = await ask(api.GET('/api/references/{id}/road', { params: path }));
      return { view, road };
    },
  }));
  const revisions = createQuery(() => ({
    queryKey: ['revisions', params.id],
    queryFn: () => ask(api.GET('/api/references/{id}/revisions', { params: path })),
  }));

  const history = createQuery(() => ({
    queryKey: ['history', params.id],
    queryFn: () => ask(api.GET('/api/references/{id}/history', { params: path })),
  }));
  const chapter = (n: number) => history.data?.find((h) => h.number === n);
  /** Median laps on the reference's own day by revision, the oldest first, for the line beside the list. */
  const medians = $derived(
    (history.data ?? [])
      .flatMap((h) => h.driven.filter((d) => d.day === '').map((d) => ({ number: h.number, ...d })))
      .reverse(),
  );

  // 0 is the working copy, as in the API.
  let from = $state<number | null>(null);
  let to = $state<number | null>(null);
  const numbers = $derived(revisions.data?.map((r) => r.number) ?? []);
  const changed = $derived(reference.data?.view.changed ?? false);
  const newer = $derived(to ?? (changed ? 0 : (numbers[0] ?? 0)));
  const older = $derived(from ?? numbers.find((n) => n !== newer) ?? 0);

  const comparison = createQuery(() => ({
    queryKey: ['comparison', params.id, older, newer],
    enabled: numbers.length > 0,
    queryFn: () =>
      ask(api.GET('/api/references/{id}/comparison', { params: { ...path, query: { from: older, to: newer } } })),
  }));
  const touched = $derived([...new Set(comparison.data?.differences.map((d) => d.corner) ?? [])]);
  let picked = $state('');
  const selected = $derived(touched.includes(picked) || picked ? picked : (touched[0] ?? ''));
  const corner = $derived(reference.data?.view.corners.find((c) => c.id === selected));
  const after = $derived(comparison.data?.after.corners.find((e) => e.corner === selected));
  const before = $derived(comparison.data?.before.corners.find((e) => e.corner === selected));

  const answer = createQuery(() => ({
    queryKey: ['answer', params.id, after],
    enabled: !!after,
    queryFn: async (): Promise<AnswerView> => {
      if (!after) throw new Error(tell('revisions.no_corner'));
      return ask(api.POST('/api/references/{id}/answer', { params: path, body: after }));
    },
  }));

  let problem = $state<Problem | null>(null);
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  const called = (n: number) =>
    n === 0 ? tell('revisions.the_working_copy') : tell('revisions.revision', { number: n });

  $effect(() => {
    const v = reference.data?.view;
    if (v)
      here.say(
        `${v.circuit} ${v.layout} v${v.layoutVersion} · ${v.vehicle}`,
        tell('revisions.revisions', { numbers: numbers.length }),
        v.id,
      );
  });

  async function startFrom(number: number) {
    const view = reference.data?.view;
    if (!view) return;
    try {
      await ask(
        api.POST('/api/references/{id}/revisions/{number}/start', {
          params: { path: { id: params.id, number } },
          body: { version: view.working.version },
        }),
      );
      await queries.invalidateQueries();
      await push(`/reference/${params.id}`);
    } catch (e) {
      problem = asProblem(e);
    }
  }
</script>

<main class="px-5 pb-4">
  {#if reference.error}
    <ProblemBox problem={asProblem(reference.error)} />
  {:else if reference.data && revisions.data}
    {@const view = reference.data.view}
    {@const road = reference.data.road}
    {#if revisions.data.length === 0}
      <div class="py-6">
        <h1 class="text-2xl font-bold">{tell('revisions.no_revision_yet')}</h1>
        <p class="mb-3">{tell('revisions.save_the_reference_with_a')}</p>
        <a class="btn btn-primary" href="#/reference/{params.id}">{tell('revisions.open_the_reference')}</a>
      </div>
    {:else}
      <LapStrip
        {road}
        corners={view.corners}
        entries={comparison.data?.after.corners ?? []}
        {selected}
        changed={touched}
        onselect={(c) => (picked = c)}
      />
      {#if problem}<ProblemBox {problem} />{/if}
      <div class="grid grid-cols-[300px_minmax(0,1fr)] gap-6">
        <section class="border-base-300 max-h-[590px] overflow-y-auto border-t pt-3">
          <h1 class="mb-2 text-xl font-bold">{tell('revisions.revisions_2')}</h1>
          {#if medians.length > 1}
            {@const low = Math.min(...medians.map((m) => m.best))}
            {@const high = Math.max(...medians.map((m) => m.median), low + 0.5)}
            {@const y = (t: number) => 12 + ((t - low) / (high - low)) * 44}
            {@const x = (i: number) => 30 + (i * 230) / Math.max(1, medians.length - 1)}
            <svg
              width="290"
              height="84"
              class="mb-2 block"
              role="img"
              aria-label={tell('revisions.best_and_median_lap_by')}
            >
              <path
                d={medians.map((m, i) => `${i ? 'L' : 'M'}${x(i)},${y(m.median)}`).join('')}
                fill="none"
                stroke="var(--ink)"
                stroke-width="1.5"
              />
              {#each medians as m, i (m.number)}
                <path d="M{x(i)} {y(m.best)}V{y(m.median)}" stroke="var(--ink-soft)" />
                <circle cx={x(i)} cy={y(m.median)} r="4" fill="var(--ink)" />
                <path d="M{x(i) - 4} {y(m.best)}h8" stroke="var(--ink)" stroke-width="2" />
                <text x={x(i)} y="78" text-anchor="middle" style="font-size:11px">{m.number}</text>
                <text
                  x={x(i) + (i < medians.length / 2 ? 7 : -7)}
                  y={y(m.median) + (i < medians.length / 2 ? 12 : 14)}
                  text-anchor={i < medians.length / 2 ? 'start' : 'end'}
                  style="font-size:11px">{lapTime(m.median)}</text
                >
              {/each}
            </svg>
          {/if}
          <ol class="border-base-300 ml-2 grid gap-3 border-l-2">
            {#if changed}
              <li class="relative pl-4">
                <span
                  class="bg-base-200 border-base-content absolute top-1.5 -left-[7px] size-3 rounded-full border-2 border-dashed"
                ></span>
                <strong>{tell('revisions.working_copy')}</strong> · {plannedLap(view.planned)}
                <span class="block text-sm">{tell('revisions.not_saved_as_a_revision')}</span>
              </li>
            {/if}
            {#each revisions.data as r (r.number)}
              <li class="relative pl-4" data-revision={r.number}>
                <span class="bg-base-content absolute top-1.5 -left-[7px] size-3 rounded-full"></span>
                <strong>{tell('revisions.revision_2', { number: r.number })}</strong> · {plannedLap(r.planned)}
                <span class="block text-sm">{when.format(new Date(r.createdAt))}</span>
                <span class="block leading-snug">{r.reason}</span>
                {#each chapter(r.number)?.driven ?? [] as d (d.called)}
                  <span class="block text-sm" data-driven={r.number}>
                    {tell('revisions.driven_laps_best_median', {
                      called: d.called,
                      laps: d.laps,
                      best: lapTime(d.best),
                      median: lapTime(d.median),
                    })}
                  </span>
                {/each}
                {#each chapter(r.number)?.promises ?? [] as p, i (i)}
                  {@const c = view.corners.find((k) => k.id === p.evidence.corner)}
                  <span
                    class="border-base-300 mt-1 block border-l-2 pl-2 text-sm leading-snug"
                    data-promise={p.promise.verdict}
                  >
                    {tell('revisions.changed_by_moved_by_m', {
                      number: c?.number,
                      what: p.what,
                      hasShare: !!p.share,
                      from: signed(100 * (p.evidence.to - p.evidence.from), 0),
                      apart: signed(apart(p.evidence.from, p.evidence.to, road.length), 1),
                      laps: p.evidence.laps,
                    })}{#if p.evidence.gain !== null && p.evidence.gain !== undefined}{tell('revisions.promised_s', {
                        gain: signed(-p.evidence.gain, 2),
                      })}{/if}.
                    <strong>{p.promise.words}</strong>
                  </span>
                {/each}
                <span class="flex gap-3 text-sm">
                  <button class="link" onclick={() => startFrom(r.number)}>{tell('revisions.start_from_this')}</button>
                  <a class="link" href="#/card/{params.id}/{r.number}">{tell('revisions.card')}</a>
                </span>
              </li>
            {/each}
          </ol>
        </section>
        <section class="border-base-300 min-w-0 border-t pt-3">
          <div class="mb-2 flex flex-wrap items-center gap-2">
            <h2 class="text-xl font-bold">{tell('revisions.from')}</h2>
            <select
              class="select select-sm w-40"
              aria-label={tell('revisions.compare_from')}
              value={older}
              onchange={(e) => (from = Number(e.currentTarget.value))}
            >
              {#each [0, ...numbers] as n (n)}<option value={n}>{called(n)}</option>{/each}
            </select>
            <span>{tell('revisions.to')}</span>
            <select
              class="select select-sm w-40"
              aria-label={tell('revisions.compare_to')}
              value={newer}
              onchange={(e) => (to = Number(e.currentTarget.value))}
            >
              {#each [0, ...numbers] as n (n)}<option value={n}>{called(n)}</option>{/each}
            </select>
            {#if comparison.data}
              <span class="ml-auto">
                {tell('revisions.computed_lap_s_but_for', {
                  seconds: signed(comparison.data.lapAfter.seconds - comparison.data.lapBefore.seconds, 2),
                  isUnmade: comparison.data.lapAfter.unmade + comparison.data.lapBefore.unmade,
                })}
              </span>
            {/if}
          </div>
          {#if comparison.data}
            {#if comparison.data.differences.length === 0}
              <p>{tell('revisions.nothing_differs')}</p>
            {/if}
            <ul class="mb-2 grid gap-x-6 lg:grid-cols-2" data-differences>
              {#each comparison.data.differences as d, i (i)}
                <li>
                  <button
                    class={['w-full text-left hover:underline', d.corner === selected ? 'font-bold' : '']}
                    onclick={() => (picked = d.corner)}>{d.words}</button
                  >
                </li>
              {/each}
            </ul>
            {#if corner && after}
              <p class="text-sm">
                {tell('revisions.corner_hollow_flags_are_filled', {
                  number: corner.number,
                  name: corner.name ? ` · ${corner.name}` : '',
                  older: called(older),
                  newer: called(newer),
                })}
              </p>
              <CornerStrip
                {road}
                {corner}
                entry={after}
                {before}
                answer={answer.data}
                landmarks={view.things.landmarks}
                readonly
                height={425}
              />
            {/if}
          {/if}
        </section>
      </div>
    {/if}
  {:else}
    <p class="py-5" role="status">{tell('revisions.opening')}</p>
  {/if}
</main>
