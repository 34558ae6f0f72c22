<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Printer from '@lucide/svelte/icons/printer';
  import { api, ask, asProblem } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { markersOf } from '../../road/markers';
  import { cornerWord } from '../../words/words';
  import { inSpeed, metres, plain, plannedLap, speedUnit } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';

  let { params }: { params: { id: string; revision: string } } = $props();
  let how = $state<'pocket' | 'line' | 'full'>('line');

  const card = createQuery(() => ({
    queryKey: ['card', params.id, params.revision],
    queryFn: async () => {
      const path = { path: { id: params.id } };
      const reference = await ask(api.GET('/api/references/{id}', { params: path }));
      const number = Number(params.revision);
      if (number === 0)
        return {
          reference,
          content: reference.working.content,
          words: reference.words,
          lap: reference.planned,
          title: reference.changed
            ? `working copy after revision ${reference.revision}`
            : `revision ${reference.revision}`,
        };
      const revision = await ask(
        api.GET('/api/references/{id}/revisions/{number}', { params: { path: { id: params.id, number } } }),
      );
      return {
        reference,
        content: revision.content,
        words: revision.words,
        lap: revision.summary.planned,
        title: `revision ${number}, ${new Date(revision.summary.createdAt).toLocaleDateString()}: ${revision.summary.reason}`,
      };
    },
  }));
  const data = $derived(card.data);
  $effect(() => {
    if (data) here.say(`${data.reference.circuit} · ${data.reference.vehicle}`, data.title, data.reference.id);
  });
</script>

<main class="mx-auto max-w-5xl p-5">
  {#if card.error}
    <ProblemBox problem={asProblem(card.error)} />
  {:else if !data}
    <p role="status">Setting the card…</p>
  {:else}
    <div class="no-print mb-3 flex items-center justify-between">
      <a class="link" href="#/reference/{data.reference.id}">Back to the reference</a>
      <div class="join" role="group" aria-label="How much is printed">
        {#each ['pocket', 'line', 'full'] as const as length (length)}
          <button
            class={['btn btn-sm join-item', how === length ? 'btn-primary' : '']}
            aria-pressed={how === length}
            onclick={() => (how = length)}>{length}</button
          >
        {/each}
      </div>
      <button class="btn btn-primary btn-sm" onclick={() => print()}><Printer class="size-4" /> Print</button>
    </div>
    <article class="card-paper">
      <header class="mb-2 flex items-baseline justify-between border-b-2 border-black pb-1">
        <h1 class="text-xl font-bold">{data.reference.circuit} · {data.reference.vehicle}</h1>
        <p class="text-sm">lap as planned {plannedLap(data.lap)}</p>
      </header>
      <p class="mb-2 text-sm">
        {data.title}. Printed {new Date().toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}; for a
        dry road without wind, tyres warm{data.reference.sheet ? `, sheet “${data.reference.sheet}”` : ''}.
      </p>
      {#if how === 'pocket'}
        <ol class="pocket">
          {#each data.content.corners as e, i (e.corner)}
            {@const corner = data.reference.corners.find((c) => c.id === e.corner)}
            <li><strong>{corner ? cornerWord(corner) : e.corner}</strong> {data.words[i]?.pocket}</li>
          {/each}
        </ol>
      {:else}
        <table>
          <thead>
            <tr>
              <th>Corner</th><th>Brake, lift</th><th class="n">%</th><th class="n">{speedUnit()}</th><th>Gears</th><th
                class="n">Low</th
              ><th>How</th>
            </tr>
          </thead>
          <tbody>
            {#each data.content.corners as e, i (e.corner)}
              {@const corner = data.reference.corners.find((c) => c.id === e.corner)}
              {@const markers = markersOf(e, data.reference.length, metres)}
              <tr>
                <th scope="row">
                  <span class="text-lg font-bold">{corner?.number}</span>{corner?.left ? ' ↰' : ' ↱'}
                  <span class="block text-xs font-normal">{corner?.name}</span>
                </th>
                {#if markers.length}
                  <td class="font-bold whitespace-nowrap">
                    {#each markers as m (m.id)}<span class="block">{m.kind === 'LIFT' ? 'lift ' : ''}{m.found}</span
                      >{/each}
                  </td>
                  <td class="n">
                    {#each markers as m (m.id)}<span class="block">{m.share === null ? '·' : plain(m.share * 100)}</span
                      >{/each}
                  </td>
                {:else}
                  <td class="font-bold">{e.slowing.toLowerCase()}</td>
                  <td></td>
                {/if}
                <td class="n">{plain(inSpeed(e.approachSpeed))}</td>
                <td class="whitespace-nowrap">{e.approachGear === e.gear ? e.gear : `${e.approachGear} → ${e.gear}`}</td
                >
                <td class="n font-bold">{plain(inSpeed(e.minimumSpeed))}</td>
                <td class="how">{how === 'full' ? data.words[i]?.full : data.words[i]?.own || data.words[i]?.line}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
      <p class="mt-2 text-xs">
        Computed markers are estimates: start early and build up. The organiser's rules, flags and instructors come
        first. Not for use while driving.
      </p>
    </article>
  {/if}
</main>

<style>
  .card-paper {
    background: white;
    color: black;
    padding: 18px 22px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 2px 8px 2px 0;
    border-bottom: 1px solid #999;
    line-height: 1.2;
  }
  .pocket {
    columns: 2;
    column-gap: 28px;
    font-size: 17px;
    line-height: 1.5;
  }
  .pocket li {
    border-bottom: 1px solid #999;
    break-inside: avoid;
  }
  .n {
    text-align: right;
  }
  .how {
    font-size: 12.5px;
  }
  @media print {
    @page {
      size: A4;
      margin: 10mm;
    }
    .card-paper {
      padding: 0;
    }
    .how {
      font-size: 10.5px;
    }
    table {
      font-size: 12px;
    }
    tr {
      break-inside: avoid;
    }
  }
</style>
