/** How much of the map is worth drawing: seen from afar or from near, and which part is in view. */
import { useStore, type ReactFlowState } from '@xyflow/react';
import { useState } from 'react';
import type { Line } from './geometry';

/** Below this zoom letters and port labels are too small to read. */
const NEAR = 0.5;

/**
 * Whether the map is seen from too far to read letters. What is near takes a while to draw, so it is drawn between
 * frames while the view still moves.
 */
export const useFar = (): boolean => useStore((state: ReactFlowState) => state.transform[2] < NEAR);

/** A rectangle in map units. */
export interface Window {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

function windowOf({ transform: [x, y, zoom], width, height }: ReactFlowState, rim: number): Window {
  const [w, h] = [width / zoom, height / zoom];
  const [left, top] = [-x / zoom, -y / zoom];
  return { left: left - w * rim, top: top - h * rim, right: left + w * (1 + rim), bottom: top + h * (1 + rim) };
}

const holds = (outer: Window, inner: Window): boolean =>
  outer.left <= inner.left && outer.top <= inner.top && outer.right >= inner.right && outer.bottom >= inner.bottom;
const muchLarger = (outer: Window, inner: Window): boolean => outer.right - outer.left > 4 * (inner.right - inner.left);

/** What is in view with a quarter of a screen around it; stays the same while the view moves within. */
export function useWindow(): Window {
  const [keep] = useState(() => {
    let last: Window | null = null;
    return (state: ReactFlowState): Window => {
      const view = windowOf(state, 0);
      if (!last || !holds(last, view) || muchLarger(last, view)) last = windowOf(state, 0.25);
      return last;
    };
  });
  return useStore(keep);
}

/** Whether a line may touch a window: its bounding rectangle does. */
export const inWindow = ({ from, to }: Line, { left, top, right, bottom }: Window): boolean =>
  Math.max(from.x, to.x) >= left &&
  Math.min(from.x, to.x) <= right &&
  Math.max(from.y, to.y) >= top &&
  Math.min(from.y, to.y) <= bottom;
