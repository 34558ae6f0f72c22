<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Problem, type TryableView } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { plain, signed } from '../../words/units';
  import type { School } from '../../api/api';
  import { NOBODY, wayWords } from './trials';
  import { tell } from '../../words/tell';

  /** What can be tried against the plan in a session: other ways of a corner, another sheet, one setting. */
  interface Props {
    session: string;
    corner: string;
    called: string;
    /** Whether a car that leaves the road there soon meets something hard. */
    hard?: boolean;
    /** Another way is taken for this session without a trial. */
    ondrive?: (school: School) => void;
  }
  let { session, corner, called, hard = false, ondrive }: Props = $props();
  const queries = useQueryClient();
  catalogue.load().catch(() => undefined);
  let of = $state<'' | 'corner' | 'sheet'>('');
  const asked = $derived(of === 'corner' ? corner : '');
  const offers = createQuery(() => ({
    queryKey: ['tryable', session, asked],
    enabled: of !== '',
    queryFn: () =>
      ask(api.GET('/api/sessions/{id}/tryable', { params: { path: { id: session }, query: { corner: asked } } })),
  }));
  const parameters = createQuery(() => ({
    queryKey: ['setup-parameters'],
    staleTime: Infinity,
    queryFn: () => ask(api.GET('/api/setup-parameters')),
  }));
  let problem = $state.raw<Problem | null>(null);
  let parameter = $state('brakes.bias');
  let number = $state<number | null>(null);
  let busy = $state(false);
  const most = $derived(Math.max(0.05, ...(offers.data?.ways ?? []).map((o) => Math.abs(o.predicted ?? 0))));
  const unit = $derived(of === 'sheet' ? tell('tryPanel.stints') : tell('tryPanel.laps'));
  const chosen = $derived(parameters.data?.find((p) => p.id === parameter));

  async function plan(source: TryableView['way']['source'], key: string, to?: number) {
    problem = null;
    busy = true;
    try {
      await ask(
        api.POST('/api/sessions/{id}/trials', {
          params: { path: { id: session } },
          body: { corner: asked, source, key, ...(to === undefined ? {} : { number: to }) },
        }),
      );
      of = '';
      await queries.invalidateQueries({ queryKey: ['trials'] });
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
    }
  }
</script>

<div class="grid gap-2 text-sm" data-try>
  <p class="flex flex-wrap gap-2">
    <button
      class="btn btn-sm"
      disabled={!corner}
      aria-expanded={of === 'corner'}
      onclick={() => (of = of === 'corner' ? '' : 'corner')}
      >{tell('tryPanel.try_two_ways_at', { called: called || tell('tryPanel.a_corner') })}</button
    >
    <button class="btn btn-sm" aria-expanded={of === 'sheet'} onclick={() => (of = of === 'sheet' ? '' : 'sheet')}
      >{tell('tryPanel.try_a_sheet_or_a')}</button
    >
  </p>
  {#if problem}<ProblemBox {problem} />{/if}
  {#if of && offers.isPending}
    <p role="status">{tell('tryPanel.driving_each')}</p>
  {:else if of && offers.isError}
    <ProblemBox problem={asProblem(offers.error)} />
  {:else if of && offers.data}
    <p>
      {tell('tryPanel.laps_fit_from_lap_on', {
        laps: offers.data.laps,
        isCorner: of === 'corner',
        warmFrom: offers.data.warmFrom,
      })}
    </p>
    {#if of === 'corner' && hard}
      <p class="border-base-300 border-l-4 pl-2">
        {tell('tryPanel.nothing_that_brakes_later_or')}
      </p>
    {/if}
    <ul class="grid gap-1">
      {#each offers.data.ways as o (o.way.source + o.way.key)}
        {@const w = ((o.predicted ?? 0) / most) * 60}
        <li class="flex items-center gap-2">
          <button
            class="btn btn-sm h-auto min-h-7 flex-1 justify-start text-left leading-tight"
            disabled={busy}
            onclick={() => plan(o.way.source, o.way.key)}>{wayWords(o.way, parameters.data)}</button
          >
          <svg width="190" height="18" aria-hidden="true" class="flex-none">
            <path d="M65 0V18" stroke="var(--ink-soft)" />
            {#if o.predicted != null}
              <rect
                x={65 + Math.min(0, w)}
                y="4"
                width={Math.max(1.5, Math.abs(w))}
                height="10"
                fill={w <= 0 ? 'var(--ink)' : 'none'}
                stroke="var(--ink)"
              />
              <text x="186" y="13" text-anchor="end" font-weight="700">{signed(o.predicted, 2)} s</text>
            {:else}<text x="186" y="13" text-anchor="end">{tell('tryPanel.not_computed')}</text>{/if}
          </svg>
          <span class="w-44 flex-none"
            >{tell('tryPanel.more_than_anybody_drives_each', {
              isLaps: o.laps >= NOBODY,
              unit,
              laps: plain(o.laps),
              hasTold: !!o.told,
            })}</span
          >
          {#if ondrive}
            {#if o.way.source === 'SCHOOL'}
              <button class="btn btn-sm w-36 flex-none" onclick={() => ondrive(o.way.key as School)}
                >{tell('tryPanel.drive_it_so_today')}</button
              >
            {:else}<span class="w-36 flex-none"></span>{/if}
          {/if}
        </li>
      {:else}
        <li>
          {tell('tryPanel.no_other_way_of_this', { isCorner: of === 'corner' })}
        </li>
      {/each}
    </ul>
    {#if of === 'sheet'}
      <form
        class="flex flex-wrap items-end gap-2"
        onsubmit={(e) => {
          e.preventDefault();
          if (number != null) void plan('SETTING', parameter, number);
        }}
      >
        <label class="grid flex-1"
          >{tell('tryPanel.one_setting')}<select class="select select-sm w-full" bind:value={parameter}>
            {#each parameters.data ?? [] as p (p.id)}<option value={p.id}>{p.group}: {p.label}</option>{/each}
          </select></label
        >
        <label class="grid"
          >{tell('tryPanel.to', { unit: chosen?.unit ? `, ${chosen.unit}` : '' })}<input
            class="input input-sm w-24"
            type="number"
            step={chosen?.step}
            min={chosen?.least}
            max={chosen?.most}
            bind:value={number}
          /></label
        >
        <button class="btn btn-sm" disabled={busy || number == null}>{tell('tryPanel.plan_it')}</button>
      </form>
    {/if}
  {/if}
</div>
