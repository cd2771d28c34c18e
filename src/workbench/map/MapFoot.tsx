'use client';
/** Below the map: what the letters mean, and zooming. */
import type { Rect } from '@xyflow/react';
import { TextButton } from '../frame/TextButton';
import { useWorkbench } from '../state/context';
import styles from './map.module.css';
import { useZoom } from './zoom';

const LETTERS = [['R', 'root port'], ['D', 'designated'], ['A', 'alternate'], ['B', 'backup']] as const;

export function MapFoot({ bounds }: { readonly bounds: () => Rect }) {
  const zoom = useZoom(bounds);
  const lens = useWorkbench((state) => state.lens);
  return (
    <div className={styles.foot}>
      <span className={styles.zoom}>
        <TextButton onClick={zoom.fit}>whole map</TextButton>
        <TextButton onClick={zoom.closer}>closer</TextButton>
        <TextButton onClick={zoom.farther}>farther</TextButton>
      </span>
      {lens === 'Cable' ? (
        <span>A thicker cable is a faster one; figures at the boxes are port labels.</span>
      ) : (
        <dl aria-label="letters on the map">
          {LETTERS.map(([letter, word]) => (
            <div key={letter}>
              <dt>{letter}</dt>
              <dd>{word}</dd>
            </div>
          ))}
          <div>
            <dd>frayed end: blocks</dd>
          </div>
        </dl>
      )}
    </div>
  );
}
