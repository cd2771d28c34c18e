/** One layer of the map's drawing, in pixels at the map's scale. */
import type { ReactNode } from 'react';
import styles from './map.module.css';
import { inPixels, useScale } from './scale';

interface Props {
  /** Above switches where it is positive, below them where it is negative. */
  readonly level: number;
  readonly children: ReactNode;
}

export function MapLayer({ level, children }: Props) {
  const scale = useScale();
  return (
    <svg className={styles.strands} style={{ ...inPixels(scale), zIndex: level }} aria-hidden="true">
      {children}
    </svg>
  );
}
