<script lang="ts">
  import type { Corner } from '../../api/api';
  import type { SurveyDesk } from './survey.svelte';
  import { newId } from '../../kit/id';
  import { degrees, radiusText } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import { tell } from '../../words/tell';

  interface Props {
    desk: SurveyDesk;
    corner: Corner;
    length: number;
    onselect: (id: string) => void;
  }
  let { desk, corner, length, onselect }: Props = $props();

  const index = $derived(desk.corners.findIndex((c) => c.id === corner.id));
  const next = $derived(desk.corners[(index + 1) % desk.corners.length]);
  const wrap = (s: number) => ((s % length) + length) % length;

  function edit(change: Partial<Corner>, key: string | null = null) {
    desk.arrange(
      desk.corners.map((c) => (c.id === corner.id ? { ...c, ...change } : c)),
      key && `${corner.id} ${key}`,
    );
  }
  function split() {
    const span = wrap(corner.exit - corner.entry);
    const [a, b] = corner.apexes;
    const at = Math.round(
      a !== undefined && b !== undefined ? wrap(a + wrap(b - a) / 2) : wrap(corner.entry + span / 2),
    );
    const base = corner.number.replace(/[A-Z]$/, '');
    const first: Corner = {
      ...corner,
      number: `${base}A`,
      exit: at,
      apexes: a !== undefined && b !== undefined ? [a] : [],
    };
    const second: Corner = {
      ...corner,
      id: `c${newId().slice(0, 8)}`,
      number: `${base}B`,
      name: '',
      entry: at,
      apexes: b !== undefined ? [b] : [],
    };
    desk.arrange(desk.corners.flatMap((c) => (c.id === corner.id ? [first, second] : [c])));
  }
  function merge() {
    if (!next || next.id === corner.id) return;
    const apexes =
      corner.left === next.left
        ? [corner.apexes[0] ?? corner.entry, next.apexes[next.apexes.length - 1] ?? next.exit]
        : [];
    const one: Corner = {
      ...corner,
      number: corner.number.replace(/A$/, ''),
      name: corner.name || next.name,
      exit: next.exit,
      apexes,
    };
    desk.arrange(desk.corners.filter((c) => c.id !== next.id).map((c) => (c.id === corner.id ? one : c)));
  }
  /** Numbers every corner that counts from 1 on, in driving order. */
  function renumber() {
    let n = 0;
    desk.arrange(desk.corners.map((c) => (c.uncounted ? c : { ...c, number: String(++n) })));
  }
  function group(withNext: boolean) {
    if (!next) return;
    if (!withNext) {
      edit({ complex: 0 });
      return;
    }
    const free = 1 + Math.max(0, ...desk.corners.map((c) => c.complex));
    const group = corner.complex || next.complex || free;
    desk.arrange(desk.corners.map((c) => (c.id === corner.id || c.id === next.id ? { ...c, complex: group } : c)));
  }
</script>

<section class="grid content-start gap-2" aria-label={tell('cornerEditor.the_corner_selected')} data-editor="corners">
  <h2 class="text-lg font-bold">
    {tell('cornerEditor.corner', { corner: cornerWord(corner) })}
    <span class="text-base font-normal">
      {tell('cornerEditor.left_right_at_radius', {
        hasLeft: !!corner.left,
        angle: Math.round(degrees(corner.angle)),
        corner: radiusText(corner),
      })}
    </span>
  </h2>
  <div class="flex flex-wrap items-end gap-x-3 gap-y-2">
    <label class="grid gap-0.5 text-sm">
      {tell('cornerEditor.number')}
      <input
        class="input input-sm w-20"
        name="number"
        maxlength="6"
        value={corner.number}
        onchange={(e) => edit({ number: e.currentTarget.value.trim() }, 'number')}
      />
    </label>
    <label class="grid gap-0.5 text-sm">
      {tell('cornerEditor.name')}
      <input
        class="input input-sm w-44"
        name="name"
        maxlength="60"
        value={corner.name}
        onchange={(e) => edit({ name: e.currentTarget.value.trim() }, 'name')}
      />
    </label>
    <label class="flex items-center gap-1 pb-1 text-sm">
      <input
        type="checkbox"
        class="checkbox checkbox-sm"
        checked={corner.uncounted}
        onchange={(e) => edit({ uncounted: e.currentTarget.checked })}
      />
      {tell('cornerEditor.flat_kink_not_counted')}
    </label>
    <button type="button" class="btn btn-sm" onclick={split}>{tell('cornerEditor.split_in_two')}</button>
    {#if next && next.id !== corner.id}
      <button type="button" class="btn btn-sm" onclick={merge}
        >{tell('cornerEditor.merge_with', { next: cornerWord(next) })}</button
      >
      <button
        type="button"
        class="btn btn-sm"
        onclick={() => group(!corner.complex || corner.complex !== next.complex)}
      >
        {tell('cornerEditor.take_out_of_the_complex', {
          hasComplex: !!(corner.complex && corner.complex === next.complex),
          next: cornerWord(next),
        })}
      </button>
    {/if}
    <label class="flex items-center gap-1 pb-1 text-sm">
      <input
        type="checkbox"
        class="checkbox checkbox-sm"
        checked={corner.apexes.length > 1}
        onchange={(e) => {
          const span = wrap(corner.exit - corner.entry);
          edit({
            apexes: e.currentTarget.checked ? [wrap(corner.entry + span * 0.3), wrap(corner.entry + span * 0.7)] : [],
          });
        }}
      />
      {tell('cornerEditor.two_apexes')}
    </label>
    <button type="button" class="btn btn-sm" onclick={renumber}>{tell('cornerEditor.number_all_from_1')}</button>
  </div>
  <p class="text-sm">{tell('cornerEditor.drag_entry_apex_and_exit')}</p>
  <div class="flex flex-wrap gap-1" role="group" aria-label={tell('cornerEditor.corners')}>
    {#each desk.corners as c (c.id)}
      <button
        type="button"
        class={['btn btn-xs', c.id === corner.id ? 'btn-primary' : '', c.uncounted ? 'opacity-60' : '']}
        onclick={() => onselect(c.id)}>{cornerWord(c)}</button
      >
    {/each}
  </div>
</section>
