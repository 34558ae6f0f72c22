/** How a press is followed. */
export interface Following {
  /** Pixels that the hand must go before it counts as moved; a press that stays is no drag. */
  from?: number;
  /** Told at most once a frame, with where the hand is last, and once more as it lets go. */
  onmove: (at: PointerEvent) => void;
  /** Told once as it lets go; `taken` where the hand was taken away, as by scrolling. */
  onend?: (moved: boolean, taken: boolean) => void;
}

/**
 * Whether a finger only chooses what it pressed: a first tap takes in hand, and only what is in hand moves, so that
 * scrolling never edits.
 */
export function onlyChooses(event: PointerEvent, pressed: SVGElement): boolean {
  if (event.pointerType !== 'touch' || document.activeElement === pressed) return false;
  pressed.focus();
  return true;
}

// A finger's click comes this long after it is lifted at the latest, milliseconds.
const CLICK = 400;

/**
 * Waits for the pointer that is down, if one is, until it is lifted and its click has gone to what was pressed; false
 * where it was taken away, as by scrolling.
 */
export function lifted(down: boolean): Promise<boolean> {
  if (!down) return Promise.resolve(true);
  return new Promise((resolve) => {
    const over = (is: boolean) => {
      window.removeEventListener('pointerup', up);
      window.removeEventListener('pointercancel', taken);
      window.removeEventListener('click', clicked);
      setTimeout(() => resolve(is));
    };
    const clicked = () => over(true);
    const taken = () => over(false);
    const up = () => void setTimeout(clicked, CLICK);
    window.addEventListener('pointerup', up);
    window.addEventListener('pointercancel', taken);
    window.addEventListener('click', clicked);
  });
}

/**
 * Follows the hand that pressed until it lets go: one pointer, wherever it goes, at the pace of the
 * screen. What is being dragged may be drawn anew or elsewhere meanwhile.
 */
export function follow(event: PointerEvent, { from = 0, onmove, onend }: Following): void {
  const { pointerId, clientX, clientY } = event;
  // With the pointer captured it may leave the window; what is drawn anew loses it, not the hand.
  (event.currentTarget as Element | null)?.setPointerCapture?.(pointerId);
  let last: PointerEvent | null = null;
  let moved = false;
  let frame = 0;
  const pass = () => {
    frame = 0;
    if (last) onmove(last);
    last = null;
  };
  const move = (e: PointerEvent) => {
    if (e.pointerId !== pointerId) return;
    moved ||= Math.hypot(e.clientX - clientX, e.clientY - clientY) >= from;
    if (!moved) return;
    last = e;
    frame ||= requestAnimationFrame(pass);
  };
  const end = (e: PointerEvent) => {
    if (e.pointerId !== pointerId) return;
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', end);
    window.removeEventListener('pointercancel', end);
    cancelAnimationFrame(frame);
    pass();
    onend?.(moved, e.type === 'pointercancel');
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', end);
  window.addEventListener('pointercancel', end);
}
