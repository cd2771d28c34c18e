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

/** The scale, and what sets it at once. */
export function useZoomScale(): [number, (scale: number) => void] {
  const flow = useStoreApi();
  const [scale, setScale] = useState(1);
  useEffect(() => {
    let rest: ReturnType<typeof setTimeout> | undefined;
    let seen = flow.getState().transform[2];
    const stop = flow.subscribe(({ transform: [, , zoom] }) => {
      if (zoom === seen) return;
      seen = zoom;
      clearTimeout(rest);
      rest = setTimeout(() => setScale((now) => (suits(now, zoom) ? now : zoom)), REST_MS);
    });
    return () => {
      stop();
      clearTimeout(rest);
    };
  }, [flow]);
  return [scale, setScale];
}

/** Whether the scale has been the same for a while. */
export function useCalm(scale: number): boolean {
  const [calm, setCalm] = useState(scale);
  useEffect(() => {
    const wait = setTimeout(() => setCalm(scale), CALM_MS);
    return () => clearTimeout(wait);
  }, [scale]);
  return calm === scale;
}

/** The style of what is drawn in pixels at `scale` inside of React Flow's own map units. */
export const inPixels = (scale: number): CSSProperties => ({
  transform: `scale(${1 / scale})`,
  transformOrigin: '0 0',
});
