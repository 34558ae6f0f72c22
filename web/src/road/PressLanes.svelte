<script lang="ts">
  import type { Action } from '../api/api';
  import { follow } from '../kit/drag';
  import { GEARS, PADS, type CornerView } from './cornerView.svelte';
  import type { Lane } from './score';

  /** Where nothing is written: a press makes the likeliest action of that lane, and holds it. */
  interface Props {
    view: CornerView;
    lanes: Lane[];
    fixed?: boolean;
    onmake?: (lane: Lane, at: number, amount: number) => Action | null;
    oncarry?: (event: PointerEvent, action: Action, lane: Lane, svg: SVGSVGElement) => void;
  }
  let { view, lanes, fixed = false, onmake, oncarry }: Props = $props();

  const rows = $derived<Record<Lane, [number, number]>>({
    rim: [view.top - 16, 15],
    throttle: [view.pedalTop, view.pedalMid - view.pedalTop],
    brake: [view.pedalMid, view.gearTop - 8 - view.pedalMid],
    gears: [view.gearTop, GEARS],
  });

  function press(event: PointerEvent & { currentTarget: SVGRectElement }, lane: Lane) {
    const svg = event.currentTarget.ownerSVGElement;
    if (fixed || event.button !== 0 || !onmake || !svg) return;
    const box = svg.getBoundingClientRect();
    const at = view.wrapped(Math.round(view.x.invert(event.clientX - box.left) * 2) / 2);
    const share = view.share(lane, event.clientY - box.top);
    const amount = Math.max(0.05, Math.min(1, Math.round(share * 20) / 20));
    if (event.pointerType === 'touch') {
      // A finger that goes on to scroll makes nothing.
      follow(event, {
        from: 8,
        onmove: () => {},
        onend: (moved, taken) => {
          if (!moved && !taken) onmake(lane, at, amount);
        },
      });
      return;
    }
    event.preventDefault();
    const made = onmake(lane, at, amount);
    if (made) oncarry?.(event, made, lane, svg);
  }
</script>

<g data-lanes class={fixed ? '' : 'cursor-crosshair'}>
  {#each lanes as lane (lane)}
    <rect
      x={PADS}
      y={rows[lane][0]}
      width={Math.max(0, view.width - 2 * PADS)}
      height={rows[lane][1]}
      fill="transparent"
      role="presentation"
      data-lane={lane}
      onpointerdown={(e) => press(e, lane)}
    />
  {/each}
</g>
