<script lang="ts">
  import type { Variant } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import type { Desk } from './desk.svelte';
  import { newId } from '../../kit/id';
  import { lapTime, signed } from '../../words/units';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  /** The reference on other days: what each is like, and what it changes here. */
  let { desk }: { desk: Desk } = $props();
  const variants = $derived(desk.content.variants);
  const now = $derived(desk.variant);
  const called = (v: Variant) => v.name || (catalogue.all?.variants.find((k) => k.kind === v.kind)?.words ?? v.kind);

  function add(event: Event) {
    const select = event.currentTarget as HTMLSelectElement;
    const kind = catalogue.all?.variants.find((k) => k.kind === select.value);
    select.value = '';
    if (!kind) return;
    const variant: Variant = { id: newId(), kind: kind.kind, name: '', day: { ...kind.usual }, entries: [] };
    desk.putVariant(variant);
    void desk.go(variant.id);
  }
  const day = (change: Partial<Variant['day']>) =>
    now && desk.putVariant({ ...now, day: { ...now.day, ...change } }, `day ${now.id} ${Object.keys(change).join()}`);

  interface Field {
    key: 'grip' | 'extraMass' | 'windSpeed' | 'windFrom' | 'drag' | 'downforce' | 'airTemperature';
    label: string;
    unit: string;
    factor: number;
    min: number;
    max: number;
    step: number;
    from: number;
  }
  const FIELDS: Field[] = [
    { key: 'grip', label: tell('daysPanel.grip'), unit: '%', factor: 100, min: 20, max: 120, step: 1, from: 1 },
    {
      key: 'extraMass',
      label: tell('daysPanel.mass'),
      unit: tell('daysPanel.kg_more'),
      factor: 1,
      min: -150,
      max: 300,
      step: 5,
      from: 0,
    },
    { key: 'windSpeed', label: tell('daysPanel.wind'), unit: 'm/s', factor: 1, min: 0, max: 40, step: 1, from: 0 },
    { key: 'windFrom', label: tell('daysPanel.from'), unit: '°', factor: 1, min: 0, max: 360, step: 10, from: 0 },
    { key: 'drag', label: tell('daysPanel.drag'), unit: '%', factor: 100, min: 40, max: 120, step: 5, from: 1 },
    {
      key: 'downforce',
      label: tell('daysPanel.downforce'),
      unit: '%',
      factor: 100,
      min: 40,
      max: 120,
      step: 5,
      from: 1,
    },
    { key: 'airTemperature', label: tell('daysPanel.air'), unit: '°C', factor: 1, min: -30, max: 60, step: 1, from: 0 },
  ];
  type SurfaceState = NonNullable<Variant['day']['surface']>['state'];
  /** Places where water gathers count on all but the first. */
  const SURFACES: SurfaceState[] = ['DRY', 'DAMP', 'WET', 'DRYING'];
  const view = $derived(desk.dayView);
  const number = (id: string) => desk.view.corners.find((c) => c.id === id)?.number ?? id;
</script>

<section class="grid gap-1.5 text-sm" aria-label={tell('daysPanel.days')}>
  <div class="flex flex-wrap gap-1" role="group" aria-label={tell('daysPanel.day_on_the_strip')}>
    <button
      class={['btn btn-xs', desk.day === '' ? 'btn-primary' : '']}
      aria-pressed={desk.day === ''}
      onclick={() => desk.go('')}>{tell('daysPanel.dry_warm')}</button
    >
    {#each variants as v (v.id)}
      <button
        class={['btn btn-xs', desk.day === v.id ? 'btn-primary' : '']}
        aria-pressed={desk.day === v.id}
        data-variant={v.kind}
        onclick={() => desk.go(v.id)}>{called(v)}</button
      >
    {/each}
    {#if desk.mine}
      <select class="select select-xs w-24" aria-label={tell('daysPanel.add_a_day')} data-add-day onchange={add}>
        <option value="">{tell('daysPanel.add')}</option>
        {#each catalogue.all?.variants ?? [] as k (k.kind)}<option value={k.kind}>{k.words}</option>{/each}
      </select>
    {/if}
  </div>
  {#if now}
    <div class="grid grid-cols-2 gap-x-3 gap-y-1">
      {#each FIELDS as f (f.key)}
        <label class="flex items-center gap-1 text-xs">
          <span class="w-14">{f.label}</span>
          <input
            class="input input-xs w-14 text-right"
            type="number"
            name={f.key}
            min={f.min}
            max={f.max}
            step={f.step}
            placeholder={f.key === 'airTemperature' ? '15' : ''}
            value={now.day[f.key] == null ? '' : Math.round((now.day[f.key] ?? 0) * f.factor)}
            onchange={(e) => {
              const v = e.currentTarget.valueAsNumber;
              if (!Number.isFinite(v)) {
                if (f.key === 'airTemperature') day({ airTemperature: undefined });
                return;
              }
              day({ [f.key]: Math.max(f.min, Math.min(f.max, v)) / f.factor });
            }}
          />{f.unit}
        </label>
      {/each}
      <label class="flex items-center gap-1 text-xs"
        ><span class="w-14">{tell('daysPanel.road')}</span>
        <select
          class="select select-xs w-20"
          name="surface"
          value={now.day.surface?.state ?? 'DRY'}
          onchange={(e) =>
            day({ surface: { dried: now.day.surface?.dried ?? 0.5, state: e.currentTarget.value as SurfaceState } })}
        >
          {#each SURFACES as s (s)}<option value={s}>{few(s)}</option>{/each}
        </select></label
      >
      {#if now.day.surface?.state === 'DRYING'}
        <label class="flex items-center gap-1 text-xs"
          ><span class="w-14">{tell('daysPanel.dried')}</span>
          <input
            class="input input-xs w-14 text-right"
            type="number"
            name="dried"
            min="0"
            max="100"
            step="10"
            value={Math.round((now.day.surface.dried ?? 0) * 100)}
            onchange={(e) => {
              const v = e.currentTarget.valueAsNumber;
              if (Number.isFinite(v)) day({ surface: { state: 'DRYING', dried: Math.max(0, Math.min(100, v)) / 100 } });
            }}
          />%
        </label>
      {/if}
      <label class="flex items-center gap-1 text-xs"
        ><span class="w-14">{tell('daysPanel.hour')}</span>
        <input
          class="input input-xs w-20"
          type="time"
          value={now.day.hour}
          onchange={(e) => day({ hour: e.currentTarget.value })}
        /></label
      >
    </div>
    <label class="flex items-center gap-1 text-xs"
      ><span class="w-14">{tell('daysPanel.called')}</span>
      <input
        class="input input-xs flex-1"
        maxlength="60"
        placeholder={called(now)}
        value={now.name}
        onchange={(e) => desk.putVariant({ ...now, name: e.currentTarget.value.trim() })}
      /></label
    >
    {#if view}
      <p>
        {tell('daysPanel.lap_computed_s_on_the', {
          lapTime: lapTime(view.lapTime),
          lapTime2: signed(view.lapTime - desk.lap.lapTime, 1),
          hasOwnLine: !!view.ownLine,
        })}
      </p>
      <ul class="grid gap-0.5" data-changes>
        {#each view.adjusted.changes as c (c.words)}
          <li class={['border-l-4 pl-2 text-xs leading-tight', c.byHand ? 'border-primary' : 'border-base-300']}>
            {c.words}
          </li>
        {:else}
          <li class="text-xs">{tell('daysPanel.nothing_changes_in_this_corner')}</li>
        {/each}
      </ul>
      {#if view.adjusted.byHand.length && desk.mine}
        <button
          class="btn btn-xs"
          onclick={() => desk.putVariant({ ...now, entries: now.entries.filter((h) => h.corner !== desk.selected) })}
          >{tell('daysPanel.take_what_is_proposed_here')}</button
        >
      {/if}
    {:else}
      <p role="status">{tell('daysPanel.driving_that_day')}</p>
    {/if}
    <p class="text-xs leading-tight">
      {tell('daysPanel.dashed_the_reference_itself_drag', {
        corner: now.entries.length
          ? tell('daysPanel.set_so_far_in', { corner: now.entries.map((h) => number(h.corner)).join(', ') })
          : '',
      })}
    </p>
    {#if desk.mine}<button class="btn btn-xs btn-ghost justify-self-start" onclick={() => desk.dropVariant(now.id)}
        >{tell('daysPanel.remove_this_day')}</button
      >{/if}
  {:else}
    <p class="text-xs leading-tight">
      {tell('daysPanel.the_reference_is_for_a')}
    </p>
  {/if}
</section>
