<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, type SessionPlan, type TrackSession } from '../../api/api';
  import NumberField from '../../kit/NumberField.svelte';
  import { plain } from '../../words/units';

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
    plan.motorcycle ? ['front', 'rear'] : ['front left', 'front right', 'rear left', 'rear right'],
  );
  const change = (more: Partial<TrackSession['tyres']>) => put({ tyres: { ...tyres, ...more } });
  /** One of four, the others as they are. */
  function at(list: 'hot' | 'lastCold' | 'lastHot', wheel: number, value: number | undefined) {
    const all = names.map((_, k) => tyres[list][k] ?? null) as (number | null)[];
    all[wheel] = value ?? null;
    change({ [list]: all as number[] });
  }

  /** Read across the tread: three places of each wheel. */
  const across = $derived(plan.motorcycle ? ['left', 'middle', 'right'] : ['outer', 'middle', 'inner']);
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

<h3 class="font-bold">Tyres</h3>
<div class="relative mx-auto w-full max-w-80" style:height="{H}px" data-tyres>
  <svg viewBox="0 0 {W} {H}" class="absolute inset-0 h-full w-full" role="img" aria-labelledby="tyres-said">
    <title id="tyres-said"
      >{names.map((n, i) => `${n} ${plain((work.data?.wheels[i] ?? 0) * 100)} % of the sliding`).join(', ')}</title
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
          label="{n}, hot kPa"
          bare
          placeholder="hot kPa"
          value={tyres.hot[i]}
          onset={(v) => at('hot', i, v)}
        />
      </div>
      {#if got?.refused}<strong>{got.refused}</strong>
      {:else if got?.cold != null}set <strong class="text-sm">{plain(got.cold)}</strong>, {plain(got.low)}–{plain(
          got.high,
        )}{/if}
    </div>
  {/each}
</div>
{#if plan.wheels.some((w) => w.cold != null)}
  <p class="text-xs">
    kPa cold, for gas at {plain(plan.wheels[0]?.hotAt ?? 75)} °C hot{plan.wheels[0]?.learned
      ? ', by your last readings'
      : ', not measured yet'}.
  </p>
{/if}
{#if work.data}
  <p>
    {work.data.words.join(' ')}
    {#if Math.abs(work.data.rate - 1) > 0.02}A lap wears them like {plain(work.data.rate, 2)} of the reference's.{/if}
  </p>
  <ul class="grid gap-0.5" aria-label="Where to spare them">
    {#each shown as l (l.corner)}
      <li class="grid grid-cols-[auto_4.5rem_minmax(0,1fr)_auto] items-center gap-2">
        <input
          type="checkbox"
          class="checkbox checkbox-xs"
          aria-label="Spare them in {l.called}"
          checked={spared.includes(l.corner)}
          onchange={() => spare(l.corner)}
        />
        <button class="link truncate text-left" onclick={() => onselect(l.corner)}>{l.called}</button>
        <span class="bg-base-content/50 block h-2.5 rounded-sm" style:width="{(100 * l.saved) / widest}%"></span>
        <span>−{plain(l.saved * 100, 1)} % for {plain(Math.max(0, l.seconds), 2)} s</span>
      </li>
    {/each}
  </ul>
  {#if spared.length}<p>
      Easing 3 % there costs <strong>{plain(Math.max(0, work.data.costs), 2)} s</strong> a lap.
    </p>{/if}
{/if}
<div class="grid grid-cols-2 gap-x-3 gap-y-1">
  <label class="flex items-center gap-1"
    ><span class="flex-1">set</span><input
      class="input input-xs w-16"
      maxlength="40"
      value={tyres.set}
      onchange={(e) => change({ set: e.currentTarget.value.trim() })}
    /></label
  >
  <NumberField label="set at °C" placeholder="air" value={tyres.coldAt} onset={(coldAt) => change({ coldAt })} />
  <NumberField label="least kPa cold" value={tyres.least} onset={(least) => change({ least })} />
  <NumberField label="age, laps" min={0} step={1} value={tyres.age} onset={(v) => change({ age: v ?? 0 })} />
  <NumberField label="worn out after" min={1} step={1} value={tyres.life} onset={(life) => change({ life })} />
  <label class="flex items-center gap-2"
    ><input
      type="checkbox"
      class="checkbox checkbox-xs"
      checked={tyres.warmers}
      onchange={(e) => change({ warmers: e.currentTarget.checked })}
    />out of warmers</label
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
    />two sets must be used</label
  >
  {#if second}
    {@const other = (more: Partial<typeof second>) => change({ second: { ...second, ...more } })}
    <div class="grid grid-cols-2 gap-x-3 gap-y-1">
      <label class="flex items-center gap-1"
        ><span class="flex-1">second</span><input
          class="input input-xs w-16"
          maxlength="40"
          value={second.set}
          onchange={(e) => other({ set: e.currentTarget.value.trim() })}
        /></label
      >
      <NumberField
        label="its grip, %"
        min={50}
        max={150}
        value={Math.round(second.grip * 1000) / 10}
        onset={(v) => other({ grip: (v ?? 100) / 100 })}
      />
      <NumberField label="its age, laps" min={0} step={1} value={second.age} onset={(v) => other({ age: v ?? 0 })} />
      <NumberField label="worn out after" min={1} step={1} value={second.life} onset={(life) => other({ life })} />
    </div>
  {/if}
  {#if second && !plan.split}
    <p>Say after how many laps one of them is worn out, and it is told when to change.</p>
  {:else if plan.split}
    {@const s = plan.split}
    <div class="grid gap-0.5" data-split>
      <svg
        viewBox="0 0 {s.laps} 5"
        preserveAspectRatio="none"
        class="h-4 w-full"
        role="img"
        aria-label="Change after lap {s.change} of {s.laps}, lap {s.earliest} to {s.latest} will do"
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
        Change after lap <strong>{s.change}</strong> of {s.laps}; from {s.earliest} to {s.latest} it costs less than a second
        more. {s.gained > 0
          ? `Against one set throughout it gains ${plain(s.gained, 1)} s, which the stop takes back or not.`
          : `One set throughout would be ${plain(-s.gained, 1)} s quicker even without the stop.`}
      </p>
    </div>
  {/if}
{/if}
<details>
  <summary class="cursor-pointer">What they read last time</summary>
  <div class="mt-1 grid grid-cols-2 gap-x-3 gap-y-1">
    {#each names as n, i (n)}
      <NumberField label="{n} cold" value={tyres.lastCold[i]} onset={(v) => at('lastCold', i, v)} />
      <NumberField label="hot" value={tyres.lastHot[i]} onset={(v) => at('lastHot', i, v)} />
    {/each}
    <NumberField label="set at °C" value={tyres.lastColdAt} onset={(lastColdAt) => change({ lastColdAt })} />
    <NumberField label="road °C then" value={tyres.lastRoad} onset={(lastRoad) => change({ lastRoad })} />
  </div>
</details>
<details open={plan.tread.length > 0}>
  <summary class="cursor-pointer">Across the tread, °C</summary>
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
  <p class="text-xs">Read at once after stopping. A step at a time, within what maker and organiser allow.</p>
</details>
