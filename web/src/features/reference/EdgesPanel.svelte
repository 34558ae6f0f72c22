<script lang="ts">
  import { createQueries, createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Corner, type EdgeView, type RoadUse } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { metres, plain } from '../../words/units';
  import type { Desk } from './desk.svelte';
  import { edgesOf, lay, toggled } from './edges';
  import { tell } from '../../words/tell';

  /** What lies beyond the edges of a corner: what it is worth, what it risks, and whether it is used. */
  let { desk, corner }: { desk: Desk; corner: Corner } = $props();
  const path = $derived({ params: { path: { id: desk.view.id } } });
  // Whatever the working copy holds of it was stored before the server is asked.
  const version = $derived(JSON.stringify([desk.content.use ?? null, desk.workingVersion, desk.lap.lapTime]));
  const use = createQuery(() => ({
    queryKey: ['use', desk.view.id, version],
    queryFn: () => ask(api.GET('/api/references/{id}/use', path)),
  }));
  const edges = $derived(edgesOf(use.data?.edges ?? [], corner));
  const W = 276;
  const H = 84;
  const drawn = $derived(lay(edges, corner, desk.road.length, W, 18));
  const worths = createQueries(() => ({
    queries: edges
      .filter((e) => !e.never && e.reach > 0)
      .map((e) => ({
        queryKey: ['worth', desk.view.id, e.id, version],
        queryFn: () => ask(api.POST('/api/references/{id}/use/worth', { ...path, body: { edge: e.id } })),
        staleTime: Infinity,
      })),
  }));
  const worthOf = $derived(
    Object.fromEntries(
      edges
        .filter((e) => !e.never && e.reach > 0)
        .map((e, i): [string, number | undefined] => [e.id, worths[i]?.data?.seconds]),
    ),
  );
  const most = $derived(Math.max(0.02, ...Object.values(worthOf).map((w) => w ?? 0)));
  const gates = $derived((use.data?.gates ?? []).filter((g) => near(g.gate.station)));
  function near(station: number) {
    const ahead = (a: number, b: number) => (((b - a) % desk.road.length) + desk.road.length) % desk.road.length;
    return ahead(corner.entry - 80, station) <= ahead(corner.entry - 80, corner.exit + 80);
  }
  const now = $derived<RoadUse>(desk.content.use ?? { opened: [], gates: [] });

  const word = (e: EdgeView) => (e.kerb ? tell('edgesPanel.kerb') : tell('edgesPanel.ground_beyond_the_edge'));
  const name = (e: EdgeView) =>
    tell('edgesPanel.left_right_to', { hasLeft: !!e.left, word: word(e), from: metres(e.from), to: metres(e.to) });
  const toggle = (e: EdgeView) => void desk.layAnew({ use: { ...now, opened: toggled(now.opened, e.id) } });
  const lift = (id: string) => void desk.layAnew({ use: { ...now, gates: now.gates.filter((g) => g.id !== id) } });
</script>

<section class="grid gap-1.5 text-sm" aria-label={tell('edgesPanel.edges_of_the_road')}>
  {#if use.error}
    <ProblemBox problem={asProblem(use.error)} />
  {:else if !use.data}
    <p>{tell('edgesPanel.looking_along_the_edges')}</p>
  {:else if !edges.length}
    <p>
      {tell('edgesPanel.the_survey_knows_no_kerb')}
      <a class="link" href="#/survey/{desk.view.layoutId}">{tell('edgesPanel.survey_them')}</a>{tell(
        'edgesPanel.then_they_can_be_used',
      )}
    </p>
  {:else}
    <svg
      width={W}
      height={H}
      class="block"
      role="group"
      aria-label={tell('edgesPanel.edges_of_corner_from_above', { number: corner.number })}
    >
      <rect x="0" y={H / 2 - 16} width={W} height="32" fill="var(--road)" />
      <text x="4" y={H / 2 + 4} style="font-size:11px;fill:var(--ink-soft)">{tell('edgesPanel.road')}</text>
      {#each drawn as d (d.edge.id)}
        {@const e = d.edge}
        {@const y = e.left ? H / 2 - 17 - d.out : H / 2 + 17}
        <rect
          x={d.x1}
          {y}
          width={d.x2 - d.x1}
          height={d.out}
          role="button"
          tabindex={e.never || !desk.mine ? -1 : 0}
          aria-disabled={!!e.never || !desk.mine}
          aria-pressed={e.opened}
          aria-label="{name(e)}: {e.never ?? (e.opened ? tell('edgesPanel.used') : tell('edgesPanel.not_used'))}"
          data-edge={e.id}
          class={e.never || !desk.mine ? '' : 'focus-ring cursor-pointer'}
          fill={e.opened ? 'var(--line)' : e.never ? 'url(#hatch)' : 'var(--color-base-100)'}
          stroke={e.never ? 'var(--brake)' : 'var(--ink)'}
          stroke-width="1.4"
          stroke-dasharray={e.opened || e.never ? undefined : '3 2'}
          onclick={() => !e.never && desk.mine && toggle(e)}
          onkeydown={(k) => {
            if ((k.key === 'Enter' || k.key === ' ') && !e.never && desk.mine) {
              k.preventDefault();
              toggle(e);
            }
          }}
        />
      {/each}
    </svg>
    <p class="text-xs leading-tight">
      {tell('edgesPanel.filled_used_broken_could_be')}
    </p>
    <ul class="grid gap-1.5">
      {#each edges as e (e.id)}
        {@const worth = worthOf[e.id]}
        <li class="grid grid-cols-[1fr_auto] gap-x-2" data-edge-line={e.id}>
          <span class="first-letter:uppercase">{name(e)}</span>
          {#if e.never}
            <span></span>
            <span class="col-span-2 text-xs" style="color:var(--brake)">{e.never}</span>
          {:else}
            <button
              class={['btn btn-xs', e.opened ? 'btn-primary' : '']}
              disabled={!desk.mine || desk.busy}
              aria-pressed={e.opened}
              onclick={() => toggle(e)}>{tell('edgesPanel.used_use_it', { hasOpened: !!e.opened })}</button
            >
            <span class="col-span-2 flex items-center gap-2">
              <svg width="52" height="9" aria-hidden="true"
                ><rect
                  x="0"
                  y="1"
                  width={worth === undefined ? 0 : Math.max(1, (52 * worth) / most)}
                  height="7"
                  fill="var(--throttle-fill)"
                  stroke="var(--ink)"
                  stroke-width="0.8"
                /></svg
              >
              <span class="tabular-nums" data-worth
                >{tell('edgesPanel.out', {
                  worth:
                    worth === undefined
                      ? tell('edgesPanel.both_lines_are_laid')
                      : tell('edgesPanel.worth_nothing_s_a_lap', { isWorth: worth < 0.0005, worth: plain(worth, 3) }),
                  reach: metres(e.reach, 1),
                })}</span
              >
            </span>
            {#if e.risks.length}<span class="col-span-2 text-xs leading-tight" data-risks>{e.risks.join('; ')}</span
              >{/if}
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
  {#if gates.length}
    <h3 class="mt-1 font-bold">{tell('edgesPanel.places_that_the_line_passes')}</h3>
    <ul class="grid gap-1">
      {#each gates as g (g.gate.id)}
        <li class="flex items-center gap-2" data-gate={g.gate.id}>
          <span class="flex-1"
            >{tell('edgesPanel.from_the_left_right_edge', {
              gate: metres(g.gate.metres, 1),
              hasLeft: !!g.gate.left,
              station: metres(g.gate.station),
            })}
            {#if g.missing > 0}<strong style="color:var(--brake)"
                >{tell('edgesPanel.cannot_be_met_are_missing', { missing: metres(g.missing, 1) })}</strong
              >{/if}</span
          >
          <button class="btn btn-xs" disabled={!desk.mine || desk.busy} onclick={() => lift(g.gate.id)}
            >{tell('edgesPanel.lift_it')}</button
          >
        </li>
      {/each}
    </ul>
  {/if}
  <p class="text-xs leading-tight">
    {tell('edgesPanel.worth_the_lap_with_it')}
  </p>
</section>
