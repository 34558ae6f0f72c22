<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type Problem, type VehicleClass } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { plain } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import PutAway from '../../kit/PutAway.svelte';
  import TorqueSketch from './TorqueSketch.svelte';
  import { tell } from '../../words/tell';

  here.say('', '', null);
  const vehicles = createQuery(() => ({ queryKey: ['vehicles'], queryFn: () => ask(api.GET('/api/vehicles')) }));
  const classes = createQuery(() => ({
    queryKey: ['vehicle-classes'],
    queryFn: () => ask(api.GET('/api/vehicle-classes')),
  }));
  let problem = $state<Problem | null>(null);

  async function copy(from: VehicleClass) {
    try {
      const made = await ask(
        api.POST('/api/vehicles', {
          body: { name: tell('garage.my', { name: from.name }), basedOn: from.id, numbers: from.vehicle },
        }),
      );
      await push(`/vehicle/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    }
  }
</script>

<main class="grid gap-5 p-5">
  {#if problem}<ProblemBox {problem} />{/if}
  <section>
    <h1 class="mb-2 text-2xl font-bold">{tell('garage.my_vehicles')}</h1>
    {#if vehicles.data?.length === 0}<p>{tell('garage.none_yet_take_a_class')}</p>{/if}
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-3">
      {#each vehicles.data ?? [] as v (v.id)}
        <li class="relative">
          <span class="absolute right-1 bottom-1"
            ><PutAway sort="VEHICLE" id={v.id} name={v.name} onproblem={(p) => (problem = p)} /></span
          >
          <a class="bg-base-100 border-base-300 block rounded border p-3" href="#/vehicle/{v.id}">
            <TorqueSketch vehicle={v.numbers} />
            <span class="block font-bold">{v.name}</span>
            {tell('garage.kg_gears', { mass: plain(v.numbers.mass), ratios: v.numbers.gearbox.ratios.length })}
          </a>
        </li>
      {/each}
    </ul>
  </section>
  <section>
    <h2 class="mb-2 text-xl font-bold">{tell('garage.classes_to_start_from')}</h2>
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-3">
      {#each classes.data ?? [] as c (c.id)}
        <li class="bg-base-100 border-base-300 flex flex-col rounded border p-3">
          <TorqueSketch vehicle={c.vehicle} />
          <span class="font-bold">{c.name}</span>
          <span class="flex-1 text-sm">{c.about}</span>
          <button class="btn btn-sm mt-2 self-start" onclick={() => copy(c)}>{tell('garage.copy_as_mine')}</button>
        </li>
      {/each}
    </ul>
  </section>
</main>
