'use client';
/** The whole map in a corner, with what is in view; there while some of the map is not, and dragged or clicked to move the view. */
import { MiniMap, useStore, type ReactFlowState } from '@xyflow/react';
import type { Bounds } from './bounds';
import { memo } from 'react';
import styles from './map.module.css';

/** How much of the map may be out of view before it is told, as a share of its size. */
const SLACK = 0.04;

export const Overview = memo(function Overview({ bounds }: { readonly bounds: Bounds }) {
  const beyond = useStore((state: ReactFlowState) => isBeyond(bounds, state));
  if (!beyond) return null;
  return (
    <MiniMap
      className={styles.overview}
      position="bottom-right"
      ariaLabel="The whole map, and what of it is in view"
      pannable
      zoomable
      style={SIZE}
      offsetScale={3}
      nodeColor="var(--ink-soft)"
      nodeStrokeWidth={0}
      bgColor="var(--raised)"
      maskColor="color-mix(in srgb, var(--paper) 72%, transparent)"
      maskStrokeColor="var(--accent)"
      maskStrokeWidth={2}
    />
  );
});

const SIZE = { width: 172, height: 104 } as const;

/** Whether some of the map lies outside of the window. */
export function isBeyond(
  { x, y, width, height }: Bounds,
  { transform: [dx, dy, zoom], width: wide, height: high }: Pick<ReactFlowState, 'transform' | 'width' | 'height'>,
): boolean {
  const [slackX, slackY] = [width * SLACK, height * SLACK];
  return (
    wide > 0 &&
    ((x + slackX) * zoom + dx < 0 ||
      (y + slackY) * zoom + dy < 0 ||
      (x + width - slackX) * zoom + dx > wide ||
      (y + height - slackY) * zoom + dy > high)
  );
}
