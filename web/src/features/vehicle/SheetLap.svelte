<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type SetupSheet } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { lapTime, metres, plain, signed, speedText } from '../../words/units';
  import { tell } from '../../words/tell';

  /** What a sheet makes of a lap, and how its gears meet the longest straight. */
  interface Props {
    vehicle: string;
    sheet: SetupSheet;
    /** Whether nothing is to be proposed. */
    fixed?: boolean;
    onfinal: (ratio: number) => void;
  }
  let { vehicle, sheet, fixed = false, onfinal }: Props = $props();
  const references = createQuery(() => ({
    queryKey: ['references'],
    queryFn: () => ask(api.GET('/api/references')),
  }));
  const mine = $derived((references.data ?? []).filter((r) => r.vehicleId === vehicle));
  let picked = $state('');
  const on = $derived(mine.find((r) => r.id === picked) ?? mine[0]);
  const told = createQuery(() => ({
    queryKey: ['sheet-lap', on?.id, sheet],
    enabled: !!on,
    queryFn: () =>
      ask(api.POST('/api/references/{id}/sheet-lap', { params: { path: { id: on?.id ?? '' } }, body: sheet })),
    placeholderData: (old) => old,
  }));
  const lap = $derived(told.data?.lap);

  const gains = $derived(!!lap && lap.lapTime - lap.finalLap > 0.005);

  const W = 440;
  /** Seconds at full throttle on the straight, about: its metres at the mean of what it is driven at. */
  const span = $derived(lap ? Math.max(0.5, lap.straight / Math.max(20, lap.topSpeed * 0.85)) : 1);
  const at = (seconds: number) => Math.min(W, (seconds / span) * W);
</script>

{#if references.data && !mine.length}
  <p class="text-sm">{tell('sheetLap.draft_a_reference_with_this')}</p>
{:else if told.error}
  <ProblemBox problem={asProblem(told.error)} />
{:else if lap && on}
  <div class="grid gap-1 text-sm" data-sheet-lap>
    <div class="flex items-baseline gap-2">
      <strong class="text-lg tabular-nums">{lapTime(lap.lapTime)}</strong>
      <span class="tabular-nums" data-sheet-gain>{signed(lap.lapTime - lap.without, 3)} s</span>
      {#if mine.length > 1}
        <label class="ml-auto">
          <span class="sr-only">{tell('sheetLap.lap_of')}</span>
          <select class="select select-xs" bind:value={picked} name="sheet-reference">
            {#each mine as r (r.id)}<option value={r.id}>{r.name}</option>{/each}
          </select>
        </label>
      {:else}<span class="ml-auto">{on.name}</span>{/if}
    </div>
    <svg
      width={W}
      height="40"
      class="block"
      role="img"
      aria-label={tell('sheetLap.longest_stretch_at_full_throttle', {
        straight: metres(lap.straight),
        topSpeed: speedText(lap.topSpeed),
        topRevs: plain(Math.round(lap.topRevs / 10) * 10),
        onLimiter: plain(lap.onLimiter, 1),
        belowPeak: plain(lap.belowPeak, 1),
      })}
    >
      <rect y="4" width={W} height="16" fill="var(--road)" />
      <rect x={W - at(lap.onLimiter)} y="4" width={at(lap.onLimiter)} height="16" fill="var(--brake)" opacity="0.35" />
      <path
        d="M{W - at(lap.onLimiter)} 4h{at(lap.onLimiter)}v16h{-at(lap.onLimiter)}z"
        fill="none"
        stroke="var(--brake)"
        stroke-width={lap.onLimiter > 0.05 ? 2 : 0}
      />
      <rect
        x={W - at(lap.onLimiter + lap.belowPeak)}
        y="14"
        width={at(lap.belowPeak)}
        height="6"
        fill="var(--throttle-fill)"
        stroke="var(--ink)"
        stroke-width={lap.belowPeak > 0.05 ? 0.8 : 0}
      />
      <text x="2" y="34" style="font-size:11px"
        >{tell('sheetLap.at_full_throttle_from', { straight: metres(lap.straight), from: metres(lap.from) })}</text
      >
      <text x={W} y="34" text-anchor="end" style="font-size:11px"
        >{tell('sheetLap.revs', {
          topSpeed: speedText(lap.topSpeed),
          topRevs: plain(Math.round(lap.topRevs / 10) * 10),
        })}</text
      >
    </svg>
    <p>
      {tell('sheetLap.s_of_it_on_the', {
        isOnLimiter: lap.onLimiter > 0.05,
        onLimiter: plain(lap.onLimiter, 1),
        hasGains: !!(lap.belowPeak > 0.3 && gains),
        belowPeak: plain(lap.belowPeak, 1),
      })}
      {#if fixed}{:else if !gains}{tell('sheetLap.no_other_final_drive_is')}{/if}
      {#if gains && !fixed}
        {tell('sheetLap.a_final_drive_of_gives', {
          finalDrive: plain(lap.finalDrive, 2),
          lapTime: signed(lap.finalLap - lap.lapTime, 3),
        })}
        <button type="button" class="link" data-take-final onclick={() => onfinal(lap.finalDrive)}
          >{tell('sheetLap.put_it_on_the_sheet')}</button
        >
      {/if}
    </p>
    <p class="text-xs">{tell('sheetLap.on_the_line_of_dry', { name: on.name })}</p>
  </div>
{/if}
