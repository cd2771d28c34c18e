/** Zooming by buttons and keys. */
import { useReactFlow, type Rect } from '@xyflow/react';

/** How the whole map is fitted: a little air around everything, clear of the bars above and below. */
export const FIT = { padding: 0.02 } as const;

/** Ways to zoom; `bounds` says what the whole map is. */
export function useZoom(bounds: () => Rect) {
  const flow = useReactFlow();
  return { closer: () => void flow.zoomIn(), farther: () => void flow.zoomOut(), fit: () => void flow.fitBounds(bounds(), FIT) };
}
