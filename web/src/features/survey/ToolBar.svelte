<script lang="ts">
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { LANDMARKS, PLACES, ZONES, type LandmarkKind, type PlaceKind, type ZoneKind } from '../../road/things';
  import LandmarkShape from '../../road/LandmarkShape.svelte';
  import type { Tool } from './SurveyStrip.svelte';
  import { tell } from '../../words/tell';

  interface Props {
    tool: Tool;
    canUndo: boolean;
    canRedo: boolean;
    ontool: (tool: Tool) => void;
    onboards: () => void;
    onundo: () => void;
    onredo: () => void;
  }
  let { tool, canUndo, canRedo, ontool, onboards, onundo, onredo }: Props = $props();

  const kinds = Object.keys(LANDMARKS) as LandmarkKind[];
  let zone = $state<ZoneKind>('DAMP');
  let place = $state<PlaceKind>('PASS');
  let choosing = $state(false);
  let menu = $state<HTMLDetailsElement>();
  const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
  const of = $derived(tool.kind === 'landmark' ? tool.of : null);
</script>

<svelte:window
  onpointerdown={(e) => {
    if (!menu?.contains(e.target as Node)) choosing = false;
  }}
  onkeydown={(e) => {
    if (e.key === 'Escape') choosing = false;
  }}
/>

<div class="flex items-center gap-2 py-1" role="toolbar" aria-label={tell('toolBar.what_to_put_on_the')}>
  <button
    type="button"
    class={['btn btn-sm', tool.kind === 'look' ? 'btn-primary' : '']}
    aria-pressed={tool.kind === 'look'}
    onclick={() => ontool({ kind: 'look' })}>{tell('toolBar.look')}</button
  >
  <details class="relative" bind:open={choosing} bind:this={menu}>
    <summary class={['btn btn-sm', of ? 'btn-primary' : '']} data-tool="landmark">
      {of ? capital(LANDMARKS[of].word) : tell('toolBar.landmark')}
    </summary>
    <div
      class="border-base-content bg-base-100 absolute z-20 mt-1 grid w-96 grid-cols-2 gap-x-2 border p-2 shadow-lg"
      role="group"
      aria-label={tell('toolBar.landmark')}
    >
      {#each kinds as kind (kind)}
        <button
          type="button"
          class={['btn btn-sm justify-start font-normal', of === kind ? 'bg-base-300!' : 'btn-ghost']}
          aria-pressed={of === kind}
          data-tool={kind}
          onclick={() => {
            choosing = false;
            ontool({ kind: 'landmark', of: kind });
          }}
        >
          <svg width="34" height="28" aria-hidden="true">
            <g transform="translate(17 {LANDMARKS[kind].out < 0 ? 8 : 26}) scale(0.85)">
              <LandmarkShape landmark={{ kind, label: '', left: true, readable: true }} quiet />
            </g>
          </svg>
          {capital(LANDMARKS[kind].word)}
        </button>
      {/each}
    </div>
  </details>
  <button type="button" class="btn btn-sm" onclick={onboards}>{tell('toolBar.set_of_boards')}</button>
  <button
    type="button"
    class={['btn btn-sm', tool.kind === 'kerb' ? 'btn-primary' : '']}
    aria-pressed={tool.kind === 'kerb'}
    data-tool="kerb"
    onclick={() => ontool({ kind: 'kerb' })}>{tell('toolBar.kerb')}</button
  >
  <div class="join">
    <button
      type="button"
      class={['btn btn-sm join-item', tool.kind === 'zone' ? 'btn-primary' : '']}
      aria-pressed={tool.kind === 'zone'}
      data-tool="zone"
      onclick={() => ontool({ kind: 'zone', of: zone })}>{tell('toolBar.zone')}</button
    >
    <select
      class="select select-sm join-item w-44"
      aria-label={tell('toolBar.kind_of_zone')}
      bind:value={zone}
      onchange={() => ontool({ kind: 'zone', of: zone })}
    >
      {#each Object.entries(ZONES) as [k, v] (k)}<option value={k}>{v.word}</option>{/each}
    </select>
  </div>
  <button
    type="button"
    class={['btn btn-sm', tool.kind === 'limit' ? 'btn-primary' : '']}
    aria-pressed={tool.kind === 'limit'}
    data-tool="limit"
    onclick={() => ontool({ kind: 'limit' })}>{tell('toolBar.limit')}</button
  >
  <div class="join">
    <button
      type="button"
      class={['btn btn-sm join-item', tool.kind === 'place' ? 'btn-primary' : '']}
      aria-pressed={tool.kind === 'place'}
      data-tool="place"
      onclick={() => ontool({ kind: 'place', of: place })}>{tell('toolBar.place')}</button
    >
    <select
      class="select select-sm join-item w-28"
      aria-label={tell('toolBar.kind_of_place')}
      bind:value={place}
      onchange={() => ontool({ kind: 'place', of: place })}
    >
      {#each Object.entries(PLACES) as [k, v] (k)}<option value={k}>{v}</option>{/each}
    </select>
  </div>
  <span class="flex-1"></span>
  <button
    type="button"
    class="btn btn-sm btn-square"
    aria-label={tell('toolBar.undo')}
    disabled={!canUndo}
    onclick={onundo}><Undo2 class="size-4" /></button
  >
  <button
    type="button"
    class="btn btn-sm btn-square"
    aria-label={tell('toolBar.redo')}
    disabled={!canRedo}
    onclick={onredo}><Redo2 class="size-4" /></button
  >
</div>
