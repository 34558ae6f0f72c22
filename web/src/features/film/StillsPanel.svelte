<script lang="ts">
  import type { Corner } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { LANDMARKS, nameOf, type LandmarkKind } from '../../road/things';
  import { metres, plain } from '../../words/units';
  import { titled, type Stills } from './stills.svelte';

  /** What the pictures tell of the road: things placed by two stills, and where they are seen. */
  interface Props {
    stills: Stills;
    here: number | null;
    corners: Corner[];
    keep: boolean;
    picture: Blob | null;
  }
  let { stills, here, corners, keep = $bindable(), picture }: Props = $props();

  const KINDS: LandmarkKind[] = [
    'BOARD',
    'POST',
    'TREE',
    'BARRIER',
    'BANNER',
    'KERB',
    'SEAM',
    'ROAD',
    'BRIDGE',
    'OTHER',
  ];
  let label = $state('');
  const owner = $derived(stills.view?.role === 'OWNER');
  const near = $derived(here === null || !stills.view ? [] : stills.inReach(here, stills.view.length).slice(0, 8));
  const held = $derived(stills.landmarks.find((l) => l.id === stills.held));
  const make = (kind: LandmarkKind) =>
    void stills
      .make(kind, titled(kind) ? label.trim() : '', corners, keep ? picture : null)
      .then(() => stills.place ?? (label = ''));
</script>

{#snippet degrees(words: string, label: string, value: number, take: (v: number) => void)}
  <label class="flex items-center gap-1"
    >{words}
    <input
      class="input input-xs w-16"
      type="number"
      step="any"
      aria-label={label}
      value={Math.round(value * 10) / 10}
      onchange={(e) => Number.isFinite(e.currentTarget.valueAsNumber) && take(e.currentTarget.valueAsNumber)}
    />°</label
  >
{/snippet}

<div class="grid gap-2 text-sm" data-stills>
  {#if stills.problem}<ProblemBox problem={stills.problem} />{/if}
  {#if stills.known}
    <p>
      {#if stills.known.length === 0}<strong>The lens, by two things of the survey.</strong> Choose one, then press it in
        the picture.
      {:else}Now another one, on the other side of the picture or much nearer. It may be in another picture.{/if}
      {held ? `Press ${nameOf('landmarks', held)} in the picture.` : ''}
    </p>
  {:else if stills.place}
    {@const p = stills.place}
    <p data-still-place>
      <strong
        >{metres(p.station)} from the line, {metres(Math.abs(p.out), 1)}
        {p.out < 0 ? 'inside the edge' : 'outside'} on the {p.left ? 'left' : 'right'}</strong
      >, ± {metres(p.along, p.along < 10 ? 1 : 0)} along the road and {metres(p.beside, 1)} across it.
      {p.along > 8 ? 'That is a lot: press it again when it is further aside.' : ''}
    </p>
    {#if owner}
      <div class="flex flex-wrap items-center gap-1">
        {#each KINDS.filter((k) => !titled(k)) as k (k)}
          <button class="btn btn-xs" disabled={stills.busy} onclick={() => make(k)}>{LANDMARKS[k].word}</button>
        {/each}
        <label class="flex items-center gap-1">
          <span class="sr-only">What is written on it, or what it is called</span>
          <input class="input input-xs w-24" maxlength="60" placeholder="100" bind:value={label} />
        </label>
        {#each KINDS.filter(titled) as k (k)}
          <button class="btn btn-xs" disabled={stills.busy || !label.trim()} onclick={() => make(k)}
            >{LANDMARKS[k].word}</button
          >
        {/each}
      </div>
      <label class="flex items-start gap-2"
        ><input type="checkbox" class="checkbox checkbox-xs mt-0.5" bind:checked={keep} />
        <span>Keep this part of the picture with it. Leave out faces, plates and names.</span></label
      >
    {:else}
      <p>Only the owner of the circuit puts things on its survey.</p>
    {/if}
  {:else if stills.first}
    <p>Pressed at {metres(stills.first.station)}. Go on until it has moved aside in the picture, and press it again.</p>
  {:else}
    <p>Press a thing in the picture, go on a little, and press it again: that says where it stands.</p>
  {/if}
  {#if stills.first && !stills.known}
    <button class="btn btn-xs justify-self-start" onclick={() => stills.again()}>Forget what was pressed</button>
  {/if}

  {#if near.length && here !== null && (owner || stills.known)}
    <div class="flex flex-wrap items-center gap-1" role="group" aria-label="Things that may be in this picture">
      {#each near as l (l.id)}
        <button
          class={['btn btn-xs', stills.held === l.id ? 'bg-base-300 border-current' : '']}
          aria-pressed={stills.held === l.id}
          data-in-reach={l.id}
          onclick={() => (stills.held = stills.held === l.id ? '' : l.id)}>{nameOf('landmarks', l)}</button
        >
      {/each}
    </div>
    {#if held && !stills.known}
      <div class="flex flex-wrap items-center gap-1">
        <button class="btn btn-xs" disabled={stills.busy} onclick={() => void stills.seen({ comes: here ?? 0 })}
          >Comes into view here</button
        >
        <button class="btn btn-xs" disabled={stills.busy} onclick={() => void stills.seen({ leaves: here ?? 0 })}
          >Leaves the view here</button
        >
        {#if held.seen?.comes != null}<span>in view from {metres(held.seen.comes)}</span>{/if}
        {#if held.seen?.leaves != null}<span>gone at {metres(held.seen.leaves)}</span>{/if}
      </div>
    {/if}
  {/if}
  {#if stills.last}
    <p role="status" data-still-made>
      {nameOf('landmarks', stills.last.now)}: {stills.last.said}.
      <button class="btn btn-xs" disabled={stills.busy} onclick={() => void stills.takeBack()}>Take it back</button>
    </p>
  {/if}
  <details>
    <summary>Lens: {plain(stills.lens.degrees, 0)}° wide</summary>
    <div class="mt-1 flex flex-wrap items-center gap-2">
      {@render degrees('Whole picture', 'Degrees that the whole picture is wide', stills.lens.degrees, (v) =>
        stills.setLens({ degrees: v }),
      )}
      {@render degrees('looks to the right by', 'Degrees that the camera looks to the right', stills.lens.turned, (v) =>
        stills.setLens({ turned: v }),
      )}
      <select
        class="select select-xs w-auto"
        aria-label="Kind of lens"
        value={stills.lens.projection}
        onchange={(e) => stills.setLens({ projection: e.currentTarget.value as 'STRAIGHT' | 'WIDE' })}
      >
        <option value="STRAIGHT">keeps straight lines straight</option>
        <option value="WIDE">wide, bends them</option>
      </select>
      {#if stills.known}
        <button class="btn btn-xs" onclick={() => ((stills.known = null), (stills.held = ''))}>Not now</button>
      {:else}
        <button class="btn btn-xs" onclick={() => (stills.again(), (stills.known = []))}
          >Tell it by two known things</button
        >
      {/if}
    </div>
  </details>
</div>
