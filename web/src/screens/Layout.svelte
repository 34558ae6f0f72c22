<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, sendForm, type LayoutView, type Problem } from '../lib/api';
  import { here } from '../lib/here.svelte';
  import { degrees, metres } from '../lib/units';
  import LapStrip from '../components/LapStrip.svelte';
  import PlanDrawing from '../components/PlanDrawing.svelte';
  import ProblemBox from '../components/ProblemBox.svelte';

  let { params }: { params: { id: string } } = $props();
  const queries = useQueryClient();
  const path = $derived({ path: { id: params.id } });
  const layout = createQuery(() => ({
    queryKey: ['layout', params.id],
    queryFn: () => ask(api.GET('/api/layouts/{id}', { params: path })),
  }));
  const road = createQuery(() => ({
    queryKey: ['road', params.id],
    queryFn: () => ask(api.GET('/api/layouts/{id}/road', { params: { ...path, query: { step: 4 } } })),
  }));
  const vehicles = createQuery(() => ({ queryKey: ['vehicles'], queryFn: () => ask(api.GET('/api/vehicles')) }));
  const classes = createQuery(() => ({
    queryKey: ['vehicle-classes'],
    queryFn: () => ask(api.GET('/api/vehicle-classes')),
  }));

  let selected = $state('');
  let vehicle = $state('');
  let busy = $state(false);
  let problem = $state<Problem | null>(null);
  const chosen = $derived(
    vehicle || vehicles.data?.[0]?.id || (classes.data?.[0] ? `class:${classes.data[0].id}` : ''),
  );

  $effect(() => {
    const s = layout.data?.summary;
    if (s) here.say(`${s.circuit} ${s.layout} v${s.version}`, `${metres(s.length)}, ${s.corners} corners`, null);
  });

  async function rename(corner: string, name: string) {
    try {
      const view: LayoutView = await ask(
        api.PUT('/api/layouts/{id}/corners/{corner}', {
          params: { path: { id: params.id, corner } },
          body: { name },
        }),
      );
      queries.setQueryData(['layout', params.id], view);
      problem = null;
    } catch (e) {
      problem = asProblem(e);
    }
  }

  async function draft() {
    busy = true;
    problem = null;
    try {
      let vehicleId = chosen;
      if (chosen.startsWith('class:')) {
        const from = classes.data?.find((c) => `class:${c.id}` === chosen);
        if (!from) throw new Error('no such class');
        const made = await ask(
          api.POST('/api/vehicles', { body: { name: `My ${from.name}`, basedOn: from.id, numbers: from.vehicle } }),
        );
        vehicleId = made.id;
      }
      const made = await ask(api.POST('/api/references', { body: { layoutId: params.id, vehicleId } }));
      await push(`/reference/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
    }
  }

  async function bring(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    try {
      const made = await sendForm<{ id: string }>(`/api/layouts/${params.id}/references`, { file });
      await push(`/reference/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    }
  }
</script>

<main class="px-5 pb-4">
  {#if layout.error}
    <ProblemBox problem={asProblem(layout.error)} />
  {:else if layout.data && road.data}
    <LapStrip
      road={road.data}
      corners={layout.data.corners}
      landmarks={layout.data.landmarks}
      {selected}
      onselect={(c) => (selected = c)}
    />
    <div class="grid grid-cols-[minmax(0,1fr)_400px] gap-5">
      <section class="border-base-300 border-t pt-2">
        <PlanDrawing
          road={road.data}
          corners={layout.data.corners}
          landmarks={layout.data.landmarks}
          {selected}
          height={520}
          onselect={(c) => (selected = c)}
        />
      </section>
      <section class="border-base-300 grid content-start gap-4 border-t pt-3">
        <h1 class="text-2xl font-bold">{layout.data.summary.circuit}</h1>
        <form
          class="flex items-end gap-2"
          onsubmit={(e) => {
            e.preventDefault();
            void draft();
          }}
        >
          <label class="grid flex-1 gap-1">
            Vehicle
            <select
              class="select w-full"
              name="vehicle"
              value={chosen}
              onchange={(e) => (vehicle = e.currentTarget.value)}
            >
              {#if vehicles.data?.length}
                <optgroup label="Mine">
                  {#each vehicles.data as v (v.id)}<option value={v.id}>{v.name}</option>{/each}
                </optgroup>
              {/if}
              <optgroup label="Classes to start from">
                {#each classes.data ?? [] as c (c.id)}<option value="class:{c.id}">{c.name}</option>{/each}
              </optgroup>
            </select>
          </label>
          <button class="btn btn-primary" disabled={busy || !chosen}>
            {busy ? 'Computing…' : 'Draft the reference'}
          </button>
        </form>
        {#if problem}<ProblemBox {problem} />{/if}
        <div class="max-h-[390px] overflow-y-auto">
          <table class="table-xs table" aria-label="Corners">
            <thead><tr><th>Corner</th><th>Name</th><th>Way</th><th>Radius</th><th>Angle</th></tr></thead>
            <tbody>
              {#each layout.data.corners as c (c.id)}
                <tr class={selected === c.id ? 'bg-base-300' : ''} onfocusin={() => (selected = c.id)}>
                  <th scope="row">{c.number}</th>
                  <td>
                    <input
                      class="input input-xs w-36"
                      aria-label="Name of corner {c.number}"
                      value={c.name}
                      maxlength="60"
                      onchange={(e) => rename(c.id, e.currentTarget.value)}
                    />
                  </td>
                  <td>{c.left ? 'left' : 'right'}</td>
                  <td>{metres(c.radius)}</td>
                  <td>{Math.round(degrees(c.angle))}°</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
        <label class="link text-sm">
          Bring a reference saved as JSON
          <input type="file" class="sr-only" accept=".json" onchange={(e) => bring(e.currentTarget.files)} />
        </label>
      </section>
    </div>
  {:else}
    <p class="py-5" role="status">Opening…</p>
  {/if}
</main>
