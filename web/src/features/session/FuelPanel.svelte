<script lang="ts">
  import type { SessionPlan, TrackSession } from '../../api/api';
  import NumberField from '../../kit/NumberField.svelte';
  import { plain, signed } from '../../words/units';

  interface Props {
    draft: TrackSession;
    plan: SessionPlan;
    put: (change: Partial<TrackSession>) => void;
  }
  let { draft, plan, put }: Props = $props();
</script>

<h3 class="mt-1 font-bold">Fuel</h3>
<p>
  {plain(plan.fuel.need.perLap, 2)} l a lap {plan.fuel.need.own
    ? `by ${plan.fuel.need.own} laps of yours`
    : "by the engine's work"}; {plan.fuel.laps} laps want
  <strong>{plain(plan.fuel.litres, 1)} l</strong> in 19 of 20.
</p>
<div class="grid grid-cols-2 gap-x-3 gap-y-1">
  <NumberField
    label="in the tank, l"
    min={0}
    value={draft.fuel.tank}
    onset={(v) => put({ fuel: { ...draft.fuel, tank: v } })}
  />
  <p class="self-center">
    {plan.fuel.reaches == null ? '' : `reaches in ${plain(plan.fuel.reaches * 100)} of 100`}{draft.fuel.tank != null &&
    !plan.fuel.weighed
      ? '; its weight is not counted, for the vehicle does not say how much fuel its mass holds'
      : ''}
  </p>
  <NumberField
    label="or, l"
    min={0}
    value={draft.fuel.other}
    onset={(v) => put({ fuel: { ...draft.fuel, other: v } })}
  />
  <p class="self-center">
    {plan.fuel.otherReaches == null ? '' : `reaches in ${plain(plan.fuel.otherReaches * 100)} of 100`}{plan.fuel
      .otherCosts == null
      ? ''
      : `, ${signed(plan.fuel.otherCosts, 2)} s a lap`}
  </p>
  <NumberField
    label="to be left, l"
    min={0}
    value={draft.fuel.rest}
    onset={(v) => put({ fuel: { ...draft.fuel, rest: v ?? 0 } })}
  />
  {#if draft.kind === 'RACE'}
    <NumberField
      label="formation laps"
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
      />one more lap after the time</label
    >
    <NumberField
      label="leader's lap, s"
      step={0.1}
      value={draft.fuel.leader}
      onset={(v) => put({ fuel: { ...draft.fuel, leader: v } })}
    />
  {/if}
</div>
