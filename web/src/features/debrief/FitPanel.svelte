<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Problem } from '../../api/api';
  import { lapTime, plain, signed } from '../../words/units';
  import FitReach from './FitReach.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  /** The vehicle as the laps show it, before and after. */
  let { run, mine, theoretical }: { run: string; mine: boolean; theoretical: number } = $props();
  const queries = useQueryClient();
  const fit = createQuery(() => ({
    queryKey: ['fit', run],
    queryFn: () => ask(api.GET('/api/runs/{id}/vehicle-fit', { params: { path: { id: run } } })),
    retry: false,
  }));
  let problem = $state.raw<Problem | null>(null);
  let taken = $state<{ vehicle: string; version: number } | null>(null);
  const rows = $derived(
    fit.data
      ? ([
          [tell('fitPanel.grip_across'), fit.data.acrossFactor],
          [tell('fitPanel.grip_in_braking'), fit.data.alongFactor],
          ['power', fit.data.powerFactor],
          ['drag', fit.data.dragFactor],
        ] as const)
      : [],
  );
  async function take() {
    problem = null;
    try {
      taken = await ask(api.POST('/api/runs/{id}/vehicle-fit', { params: { path: { id: run } } }));
      await queries.invalidateQueries();
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const W = 300;
  const x = (factor: number) => 110 + ((factor - 0.6) / 0.8) * (W - 120);
  const off = (computed: number) => ((computed - theoretical) / theoretical) * 100;
</script>

{#if fit.error}
  <ProblemBox problem={asProblem(fit.error)} />
{:else if fit.data}
  <div class="grid grid-cols-[300px_minmax(0,1fr)] gap-6" data-fit>
    <svg width={W} height="132" role="img" aria-label={tell('fitPanel.what_the_laps_show_against')}>
      <path d="M{x(1)} 6V112" stroke="var(--ink-soft)" stroke-dasharray="2 3" />
      <text x={x(1)} y="126" text-anchor="middle" style="font-size:11px">{tell('fitPanel.as_entered')}</text>
      {#each rows as [name, factor], i (name)}
        {@const y = 18 + i * 27}
        <text x="0" y={y + 4}>{name}</text>
        <path d="M{x(1)} {y}H{x(factor)}" stroke="var(--brake)" stroke-width="5" />
        <text
          x={x(factor) + (factor >= 1 ? 6 : -6)}
          y={y + 4}
          text-anchor={factor >= 1 ? 'start' : 'end'}
          font-weight="700">{plain(factor * 100)} %</text
        >
      {/each}
    </svg>
    <div class="grid content-start gap-2">
      <ul class="ml-4 list-disc">
        {#each fit.data.words as w (w)}<li>{w}</li>{/each}
      </ul>
      <table class="w-fit text-sm">
        <tbody>
          <tr
            ><td class="pr-4">{tell('fitPanel.your_best_corners_together')}</td><td class="font-semibold"
              >{lapTime(theoretical)}</td
            ><td></td></tr
          >
          <tr
            ><td class="pr-4">{tell('fitPanel.computed_with_the_vehicle_as')}</td><td class="font-semibold"
              >{lapTime(fit.data.before)}</td
            ><td class="pl-3">{signed(off(fit.data.before), 1)} %</td></tr
          >
          <tr
            ><td class="pr-4">{tell('fitPanel.computed_with_what_the_laps')}</td><td class="font-semibold"
              >{lapTime(fit.data.after)}</td
            ><td class="pl-3">{signed(off(fit.data.after), 1)} %</td></tr
          >
          <tr
            ><td class="pr-4">{tell('fitPanel.your_best_whole_lap')}</td><td class="font-semibold"
              >{lapTime(fit.data.measured)}</td
            ><td></td></tr
          >
        </tbody>
      </table>
      {#if problem}<ProblemBox {problem} />{/if}
      {#if taken}
        <p role="status">
          {tell('fitPanel.taken_as_the_vehicle_s')}
          <a class="link" href="#/vehicle/{taken.vehicle}">{tell('fitPanel.look_at_it')}</a>{tell(
            'fitPanel.the_reference_offers_to_compute',
          )}
        </p>
      {:else if mine}
        <button class="btn btn-sm w-fit" onclick={take}>{tell('fitPanel.take_it_as_the_vehicle')}</button>
      {/if}
    </div>
    <div class="col-span-2 grid gap-1"><FitReach reaches={fit.data.reaches} /></div>
  </div>
{:else}
  <p role="status">{tell('fitPanel.reading_the_laps')}</p>
{/if}
