<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Printer from '@lucide/svelte/icons/printer';
  import { api, ask, asProblem } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { markersOf } from '../../road/markers';
  import { cornerWord } from '../../words/words';
  import { inSpeed, metres, plain, plannedLap, speedUnit } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { LENGTHS, few } from '../../words/few';
  import { tell } from '../../words/tell';
  import { inside } from '../../words/words';

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
            ? tell('card.working_copy_after_revision', { revision: reference.revision })
            : tell('card.revision', { revision: reference.revision }),
        };
      const revision = await ask(
        api.GET('/api/references/{id}/revisions/{number}', { params: { path: { id: params.id, number } } }),
      );
      return {
        reference,
        content: revision.content,
        words: revision.words,
        lap: revision.summary.planned,
        title: tell('card.revision_2', {
          number,
          toLocaleDateString: new Date(revision.summary.createdAt).toLocaleDateString(),
          reason: inside(revision.summary.reason),
        }),
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
    <p role="status">{tell('card.setting_the_card')}</p>
  {:else}
    <div class="no-print mb-3 flex items-center justify-between">
      <a class="link" href="#/reference/{data.reference.id}">{tell('card.back_to_the_reference')}</a>
      <div class="join" role="group" aria-label={tell('card.how_much_is_printed')}>
        {#each ['pocket', 'line', 'full'] as const as length (length)}
          <button
            class={['btn btn-sm join-item', how === length ? 'btn-primary' : '']}
            aria-pressed={how === length}
            onclick={() => (how = length)}>{LENGTHS[length]}</button
          >
        {/each}
      </div>
      <button class="btn btn-primary btn-sm" onclick={() => print()}
        ><Printer class="size-4" /> {tell('card.print')}</button
      >
    </div>
    <article class="card-paper">
      <header class="mb-2 flex items-baseline justify-between border-b-2 border-black pb-1">
        <h1 class="text-xl font-bold">{data.reference.circuit} · {data.reference.vehicle}</h1>
        <p class="text-sm">{tell('card.lap_as_planned', { lap: plannedLap(data.lap) })}</p>
      </header>
      <p class="mb-2 text-sm">
        {tell('card.printed_for_a_dry_road', {
          title: data.title,
          timeStyle: new Date().toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' }),
          hasSheet: !!data.reference.sheet,
          sheet: data.reference.sheet,
        })}
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
              <th>{tell('card.corner')}</th><th>{tell('card.brake_lift')}</th><th class="n">%</th><th class="n"
                >{speedUnit()}</th
              ><th>{tell('card.gears')}</th><th class="n">{tell('card.low')}</th><th>{tell('card.how')}</th>
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
                    {#each markers as m (m.id)}<span class="block"
                        >{tell('card.lift', { isLift: m.kind === 'LIFT', found: m.found })}</span
                      >{/each}
                  </td>
                  <td class="n">
                    {#each markers as m (m.id)}<span class="block">{m.share === null ? '·' : plain(m.share * 100)}</span
                      >{/each}
                  </td>
                {:else}
                  <td class="font-bold"
                    >{data.words[i]?.braked
                      ? tell('card.brakes_for', { corner: data.words[i].braked })
                      : few(e.slowing)}</td
                  >
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
        {tell('card.computed_markers_are_estimates_start')}
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
