<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Problem } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { metres } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import PutAway from '../../kit/PutAway.svelte';
  import PlanDrawing from '../../road/PlanDrawing.svelte';
  import { tell } from '../../words/tell';

  here.say('', '', null);
  let problem = $state.raw<Problem | null>(null);
  const layouts = createQuery(() => ({
    queryKey: ['layouts'],
    queryFn: async () => {
      const all = await ask(api.GET('/api/layouts'));
      return Promise.all(
        all.map(async (layout) => ({
          layout,
          road: await ask(
            api.GET('/api/layouts/{id}/road', { params: { path: { id: layout.id }, query: { step: 10 } } }),
          ),
        })),
      );
    },
  }));
</script>

<main class="p-5">
  <div class="mb-4 flex items-center justify-between">
    <h1 class="text-2xl font-bold">{tell('survey.circuits')}</h1>
    <a class="btn btn-primary" href="#/survey/bring">{tell('survey.bring_a_circuit')}</a>
  </div>
  {#if problem}<ProblemBox {problem} />{/if}
  {#if layouts.error}
    <ProblemBox problem={asProblem(layouts.error)} />
  {:else if layouts.data?.length === 0}
    <p>{tell('survey.none_yet_bring_the_outline')}</p>
  {:else if layouts.data}
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] gap-4">
      {#each layouts.data as { layout, road } (layout.id)}
        <li class="relative">
          <span class="absolute right-1 bottom-1"
            ><PutAway
              sort="LAYOUT"
              id={layout.id}
              name="{layout.circuit}, {layout.layout} v{layout.version}"
              onproblem={(p) => (problem = p)}
            /></span
          >
          <a class="bg-base-100 border-base-300 block rounded border p-4" href="#/survey/{layout.id}">
            <PlanDrawing {road} height={170} />
            <span class="block font-bold">{layout.circuit}</span>
            {tell('survey.v_corners', {
              layout: layout.layout,
              version: layout.version,
              layout2: metres(layout.length),
              corners: layout.corners,
            })}
          </a>
        </li>
      {/each}
    </ul>
  {:else}
    <p role="status">{tell('survey.opening')}</p>
  {/if}
</main>
