import { follow, onlyChooses } from '../kit/drag';
import type { CornerView } from './cornerView.svelte';

/** Carries something of a corner along it: from which station, where it is wanted, and whether it was moved. */
export type Drag = (
  event: PointerEvent,
  from: number,
  move: (to: number) => void,
  done: (moved: boolean) => void,
) => void;

/** Drags along a corner by half metres, the window held still meanwhile. */
export function dragsAlong(view: CornerView, readonly: () => boolean): Drag {
  return (event, from, move, done) => {
    const held = event.currentTarget as SVGElement;
    const svg = held.ownerSVGElement;
    if (readonly() || event.button !== 0 || !svg) return;
    if (onlyChooses(event, held)) return;
    event.preventDefault();
    held.focus();
    view.hold(true);
    const left = svg.getBoundingClientRect().left;
    const stationAt = (clientX: number) => view.x.invert(clientX - left);
    const grip = stationAt(event.clientX) - from;
    follow(event, {
      onmove: (e) => move(Math.round((stationAt(e.clientX) - grip) * 2) / 2),
      onend: (moved) => {
        view.hold(false);
        done(moved);
      },
    });
  };
}
