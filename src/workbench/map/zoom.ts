/** How the whole map is fitted: everything in view, clear of the bars above and below, and no larger than life. */
import type { Viewport } from '@xyflow/react';
import type { Bounds, Rim } from './bounds';
import { NEAR } from './hosts';

export const ZOOM = { least: 0.04, most: 3 } as const;
/** A small map is not blown up. */
const LIFE = 1.15;
const AIR = { top: 50, bottom: 22, x: 14 } as const;
/** Height of the bar below, where it is one line. */
const FOOT = 18;

/** What a map is fitted into, pixels; `foot` is the height of the bar below. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly foot?: number;
}

/** The view that shows all of `bounds` in a frame of this size. */
export function fitted(bounds: Bounds, frame: Frame): Viewport {
  const near = fittedIn(bounds, bounds.rims.near, frame, LIFE);
  return near.zoom >= NEAR ? near : fittedIn(bounds, bounds.rims.afar, frame, NEAR);
}

function fittedIn({ x, y, width, height }: Bounds, rim: Rim, frame: Frame, most: number): Viewport {
  const [left, top] = [AIR.x + rim.left, AIR.top + rim.top];
  const [wide, high] = [
    frame.width - left - AIR.x - rim.right,
    frame.height - top - AIR.bottom - (frame.foot ?? FOOT) - rim.bottom,
  ];
  const zoom = Math.max(ZOOM.least, Math.min(most, wide / Math.max(1, width), high / Math.max(1, height)));
  return {
    x: left + (wide - width * zoom) / 2 - x * zoom,
    y: top + (high - height * zoom) / 2 - y * zoom,
    zoom,
  };
}
