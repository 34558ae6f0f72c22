<script lang="ts">
  import type { SessionPlan } from '../../api/api';
  import { metres, plain, speedText } from '../../words/units';
  import { tell } from '../../words/tell';

  interface Props {
    plan: SessionPlan;
  }
  let { plan }: Props = $props();
  const TENTHS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9];
</script>

{#if plan.pits}
  <p>
    {tell('racePanel.pits_on_the_left_on', {
      noLeft: plan.pits.left == null,
      hasLeft: !!plan.pits.left,
      marker: metres(plan.pits.marker),
      pits: metres(plan.pits.metres),
      from: speedText(plan.pits.from),
      aimed: speedText(plan.pits.aimed),
    })}
  </p>
{/if}
{#if plan.straights}
  {@const called = (c: string) => plan.corners.find((l) => l.corner === c)?.called ?? c}
  {@const use = plan.straights}
  {#if use.shares.length}
    <h3 class="mt-1 font-bold">{tell('racePanel.boost')}</h3>
    <ul class="grid gap-0.5" aria-label={tell('racePanel.where_the_boost_goes')}>
      {#each use.shares as s, i (i)}
        <li class="grid grid-cols-[6.5rem_minmax(0,1fr)_auto] items-center gap-2">
          <span class="truncate">{tell('racePanel.after', { after: called(s.after) })}</span>
          <span
            class="flex gap-px"
            title={tell('racePanel.at_its_best', { part: plain(s.part * 100) })}
            aria-hidden="true"
          >
            {#each TENTHS as k (k)}
              <span class={['h-3 flex-1 rounded-sm', k < s.tenths ? 'bg-base-content/60' : 'bg-base-content/10']}
              ></span>
            {/each}
          </span>
          <span>{s.tenths * 10} %, {plain(s.seconds, 2)} s</span>
        </li>
      {/each}
    </ul>
    <p>{tell('racePanel.from_the_exit_on_once', { rounding: plain(use.rounding, 2) })}</p>
  {/if}
  {#each use.device as d, i (i)}
    <p>
      {tell('racePanel.device_to_s_faster_into', {
        from: metres(d.from),
        to: metres(d.to),
        seconds: plain(d.seconds, 2),
        faster: speedText(d.faster),
        into: called(d.into),
        sooner: metres(d.metres),
      })}
    </p>
  {/each}
{/if}
{#if plan.race}
  {@const called = (c: string) => plan.corners.find((l) => l.corner === c)?.called ?? c}
  <h3 class="mt-1 font-bold">{tell('racePanel.race')}</h3>
  {#if plan.race.start}
    <p>
      {tell('racePanel.standing_start_at_after_s', {
        arrival: speedText(plan.race.start.arrival),
        corner: called(plan.race.start.corner),
        seconds: plain(plan.race.start.seconds, 1),
        flying: speedText(plan.race.start.flying),
        start: metres(Math.abs(plan.race.start.metres)),
        lessStart: plan.race.start.metres < 0,
      })}
    </p>
  {/if}
  {#if plan.race.tows.length}
    <p>
      {tell('racePanel.in_a_tow_you_arrive', {
        max: plan.race.tows
          .slice(0, 4)
          .map((t) =>
            tell('racePanel.brake_sooner', {
              corner: called(t.corner),
              faster: speedText(t.faster),
              max: metres(Math.max(0, t.metres)),
            }),
          )
          .join('; '),
      })}
    </p>
  {/if}
{/if}
