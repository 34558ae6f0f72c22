<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, type SessionPlan, type TrackSession } from '../../api/api';
  import NumberField from '../../kit/NumberField.svelte';
  import { plain } from '../../words/units';
  import { tell } from '../../words/tell';

  interface Props {
    session: string;
    version: number;
    draft: TrackSession;
    plan: SessionPlan;
    put: (change: Partial<TrackSession>, key?: string | null) => void;
    onselect: (corner: string) => void;
  }
  let { session, version, draft, plan, put, onselect }: Props = $props();

  const tyres = $derived(draft.tyres);
  const names = $derived(
    plan.motorcycle
      ? ['front', 'rear']
      : [
          tell('tyresPanel.front_left'),
          tell('tyresPanel.front_right'),
          tell('tyresPanel.rear_left'),
          tell('tyresPanel.rear_right'),
        ],
  );
  const change = (more: Partial<TrackSession['tyres']>) => put({ tyres: { ...tyres, ...more } });
  /** One of four, the others as they are. */
  function at(list: 'hot' | 'lastCold' | 'lastHot', wheel: number, value: number | undefined) {
    const all = names.map((_, k) => tyres[list][k] ?? null) as (number | null)[];
    all[wheel] = value ?? null;
    change({ [list]: all as number[] });
  }

  /** Read across the tread: three places of each wheel. */
  const across = $derived(
    plan.motorcycle
      ? [tell('few.left'), tell('few.middle'), tell('few.right')]
      : [tell('few.outer'), tell('few.middle'), tell('few.inner')],
  );
  function read(place: number, value: number | undefined) {
    const all = Array.from({ length: 3 * names.length }, (_, k) => tyres.tread?.[k] ?? null) as (number | null)[];
    all[place] = value ?? null;
    change({ tread: all as number[] });
  }
  /** Where on a wheel a place is drawn, 0 its left side: the outer side of a left wheel is on the left. */
  const side = (wheel: number, k: number) => (plan.motorcycle || wheel % 2 === 0 ? k : 2 - k);
  const heat = (t: number) => Math.max(0.05, Math.min(1, (t - 20) / 100));

  const work = createQuery(() => ({
    queryKey: ['session-tyres', session, version],
    queryFn: () => ask(api.GET('/api/sessions/{id}/tyres', { params: { path: { id: session } } })),
    placeholderData: (before) => before,
  }));
  const spared = $derived(tyres.spared ?? []);
  const shown = $derived.by(() => {
    const lines = work.data?.corners ?? [];
    return lines
      .filter((l) => spared.includes(l.corner) || (l.rank > 0 && l.rank <= 5))
      .sort((a, b) => (a.rank || 99) - (b.rank || 99));
  });
  const widest = $derived(Math.max(0.01, ...shown.map((l) => l.saved)));
  function spare(corner: string) {
    change({ spared: spared.includes(corner) ? spared.filter((c) => c !== corner) : [...spared, corner] });
  }

  const W = 300;
  const H = 172;
  /** Where a wheel stands in the drawing, the front at the top. */
  const place = (i: number) =>
    plan.motorcycle ? { x: W / 2 - 11, y: 10 + i * 84 } : { x: i % 2 ? W / 2 + 22 : W / 2 - 44, y: 10 + (i >> 1) * 84 };
  const heaviest = $derived(Math.max(0.01, ...(work.data?.wheels ?? [0.25])));
</script>

<h3 class="font-bold">{tell('tyresPanel.tyres')}</h3>
<div class="relative mx-auto w-full max-w-80" style:height="{H}px" data-tyres>
  <svg viewBox="0 0 {W} {H}" class="absolute inset-0 h-full w-full" role="img" aria-labelledby="tyres-said">
    <title id="tyres-said"
      >{names
        .map((n, i) => tell('tyresPanel.of_the_sliding', { name: n, wheels: plain((work.data?.wheels[i] ?? 0) * 100) }))
        .join(', ')}</title
    >
    {#if plan.motorcycle}
      <line x1={W / 2} y1="66" x2={W / 2} y2="92" stroke="currentColor" stroke-width="6" opacity="0.25" />
    {:else}
      <path
        d="M{W / 2} 4 L{W / 2 - 15} 22 V142 L{W / 2 - 11} 162 H{W / 2 + 11} L{W / 2 + 15} 142 V22 Z"
        fill="currentColor"
        opacity="0.08"
      />
    {/if}
    {#each names as n, i (n)}
      {@const p = place(i)}
      {@const share = work.data?.wheels[i] ?? 0}
      <rect x={p.x} y={p.y} width="22" height="52" rx="6" fill="none" stroke="currentColor" stroke-width="1.5" />
      <rect
        x={p.x + 2}
        y={p.y + 2 + 48 * (1 - share / heaviest)}
        width="18"
        height={48 * (share / heaviest)}
        rx="4"
        fill="currentColor"
        opacity={i === work.data?.most ? 0.75 : 0.35}
      />
      {#if work.data}
        <text
          x={p.x + 11}
          y={p.y + 66}
          text-anchor="middle"
          font-size="11"
          font-weight={i === work.data.most ? 700 : 400}
          fill="currentColor">{plain(share * 100)} %</text
        >
      {/if}
    {/each}
  </svg>
  {#each names as n, i (n)}
    {@const got = plan.wheels.find((k) => k.wheel === i)}
    <div
      class={[
        'absolute w-[6.5rem] text-xs leading-tight',
        !plan.motorcycle && i % 2 === 0 ? 'left-0 text-right' : 'right-0',
      ]}
      style:top="{place(i).y}px"
    >
      <div class={['flex', !plan.motorcycle && i % 2 === 0 ? 'justify-end' : '']}>
        <NumberField
          label={tell('tyresPanel.hot_kpa', { name: n })}
          bare
          placeholder={tell('tyresPanel.hot_kpa_2')}
          value={tyres.hot[i]}
          onset={(v) => at('hot', i, v)}
        />
      </div>
      {#if got?.refused}<strong>{got.refused}</strong>
      {:else if got?.cold != null}{tell('tyresPanel.set')} <strong class="text-sm">{plain(got.cold)}</strong>, {plain(
          got.low,
        )}–{plain(got.high)}{/if}
    </div>
  {/each}
</div>
{#if plan.wheels.some((w) => w.cold != null)}
  <p class="text-xs">
    {tell('tyresPanel.kpa_cold_for_gas_at', {
      hotAt: plain(plan.wheels[0]?.hotAt ?? 75),
      hasLearned: !!plan.wheels[0]?.learned,
    })}
  </p>
{/if}
{#if work.data}
  <p>
    {work.data.words.join(' ')}
    {#if Math.abs(work.data.rate - 1) > 0.02}{tell('tyresPanel.a_lap_wears_them_like', {
        rate: plain(work.data.rate, 2),
      })}{/if}
  </p>
  <ul class="grid gap-0.5" aria-label={tell('tyresPanel.where_to_spare_them')}>
    {#each shown as l (l.corner)}
      <li class="grid grid-cols-[auto_4.5rem_minmax(0,1fr)_auto] items-center gap-2">
        <input
          type="checkbox"
          class="checkbox checkbox-xs"
          aria-label={tell('tyresPanel.spare_them_in', { called: l.called })}
          checked={spared.includes(l.corner)}
          onchange={() => spare(l.corner)}
        />
        <button class="link truncate text-left" onclick={() => onselect(l.corner)}>{l.called}</button>
        <span class="bg-base-content/50 block h-2.5 rounded-sm" style:width="{(100 * l.saved) / widest}%"></span>
        <span
          >{tell('tyresPanel.for_s', {
            saved: plain(l.saved * 100, 1),
            seconds: plain(Math.max(0, l.seconds), 2),
          })}</span
        >
      </li>
    {/each}
  </ul>
  {#if spared.length}<p>
      {tell('tyresPanel.easing_3_there_costs')} <strong>{plain(Math.max(0, work.data.costs), 2)} s</strong>
      {tell('tyresPanel.a_lap')}
    </p>{/if}
{/if}
<div class="grid grid-cols-2 gap-x-3 gap-y-1">
  <label class="flex items-center gap-1"
    ><span class="flex-1">{tell('tyresPanel.set')}</span><input
      class="input input-xs w-16"
      maxlength="40"
      value={tyres.set}
      onchange={(e) => change({ set: e.currentTarget.value.trim() })}
    /></label
  >
  <NumberField
    label={tell('tyresPanel.set_at_c')}
    placeholder={tell('tyresPanel.air')}
    value={tyres.coldAt}
    onset={(coldAt) => change({ coldAt })}
  />
  <NumberField label={tell('tyresPanel.least_kpa_cold')} value={tyres.least} onset={(least) => change({ least })} />
  <NumberField
    label={tell('tyresPanel.age_laps')}
    min={0}
    step={1}
    value={tyres.age}
    onset={(v) => change({ age: v ?? 0 })}
  />
  <NumberField
    label={tell('tyresPanel.worn_out_after')}
    min={1}
    step={1}
    value={tyres.life}
    onset={(life) => change({ life })}
  />
  <label class="flex items-center gap-2"
    ><input
      type="checkbox"
      class="checkbox checkbox-xs"
      checked={tyres.warmers}
      onchange={(e) => change({ warmers: e.currentTarget.checked })}
    />{tell('tyresPanel.out_of_warmers')}</label
  >
</div>
{#if draft.kind === 'RACE'}
  {@const second = tyres.second}
  <label class="flex items-center gap-2"
    ><input
      type="checkbox"
      class="checkbox checkbox-xs"
      checked={!!second}
      onchange={(e) =>
        change({ second: e.currentTarget.checked ? { set: '', grip: 1, age: 0, life: tyres.life } : undefined })}
    />{tell('tyresPanel.two_sets_must_be_used')}</label
  >
  {#if second}
    {@const other = (more: Partial<typeof second>) => change({ second: { ...second, ...more } })}
    <div class="grid grid-cols-2 gap-x-3 gap-y-1">
      <label class="flex items-center gap-1"
        ><span class="flex-1">{tell('tyresPanel.second')}</span><input
          class="input input-xs w-16"
          maxlength="40"
          value={second.set}
          onchange={(e) => other({ set: e.currentTarget.value.trim() })}
        /></label
      >
      <NumberField
        label={tell('tyresPanel.its_grip')}
        min={50}
        max={150}
        value={Math.round(second.grip * 1000) / 10}
        onset={(v) => other({ grip: (v ?? 100) / 100 })}
      />
      <NumberField
        label={tell('tyresPanel.its_age_laps')}
        min={0}
        step={1}
        value={second.age}
        onset={(v) => other({ age: v ?? 0 })}
      />
      <NumberField
        label={tell('tyresPanel.worn_out_after')}
        min={1}
        step={1}
        value={second.life}
        onset={(life) => other({ life })}
      />
    </div>
  {/if}
  {#if second && !plan.split}
    <p>{tell('tyresPanel.say_after_how_many_laps')}</p>
  {:else if plan.split}
    {@const s = plan.split}
    <div class="grid gap-0.5" data-split>
      <svg
        viewBox="0 0 {s.laps} 5"
        preserveAspectRatio="none"
        class="h-4 w-full"
        role="img"
        aria-label={tell('tyresPanel.change_after_lap_of_lap', {
          change: s.change,
          laps: s.laps,
          earliest: s.earliest,
          latest: s.latest,
        })}
      >
        <rect x="0" y="1" width={s.change} height="3" fill="currentColor" opacity="0.55" />
        <rect x={s.change} y="1" width={s.laps - s.change} height="3" fill="currentColor" opacity="0.2" />
        <rect
          x={s.earliest - 0.08}
          y="0"
          width={s.latest - s.earliest + 0.16}
          height="5"
          fill="none"
          stroke="currentColor"
          stroke-width="1.5"
          vector-effect="non-scaling-stroke"
        />
      </svg>
      <p>
        {tell('tyresPanel.change_after_lap')} <strong>{s.change}</strong>
        {tell('tyresPanel.of_from_to_it_costs', {
          laps: s.laps,
          earliest: s.earliest,
          latest: s.latest,
          someGained: s.gained > 0,
          gained: plain(s.gained, 1),
          gained2: plain(-s.gained, 1),
        })}
      </p>
    </div>
  {/if}
{/if}
<details>
  <summary class="cursor-pointer">{tell('tyresPanel.what_they_read_last_time')}</summary>
  <div class="mt-1 grid grid-cols-2 gap-x-3 gap-y-1">
    {#each names as n, i (n)}
      <NumberField
        label={tell('tyresPanel.cold', { name: n })}
        value={tyres.lastCold[i]}
        onset={(v) => at('lastCold', i, v)}
      />
      <NumberField label={tell('tyresPanel.hot')} value={tyres.lastHot[i]} onset={(v) => at('lastHot', i, v)} />
    {/each}
    <NumberField
      label={tell('tyresPanel.set_at_c')}
      value={tyres.lastColdAt}
      onset={(lastColdAt) => change({ lastColdAt })}
    />
    <NumberField
      label={tell('tyresPanel.road_c_then')}
      value={tyres.lastRoad}
      onset={(lastRoad) => change({ lastRoad })}
    />
  </div>
</details>
<details open={plan.tread.length > 0}>
  <summary class="cursor-pointer">{tell('tyresPanel.across_the_tread_c')}</summary>
  <div class="mt-1 grid gap-y-1" data-tread>
    {#each names as n, i (n)}
      {@const told = plan.tread.find((t) => t.wheel === i)}
      <div class="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-2">
        <div class="flex items-end gap-1">
          {#if told}
            <svg width="34" height="30" role="img" aria-label="{n}: {told.words.join(', ')}">
              {#each [told.outer, told.middle, told.inner] as t, k (k)}
                <rect
                  x={2 + 11 * side(i, k)}
                  y={29 - 27 * heat(t)}
                  width="8"
                  height={27 * heat(t)}
                  fill="currentColor"
                  opacity="0.6"
                />
              {/each}
            </svg>
          {/if}
          <span class="font-semibold">{n}</span>
        </div>
        <div class="flex gap-1">
          {#each across as a, k (a)}
            <NumberField
              label="{n}, {a} °C"
              bare
              placeholder={a}
              value={tyres.tread?.[3 * i + k] ?? undefined}
              onset={(v) => read(3 * i + k, v)}
            />
          {/each}
        </div>
        {#if told}<p class="col-span-2 text-xs" data-tread-words={i}>{told.words.join('; ')}</p>{/if}
      </div>
    {/each}
  </div>
  <p class="text-xs">{tell('tyresPanel.read_at_once_after_stopping')}</p>
</details>
