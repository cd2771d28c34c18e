/** How much of the map is worth drawing: seen from afar or from near, and which part is in view. */
import { useStore, type ReactFlowState } from '@xyflow/react';
import { createContext, useContext, useState } from 'react';
import type { Line } from './drawn';
import { useScale } from './scale';

/** Below this zoom a large map is drawn tree by tree: its links are too short for letters, and too many. */
const NEAR = 0.5;
/** As many links are drawn one by one at any zoom. */
const FEW = 110;

const ManyContext = createContext(false);
/** Whether the map has many links to draw; for what is in it. */
export const ManyProvider = ManyContext;
export const isMany = (links: number): boolean => links > FEW;

/** Whether the map is large and seen from afar. It comes near when the view rests, since much is drawn then, and goes far at once. */
export function useFar(): boolean {
  const many = useContext(ManyContext);
  const scale = useScale();
  return useStore((state: ReactFlowState) => many && (scale < NEAR || state.transform[2] < NEAR));
}

/** A rectangle in pixels at the map's scale. */
export interface Window {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

function windowOf({ transform: [x, y, zoom], width, height }: ReactFlowState, scale: number, rim: number): Window {
  const unit = scale / zoom;
  const [w, h] = [width * unit, height * unit];
  const [left, top] = [-x * unit, -y * unit];
  return { left: left - w * rim, top: top - h * rim, right: left + w * (1 + rim), bottom: top + h * (1 + rim) };
}

const holds = (outer: Window, inner: Window): boolean =>
  outer.left <= inner.left && outer.top <= inner.top && outer.right >= inner.right && outer.bottom >= inner.bottom;
const muchLarger = (outer: Window, inner: Window): boolean => outer.right - outer.left > 4 * (inner.right - inner.left);

/** What is in view with a quarter of a screen around it; stays the same while the view moves within. */
export function useWindow(): Window {
  const scale = useScale();
  const [keep] = useState(windowKeeper);
  return useStore((state: ReactFlowState) => keep(state, scale));
}

/** Keeps the last window while what is in view at the same scale lies within it. */
function windowKeeper(): (state: ReactFlowState, scale: number) => Window {
  let last: { readonly window: Window; readonly scale: number } | null = null;
  return (state, scale) => {
    const view = windowOf(state, scale, 0);
    if (last?.scale !== scale || !holds(last.window, view) || muchLarger(last.window, view))
      last = { window: windowOf(state, scale, 0.25), scale };
    return last.window;
  };
}

/** Whether a line may touch a window: its bounding rectangle does. */
export const inWindow = ({ from, to }: Line, { left, top, right, bottom }: Window): boolean =>
  Math.max(from.x, to.x) >= left &&
  Math.min(from.x, to.x) <= right &&
  Math.max(from.y, to.y) >= top &&
  Math.min(from.y, to.y) <= bottom;
