/** How the whole map is fitted: a little air around everything, clear of the bars above and below whatever the zoom. */
import { getViewportForBounds, type Rect, type Viewport } from '@xyflow/react';

export const ZOOM = { least: 0.08, most: 3 } as const;
const AIR = { top: '50px', bottom: '40px', x: '14px' } as const;

/** The view that shows all of `bounds` in a frame of this size. */
export const fitted = (bounds: Rect, frame: { readonly width: number; readonly height: number }): Viewport =>
  getViewportForBounds(bounds, frame.width, frame.height, ZOOM.least, ZOOM.most, AIR);
