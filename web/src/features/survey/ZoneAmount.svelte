<script lang="ts">
  import { onMount } from 'svelte';
  import type { Zone } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { fromLength, inLength, lengthUnit } from '../../words/units';
  import type { SurveyDesk } from './survey.svelte';
  import { amountOf, severitiesOf } from './zones';
  import { tell } from '../../words/tell';

  /** How bad a zone is: one of three words, whose numbers can be changed for this circuit, or a number of its own. */
  interface Props {
    zone: Zone;
    desk: SurveyDesk;
    onedit: (change: Record<string, unknown>, key: string) => void;
  }
  let { zone, desk, onedit }: Props = $props();
  onMount(() => void catalogue.load());
  const WORDS = ['slight', 'plain', 'severe'];
  const kind = $derived(catalogue.all?.zones.find((z) => z.kind === zone.kind));
  const how = $derived(kind && amountOf(kind.effect));
  const table = $derived(kind && severitiesOf(kind, desk.things.severities ?? []));
  const own = $derived(zone.amount !== undefined && zone.amount !== null);
  const beyond = $derived(zone.kind === 'BEYOND');
  const measured = $derived(zone.kind === 'LEVEL' || beyond);
  let telling = $state(false);

  /** Changes what a word means on this circuit; one step of undo for each. */
  function mean(i: number, shown: number) {
    if (!kind || !how || !table || !Number.isFinite(shown)) return;
    const now = [...table];
    now[i] = how.amount(shown);
    const there = (desk.things.severities ?? []).find((s) => s.kind === kind.kind);
    const id = there?.id ?? `severity-${kind.kind.toLowerCase().replace(/_/g, '-')}`;
    const [slight = 0, plain = 0, severe = 0] = now;
    desk.put('severities', [{ id, kind: kind.kind, slight, plain, severe }], `${id} ${i}`);
  }
  function across(key: 'near' | 'far', shown: number) {
    if (!Number.isFinite(shown)) return onedit({ across: undefined }, 'across');
    const had = zone.across ?? { near: 0, far: 2 };
    onedit({ across: { ...had, [key]: fromLength(shown) } }, `across ${key}`);
  }
  const known = $derived(own && zone.beyond?.grip != null && zone.beyond.lip != null);
  function ground(key: 'grip' | 'lip', value: number) {
    onedit({ beyond: { ...zone.beyond, [key]: Number.isFinite(value) ? value : undefined } }, `beyond ${key}`);
  }
  /** What is on part of the width: what grips, and how the road lies. */
  const ACROSS = ['GRIP', 'LOAD', 'CREST', 'DIP', 'CAMBER_IN', 'CAMBER_OUT'];
  const strip = $derived(!!kind && ACROSS.includes(kind.effect) && zone.side !== 'BOTH');
</script>

{#snippet ofGround(label: string, key: 'grip' | 'lip', step: number, unit: string)}
  {@const value = zone.beyond?.[key]}
  <label class="grid gap-0.5 text-sm">
    {label}
    <span class="flex items-center gap-1">
      <input
        class="input input-sm w-16 text-right"
        type="number"
        {step}
        name="beyond-{key}"
        placeholder="?"
        value={value == null ? '' : Math.round(value * 1000) / 10}
        onchange={(e) => ground(key, e.currentTarget.valueAsNumber / 100)}
      />
      {unit}
    </span>
  </label>
{/snippet}

{#if kind && how && table}
  {#if !measured}
    <fieldset class="grid gap-0.5 text-sm">
      <legend class="mb-0.5 flex items-baseline gap-2">
        {tell('zoneAmount.how_bad')}
        <button type="button" class="link text-xs" aria-expanded={telling} onclick={() => (telling = !telling)}
          >{tell('zoneAmount.what_that_is_here')}</button
        >
      </legend>
      <div class="join">
        {#each [1, 2, 3] as v (v)}
          <button
            type="button"
            class={['btn btn-sm join-item', v === zone.severity && !own ? 'btn-primary' : '']}
            aria-pressed={v === zone.severity && !own}
            onclick={() => onedit({ severity: v, amount: undefined }, 'severity')}
            >{WORDS[v - 1]}<span class="font-normal">{how.shown(table[v - 1] ?? 0)} {how.unit}</span></button
          >
        {/each}
      </div>
    </fieldset>
  {/if}
  <label class="grid gap-0.5 text-sm">
    {how.what}
    <span class="flex items-center gap-1">
      <input
        class="input input-sm w-20 text-right"
        type="number"
        step={how.step}
        name="amount"
        placeholder={beyond ? '?' : String(how.shown(table[zone.severity - 1] ?? 0))}
        value={own ? how.shown(zone.amount ?? 0) : ''}
        onchange={(e) => {
          const v = e.currentTarget.valueAsNumber;
          onedit({ amount: Number.isFinite(v) ? how.amount(v) : undefined }, 'amount');
        }}
      />
      {how.unit}
    </span>
  </label>
  {#if beyond}
    {@render ofGround(tell('zoneAmount.grip_there'), 'grip', 5, '%')}
    {@render ofGround(tell('zoneAmount.lip_up_from_the_road'), 'lip', 1, 'cm')}
    {#if !known}<p class="basis-full text-sm" data-unknown>
        {tell('zoneAmount.not_used_before_width_grip')}
      </p>{/if}
  {/if}
  {#if strip}
    <fieldset class="grid gap-0.5 text-sm">
      <legend class="mb-0.5">{tell('zoneAmount.strip_from_the_left_right', { isLeft: zone.side === 'LEFT' })}</legend>
      <span class="flex items-center gap-1">
        {#each ['near', 'far'] as const as key (key)}
          <input
            class="input input-sm w-16 text-right"
            type="number"
            step="0.5"
            min="0"
            aria-label={tell('zoneAmount.strip_begins_strip_ends', { isNear: key === 'near' })}
            placeholder={tell('zoneAmount.0_half', { isNear: key === 'near' })}
            value={zone.across ? Math.round(inLength(zone.across[key]) * 10) / 10 : ''}
            onchange={(e) => across(key, e.currentTarget.valueAsNumber)}
          />
          {tell('zoneAmount.to', { isNear: key === 'near', lengthUnit: lengthUnit() })}
        {/each}
      </span>
    </fieldset>
  {/if}
  {#if kind.water !== 'NONE'}
    <label class="grid gap-0.5 text-sm">
      {tell('zoneAmount.dries')}
      <select
        class="select select-sm"
        name="dries"
        value={zone.dries ?? (kind.water === 'LAST' ? 'LAST' : 'WITH_THE_REST')}
        onchange={(e) => onedit({ dries: e.currentTarget.value }, 'dries')}
      >
        <option value="FIRST">{tell('zoneAmount.first')}</option>
        <option value="WITH_THE_REST">{tell('zoneAmount.with_the_rest')}</option>
        <option value="LAST">{tell('zoneAmount.last')}</option>
      </select>
    </label>
  {/if}
  {#if telling && !measured}
    <fieldset class="border-base-300 flex basis-full items-end gap-3 border p-2 text-sm">
      <legend class="px-1">{tell('zoneAmount.on_this_circuit', { words: kind.words })}</legend>
      {#each WORDS as word, i (word)}
        <label class="flex items-center gap-1">
          {word}
          <input
            class="input input-sm w-20 text-right"
            type="number"
            step={how.step}
            value={how.shown(table[i] ?? 0)}
            onchange={(e) => mean(i, e.currentTarget.valueAsNumber)}
          />
          {how.unit}
        </label>
      {/each}
    </fieldset>
  {/if}
{/if}
