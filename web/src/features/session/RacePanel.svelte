<script lang="ts">
  import type { SessionPlan } from '../../api/api';
  import { metres, plain, speedText } from '../../words/units';

  interface Props {
    plan: SessionPlan;
  }
  let { plan }: Props = $props();
  const TENTHS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9];
</script>

{#if plan.pits}
  <p>
    Pits{plan.pits.left == null ? '' : plan.pits.left ? ', on the left' : ', on the right'}: brake at {metres(
      plan.pits.marker,
    )}, {metres(plan.pits.metres)} before the line, from {speedText(plan.pits.from)} to {speedText(plan.pits.aimed)};
    practise it.
  </p>
{/if}
{#if plan.straights}
  {@const called = (c: string) => plan.corners.find((l) => l.corner === c)?.called ?? c}
  {@const use = plan.straights}
  {#if use.shares.length}
    <h3 class="mt-1 font-bold">Boost</h3>
    <ul class="grid gap-0.5" aria-label="Where the boost goes">
      {#each use.shares as s, i (i)}
        <li class="grid grid-cols-[6.5rem_minmax(0,1fr)_auto] items-center gap-2">
          <span class="truncate">after {called(s.after)}</span>
          <span class="flex gap-px" title="{plain(s.part * 100)} % at its best" aria-hidden="true">
            {#each TENTHS as k (k)}
              <span class={['h-3 flex-1 rounded-sm', k < s.tenths ? 'bg-base-content/60' : 'bg-base-content/10']}
              ></span>
            {/each}
          </span>
          <span>{s.tenths * 10} %, {plain(s.seconds, 2)} s</span>
        </li>
      {/each}
    </ul>
    <p>From the exit on, once the tyres bear it. In tenths it costs {plain(use.rounding, 2)} s a lap.</p>
  {/if}
  {#each use.device as d, i (i)}
    <p>
      Device {metres(d.from)} to {metres(d.to)}: {plain(d.seconds, 2)} s, {speedText(d.faster)} faster into {called(
        d.into,
      )}, brake {metres(d.metres)} sooner. Shut it before you brake.
    </p>
  {/each}
{/if}
{#if plan.race}
  {@const called = (c: string) => plan.corners.find((l) => l.corner === c)?.called ?? c}
  <h3 class="mt-1 font-bold">Race</h3>
  {#if plan.race.start}
    <p>
      Standing start: {speedText(plan.race.start.arrival)} at {called(plan.race.start.corner)} after {plain(
        plan.race.start.seconds,
        1,
      )} s, {speedText(plan.race.start.flying)} on a lap. The last place to brake on cold tyres is {metres(
        Math.abs(plan.race.start.metres),
      )}
      {plan.race.start.metres < 0 ? 'sooner' : 'later'} than on a lap; cold brakes and those around you ask for more.
    </p>
  {/if}
  {#if plan.race.tows.length}
    <p>
      In a tow you arrive faster: {plan.race.tows
        .slice(0, 4)
        .map((t) => `${called(t.corner)} +${speedText(t.faster)}, brake ${metres(Math.max(0, t.metres))} sooner`)
        .join('; ')}.
    </p>
  {/if}
{/if}
