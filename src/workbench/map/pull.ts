/** A press that becomes a pull once the pointer has moved far enough; Escape, or a pointer that the system takes away, ends it without a drop. */
import type { PointerEvent as ReactPointerEvent } from 'react';

/** How far the pointer must move before a press is a pull, in pixels. */
const SLACK = 5;

export interface Pull {
  readonly move: (event: PointerEvent) => void;
  readonly drop: (event: PointerEvent) => void;
  /** However it ends, before a drop. */
  readonly end: () => void;
}

/** Follows the pointer from a press on. */
export function pull(press: ReactPointerEvent, { move, drop, end }: Pull): void {
  const [x0, y0] = [press.clientX, press.clientY];
  let pulling = false;
  const onMove = (event: PointerEvent) => {
    pulling ||= Math.hypot(event.clientX - x0, event.clientY - y0) > SLACK;
    if (pulling) move(event);
  };
  const finish = () => {
    window.removeEventListener('pointermove', onMove);
    window.removeEventListener('pointerup', onUp);
    window.removeEventListener('pointercancel', finish);
    window.removeEventListener('keydown', onKey, true);
    end();
  };
  const onUp = (event: PointerEvent) => {
    finish();
    if (pulling) drop(event);
  };
  const onKey = (key: KeyboardEvent) => {
    if (key.key !== 'Escape') return;
    key.stopPropagation();
    finish();
  };
  window.addEventListener('pointermove', onMove);
  window.addEventListener('pointerup', onUp);
  window.addEventListener('pointercancel', finish);
  window.addEventListener('keydown', onKey, true);
}
