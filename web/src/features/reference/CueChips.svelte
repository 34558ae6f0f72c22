<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { tick } from 'svelte';
  import type { CueOffer, HeldCue, ScoredAction } from '../../api/api';
  import { follow } from '../../kit/drag';
  import { tell } from '../../words/tell';
  import { metres } from '../../words/units';
  import { nextBehind, pressedCue, sameCue, type Placed } from './cueHold';
  import CueShape from './CueShape.svelte';
  import type { Desk } from './desk.svelte';

  /** The cues of the action in hand: by which it is found, and which else are in reach, best first. */
  let { desk, held }: { desk: Desk; held: ScoredAction } = $props();

  interface Chip extends Placed {
    key: string;
    words: string;
    precision: number;
    moves: number;
    marks?: number | null;
    role?: HeldCue['role'];
    counts: boolean;
    why: string;
  }
  const WIDEST = 20;
  const a = $derived(held.action);
  const keyOf = ({ cue }: Placed) => cue.kind + cue.thing + cue.other;
  const offered = (o: CueOffer): Chip => ({ ...o, key: keyOf(o), counts: false, why: '' });
  const found = (h: HeldCue): Chip => {
    const offer = desk.offers.find((o) => sameCue(o.cue, h.cue));
    const at = { cue: h.cue, station: h.station ?? a.station };
    const { words, precision, role, counts, why } = h;
    return {
      ...at,
      key: keyOf(at),
      words,
      precision,
      moves: offer?.moves ?? 0,
      marks: offer?.marks,
      role,
      counts,
      why,
    };
  };
  const mine = $derived(held.cues.map(found));
  const behind = $derived(mine.find((c) => c.role === 'BACK_UP'));
  const front = $derived(mine.filter((c) => c.role !== 'BACK_UP'));
  const rest = $derived(desk.offers.filter((o) => !held.cues.some((h) => sameCue(h.cue, o.cue))).map(offered));
  const few = $derived(Math.max(1, 3 - front.length));

  let more = $state(false);
  /** What it was found by before the last press, and which chip that press was on. */
  let before = $state.raw<Placed | null>(null);
  let row = $state<HTMLElement>();
  let slot = $state<HTMLElement>();
  let carried = $state<{ key: string; by: number; over: boolean } | null>(null);
  const id = $derived(a.id);
  $effect(() => {
    void id;
    more = false;
    before = null;
  });

  async function press(chip: Chip) {
    const first = front[0];
    const next = pressedCue(a, chip, before);
    const taken = sameCue(next.cue, chip.cue) && !sameCue(a.cue, chip.cue);
    before = taken && first ? { cue: first.cue, station: first.station } : null;
    if (next === a) return;
    desk.putAction(next, false);
    desk.settle();
    // The chip moves to its new place; the hand stays on it.
    await tick();
    const chips = [...(row?.querySelectorAll<HTMLElement>('[data-chip]') ?? [])];
    chips.find((c) => c.dataset.chip === chip.key)?.focus();
  }
  function back(cue: Placed['cue'] | undefined) {
    desk.putAction({ ...a, backUp: cue }, false);
    desk.settle();
  }
  function carry(event: PointerEvent, chip: Chip) {
    if (event.button !== 0 || chip.role) return;
    const over = (e: PointerEvent) => {
      const box = slot?.getBoundingClientRect();
      return !!box && e.clientX >= box.left - 8 && Math.abs(e.clientY - (box.top + box.bottom) / 2) < 30;
    };
    follow(event, {
      from: 6,
      onmove: (e) => (carried = { key: chip.key, by: e.clientX - event.clientX, over: over(e) }),
      onend: (moved, taken) => {
        const at = carried;
        carried = null;
        if (moved && !taken && at?.over) back(chip.cue);
      },
    });
  }
  const point = (chip: Chip | null) => (desk.pointed = chip ? { cue: chip.cue, station: chip.station } : null);
  $effect(() => () => (desk.pointed = null));

  export function next() {
    const list = desk.offers.map(offered);
    const to = list[(list.findIndex((o) => sameCue(o.cue, a.cue)) + 1) % Math.max(1, list.length)];
    if (to && !sameCue(to.cue, a.cue)) void press(to);
  }
</script>

{#snippet doubt(c: Chip)}
  <svg width="34" height="10" aria-hidden="true">
    <path d="M1 5H33" stroke="currentColor" stroke-width="1" opacity="0.5" />
    <path
      d="M{17 - (16 * Math.min(WIDEST, c.precision)) / WIDEST} 5H{17 + (16 * Math.min(WIDEST, c.precision)) / WIDEST}"
      stroke="currentColor"
      stroke-width="4"
    />
  </svg>
  <span class="tabular-nums">± {metres(c.precision)}</span>
{/snippet}

{#snippet chip(c: Chip)}
  <button
    class={[
      'btn btn-xs h-auto min-h-6 touch-none gap-1.5 py-0.5',
      c.role ? 'btn-soft btn-primary' : '',
      c.why && 'line-through opacity-70',
    ]}
    style={carried?.key === c.key ? `transform:translateX(${carried.by}px);z-index:1` : undefined}
    aria-pressed={!!c.role}
    title={c.why ||
      tell('cueChips.to_of_100', { precision: metres(c.precision, 1), noMarks: c.marks == null, marks: c.marks })}
    data-cue={c.cue.kind}
    data-chip={c.key}
    data-role={c.role}
    data-counts={c.counts || undefined}
    onclick={() => void press(c)}
    onpointerdown={(e) => carry(e, c)}
    onpointerenter={() => point(c)}
    onpointerleave={() => point(null)}
    onfocus={() => point(c)}
    onblur={() => point(null)}
  >
    <CueShape kind={c.cue.kind} />
    <span
      >{tell('cueChips.moves_it', {
        words: c.words,
        isMoves: !c.role && Math.abs(c.moves) >= 0.5,
        moves: metres(c.moves, 1),
      })}</span
    >
    {#if !c.why}{@render doubt(c)}{/if}
  </button>
{/snippet}

<div class="flex flex-wrap items-center gap-1.5" data-cues bind:this={row}>
  {#each front as c (c.key)}
    {#if c.role === 'TOGETHER'}<span class="text-xs">{tell('cueChips.or')}</span>{/if}
    {@render chip(c)}
    {#if before && c.role === 'MAIN' && front.length === 1}
      <span class="text-xs opacity-75" data-again>{tell('cueChips.press_again')}</span>
    {/if}
  {/each}
  {#if front.length > 1}<span class="text-xs opacity-75">{tell('cueChips.whichever_first')}</span>{/if}
  {#each more ? rest : rest.slice(0, few) as c (c.key)}
    {@render chip(c)}
  {/each}
  {#if rest.length > few}
    <button class="btn btn-xs btn-ghost" onclick={() => (more = !more)}
      >{tell('cueChips.fewer_more', { hasMore: more, chips: rest.length - few })}</button
    >
  {/if}
  {#if front.length}
    <span
      class={[
        'ml-auto inline-flex items-center gap-1 rounded border border-dashed px-1',
        carried?.over && 'bg-base-300',
      ]}
      data-behind
      bind:this={slot}
    >
      <button
        class="btn btn-xs btn-ghost h-auto min-h-6 gap-1.5 py-0.5"
        aria-label={tell('cueChips.if_hidden', { has: !!behind, words: behind?.words ?? '' })}
        title={tell('cueChips.drag_here')}
        data-counts={behind?.counts || undefined}
        onclick={() => back(nextBehind(a, desk.offers) ?? nextBehind({ ...a, backUp: undefined }, desk.offers))}
        onpointerenter={() => point(behind ?? null)}
        onpointerleave={() => point(null)}
        onfocus={() => point(behind ?? null)}
        onblur={() => point(null)}
      >
        {tell('cueChips.if_hidden', { has: !!behind, words: behind?.words ?? '' })}
        {#if behind}{@render doubt(behind)}{/if}
      </button>
      {#if behind}
        <button
          class="btn btn-xs btn-square btn-ghost"
          aria-label={tell('cueChips.no_back_up')}
          onclick={() => back(undefined)}><X class="size-3" /></button
        >
      {/if}
    </span>
  {/if}
</div>
