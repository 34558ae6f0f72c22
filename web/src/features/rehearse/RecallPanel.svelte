<script lang="ts">
  import { onDestroy } from 'svelte';
  import type { AskedView, ReferenceView, RoadView } from '../../api/api';
  import { metres, plain, signed } from '../../words/units';
  import FilmStill from '../film/FilmStill.svelte';
  import FilmChoice from './FilmChoice.svelte';
  import PlaceIt from './PlaceIt.svelte';
  import { ASKS, KINDS, answered, apart, stillBefore, type Answer, type Film } from './rehearse';
  import { tell } from '../../words/tell';

  /** One fact at a time: told on the road, by a share, a gear or a choice; then what is right. */
  interface Props {
    asked: AskedView[];
    left: number;
    /** Corners that those are of. */
    leftIn: string[];
    road: RoadView;
    reference: ReferenceView;
    onanswer: (answer: Answer) => void;
    onmore: () => void;
  }
  let { asked, left, leftIn, road, reference, onanswer, onmore }: Props = $props();

  let at = $state(0);
  let told = $state<number | null>(null);
  let shown = $state(false);
  let knew = $state(0);
  /** A film of one's own whose pictures are asked about; null without. */
  let film = $state.raw<Film | null>(null);
  const question = $derived(asked[at] ?? null);
  /** Where the picture is that is asked about, so that the place lies ahead. */
  const still = $derived(film && question?.fact.asks === 'PLACE' ? stillBefore(question.fact, road.length) : null);
  const options = $derived(question?.fact.asks === 'NEXT' || question?.fact.asks === 'BEFORE');
  const corner = $derived(reference.corners.find((c) => c.id === question?.fact.corner));
  /** A stretch that holds the corner, cut by tens of metres so that it does not give the place away. */
  const window = $derived.by(() => {
    if (!corner || !question) return { from: 0, metres: 300 };
    const before = apart(question.fact.answer, corner.entry, road.length);
    const lead = Math.max(200, Math.ceil((Math.max(0, before) + 60) / 100) * 100);
    const length = (corner.exit - corner.entry + road.length) % road.length;
    return {
      from: (Math.floor((corner.entry - lead) / 10) * 10 + road.length) % road.length,
      metres: Math.max(260, Math.ceil((lead + length + 80) / 20) * 20),
    };
  });
  const off = $derived.by(() => {
    if (!question || told === null) return null;
    return question.fact.asks === 'PLACE'
      ? apart(question.fact.answer, told, road.length)
      : told - question.fact.answer;
  });
  const right = $derived(off !== null && Math.abs(off) <= (question?.fact.precision ?? 0) + 1e-9);

  onDestroy(() => film && URL.revokeObjectURL(film.url));

  function settle(value: number | null) {
    if (!question || shown) return;
    told = value;
    shown = true;
    if (off !== null && right) knew++;
    onanswer(answered(question, value ?? undefined, new Date()));
  }
  function next() {
    at++;
    told = null;
    shown = false;
  }
  function words(): string {
    if (!question) return '';
    if (off === null) return tell('recallPanel.no_idea_is_an_answer');
    const f = question.fact;
    if (f.asks === 'PLACE') {
      const m = Math.abs(off);
      return m < 0.5
        ? tell('recallPanel.on_the_metre')
        : `${metres(m)} ${off < 0 ? tell('recallPanel.early') : tell('recallPanel.late')}.`;
    }
    if (f.asks === 'SHARE')
      return Math.abs(off) < 0.005
        ? tell('recallPanel.right')
        : tell('recallPanel.points', { off: signed(off * 100, 0) });
    return right ? tell('recallPanel.right') : tell('recallPanel.not_so');
  }
  const answer = $derived.by(() => {
    if (!question) return '';
    const f = question.fact;
    if (f.asks === 'GEAR') return tell('recallPanel.gear', { answer: f.answer });
    if (f.asks === 'SHARE') return `${plain(f.answer * 100)} %: ${question.right}`;
    return question.right;
  });
  /** Metres past the thing that the cue hangs on, typed. */
  function typedPlace(past: number) {
    const from = question?.from;
    if (from && Number.isFinite(past)) told = (from.station + past + road.length) % road.length;
  }
  const typedShare = (percent: number) => Number.isFinite(percent) && settle(Math.max(0, Math.min(100, percent)) / 100);
  /** Enter in the field answers. */
  const enter = (e: KeyboardEvent & { currentTarget: HTMLInputElement }, then: (value: number) => void) => {
    if (e.key !== 'Enter') return;
    e.preventDefault();
    e.stopPropagation();
    then(e.currentTarget.valueAsNumber);
  };
  function keys(e: KeyboardEvent) {
    if (!question || e.ctrlKey || e.metaKey || e.altKey) return;
    const field = (e.target as HTMLElement).tagName === 'INPUT';
    // A slider takes the other keys, and Enter answers with what it says.
    if (!shown && field && !((e.target as HTMLInputElement).type === 'range' && e.key === 'Enter')) return;
    if (shown && (e.key === 'Enter' || e.key === ' ')) {
      e.preventDefault();
      next();
    } else if (!shown && e.key === 'Enter' && told !== null) {
      e.preventDefault();
      settle(told);
    } else if (!shown && question.fact.asks === 'GEAR' && /^[1-9]$/.test(e.key)) settle(Number(e.key));
    else if (!shown && question.fact.asks === 'SHARE' && /^[0-9]$/.test(e.key))
      settle(e.key === '0' ? 1 : Number(e.key) / 10);
    else if (!shown && options && /^[1-9]$/.test(e.key)) {
      const kind = question.options[Number(e.key) - 1];
      if (kind) settle(KINDS.indexOf(kind));
    }
  }
</script>

<svelte:window onkeydown={keys} />

{#if question && corner}
  <section class="grid grid-cols-[minmax(0,1fr)] gap-3" aria-live="polite" data-asked={question.fact.id}>
    <p class="flex items-baseline gap-3">
      <strong class="text-2xl">{question.called}</strong>
      <span class="flex-1 text-lg" data-question>{ASKS(question.fact)}</span>
      <span class="text-sm"
        >{tell('recallPanel.of_more_wait', { knew: at + 1, asked: asked.length, hasLeft: !!left, left })}</span
      >
    </p>
    {#if film && still !== null}
      <FilmStill url={film.url} trace={film.trace} alignment={film.alignment} station={still} />
      {#if !shown}
        <label class="flex flex-wrap items-center gap-3"
          ><span>{tell('recallPanel.how_many_metres_from_here')}</span>
          <input
            type="range"
            class="range range-sm min-w-40 flex-1"
            min="0"
            max="150"
            step="1"
            value={told === null ? 0 : apart(still, told, road.length)}
            aria-label={tell('recallPanel.metres_from_this_picture')}
            oninput={(e) => (told = (still + e.currentTarget.valueAsNumber) % road.length)}
          />
          <strong class="w-16 text-right tabular-nums" data-from-here
            >{told === null ? '–' : metres(apart(still, told, road.length))}</strong
          >
        </label>
      {/if}
    {/if}
    {#if question.fact.asks === 'PLACE' && (still === null || shown)}
      <PlaceIt
        {road}
        corners={reference.corners}
        landmarks={reference.things.landmarks}
        from={window.from}
        metres={window.metres}
        at={told}
        right={shown ? question.fact.answer : null}
        precision={question.fact.precision}
        onplace={(s) => (told = s)}
      />
      {#if question.from && !shown && still === null}
        <label class="flex flex-wrap items-center gap-2 text-sm"
          >{tell('recallPanel.or_type_it')}
          <input
            class="input input-sm w-24"
            type="number"
            step="any"
            aria-label={tell('recallPanel.metres_past', { spoken: question.from.spoken })}
            oninput={(e) => typedPlace(e.currentTarget.valueAsNumber)}
            onkeydown={(e) => enter(e, (v) => (typedPlace(v), told !== null && settle(told)))}
          />
          {tell('recallPanel.m_past_less_than_nothing', { spoken: question.from.spoken })}</label
        >
      {/if}
    {:else if question.fact.asks === 'SHARE'}
      <div class="flex flex-wrap gap-2">
        {#each [10, 20, 30, 40, 50, 60, 70, 80, 90, 100] as p (p)}
          <button class="btn min-h-14 min-w-14 flex-1 text-lg" disabled={shown} onclick={() => settle(p / 100)}
            >{p} %</button
          >
        {/each}
        {#if !shown}
          <label class="flex items-center gap-1 text-sm"
            ><input
              class="input w-20"
              type="number"
              min="0"
              max="100"
              aria-label={tell('recallPanel.per_cent')}
              onkeydown={(e) => enter(e, typedShare)}
            />%</label
          >
        {/if}
      </div>
    {:else if question.fact.asks === 'GEAR'}
      <div class="flex flex-wrap gap-2">
        {#each Array.from({ length: reference.gears }, (_, i) => i + 1) as g (g)}
          <button class="btn min-h-14 min-w-14 flex-1 text-lg" disabled={shown} onclick={() => settle(g)}>{g}</button>
        {/each}
      </div>
    {:else}
      <div class="flex flex-wrap gap-2">
        {#each question.options as kind, i (kind)}
          <button class="btn min-h-14 flex-1 text-lg" disabled={shown} onclick={() => settle(KINDS.indexOf(kind))}
            >{i + 1} · {ASKS.kind(kind)}</button
          >
        {/each}
      </div>
    {/if}
    {#if !shown && question.fact.asks === 'PLACE'}
      <FilmChoice {film} length={road.length} onfilm={(f) => ((film = f), (told = null))} />
    {/if}
    {#if shown}
      <p class="text-lg" data-told-off>
        <strong>{words()}</strong>
        {tell('recallPanel.told_to_by_its_cue', {
          answer,
          hasOff: !!(question.fact.asks === 'PLACE' && off !== null),
          precision: metres(question.fact.precision),
        })}
      </p>
      <button class="btn btn-primary min-h-14 text-lg" onclick={next}>{tell('recallPanel.next')}</button>
    {:else}
      <p class="flex gap-2">
        {#if question.fact.asks === 'PLACE'}
          <button class="btn btn-primary min-h-14 flex-1 text-lg" disabled={told === null} onclick={() => settle(told)}
            >{tell('recallPanel.here')}</button
          >
        {/if}
        <button class="btn min-h-14 flex-1 text-lg" onclick={() => settle(null)}>{tell('recallPanel.no_idea')}</button>
      </p>
    {/if}
  </section>
{:else}
  <section class="grid grid-cols-[minmax(0,1fr)] gap-3" data-through>
    <p class="text-lg">
      {tell('recallPanel.of_right_nothing_is_due', {
        hasAsked: !!asked.length,
        knew,
        asked: asked.length,
        hasLeft: !!left,
        left,
        leftIn: leftIn.join(', '),
      })}
    </p>
    <button
      class="btn btn-primary min-h-14 justify-self-start"
      onclick={() => {
        at = 0;
        knew = 0;
        onmore();
      }}>{tell('recallPanel.ask_what_is_left')}</button
    >
  </section>
{/if}
