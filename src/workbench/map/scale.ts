'use client';
/**
 * The scale that the map is laid out for: pixels of the screen for a map unit. It follows the zoom when the view comes to
 * rest, so that text has its size on the screen whatever the zoom; while the view moves the drawing is stretched as it is.
 */
import { useStoreApi } from '@xyflow/react';
import { createContext, useContext, useEffect, useState, type CSSProperties } from 'react';

const ScaleContext = createContext(1);
export const ScaleProvider = ScaleContext;
export const useScale = (): number => useContext(ScaleContext);

/** How far the zoom may exceed the scale before all is laid out again: text is never smaller than it is meant. */
const SLACK = 1.08;
/** How long the zoom stays the same before it counts as at rest. */
const REST_MS = 200;
/** And how long until what takes time is done for it as well. */
const CALM_MS = 400;

/** Whether a drawing for `scale` will do at `zoom`. */
export const suits = (scale: number, zoom: number): boolean => zoom >= scale * 0.999 && zoom <= scale * SLACK;

/**
 * Calls `then` each time that the zoom has stayed the same for so long, and gives what ends that. Two frames pass before
 * it counts: where frames take longer than that, the turns of the wheel that have come meanwhile are heard first.
 */
function whenStill(flow: ReturnType<typeof useStoreApi>, ms: number, then: (zoom: number) => void): () => void {
  let rest: ReturnType<typeof setTimeout> | undefined;
  let frame = 0;
  let seen = flow.getState().transform[2];
  const wait = (): void => {
    clearTimeout(rest);
    cancelAnimationFrame(frame);
    rest = setTimeout(() => {
      frame = requestAnimationFrame(() => (frame = requestAnimationFrame(() => then(seen))));
    }, ms);
  };
  wait();
  const stop = flow.subscribe(({ transform: [, , zoom] }) => {
    if (zoom === seen) return;
    seen = zoom;
    wait();
  });
  return () => {
    stop();
    clearTimeout(rest);
    cancelAnimationFrame(frame);
  };
}

/** The scale, and what sets it at once. */
export function useZoomScale(): [number, (scale: number) => void] {
  const flow = useStoreApi();
  const [scale, setScale] = useState(1);
  useEffect(() => whenStill(flow, REST_MS, (zoom) => setScale((now) => (suits(now, zoom) ? now : zoom))), [flow]);
  return [scale, setScale];
}

/** Whether the scale, and the zoom, have been the same for a while. */
export function useCalm(scale: number): boolean {
  const flow = useStoreApi();
  const [calm, setCalm] = useState(scale);
  useEffect(() => whenStill(flow, CALM_MS, () => setCalm(scale)), [flow, scale]);
  return calm === scale;
}

/** The style of what is drawn in pixels at `scale` inside of React Flow's own map units. */
export const inPixels = (scale: number): CSSProperties => ({
  transform: `scale(${1 / scale})`,
  transformOrigin: '0 0',
});
