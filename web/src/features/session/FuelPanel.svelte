<script lang="ts">
  import type { SessionPlan, TrackSession } from '../../api/api';
  import NumberField from '../../kit/NumberField.svelte';
  import { plain, signed } from '../../words/units';
  import { tell } from '../../words/tell';

  interface Props {
    draft: TrackSession;
    plan: SessionPlan;
    put: (change: Partial<TrackSession>) => void;
  }
  let { draft, plan, put }: Props = $props();
</script>

<h3 class="mt-1 font-bold">{tell('fuelPanel.fuel')}</h3>
<p>
  {tell('fuelPanel.l_a_lap_by_laps', {
    perLap: plain(plan.fuel.need.perLap, 2),
    hasOwn: !!plan.fuel.need.own,
    own: plan.fuel.need.own,
    laps: plan.fuel.laps,
  })}
  <strong>{plain(plan.fuel.litres, 1)} l</strong>
  {tell('fuelPanel.in_19_of_20')}
</p>
<div class="grid grid-cols-2 gap-x-3 gap-y-1">
  <NumberField
    label={tell('fuelPanel.in_the_tank_l')}
    min={0}
    value={draft.fuel.tank}
    onset={(v) => put({ fuel: { ...draft.fuel, tank: v } })}
  />
  <p class="self-center">
    {tell('fuelPanel.its_weight_is_not_counted', {
      reaches:
        plan.fuel.reaches == null
          ? ''
          : tell('fuelPanel.reaches_in_of_100', { reaches: plain(plan.fuel.reaches * 100) }),
      hasWeighed: !!(draft.fuel.tank != null && !plan.fuel.weighed),
    })}
  </p>
  <NumberField
    label={tell('fuelPanel.or_l')}
    min={0}
    value={draft.fuel.other}
    onset={(v) => put({ fuel: { ...draft.fuel, other: v } })}
  />
  <p class="self-center">
    {plan.fuel.otherReaches == null
      ? ''
      : tell('fuelPanel.reaches_in_of_100_2', { otherReaches: plain(plan.fuel.otherReaches * 100) })}{plan.fuel
      .otherCosts == null
      ? ''
      : tell('fuelPanel.s_a_lap', { otherCosts: signed(plan.fuel.otherCosts, 2) })}
  </p>
  <NumberField
    label={tell('fuelPanel.to_be_left_l')}
    min={0}
    value={draft.fuel.rest}
    onset={(v) => put({ fuel: { ...draft.fuel, rest: v ?? 0 } })}
  />
  {#if draft.kind === 'RACE'}
    <NumberField
      label={tell('fuelPanel.formation_laps')}
      min={0}
      max={5}
      value={draft.fuel.formation}
      onset={(v) => put({ fuel: { ...draft.fuel, formation: v ?? 0 } })}
    />
    <label class="flex items-center gap-2"
      ><input
        type="checkbox"
        class="checkbox checkbox-xs"
        checked={draft.fuel.oneMore}
        onchange={(e) => put({ fuel: { ...draft.fuel, oneMore: e.currentTarget.checked } })}
      />{tell('fuelPanel.one_more_lap_after_the')}</label
    >
    <NumberField
      label={tell('fuelPanel.leader_s_lap_s')}
      step={0.1}
      value={draft.fuel.leader}
      onset={(v) => put({ fuel: { ...draft.fuel, leader: v } })}
    />
  {/if}
</div>
