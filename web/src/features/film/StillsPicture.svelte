<script lang="ts">
  import { partAround, type Sight, type Stills } from './stills.svelte';
  import { tell } from '../../words/tell';

  /** The picture as something to press on: what was pressed stays marked, each with its own shape. */
  interface Props {
    stills: Stills;
    /** Station of the vehicle in this picture; null outside of the lap. */
    here: number | null;
    keep: boolean;
    onpress: (sight: Sight) => void;
  }
  let { stills, here, keep, onpress }: Props = $props();
  let cross = $state({ across: 0, down: 0.5 });
  let keyed = $state(false);

  const marks = $derived([
    ...(stills.known ?? []).map((s) => ({ ...s, of: 'known' })),
    ...(stills.first ? [{ ...stills.first, of: 'first' }] : []),
    ...(stills.second ? [{ ...stills.second, of: 'second' }] : []),
  ]);
  const part = $derived(keep && stills.place && stills.second ? partAround(stills.second, 100, 56.25) : null);

  function press(e: MouseEvent & { currentTarget: HTMLButtonElement }) {
    if (here === null) return;
    // A key presses where the cross is.
    if (e.detail === 0) return onpress({ station: here, ...cross });
    const box = e.currentTarget.getBoundingClientRect();
    const across = Math.max(-1, Math.min(1, (2 * (e.clientX - box.left)) / box.width - 1));
    onpress({ station: here, across, down: Math.max(0, Math.min(1, (e.clientY - box.top) / box.height)) });
  }
  function keys(e: KeyboardEvent) {
    const by = e.shiftKey ? 0.002 : 0.02;
    const move = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
    if (!move) return;
    e.preventDefault();
    e.stopPropagation();
    keyed = true;
    const held = (v: number, low: number) => Math.max(low, Math.min(1, v));
    cross = { across: held(cross.across + (move[0] ?? 0), -1), down: held(cross.down + (move[1] ?? 0), 0) };
  }
  const left = (across: number) => `${((across + 1) / 2) * 100}%`;
</script>

<button
  class="absolute inset-0 cursor-crosshair"
  aria-label={tell('stillsPicture.the_picture_press_the_thing')}
  data-still
  disabled={here === null}
  onclick={press}
  onkeydown={keys}
  onblur={() => (keyed = false)}
>
  {#if part}
    <span
      class="pointer-events-none absolute border-2 border-dashed border-white"
      style="left:{part.x}%;top:{(part.y / 56.25) * 100}%;width:{part.width}%;height:{(part.height / 56.25) * 100}%"
    ></span>
  {/if}
  {#if keyed}
    <span class="pointer-events-none absolute top-0 h-full w-px bg-white/80" style="left:{left(cross.across)}"></span>
    <span class="pointer-events-none absolute left-0 h-px w-full bg-white/80" style="top:{cross.down * 100}%"></span>
  {/if}
  {#each marks as m (m)}
    <span
      class="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded bg-black/70 px-1 text-xs text-white"
      style="left:{left(m.across)};top:{m.down * 100}%"
      >{tell('stillsPicture.first_again_known', { isFirst: m.of === 'first', isSecond: m.of === 'second' })}</span
    >
  {/each}
</button>
