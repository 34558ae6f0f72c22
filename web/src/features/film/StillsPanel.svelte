<script lang="ts">
  import type { Corner } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { LANDMARKS, nameOf, type LandmarkKind } from '../../road/things';
  import { metres, plain } from '../../words/units';
  import { titled, type Stills } from './stills.svelte';
  import { tell } from '../../words/tell';

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
      {#if stills.known.length === 0}<strong>{tell('stillsPanel.the_lens_by_two_things')}</strong>
        {tell('stillsPanel.choose_one_then_press_it')}
      {:else}{tell('stillsPanel.now_another_one_on_the')}{/if}
      {held ? tell('stillsPanel.press_in_the_picture', { held: nameOf('landmarks', held) }) : ''}
    </p>
  {:else if stills.place}
    {@const p = stills.place}
    <p data-still-place>
      <strong
        >{tell('stillsPanel.from_the_line_inside_the', {
          station: metres(p.station),
          out: metres(Math.abs(p.out), 1),
          lessOut: p.out < 0,
          hasLeft: !!p.left,
        })}</strong
      >{tell('stillsPanel.along_the_road_and_across', {
        along: metres(p.along, p.along < 10 ? 1 : 0),
        beside: metres(p.beside, 1),
        isAlong: p.along > 8,
      })}
    </p>
    {#if owner}
      <div class="flex flex-wrap items-center gap-1">
        {#each KINDS.filter((k) => !titled(k)) as k (k)}
          <button class="btn btn-xs" disabled={stills.busy} onclick={() => make(k)}>{LANDMARKS[k].word}</button>
        {/each}
        <label class="flex items-center gap-1">
          <span class="sr-only">{tell('stillsPanel.what_is_written_on_it')}</span>
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
        <span>{tell('stillsPanel.keep_this_part_of_the')}</span></label
      >
    {:else}
      <p>{tell('stillsPanel.only_the_owner_of_the')}</p>
    {/if}
  {:else if stills.first}
    <p>{tell('stillsPanel.pressed_at_go_on_until', { station: metres(stills.first.station) })}</p>
  {:else}
    <p>{tell('stillsPanel.press_a_thing_in_the')}</p>
  {/if}
  {#if stills.first && !stills.known}
    <button class="btn btn-xs justify-self-start" onclick={() => stills.again()}
      >{tell('stillsPanel.forget_what_was_pressed')}</button
    >
  {/if}

  {#if near.length && here !== null && (owner || stills.known)}
    <div class="flex flex-wrap items-center gap-1" role="group" aria-label={tell('stillsPanel.things_that_may_be_in')}>
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
          >{tell('stillsPanel.comes_into_view_here')}</button
        >
        <button class="btn btn-xs" disabled={stills.busy} onclick={() => void stills.seen({ leaves: here ?? 0 })}
          >{tell('stillsPanel.leaves_the_view_here')}</button
        >
        {#if held.seen?.comes != null}<span>{tell('stillsPanel.in_view_from', { comes: metres(held.seen.comes) })}</span
          >{/if}
        {#if held.seen?.leaves != null}<span>{tell('stillsPanel.gone_at', { leaves: metres(held.seen.leaves) })}</span
          >{/if}
      </div>
    {/if}
  {/if}
  {#if stills.last}
    <p role="status" data-still-made>
      {nameOf('landmarks', stills.last.now)}: {stills.last.said}.
      <button class="btn btn-xs" disabled={stills.busy} onclick={() => void stills.takeBack()}
        >{tell('stillsPanel.take_it_back')}</button
      >
    </p>
  {/if}
  <details>
    <summary>{tell('stillsPanel.lens_wide', { degrees: plain(stills.lens.degrees, 0) })}</summary>
    <div class="mt-1 flex flex-wrap items-center gap-2">
      {@render degrees(
        tell('stillsPanel.whole_picture'),
        tell('stillsPanel.degrees_that_the_whole_picture'),
        stills.lens.degrees,
        (v) => stills.setLens({ degrees: v }),
      )}
      {@render degrees(
        tell('stillsPanel.looks_to_the_right_by'),
        tell('stillsPanel.degrees_that_the_camera_looks'),
        stills.lens.turned,
        (v) => stills.setLens({ turned: v }),
      )}
      <select
        class="select select-xs w-auto"
        aria-label={tell('stillsPanel.kind_of_lens')}
        value={stills.lens.projection}
        onchange={(e) => stills.setLens({ projection: e.currentTarget.value as 'STRAIGHT' | 'WIDE' })}
      >
        <option value="STRAIGHT">{tell('stillsPanel.keeps_straight_lines_straight')}</option>
        <option value="WIDE">{tell('stillsPanel.wide_bends_them')}</option>
      </select>
      {#if stills.known}
        <button class="btn btn-xs" onclick={() => ((stills.known = null), (stills.held = ''))}
          >{tell('stillsPanel.not_now')}</button
        >
      {:else}
        <button class="btn btn-xs" onclick={() => (stills.again(), (stills.known = []))}
          >{tell('stillsPanel.tell_it_by_two_known')}</button
        >
      {/if}
    </div>
  </details>
</div>
