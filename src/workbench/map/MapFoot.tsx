'use client';
/** Below the map: what the letters mean, and zooming. */
import type { Rect } from '@xyflow/react';
import { TextButton } from '../frame/TextButton';
import { useWorkbench } from '../state/context';
import styles from './map.module.css';
import { useZoom } from './zoom';

const LETTERS = [['R', 'root port'], ['D', 'designated'], ['A', 'alternate'], ['B', 'backup']] as const;

export function MapFoot({ bounds, onView }: { readonly bounds: () => Rect; /** Told whether the view is now someone's own, or the whole map. */ readonly onView: (own: boolean) => void }) {
  const zoom = useZoom(bounds);
  const lens = useWorkbench((state) => state.lens);
  return (
    <div className={styles.foot}>
      <span className={styles.zoom}>
        {([['whole map', zoom.fit, false], ['closer', zoom.closer, true], ['farther', zoom.farther, true]] as const).map(([label, go, own]) => (
          <TextButton
            key={label}
            onClick={() => {
              onView(own);
              go();
            }}
          >
            {label}
          </TextButton>
        ))}
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
