<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { CornerEntry, KerbUse } from '../../api/api';
  import { KERB_USES, nameOf, USES } from '../../road/kerbUse';
  import type { Desk } from './desk.svelte';
  import { tell } from '../../words/tell';

  /** The use of a kerb in hand: how much of the vehicle is on it, and why. */
  let { desk, entry, index, ondrop }: { desk: Desk; entry: CornerEntry; index: number; ondrop: () => void } = $props();

  const use = $derived<KerbUse | undefined>(entry.kerbs[index]);
  const surveyed = $derived(
    desk.view.things.kerbs.find((k) => k.corner === entry.corner && k.part === use?.part && k.verdict !== 'OPEN'),
  );
</script>

{#if use}
  <section
    class="border-base-300 bg-base-100 mt-1 flex min-h-[64px] flex-wrap items-center gap-x-3 gap-y-1 rounded border px-3 py-1.5 text-sm"
    aria-label={tell('kerbBar.kerb_in_hand')}
    data-kerb-in-hand={use.part}
  >
    <strong class="first-letter:uppercase">{nameOf(use)}</strong>
    <div class="join" role="group" aria-label={tell('kerbBar.how_much_of_the_vehicle')}>
      {#each USES as how (how)}
        <button
          class={['btn btn-xs join-item', use.how === how ? 'btn-primary' : '']}
          aria-pressed={use.how === how}
          disabled={!desk.movable}
          onclick={() => (desk.useKerb({ ...use, how }, index), desk.settle())}>{KERB_USES[how].word}</button
        >
      {/each}
    </div>
    <input
      class="input input-xs min-w-32 flex-1"
      placeholder={tell('kerbBar.why')}
      aria-label={tell('kerbBar.why')}
      maxlength="200"
      value={use.why}
      disabled={!desk.movable}
      oninput={(e) => desk.useKerb({ ...use, why: e.currentTarget.value }, index)}
      onblur={() => desk.settle()}
    />
    <button
      class="btn btn-xs btn-square"
      aria-label={tell('kerbBar.remove', { use: nameOf(use) })}
      disabled={!desk.movable}
      onclick={ondrop}><X class="size-3.5" /></button
    >
    <p class="basis-full text-xs opacity-75">
      {#if surveyed}{tell('kerbBar.the_survey_says', { word: KERB_USES[surveyed.verdict].word })}{/if}
      {tell('kerbBar.keep_off_and_touch_bound')}
    </p>
  </section>
{/if}
