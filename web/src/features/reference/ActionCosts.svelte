<script lang="ts">
  import type { ScoredAction, WhatIf } from '../../api/api';
  import { numeralOf, unwiseOf, within } from '../../road/score';
  import { signed, speedText } from '../../words/units';
  import AmountDrawing from './AmountDrawing.svelte';
  import MistakeDrawing from './MistakeDrawing.svelte';
  import type { Desk } from './desk.svelte';
  import { tell } from '../../words/tell';

  /** What the action in hand costs, and would cost otherwise: bars to the right are slower, to the left quicker. */
  let { desk, held }: { desk: Desk; held: ScoredAction } = $props();

  const CHANGES: Record<WhatIf['change'], string> = {
    SOONER: tell('actionCosts.5_m_sooner'),
    LATER: tell('actionCosts.5_m_later'),
    LATE: tell('actionCosts.0_1_s_late'),
    LESS: tell('actionCosts.10_points_less'),
    MORE: tell('actionCosts.10_points_more'),
    WIDER: tell('actionCosts.0_5_m_further_off'),
    WITHOUT: tell('actionCosts.without_it'),
  };
  const PLACES: WhatIf['change'][] = ['SOONER', 'LATER'];
  const AMOUNTS: WhatIf['change'][] = ['LESS', 'MORE', 'WIDER'];
  const curve = $derived(desk.curve?.action === held.action.id ? desk.curve : null);
  const amounts = $derived(desk.amounts?.action === held.action.id ? desk.amounts : null);
  // What a curve draws is not said again as bars.
  const drawn = $derived([...(curve ? PLACES : []), ...(amounts ? AMOUNTS : [])]);
  const costs = $derived(desk.whatIfs.filter((w) => w.action === held.action.id && !drawn.includes(w.change)));
  const unwise = $derived(within(unwiseOf(desk.unwise, held), held.action.station, desk.view.length));
  const widest = $derived(Math.max(0.02, ...costs.map((w) => Math.abs(w.seconds ?? 0))));
  const WIDTH = 86;
  const bar = (seconds: number) => (seconds / widest) * (WIDTH / 2);
</script>

<section
  aria-label={tell('actionCosts.what_it_costs')}
  class="border-base-300 grid gap-0.5 border-b pb-2 text-sm"
  data-costs
>
  <h2 class="flex justify-between font-bold">
    <span
      >{tell('actionCosts.what_it_costs_2', {
        id: numeralOf(desk.score, held.action.id) ? `, ${numeralOf(desk.score, held.action.id)}` : '',
      })}</span
    >
    <span class="font-normal tabular-nums">{tell('actionCosts.there', { speed: speedText(held.speed) })}</span>
  </h2>
  {#if held.asked != null && held.asked > 1.03}
    <p style="color:var(--turn)" data-cut>
      {tell('actionCosts.asks_of_what_the_tyres', { asked: Math.round(held.asked * 100) })}
    </p>
  {:else if held.asked != null}
    <p>{tell('actionCosts.asks_of_what_the_tyres_2', { asked: Math.round(held.asked * 100) })}</p>
  {/if}
  {#if unwise}<p style="color:var(--turn)" data-unwise-here>
      {tell('actionCosts.better_not_here', { why: unwise.why })}
    </p>{/if}
  {#if curve}<MistakeDrawing {curve} />{/if}
  {#if amounts}<AmountDrawing curve={amounts} />{/if}
  {#each costs as w (w.change)}
    <p class="flex items-center gap-2 leading-tight">
      <span class="w-28">{CHANGES[w.change]}</span>
      <svg width={WIDTH} height="10" aria-hidden="true">
        <path d="M{WIDTH / 2} 0V10" stroke="var(--ink-soft)" />
        {#if w.seconds != null}
          <rect
            x={WIDTH / 2 + Math.min(0, bar(w.seconds))}
            y="2"
            width={Math.max(1, Math.abs(bar(w.seconds)))}
            height="6"
            fill={w.seconds > 0 ? 'var(--turn)' : 'var(--throttle)'}
          />
        {/if}
      </svg>
      <strong class="flex-1 text-right tabular-nums"
        >{w.seconds == null
          ? tell('actionCosts.not_made', { hasMakes: !!w.makes })
          : `${signed(w.seconds, 3)} s`}</strong
      >
    </p>
  {/each}
  {#if desk.dearest.length > 0}
    <h3 class="mt-1 font-bold">{tell('actionCosts.dearest_in_this_corner')}</h3>
    <ol class="grid gap-0.5" data-dearest>
      {#each desk.dearest as d (d.action + d.change)}
        <li class="leading-tight">
          <button
            type="button"
            class="w-full cursor-pointer text-left underline-offset-2 hover:underline"
            onclick={() => desk.takeInHand(d.action)}
          >
            <span class="flex justify-between gap-2">
              <span>{d.what}, {CHANGES[d.change]}</span>
              <strong class="tabular-nums"
                >{d.seconds == null ? tell('actionCosts.not_made_2') : `${signed(d.seconds, 2)} s`}</strong
              >
            </span>
            <span class="opacity-75">{d.look}</span>
          </button>
        </li>
      {/each}
    </ol>
  {/if}
</section>
