<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { onMount } from 'svelte';
  import { api, ask, type Severity, type Zone } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { inSpeed, metres, signed, speedUnit } from '../../words/units';
  import { sizeOf } from './zones';
  import { tell } from '../../words/tell';

  /** On which days a zone counts, and what it does to the lap of a reference on each of them. */
  let { zone, severities = [], reference }: { zone: Zone; severities?: Severity[]; reference?: string } = $props();
  onMount(() => void catalogue.load());
  const kind = $derived(catalogue.all?.zones.find((z) => z.kind === zone.kind));
  const size = $derived(kind ? sizeOf(zone, kind, severities) : 1);
  const nothing = $derived(
    !!kind && (kind.effect === 'ROOM' ? size <= 0 : ['GRIP', 'LOAD', 'WIND'].includes(kind.effect) && size === 1),
  );
  const effect = createQuery(() => ({
    queryKey: ['zone-effect', reference, zone, severities],
    queryFn: () =>
      ask(
        api.POST('/api/references/{id}/zone-effect', {
          params: { path: { id: reference ?? '' } },
          body: { zone, severities },
        }),
      ),
    enabled: !!reference && !nothing && kind?.effect !== 'BEYOND',
    placeholderData: (old) => old,
  }));
</script>

{#if kind}
  <div
    class="flex basis-full flex-wrap items-baseline gap-x-4 gap-y-1 text-sm leading-snug"
    data-zone-effect={kind.water}
    aria-live="polite"
  >
    {#if kind.effect === 'BEYOND'}
      <p>
        {tell('zoneEffect.no_lap_uses_it_unasked')} <em>{tell('zoneEffect.edges')}</em>{tell(
          'zoneEffect.which_says_what_it_is',
        )}
      </p>
    {:else if nothing}
      <p>{tell('zoneEffect.to_be_looked_at_it')}</p>
    {:else}
      <p>
        {#if kind.water !== 'NONE'}
          <strong>{tell('zoneEffect.dry_day_nothing')}</strong> {tell('zoneEffect.counts_while_the_road_is')}
        {:else if kind.effect === 'WIND'}
          {tell('zoneEffect.counts_on_a_day_with')}
        {:else}
          {tell('zoneEffect.counts_on_every_day')}
        {/if}
      </p>
      {#each effect.data ?? [] as day (day.day ?? '')}
        <p class={day.counts ? '' : 'opacity-60'} data-day-effect={day.day ?? 'base'}>
          {day.name || tell('zoneEffect.the_reference')}:
          {#if !day.counts}
            {tell('zoneEffect.not_felt')}
          {:else if day.passed !== undefined && day.passed !== null}
            {#if day.passed < 0}
              <strong>{tell('zoneEffect.the_line_passes_inside_it', { passed: metres(-day.passed, 1) })}</strong>{tell(
                'zoneEffect.compute_the_line_anew',
              )}
            {:else}
              {tell('zoneEffect.the_line_passes_from_it', { passed: metres(day.passed, 1) })}
            {/if}
          {:else}
            <strong class="tabular-nums">{signed(day.seconds, 3)} s</strong>{tell('zoneEffect.at', {
              speed: signed(inSpeed(day.speed), 1),
              speedUnit: speedUnit(),
              station: metres(day.station),
            })}
          {/if}
        </p>
      {/each}
      {#if effect.data}
        <p class="text-xs opacity-80">{tell('zoneEffect.on_the_line_at_hand')}</p>
      {:else if !reference}
        <p class="text-xs">{tell('zoneEffect.draft_a_reference_on_this')}</p>
      {/if}
    {/if}
  </div>
{/if}
