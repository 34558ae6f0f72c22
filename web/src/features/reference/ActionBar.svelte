<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { Action, Cue, PointKind, ScoredAction, Sureness } from '../../api/api';
  import { cueFrom, spokenOf } from '../../road/cueWords';
  import { apart } from '../../road/points';
  import { amountOf, numeralOf, pointOf, unitOf } from '../../road/score';
  import { entered } from './actionKeys';
  import { hasPoint, marked, MARKERS, SURE, sureOf } from '../../road/sureness';
  import CueChips from './CueChips.svelte';
  import type { Desk } from './desk.svelte';
  import { tell } from '../../words/tell';

  /** The action in hand: what it is, by which cue it is found, and what it costs otherwise. */
  let { desk, held, fingers = false }: { desk: Desk; held: ScoredAction; fingers?: boolean } = $props();

  const a = $derived(held.action);
  const NO_CUE = { thing: '', spoken: '', other: '', otherSpoken: '', number: 0 };
  const NAMES: Record<Action['kind'], string> = {
    PLACE: tell('actionBar.place_across'),
    LIFT: tell('actionBar.lift'),
    BRAKE: tell('actionBar.braking'),
    EASE: tell('actionBar.ease'),
    SHIFT: tell('actionBar.shift'),
    HANDS: tell('actionBar.hands'),
    APEX: tell('actionBar.apex'),
    THROTTLE: tell('actionBar.throttle'),
    FULL: tell('actionBar.full_throttle'),
    EYES: tell('actionBar.eyes'),
    BODY: tell('actionBar.body'),
  };
  const MANNERS: Partial<Record<Action['kind'], [Action['manner'], string][]>> = {
    BRAKE: [
      ['AT_ONCE', tell('actionBar.hard')],
      ['SLOWLY', tell('actionBar.squeezed')],
    ],
    LIFT: [
      ['AT_ONCE', tell('actionBar.at_once')],
      ['SLOWLY', tell('actionBar.slowly')],
    ],
    EASE: [
      ['AT_ONCE', tell('actionBar.and_hold')],
      ['EVENLY', tell('actionBar.and_on_evenly')],
    ],
    THROTTLE: [
      ['AT_ONCE', tell('actionBar.and_hold')],
      ['EVENLY', tell('actionBar.and_on_evenly')],
    ],
  };
  const OTHERS: Partial<Record<Action['kind'], Action['kind'][]>> = {
    BRAKE: ['EASE'],
    EASE: ['BRAKE'],
    LIFT: ['THROTTLE', 'FULL'],
    THROTTLE: ['FULL', 'LIFT'],
    FULL: ['THROTTLE', 'LIFT'],
    EYES: ['BODY'],
    BODY: ['EYES'],
  };
  const STANCES: [NonNullable<Action['stance']>, string][] = [
    ['FORWARD', tell('actionBar.forward')],
    ['MIDDLE', tell('actionBar.middle')],
    ['BACK', tell('actionBar.back')],
  ];
  const others = $derived((OTHERS[a.kind] ?? []).filter((kind) => kind !== 'BODY' || desk.view.motorcycle));
  const own = $derived(desk.entry?.actions.some((o) => o.id === a.id) ?? false);
  const optional = $derived(own || ['downshift', 'short-shift', 'first-apex'].includes(a.id));

  const point = $derived(pointOf(a.id));
  const sure = $derived((point ? desk.entry?.points.find((p) => p.kind === point)?.sure : a.sure) ?? '');
  function setSure(word: string) {
    const said = (word || undefined) as Sureness | undefined;
    if (point) desk.edit((e) => sureOf(e, point, said));
    else desk.putAction({ ...a, sure: said }, false);
    desk.settle();
  }
  function mark(kind: PointKind) {
    desk.edit((e) => marked(e, kind, desk.view.length));
    desk.settle();
  }

  /** What can be looked at from here: things of the survey ahead, and where something is done later. */
  const AHEAD = 300;
  interface Target {
    cue: Cue;
    name: string;
  }
  const targets = $derived.by((): Target[] => {
    if (a.kind !== 'EYES') return [];
    const ahead = (station: number) => apart(a.station, station, desk.view.length);
    const later = desk.score
      .filter((s) => s.action.id !== a.id && ahead(s.action.station) > 0)
      .map((s) => ({
        cue: { ...NO_CUE, kind: 'SECONDS' as const, other: s.action.id },
        name: [NAMES[s.action.kind], numeralOf(desk.score, s.action.id)].filter(Boolean).join(' '),
      }));
    const things = desk.cueThings
      .filter((t) => ahead(t.station) > 0 && ahead(t.station) < AHEAD)
      .toSorted((t, u) => ahead(t.station) - ahead(u.station))
      .map((t) => ({
        cue: { ...NO_CUE, kind: 'BESIDE' as const, thing: t.id, spoken: spokenOf(t) },
        name: spokenOf(t),
      }));
    return [...later, ...things];
  });
  const targetId = (t: { thing: string; other: string }) => `${t.thing}/${t.other}`;
  function lookAt(id: string) {
    desk.putAction({ ...a, target: targets.find((t) => targetId(t.cue) === id)?.cue }, false);
    desk.settle();
  }

  let words = $state('');
  let search = $state<HTMLInputElement>();
  let unknown = $state(false);
  let refused = $state('');
  let chips = $state<ReturnType<typeof CueChips>>();
  // What is typed stays while answers to what is in hand come.
  const id = $derived(a.id);
  $effect(() => {
    void id;
    words = '';
    unknown = false;
    refused = '';
  });

  export function find() {
    search?.focus();
  }

  const findable = $derived(desk.findable(a.id));
  export function nextCue() {
    chips?.next();
  }
  /** Another kind in its place, with the same amount. */
  function rather(kind: Action['kind']) {
    const was = a;
    desk.dropAction(was.id);
    desk.makeAction(kind, was.station, was.amount ?? undefined);
  }
  function say(event: SubmitEvent) {
    event.preventDefault();
    const cue = cueFrom(words, desk.cueThings, desk.score, a.station, desk.view.length);
    unknown = !cue;
    if (!cue) return;
    desk.putAction({ ...a, cue }, false);
    desk.settle();
    words = '';
  }
</script>

<section
  class="border-base-300 bg-base-100 mt-1 grid min-h-[82px] grid-cols-[minmax(0,1fr)] content-start gap-1 rounded border px-3 py-1.5 text-sm"
  aria-label={tell('actionBar.action_in_hand')}
  data-in-hand={a.id}
>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <strong>{NAMES[a.kind]}{numeralOf(desk.score, a.id) ? ` ${numeralOf(desk.score, a.id)}` : ''}</strong>
    <span class="min-w-40 flex-1 truncate" data-line
      >{tell('actionBar.solved', { line: held.line, hasSolved: !!held.solved })}</span
    >
    {#if own}
      {#each others as kind (kind)}
        <button class="btn btn-xs btn-ghost" data-instead={kind} onclick={() => rather(kind)}
          >{tell('actionBar.rather', { kind: NAMES[kind].toLowerCase() })}</button
        >
      {/each}
    {/if}
    {#if fingers && unitOf(a)}
      <label class="flex items-center gap-1"
        ><input
          class="input h-11 w-20 text-lg"
          inputmode="decimal"
          aria-label={tell('actionBar.amount')}
          placeholder={amountOf(held)}
          data-amount-pad
          onchange={(e) => {
            refused = entered(desk, held, e.currentTarget.value.trim());
            e.currentTarget.value = '';
          }}
        />{unitOf(a) === '%' ? '%' : ''}</label
      >
    {/if}
    {#if a.kind === 'EYES'}
      <select
        class="select select-xs w-28"
        aria-label={tell('actionBar.looked_at')}
        data-target
        value={a.target ? targetId(a.target) : ''}
        onchange={(e) => lookAt(e.currentTarget.value)}
      >
        <option value="">{tell('actionBar.in_words')}</option>
        {#each targets as { cue, name } (targetId(cue))}<option value={targetId(cue)}>{name}</option>{/each}
        {#if a.target && !targets.some((t) => a.target && targetId(t.cue) === targetId(a.target))}
          <option value={targetId(a.target)}>{a.target.spoken || a.target.other}</option>
        {/if}
      </select>
    {/if}
    {#if a.kind === 'BODY' && desk.view.motorcycle}
      <div class="join" role="group" aria-label={tell('actionBar.weight')}>
        {#each STANCES as [stance, word] (stance)}
          <button
            class={['btn btn-xs join-item', a.stance === stance ? 'btn-primary' : '']}
            aria-pressed={a.stance === stance}
            data-stance={stance}
            onclick={() => (
              desk.putAction({ ...a, stance: a.stance === stance ? undefined : stance }, false),
              desk.settle()
            )}>{word}</button
          >
        {/each}
      </div>
    {/if}
    {#if a.kind === 'EYES' || a.kind === 'BODY'}
      <input
        class="input input-xs w-28"
        aria-label={tell('actionBar.what_is_looked_at_what', { isEyes: a.kind === 'EYES' })}
        value={a.note}
        maxlength="200"
        data-note
        oninput={(e) => desk.putAction({ ...a, note: e.currentTarget.value }, false, `note ${a.id}`)}
        onblur={() => desk.settle()}
      />
    {/if}
    {#if MANNERS[a.kind] && a.id !== 'release'}
      <div class="join" role="group" aria-label={tell('actionBar.how_quickly')}>
        {#each MANNERS[a.kind] ?? [] as [manner, word] (manner)}
          <button
            class={['btn btn-xs join-item', a.manner === manner ? 'btn-primary' : '']}
            aria-pressed={a.manner === manner}
            onclick={() => (desk.putAction({ ...a, manner }, false), desk.settle())}>{word}</button
          >
        {/each}
      </div>
    {/if}
    {#if findable}
      <form onsubmit={say}>
        <input
          bind:this={search}
          bind:value={words}
          class={['input input-xs', a.kind === 'EYES' || a.kind === 'BODY' ? 'w-28' : 'w-40', unknown && 'input-error']}
          placeholder={tell('actionBar.cue_in_words_half_wall')}
          aria-label={tell('actionBar.cue_in_words')}
          aria-invalid={unknown}
          data-cue-words
          oninput={() => (unknown = false)}
        />
      </form>
    {/if}
    {#if a.id === 'brake' && !desk.day}
      <div class="join" role="group" aria-label={tell('actionBar.other_markers')}>
        {#each MARKERS as m (m.kind)}
          <button
            class={['btn btn-xs join-item', hasPoint(desk.entry, m.kind) ? 'btn-soft' : 'btn-ghost']}
            aria-pressed={hasPoint(desk.entry, m.kind)}
            data-step={m.kind}
            onclick={() => mark(m.kind)}>{m.word}</button
          >
        {/each}
      </div>
    {/if}
    {#if !desk.day}
      <select
        class="select select-xs w-24"
        aria-label={tell('actionBar.how_sure_of_it')}
        data-sure
        value={sure}
        onchange={(e) => setSure(e.currentTarget.value)}
      >
        <option value="">{tell('actionBar.how_sure')}</option>
        {#each SURE as [s, word] (s)}<option value={s}>{word}</option>{/each}
      </select>
    {/if}
    {#if optional}
      <button
        class="btn btn-xs btn-square"
        aria-label={tell('actionBar.take_it_out')}
        onclick={() => desk.dropAction(a.id)}><X class="size-3.5" /></button
      >
    {/if}
  </div>
  {#if held.gaze}<p class="leading-tight" data-gaze>{held.gaze.words}</p>{/if}
  {#if held.rides}<p class="leading-tight" data-rides>{held.rides.words}</p>{/if}
  {#if refused}<p style="color:var(--turn)" role="alert">{refused}</p>{/if}
  {#if held.trouble}<p style="color:var(--turn)" role="alert">{held.trouble}</p>{/if}
  {#if !held.made}<p style="color:var(--turn)">{tell('actionBar.it_does_not_slow_enough')}</p>{/if}
  {#if !findable}
    <p class="opacity-75">{tell('actionBar.on_another_day_it_is')}</p>
  {:else}
    <CueChips bind:this={chips} {desk} {held} />
  {/if}
  {#if unknown}
    <p style="color:var(--turn)" role="alert">
      {tell('actionBar.name_a_thing_of_the')}
    </p>
  {/if}
</section>
