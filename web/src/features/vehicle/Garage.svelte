<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type Problem, type VehicleClass } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { plain } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import PutAway from '../../kit/PutAway.svelte';
  import TorqueSketch from './TorqueSketch.svelte';

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
        api.POST('/api/vehicles', { body: { name: `My ${from.name}`, basedOn: from.id, numbers: from.vehicle } }),
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
    <h1 class="mb-2 text-2xl font-bold">My vehicles</h1>
    {#if vehicles.data?.length === 0}<p>None yet. Take a class below as the start.</p>{/if}
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-3">
      {#each vehicles.data ?? [] as v (v.id)}
        <li class="relative">
          <span class="absolute right-1 bottom-1"
            ><PutAway sort="VEHICLE" id={v.id} name={v.name} onproblem={(p) => (problem = p)} /></span
          >
          <a class="bg-base-100 border-base-300 block rounded border p-3" href="#/vehicle/{v.id}">
            <TorqueSketch vehicle={v.numbers} />
            <span class="block font-bold">{v.name}</span>
            {plain(v.numbers.mass)} kg, {v.numbers.gearbox.ratios.length} gears
          </a>
        </li>
      {/each}
    </ul>
  </section>
  <section>
    <h2 class="mb-2 text-xl font-bold">Classes to start from</h2>
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-3">
      {#each classes.data ?? [] as c (c.id)}
        <li class="bg-base-100 border-base-300 flex flex-col rounded border p-3">
          <TorqueSketch vehicle={c.vehicle} />
          <span class="font-bold">{c.name}</span>
          <span class="flex-1 text-sm">{c.about}</span>
          <button class="btn btn-sm mt-2 self-start" onclick={() => copy(c)}>Copy as mine</button>
        </li>
      {/each}
    </ul>
  </section>
</main>
