<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { CornerEntry, KerbUse } from '../../api/api';
  import { KERB_USES, nameOf, USES } from '../../road/kerbUse';
  import type { Desk } from './desk.svelte';

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
    aria-label="Kerb in hand"
    data-kerb-in-hand={use.part}
  >
    <strong class="first-letter:uppercase">{nameOf(use)}</strong>
    <div class="join" role="group" aria-label="How much of the vehicle is on it">
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
      placeholder="why"
      aria-label="why"
      maxlength="200"
      value={use.why}
      disabled={!desk.movable}
      oninput={(e) => desk.useKerb({ ...use, why: e.currentTarget.value }, index)}
      onblur={() => desk.settle()}
    />
    <button class="btn btn-xs btn-square" aria-label="Remove {nameOf(use)}" disabled={!desk.movable} onclick={ondrop}
      ><X class="size-3.5" /></button
    >
    <p class="basis-full text-xs opacity-75">
      {#if surveyed}The survey says: {KERB_USES[surveyed.verdict].word}.{/if}
      Keep off and touch bound the line when it is computed anew; its feet on the kerb say where it is joined and left.
    </p>
  </section>
{/if}
