<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Printer from '@lucide/svelte/icons/printer';
  import { api, ask, asProblem, type CornerEntry, type PointKind } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { here } from '../../kit/here.svelte';
  import { besidesOf, markersOf } from '../../road/markers';
  import { pastApex, POINTS, foundBy } from '../../road/points';
  import { inLength, inSpeed, lengthUnit, metres, plain, signed, speedUnit } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  /** The whole reference in one table: a last check before going out. */
  let { params }: { params: { id: string } } = $props();
  const path = $derived({ path: { id: params.id } });
  const whole = createQuery(() => ({
    queryKey: ['whole', params.id],
    queryFn: async () => {
      void catalogue.load();
      const [reference, overview] = await Promise.all([
        ask(api.GET('/api/references/{id}', { params: path })),
        ask(api.GET('/api/references/{id}/overview', { params: path })),
      ]);
      return { reference, overview };
    },
  }));
  const data = $derived(whole.data);
  $effect(() => {
    if (data)
      here.say(`${data.reference.circuit} · ${data.reference.vehicle}`, tell('whole.the_whole_lap'), data.reference.id);
  });

  type Column = 'lap' | 'worth' | 'arrive' | 'effort' | 'margin' | 'low' | 'effect';
  const COLUMNS: { id: Column; word: string; n: boolean }[] = [
    { id: 'lap', word: tell('whole.corner'), n: false },
    { id: 'worth', word: tell('whole.worth'), n: true },
    { id: 'arrive', word: tell('whole.arrive'), n: true },
    { id: 'effort', word: '%', n: true },
    { id: 'margin', word: tell('whole.in_hand'), n: true },
    { id: 'low', word: tell('whole.low_2'), n: true },
    { id: 'effect', word: tell('whole.given_2'), n: true },
  ];
  let by = $state<Column>('lap');
  let back = $state(false);
  const worth = $derived(new Map((data?.overview.worth ?? []).map((w, i) => [w.corner, { ...w, order: i + 1 }])));
  const rows = $derived.by(() => {
    const all = (data?.overview.corners ?? []).map((line, i) => ({ line, i }));
    const value = ({ line, i }: (typeof all)[number]): number =>
      ({
        lap: i,
        worth: worth.get(line.entry.corner)?.order ?? 0,
        arrive: -line.entry.approachSpeed,
        effort: -line.entry.firstEffort,
        margin: line.marginMetres ?? Infinity,
        low: line.entry.minimumSpeed,
        effect: -(line.effect ?? Infinity),
      })[by];
    all.sort((a, b) => (value(a) - value(b)) * (back ? -1 : 1));
    return all.map((r) => r.line);
  });
  function sort(column: Column) {
    back = by === column ? !back : false;
    by = column;
  }
  const corner = (id: string) => data?.reference.corners.find((c) => c.id === id);
  const word = (id: string) => {
    const c = corner(id);
    return c ? cornerWord(c) : id;
  };
  const place = (e: CornerEntry, kind: PointKind) => {
    const p = e.points.find((q) => q.kind === kind);
    return p ? (foundBy(p, metres) ?? metres(p.station)) : '';
  };
  const fromApex = (e: CornerEntry, kind: PointKind) => {
    const by = data && pastApex(e, kind, data.reference.length);
    return by === undefined ? '' : signed(Math.round(inLength(by)));
  };
  const schools = (e: CornerEntry) => e.schools.map((s) => catalogue.school(s)).join('; ');
</script>

<main class="px-5 pb-4">
  {#if whole.error}
    <ProblemBox problem={asProblem(whole.error)} />
  {:else if !data}
    <p role="status">{tell('whole.driving_every_corner')}</p>
  {:else}
    <div class="no-print flex items-center gap-3 py-2">
      <h1 class="flex-1 text-xl font-bold">{tell('whole.the_whole_lap_2')}</h1>
      <a class="link" href="#/reference/{data.reference.id}">{tell('whole.back_to_the_reference')}</a>
      <a class="link" href="#/card/{data.reference.id}/0">{tell('whole.the_card')}</a>
      <button class="btn btn-primary btn-sm" onclick={() => print()}
        ><Printer class="size-4" /> {tell('whole.print')}</button
      >
    </div>
    {#if data.overview.summary}
      <p class="mb-2 text-sm" data-summary><strong>{tell('whole.in_ten_seconds')}</strong> {data.overview.summary}</p>
    {/if}
    {#if data.overview.warnings.length || data.overview.unsure.length}
      <section
        class="border-error mb-2 border-l-4 pl-3 text-sm leading-snug"
        aria-label={tell('whole.to_look_at')}
        data-warnings={data.overview.warnings.length}
      >
        <strong>{tell('whole.to_look_at_before_going')}</strong>
        <ul>
          {#each data.overview.warnings as w (w.corner + w.rule + w.words)}
            <li>
              <a class="link" href="#/reference/{data.reference.id}">{word(w.corner)}</a>
              {w.kind ? `${POINTS[w.kind].word}: ` : ''}{w.words}
            </li>
          {/each}
          {#if data.overview.unsure.length}<li data-unsure-list>
              {tell('whole.not_sure_of', { unsure: data.overview.unsure.join(', ') })}
            </li>{/if}
        </ul>
      </section>
    {:else}
      <p class="mb-2 text-sm">{tell('whole.nothing_in_it_contradicts_itself')}</p>
    {/if}
    <div class="overflow-x-auto">
      <table class="whole">
        <thead>
          <tr>
            {#each COLUMNS.slice(0, 2) as c (c.id)}
              <th class={c.n ? 'n' : ''} aria-sort={by === c.id ? (back ? 'descending' : 'ascending') : 'none'}
                ><button onclick={() => sort(c.id)} data-sort={c.id}
                  >{c.word}{by === c.id ? (back ? ' ▴' : ' ▾') : ''}</button
                ></th
              >
            {/each}
            {#each COLUMNS.slice(2, 5) as c (c.id)}
              <th class="n"
                ><button onclick={() => sort(c.id)} data-sort={c.id}
                  >{c.word}{by === c.id ? (back ? ' ▴' : ' ▾') : ''}</button
                ></th
              >
            {/each}
            <th>{tell('whole.brake_lift')}</th><th>{tell('whole.back_up')}</th><th>{tell('whole.gears')}</th><th
              >{tell('whole.turn_in')}</th
            ><th class="n">{tell('whole.off')}</th>
            <th class="n"
              ><button onclick={() => sort('low')} data-sort="low"
                >{tell('whole.low', { back: by === 'low' ? (back ? ' ▴' : ' ▾') : '' })}</button
              ></th
            >
            <th class="n">{tell('whole.first')}</th><th class="n">{tell('whole.full')}</th>
            <th class="n"
              ><button onclick={() => sort('effect')} data-sort="effect"
                >{tell('whole.given', { back: by === 'effect' ? (back ? ' ▴' : ' ▾') : '' })}</button
              ></th
            >
            <th>{tell('whole.how_escape')}</th>
          </tr>
        </thead>
        <tbody>
          {#each rows as line (line.entry.corner)}
            {@const e = line.entry}
            {@const w = worth.get(e.corner)}
            {@const markers = markersOf(e, data.reference.length, metres)}
            <tr data-row={e.corner}>
              <th scope="row">{word(e.corner)}{corner(e.corner)?.left ? ' ↰' : ' ↱'}</th>
              <td class="n" title={tell('whole.seconds_on_offer')}
                >{w ? tell('whole.own_s', { order: w.order, hasOwn: !!w.own, seconds: plain(w.seconds, 2) }) : ''}</td
              >
              <td class="n">{plain(inSpeed(e.approachSpeed))}</td>
              <td class="n"
                >{#each markers as m (m.id)}<span class="block">{m.share === null ? '·' : plain(m.share * 100)}</span
                  >{/each}</td
              >
              <td class="n">{line.marginMetres == null ? '' : metres(line.marginMetres, 1)}</td>
              <td class="font-bold"
                >{#each markers as m (m.id)}<span class="block"
                    >{tell('whole.lift', { isLift: m.kind === 'LIFT', found: m.found })}</span
                  >{:else}{line.words.braked
                    ? tell('whole.brakes_for', { corner: line.words.braked })
                    : few(e.slowing)}{/each}</td
              >
              <td>{place(e, 'BACK_UP')}</td>
              <td>{e.approachGear === e.gear ? e.gear : `${e.approachGear} → ${e.gear}`}</td>
              <td>{place(e, 'TURN_IN')}</td>
              <td class="n">{fromApex(e, 'RELEASE')}</td>
              <td class="n font-bold">{plain(inSpeed(e.minimumSpeed))}</td>
              <td class="n">{fromApex(e, 'FIRST_THROTTLE')}</td>
              <td class="n">{fromApex(e, 'FULL_THROTTLE')}</td>
              <td class="n">{line.effect == null ? tell('whole.no') : plain(line.effect, 2)}</td>
              <td class="how"
                >{[
                  schools(e),
                  besidesOf(e, data.reference.length, metres).join(', '),
                  e.details['ESCAPE'] ??
                    (line.hazards.shortRunOff ? tell('whole.offered', { escape: line.hazards.escape }) : ''),
                ]
                  .filter(Boolean)
                  .join(' · ')}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <p class="mt-2 text-xs">
      {tell('whole.speeds_in_off_first_and', {
        speedUnit: speedUnit(),
        lengthUnit: lengthUnit(),
        inSpeed: plain(inSpeed(2 / 3.6), 1),
      })}
    </p>
  {/if}
</main>

<style>
  .whole {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 3px 10px 3px 0;
    border-bottom: 1px solid var(--road);
    line-height: 1.2;
    white-space: nowrap;
  }
  .n {
    text-align: right;
  }
  .how {
    white-space: normal;
    font-size: 12px;
    min-width: 180px;
  }
  @media print {
    @page {
      size: A4 landscape;
      margin: 8mm;
    }
    .whole {
      font-size: 10px;
    }
    tr {
      break-inside: avoid;
    }
  }
</style>
