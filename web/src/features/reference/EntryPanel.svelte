<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { CornerEntry, Detail, KerbUse, PointKind, Sureness } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import type { Desk } from './desk.svelte';
  import { POINTS, foundBy, station, toggled } from '../../road/points';
  import { fromLength, inLength, lengthUnit, metres, plain } from '../../words/units';

  /** What else the entry holds. What is not used stays in one menu. */
  let { desk, entry, picked = null }: { desk: Desk; entry: CornerEntry; picked?: Detail | null } = $props();

  const words = $derived(catalogue.all);
  const corner = $derived(desk.corner);
  const offered = $derived(
    (words?.details ?? []).filter((d) => (desk.view.motorcycle || !d.motorcycle) && !(d.detail in entry.details)),
  );
  const held = $derived((words?.details ?? []).filter((d) => d.detail in entry.details));
  const extra = $derived(
    (words?.kinds ?? []).filter((k) => !k.drafted && !entry.points.some((p) => p.kind === k.kind)),
  );
  const hazards = $derived(desk.answer?.hazards);
  const warnings = $derived(desk.answer?.warnings ?? []);
  let added = $state<string | null>(null);
  const wanted = $derived(picked ?? added);
  // Opens where something was said; after that it is as the driver leaves it, whatever the answers change.
  let sureness = $state(false);
  $effect(() => {
    if (entry.points.some((p) => p.sure)) sureness = true;
  });

  const say = (detail: Detail, text: string, key = true) =>
    desk.edit(
      (e) => ({ ...e, details: { ...e.details, [detail]: text } }),
      key ? `detail ${entry.corner} ${detail}` : null,
    );
  const drop = (detail: string) =>
    desk.edit((e) => ({ ...e, details: Object.fromEntries(Object.entries(e.details).filter(([d]) => d !== detail)) }));

  /** What was just added, or picked on the drawing, is typed into at once. */
  function reached(node: HTMLInputElement, detail: Detail) {
    if (wanted === detail) node.focus();
  }

  function usual(kind: PointKind): number {
    const brake = station(entry, 'BRAKE') ?? station(entry, 'TURN_IN') ?? 0;
    const at: Partial<Record<PointKind, number>> = {
      BUILD_UP: brake - 20,
      TARGET: brake + 5,
      BACK_UP: brake,
      DOWNSHIFT: brake + 15,
      FIRST_APEX: corner?.apexes[0] ?? brake,
      SHORT_SHIFT: (station(entry, 'FULL_THROTTLE') ?? brake) + 10,
    };
    const length = desk.view.length;
    return ((((at[kind] ?? brake) % length) + length) % length) as number;
  }

  function add(event: Event) {
    const select = event.currentTarget as HTMLSelectElement;
    const [sort, what] = select.value.split(':');
    select.value = '';
    if (!what) return;
    if (sort === 'point') desk.edit((e) => toggled(e, what as PointKind, usual(what as PointKind)));
    else if (sort === 'kerb') {
      const use: KerbUse = { part: what as KerbUse['part'], how: 'TOUCH', why: '' };
      desk.edit((e) => ({ ...e, kerbs: [...e.kerbs, use] }));
    } else {
      const choices = catalogue.detail(what as Detail)?.choices ?? [];
      added = what;
      say(what as Detail, choices[0] ?? '', false);
    }
  }
  const kerb = (i: number, change: Partial<KerbUse>) =>
    desk.edit(
      (e) => ({ ...e, kerbs: e.kerbs.map((k, j) => (j === i ? { ...k, ...change } : k)) }),
      `kerb ${entry.corner} ${i}`,
    );
  const SURE: Record<Sureness, string> = { SURE: 'sure', FAIRLY: 'fairly', UNSURE: 'unsure', CARRIED: 'not proved' };
  const setSure = (kind: PointKind, sure: string) =>
    desk.edit((e) => ({
      ...e,
      points: e.points.map((p) => (p.kind === kind ? { ...p, sure: (sure || undefined) as Sureness | undefined } : p)),
    }));
  const plainLine = $derived(desk.answer?.words);
</script>

<section class="grid gap-1.5 text-sm" aria-label="Everything else about the corner">
  <label class="flex items-center gap-2">
    Add
    <select
      class="select select-sm flex-1"
      aria-label="Add to this corner"
      data-add
      onchange={add}
      disabled={!desk.movable}
    >
      <option value="">what is missing…</option>
      <optgroup label="Markers and points">
        {#each extra as k (k.kind)}<option value="point:{k.kind}">{k.words}</option>{/each}
      </optgroup>
      <optgroup label="Kerbs">
        {#each ['ENTRY', 'APEX', 'EXIT'] as part (part)}<option value="kerb:{part}">{part.toLowerCase()} kerb</option
          >{/each}
      </optgroup>
      {#each [...new Set(offered.map((d) => d.phase))] as phase (phase)}
        <optgroup label={phase.toLowerCase().replace('_', ' ')}>
          {#each offered.filter((d) => d.phase === phase) as d (d.detail)}<option value="detail:{d.detail}"
              >{d.words}</option
            >{/each}
        </optgroup>
      {/each}
    </select>
  </label>

  {#if hazards && (hazards.warnings.length || hazards.shortRunOff)}
    <div class="border-error border-l-4 pl-2 text-xs leading-tight" data-hazards>
      {#if hazards.warnings.length}<p>Survey: {hazards.warnings.join('; ')}.</p>{/if}
      {#if hazards.escape && !entry.details['ESCAPE']}
        <p>
          Escape offered: {hazards.escape}.
          <button class="link" disabled={!desk.movable} onclick={() => say('ESCAPE', hazards.escape, false)}
            >Take it</button
          >
        </p>
      {/if}
    </div>
  {/if}
  {#each warnings.filter((w) => w.rule !== 'NO_ESCAPE' && w.rule !== 'ORDER') as w (w.rule + w.words)}
    <p class="border-error border-l-4 pl-2 text-xs leading-tight" data-warning={w.rule}>{w.words}</p>
  {/each}

  {#each held as d (d.detail)}
    {@const value = entry.details[d.detail] ?? ''}
    <div class="flex items-center gap-1" data-detail={d.detail}>
      <label class="grid min-w-0 flex-1 grid-cols-[84px_1fr] items-center gap-1 leading-tight">
        <span class="text-xs">{d.words}</span>
        {#if d.choices.length}
          <select class="select select-xs" {value} onchange={(e) => say(d.detail, e.currentTarget.value)}>
            {#each d.choices as c (c)}<option value={c}>{c}</option>{/each}
          </select>
        {:else}
          <input
            class="input input-xs w-full"
            maxlength="300"
            {value}
            use:reached={d.detail}
            oninput={(e) => say(d.detail, e.currentTarget.value)}
            onblur={() => desk.settle()}
          />
        {/if}
      </label>
      <button class="btn btn-ghost btn-xs btn-square" aria-label="Remove {d.words}" onclick={() => drop(d.detail)}
        ><X class="size-3" /></button
      >
    </div>
  {/each}

  {#each entry.kerbs as k, i (i)}
    <div class="flex flex-wrap items-center gap-1" data-kerb-use={k.part}>
      <span class="w-9 text-xs">{k.part.toLowerCase()}</span>
      <select
        class="select select-xs w-24"
        aria-label="How"
        value={k.how}
        onchange={(e) => kerb(i, { how: e.currentTarget.value as KerbUse['how'] })}
      >
        {#each ['KEEP_OFF', 'TOUCH', 'RIDE', 'HALF_THE_CAR', 'STRADDLE'] as how (how)}
          <option value={how}>{how.toLowerCase().replaceAll('_', ' ')}</option>
        {/each}
      </select>
      {#each ['join', 'leave'] as const as end (end)}
        <input
          class="input input-xs w-12 px-1"
          type="number"
          placeholder={end}
          aria-label="{end} at, {lengthUnit()}"
          value={k[end] == null ? '' : Math.round(inLength(k[end] ?? 0))}
          onchange={(e) =>
            kerb(i, {
              [end]: Number.isFinite(e.currentTarget.valueAsNumber)
                ? fromLength(e.currentTarget.valueAsNumber)
                : undefined,
            })}
        />
      {/each}
      <button
        class="btn btn-ghost btn-xs btn-square"
        aria-label="Remove {k.part.toLowerCase()} kerb"
        onclick={() => desk.edit((e) => ({ ...e, kerbs: e.kerbs.filter((_, j) => j !== i) }))}
        ><X class="size-3" /></button
      >
      <input
        class="input input-xs w-full"
        placeholder="why"
        aria-label="why"
        value={k.why}
        oninput={(e) => kerb(i, { why: e.currentTarget.value })}
      />
    </div>
  {/each}

  <details bind:open={sureness} class="border-base-300 border-t pt-1">
    <summary class="cursor-pointer font-semibold">How sure of each point</summary>
    {#each entry.points as p (p.kind)}
      <div class="flex items-center gap-1" data-sure={p.kind}>
        <span class="flex-1 truncate text-xs">{POINTS[p.kind].word} · {foundBy(p, metres) ?? metres(p.station)}</span>
        <select
          class="select select-xs w-24"
          aria-label="How sure of {POINTS[p.kind].word}"
          value={p.sure ?? ''}
          onchange={(e) => setSure(p.kind, e.currentTarget.value)}
        >
          <option value="">not said</option>
          {#each Object.entries(SURE) as [sure, word] (sure)}<option value={sure}>{word}</option>{/each}
        </select>
        {#if words?.kinds.some((k) => k.kind === p.kind && !k.drafted)}
          <button
            class="btn btn-ghost btn-xs btn-square"
            aria-label="Remove {POINTS[p.kind].word}"
            onclick={() => desk.edit((e) => toggled(e, p.kind, 0))}><X class="size-3" /></button
          >
        {/if}
      </div>
    {/each}
  </details>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <label class="flex items-center gap-1 text-xs"
      >apex off the inside by
      <input
        class="input input-xs w-14 text-right"
        type="number"
        step="0.1"
        value={plain(inLength(entry.apexOff), 1).replace('−', '-')}
        onchange={(e) => {
          const off = Math.max(-3, Math.min(12, fromLength(e.currentTarget.valueAsNumber || 0)));
          desk.edit((old) => ({ ...old, apexOff: off }));
        }}
      />{lengthUnit()} more</label
    >
    <label class="flex items-center gap-1 text-xs"
      >priority
      <input
        class="input input-xs w-12 text-right"
        type="number"
        min="1"
        max="99"
        placeholder="auto"
        value={entry.priority ?? ''}
        onchange={(e) => {
          const at = e.currentTarget.valueAsNumber;
          desk.edit((old) => ({ ...old, priority: at >= 1 ? Math.round(at) : undefined }));
        }}
      /></label
    >
  </div>
  <label class="grid gap-0.5 text-xs">
    Own words{#if plainLine?.due}<strong style="color:var(--turn)" data-wording-due
        >the points have changed since</strong
      >{/if}
    <textarea
      class="textarea textarea-xs min-h-12 leading-tight"
      maxlength="500"
      data-own-words
      placeholder="In place of the computed line"
      value={entry.wording?.text ?? ''}
      onchange={(e) => {
        const text = e.currentTarget.value.trim();
        const about = desk.answer?.words.plain ?? '';
        desk.edit((old) => ({ ...old, wording: text ? { text, about } : undefined }));
      }}></textarea>
  </label>
</section>
