<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { onMount } from 'svelte';
  import { api, ask, type Severity, type Zone } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { inSpeed, metres, signed, speedUnit } from '../../words/units';
  import { sizeOf } from './zones';

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
        No lap uses it unasked: a reference opens it, under <em>Edges</em>, which says what it is worth and what it
        risks.
      </p>
    {:else if nothing}
      <p>To be looked at; it changes no number.</p>
    {:else}
      <p>
        {#if kind.water !== 'NONE'}
          <strong>Dry day: nothing.</strong> Counts while the road is damp or wet.
        {:else if kind.effect === 'WIND'}
          Counts on a day with wind, nothing in a calm.
        {:else}
          Counts on every day.
        {/if}
      </p>
      {#each effect.data ?? [] as day (day.day ?? '')}
        <p class={day.counts ? '' : 'opacity-60'} data-day-effect={day.day ?? 'base'}>
          {day.name || 'the reference'}:
          {#if !day.counts}
            not felt
          {:else if day.passed !== undefined && day.passed !== null}
            {#if day.passed < 0}
              <strong>the line passes {metres(-day.passed, 1)} inside it</strong>, compute the line anew
            {:else}
              the line passes {metres(day.passed, 1)} from it
            {/if}
          {:else}
            <strong class="tabular-nums">{signed(day.seconds, 3)} s</strong>, {signed(inSpeed(day.speed), 1)}
            {speedUnit()} at {metres(day.station)}
          {/if}
        </p>
      {/each}
      {#if effect.data}
        <p class="text-xs opacity-80">On the line at hand; a line laid anew may give some back.</p>
      {:else if !reference}
        <p class="text-xs">Draft a reference on this circuit to see what it costs in seconds.</p>
      {/if}
    {/if}
  </div>
{/if}
