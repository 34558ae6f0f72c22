<script lang="ts">
  import type { Corner } from '../api/api';
  import { follow } from '../kit/drag';
  import { tell } from '../words/tell';
  import { WIDEST, type CornerView, type Point } from './cornerView.svelte';
  import { pathOf } from './strip';

  /** The road of a corner, unrolled, and its edges, beside which a place across may be made. */
  interface Props {
    view: CornerView;
    corner: Corner;
    /** Told where an edge was pressed, and how many metres off it. */
    onedge?: (at: number, left: boolean, off: number) => void;
  }
  let { view, corner, onedge }: Props = $props();

  const { near } = $derived(view);
  const lane = (edge: Point[], by: number) =>
    pathOf([...edge, ...edge.map(([px, py]): Point => [px, py + by]).toReversed()], true);

  function press(event: PointerEvent & { currentTarget: SVGPathElement }, left: boolean) {
    const svg = event.currentTarget.ownerSVGElement;
    if (event.button !== 0 || !onedge || !svg) return;
    const box = svg.getBoundingClientRect();
    const at = Math.round(view.x.invert(event.clientX - box.left));
    const off = Math.abs(event.clientY - box.top - view.y(view.edge(at, left))) / Math.abs(view.y(1) - view.y(0));
    const make = () => onedge(view.wrapped(at), left, Math.round(off * 10) / 10);
    if (event.pointerType !== 'touch') {
      event.preventDefault();
      make();
      return;
    }
    // A finger that goes on to scroll makes nothing.
    follow(event, {
      from: 8,
      onmove: () => {},
      onend: (moved, taken) => {
        if (!moved && !taken) make();
      },
    });
  }
</script>

<path d={pathOf([...view.leftEdge, ...view.rightEdge.toReversed()], true)} fill="var(--road)" />
<rect
  x={view.x(near(corner.entry))}
  y={view.y(view.widest / 2)}
  width={Math.max(0, view.x(near(corner.exit)) - view.x(near(corner.entry)))}
  height={WIDEST}
  fill="var(--road-quiet)"
  opacity="0.55"
/>
<text
  x={view.x(near(corner.entry)) + 4}
  y={corner.left ? view.y(-view.widest / 2) - 5 : view.y(view.widest / 2) + 13}
  style="fill:var(--ink-soft)"
>
  {tell('roadLayer.bends_left_bends_right', { hasLeft: !!corner.left })}
</text>
{#if onedge}
  <path
    d={lane(view.leftEdge, 16)}
    fill="transparent"
    class="cursor-crosshair"
    role="presentation"
    data-lane="left-edge"
    onpointerdown={(e) => press(e, true)}
  />
  <path
    d={lane(view.rightEdge, -16)}
    fill="transparent"
    class="cursor-crosshair"
    role="presentation"
    data-lane="right-edge"
    onpointerdown={(e) => press(e, false)}
  />
{/if}
<path d={pathOf(view.leftEdge)} fill="none" stroke="var(--road-edge)" stroke-width="1.8" />
<path d={pathOf(view.rightEdge)} fill="none" stroke="var(--road-edge)" stroke-width="1.8" />
