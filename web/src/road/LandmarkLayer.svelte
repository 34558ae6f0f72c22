<script lang="ts">
  import type { Landmark } from '../api/api';
  import { metres } from '../words/units';
  import type { CornerView } from './cornerView.svelte';
  import type { Drag } from './drags';
  import LandmarkShape from './LandmarkShape.svelte';
  import { pathOf } from './strip';
  import { LANDMARKS } from './things';

  /** What stands along a corner, to be taken and moved. */
  interface Props {
    view: CornerView;
    landmarks: Landmark[];
    readonly?: boolean;
    drag: Drag;
    onlandmark?: (landmark: Landmark, to: number) => void;
  }
  let { view, landmarks, readonly = false, drag, onlandmark }: Props = $props();

  type Seen = Landmark & { at: number };
  const seen = $derived(
    landmarks
      .map((l): Seen => ({ ...l, at: view.near(l.station) }))
      .filter((l) => l.at > view.domain[0] + 2 && l.at < view.domain[1] - 2),
  );
  let dragged = $state<{ id: string; at: number } | null>(null);
  const landmarkAt = $derived((l: Seen) => (dragged?.id === l.id ? dragged.at : l.at));

  function take(event: PointerEvent, l: Seen) {
    drag(
      event,
      l.at,
      (to) => (dragged = { id: l.id, at: to }),
      (moved) => {
        if (moved && dragged) onlandmark?.(l, dragged.at);
        dragged = null;
      },
    );
  }
  function key(event: KeyboardEvent, l: Seen) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by && !readonly) {
      event.preventDefault();
      onlandmark?.(l, l.at + by * (event.shiftKey ? 5 : 1));
    }
  }
</script>

{#each seen.filter((l) => l.length > 0) as l (l.id)}
  {@const end = Math.min(view.domain[1], l.at + l.length)}
  {@const out = l.left ? -4 : 4}
  <path
    d={pathOf([l.at, (l.at + end) / 2, end].map((s) => [view.x(s), view.y(view.edge(s, l.left)) + out]))}
    fill="none"
    stroke="var(--ink)"
    stroke-width="3"
    stroke-dasharray={l.kind === 'HEDGE' ? '5 2' : undefined}
    opacity="0.7"
    data-extent={l.id}
  />
{/each}
{#each seen as l (l.id)}
  {@const at = landmarkAt(l)}
  <g
    transform="translate({view.x(at)} {view.y(view.edge(at, l.left))})"
    role="slider"
    tabindex={readonly ? -1 : 0}
    aria-label="{l.label} {LANDMARKS[l.kind].word}"
    aria-valuenow={Math.round(l.station)}
    aria-valuetext={metres(l.station)}
    class={readonly ? '' : 'cursor-ew-resize'}
    data-landmark={l.label}
    onpointerdown={(e) => take(e, l)}
    onkeydown={(e) => key(e, l)}
  >
    <LandmarkShape landmark={l} />
  </g>
{/each}
