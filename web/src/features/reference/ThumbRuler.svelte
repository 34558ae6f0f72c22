<script lang="ts">
  import { follow } from '../../kit/drag';
  import { tell } from '../../words/tell';
  import { metres } from '../../words/units';

  /** A ruler under the thumb, off the drawing: what is in hand moves a metre a tick. */
  interface Props {
    /** What is moved. */
    word: string;
    station: number;
    onmove: (by: number) => void;
    onsettle: () => void;
  }
  let { word, station, onmove, onsettle }: Props = $props();

  const TICK = 10;
  let width = $state(360);
  /** Metres under way since the thumb came down. */
  let gone = $state(0);
  const ticks = $derived(Array.from({ length: Math.ceil(width / TICK / 2) * 2 + 3 }, (_, i) => i));

  function press(event: PointerEvent) {
    if (event.button !== 0) return;
    // What is in hand stays in hand.
    event.preventDefault();
    gone = 0;
    follow(event, {
      onmove: (e) => {
        const metre = Math.round((e.clientX - event.clientX) / TICK);
        if (metre !== gone) onmove(metre - gone);
        gone = metre;
      },
      onend: (moved) => {
        if (moved) onsettle();
      },
    });
  }
  function key(event: KeyboardEvent) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    onmove(by * (event.shiftKey ? 5 : 1));
    onsettle();
  }
</script>

<div bind:clientWidth={width} class="mt-1" data-ruler>
  <svg
    {width}
    height="48"
    class="block touch-none select-none"
    role="slider"
    tabindex="0"
    aria-label={tell('thumbRuler.moves', { word })}
    aria-valuenow={Math.round(station)}
    aria-valuetext={metres(station)}
    onpointerdown={press}
    onmousedown={(e) => e.preventDefault()}
    onkeydown={key}
  >
    <rect x="0.5" y="0.5" width={width - 1} height="47" rx="4" fill="var(--color-base-100)" stroke="var(--ink-soft)" />
    {#each ticks as i (i)}
      {@const at = width / 2 + (i - Math.floor(ticks.length / 2)) * TICK + (gone % 5) * TICK}
      {#if at > 4 && at < width - 4}
        <path d="M{at} 30v{(i - Math.floor(ticks.length / 2)) % 5 === 0 ? 14 : 8}" stroke="var(--ink-soft)" />
      {/if}
    {/each}
    <path d="M{width / 2} 24v22" stroke="var(--ink)" stroke-width="2" />
    <text x={width / 2} y="18" text-anchor="middle" font-weight="700">{word} {metres(station)}</text>
  </svg>
</div>
