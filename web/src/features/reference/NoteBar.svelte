<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { CornerEntry, Detail } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { fact } from '../../words/facts';
  import type { Desk } from './desk.svelte';
  import { tell } from '../../words/tell';

  /** A note of the corner in hand: its words, and what they are good for. */
  let { desk, entry, detail, onclose }: { desk: Desk; entry: CornerEntry; detail: Detail; onclose: () => void } =
    $props();

  const words = $derived(catalogue.detail(detail));
  const value = $derived(entry.details[detail] ?? '');
  const say = (text: string) =>
    desk.edit((e) => ({ ...e, details: { ...e.details, [detail]: text } }), `detail ${entry.corner} ${detail}`);
  function drop() {
    desk.edit((e) => ({ ...e, details: Object.fromEntries(Object.entries(e.details).filter(([d]) => d !== detail)) }));
    onclose();
  }
  function reached(node: HTMLElement) {
    node.focus();
  }
</script>

<section
  class="border-base-300 bg-base-100 mt-1 flex min-h-[64px] flex-wrap items-center gap-x-3 gap-y-1 rounded border px-3 py-1.5 text-sm"
  aria-label={tell('noteBar.note_in_hand')}
  data-note-in-hand={detail}
>
  <strong>{words?.words ?? detail}</strong>
  {#key detail}
    {#if words?.choices.length}
      <div class="join" role="group" aria-label={words.words}>
        {#each words.choices as c (c.value)}
          <button
            class={['btn btn-xs join-item', value === c.value ? 'btn-primary' : '']}
            aria-pressed={value === c.value}
            disabled={!desk.movable}
            onclick={() => (say(c.value), desk.settle())}>{c.words}</button
          >
        {/each}
      </div>
    {:else}
      <input
        class="input input-xs min-w-40 flex-1"
        maxlength="300"
        aria-label={words?.words ?? detail}
        {value}
        disabled={!desk.movable}
        use:reached
        data-note-words
        oninput={(e) => say(e.currentTarget.value)}
        onkeydown={(e) => {
          if (e.key === 'Enter' || e.key === 'Escape') onclose();
        }}
        onblur={() => desk.settle()}
      />
    {/if}
  {/key}
  <button
    class="btn btn-xs btn-square"
    aria-label={tell('noteBar.remove', { detail: words?.words ?? detail })}
    disabled={!desk.movable}
    onclick={drop}><X class="size-3.5" /></button
  >
  <button class="btn btn-xs btn-ghost" onclick={onclose}>{tell('noteBar.done')}</button>
  <p class="basis-full text-xs opacity-75">
    {tell('noteBar.a_fact_of_the_corner', { hasDetail: !!fact(detail) })}
  </p>
</section>
