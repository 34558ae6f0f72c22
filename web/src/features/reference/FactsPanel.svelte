<script lang="ts">
  import type { CornerEntry, Detail, KerbUse, Sureness } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { KERB_USES, nameOf } from '../../road/kerbUse';
  import { foundBy, POINTS, station } from '../../road/points';
  import { hasPoint, marked, MARKERS, SURE, sureOf } from '../../road/sureness';
  import { metres } from '../../words/units';
  import { FACTS } from '../../words/facts';
  import type { Desk } from './desk.svelte';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';
  import { inside } from '../../words/words';

  /** What is true of the corner, beside what is done in it. */
  type DetailLine = NonNullable<typeof catalogue.all>['details'][number];
  interface Props {
    desk: Desk;
    entry: CornerEntry;
    onnote: (detail: Detail) => void;
    onkerb: (index: number) => void;
  }
  let { desk, entry, onnote, onkerb }: Props = $props();

  const words = $derived(catalogue.all);
  const facts = $derived((words?.details ?? []).filter((d) => FACTS.includes(d.detail)));
  const others = $derived(
    (words?.details ?? []).filter((d) => !FACTS.includes(d.detail) && entry.details[d.detail] !== undefined),
  );
  const missing = $derived(facts.filter((d) => entry.details[d.detail] === undefined));
  const hazards = $derived(desk.answer?.hazards);
  const warnings = $derived((desk.answer?.warnings ?? []).filter((w) => w.rule !== 'NO_ESCAPE' && w.rule !== 'ORDER'));
  /** Kerbs that the survey does not have can be used all the same. */
  const kerbs = $derived(
    (['ENTRY', 'APEX', 'EXIT'] as const).filter(
      (p) =>
        !entry.kerbs.some((k) => k.part === p) &&
        !desk.view.things.kerbs.some((k) => k.corner === entry.corner && k.part === p),
    ),
  );

  const say = (detail: Detail, text: string) => desk.edit((e) => ({ ...e, details: { ...e.details, [detail]: text } }));
  function add(detail: Detail) {
    say(detail, catalogue.detail(detail)?.choices[0]?.value ?? '');
    onnote(detail);
  }
  // Opens where something was said; after that it is as the driver leaves it.
  let sureness = $state(false);
  $effect(() => {
    if (entry.points.some((p) => p.sure)) sureness = true;
  });
  function addKerb(part: KerbUse['part']) {
    onkerb(desk.useKerb({ part, how: 'TOUCH', why: '' }));
    desk.settle();
  }
</script>

<section class="grid gap-1.5 text-sm" aria-label={tell('factsPanel.what_is_true_of_the')}>
  {#if hazards && (hazards.warnings.length || hazards.shortRunOff)}
    <div class="border-error border-l-4 pl-2 text-xs leading-tight" data-hazards>
      {#if hazards.warnings.length}<p>
          {tell('factsPanel.survey', { warnings: hazards.warnings.map(inside).join('; ') })}
        </p>{/if}
      {#if hazards.escape && !entry.details['ESCAPE']}
        <p>
          {tell('factsPanel.escape_offered', { escape: hazards.escape })}
          <button class="link" disabled={!desk.movable} onclick={() => say('ESCAPE', hazards.escape)}
            >{tell('factsPanel.take_it')}</button
          >
        </p>
      {/if}
    </div>
  {/if}
  {#each warnings as w (w.rule + w.words)}
    <p class="border-error border-l-4 pl-2 text-xs leading-tight" data-warning={w.rule}>{w.words}</p>
  {/each}

  {#snippet note(d: DetailLine)}
    <button
      class="hover:bg-base-200 grid min-h-0 grid-cols-[92px_1fr] gap-1 text-left leading-tight"
      data-detail={d.detail}
      onclick={() => onnote(d.detail)}
    >
      <span class="text-xs">{d.words}</span>
      <span class="text-xs font-semibold break-words"
        >{d.choices.find((c) => c.value === entry.details[d.detail])?.words ?? (entry.details[d.detail] || '…')}</span
      >
    </button>
  {/snippet}
  {#each facts.filter((d) => entry.details[d.detail] !== undefined) as d (d.detail)}{@render note(d)}{/each}
  {#each entry.kerbs as k, i (i)}
    <button
      class="hover:bg-base-200 grid grid-cols-[92px_1fr] gap-1 text-left leading-tight"
      data-kerb-line={k.part}
      onclick={() => onkerb(i)}
    >
      <span class="text-xs">{nameOf(k)}</span>
      <span class="text-xs font-semibold break-words">{KERB_USES[k.how].word}{k.why ? `, ${k.why}` : ''}</span>
    </button>
  {/each}

  {#if others.length}
    <details class="border-base-300 border-t pt-1" data-words-only>
      <summary class="cursor-pointer text-xs font-semibold"
        >{tell('factsPanel.notes_that_are_words_only', { others: others.length })}</summary
      >
      <div class="grid gap-1 pt-1">
        {#each others as d (d.detail)}{@render note(d)}{/each}
      </div>
    </details>
  {/if}

  {#if desk.movable && (missing.length || kerbs.length)}
    <div class="flex flex-wrap gap-1" role="group" aria-label={tell('factsPanel.say_more')} data-add>
      {#each missing as d (d.detail)}
        <button class="btn btn-xs btn-dash" data-add-fact={d.detail} onclick={() => add(d.detail)}>{d.words}</button>
      {/each}
      {#each kerbs as part (part)}
        <button class="btn btn-xs btn-dash" data-add-kerb={part} onclick={() => addKerb(part)}
          >{tell('factsPanel.kerb', { part: few(part) })}</button
        >
      {/each}
    </div>
  {/if}

  {#if entry.slowing === 'BRAKE' && station(entry, 'BRAKE') !== undefined}
    <div class="flex items-center gap-1 text-xs" role="group" aria-label={tell('factsPanel.other_markers')}>
      {tell('factsPanel.other_markers_2')}
      {#each MARKERS as m (m.kind)}
        <button
          class={['btn btn-xs', hasPoint(entry, m.kind) ? 'btn-soft' : '']}
          aria-pressed={hasPoint(entry, m.kind)}
          disabled={!desk.movable}
          data-step={m.kind}
          onclick={() => (desk.edit((e) => marked(e, m.kind, desk.view.length)), desk.settle())}>{m.word}</button
        >
      {/each}
    </div>
  {/if}
  <details bind:open={sureness} class="border-base-300 border-t pt-1">
    <summary class="cursor-pointer text-xs font-semibold">{tell('factsPanel.how_sure_of_each_point')}</summary>
    {#each entry.points as p (p.kind)}
      <label class="flex items-center gap-1" data-sure={p.kind}>
        <span class="flex-1 truncate text-xs">{POINTS[p.kind].word} · {foundBy(p, metres) ?? metres(p.station)}</span>
        <select
          class="select select-xs w-24"
          aria-label={tell('factsPanel.how_sure_of', { word: POINTS[p.kind].word })}
          disabled={!desk.movable}
          value={p.sure ?? ''}
          onchange={(e) => {
            const said = (e.currentTarget.value || undefined) as Sureness | undefined;
            desk.edit((old) => sureOf(old, p.kind, said));
            desk.settle();
          }}
        >
          <option value="">{tell('factsPanel.not_said')}</option>
          {#each SURE as [sure, word] (sure)}<option value={sure}>{word}</option>{/each}
        </select>
      </label>
    {/each}
  </details>
  <label class="border-base-300 flex items-center gap-1 border-t pt-1 text-xs"
    >{tell('factsPanel.priority_of_the_corner')}
    <input
      class="input input-xs w-14 text-right"
      type="number"
      min="1"
      max="99"
      placeholder={tell('factsPanel.auto')}
      value={entry.priority ?? ''}
      disabled={!desk.movable}
      onchange={(e) => {
        const at = e.currentTarget.valueAsNumber;
        desk.edit((old) => ({ ...old, priority: at >= 1 ? Math.round(at) : undefined }));
      }}
    /></label
  >
  <p class="text-xs leading-tight opacity-75">
    {tell('factsPanel.what_is_done_is_written')}
  </p>
</section>
