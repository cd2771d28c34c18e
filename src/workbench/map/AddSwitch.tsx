'use client';
/** Beginning to cable by pointer: a new switch in the middle of what is seen, and what to do on empty paper. */
import Button from '@mui/material/Button';
import { Panel } from '@xyflow/react';
import { freshSwitch } from '../../core/edit/fresh';
import { CABLING_FIELD } from '../state/cablingField';
import { TextButton } from '../ui/TextButton';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import type { Workbench } from '../state/store';
import { freePlace } from './freePlace';
import type { Point } from './geometry';
import styles from './map.module.css';

/** Adds a switch where there is room near the middle of what is seen, and selects it. */
export function addSwitch({ newest, act, select, controls }: Workbench): void {
  const middle = controls?.middle() ?? { x: 0, y: 0 };
  const { id, command } = freshSwitch(
    newest(),
    freePlace(middle, (controls?.places() ?? new Map<string, Point>()).values()),
  );
  if (act(command) === null) select({ kind: 'switch', switch: id });
}

export function AddSwitch() {
  const store = useWorkbenchStore();
  return (
    <Panel position="top-right" className={styles.panelAdd}>
      <Button variant="outlined" onClick={() => addSwitch(store.getState())}>
        Add switch
      </Button>
    </Panel>
  );
}

export function EmptyMap() {
  const setLens = useWorkbench((state) => state.setLens);
  const toLine = () => {
    setLens('Cable');
    requestAnimationFrame(() => document.getElementById(CABLING_FIELD)?.focus());
  };
  return (
    <Panel position="top-center" className={styles.empty}>
      <h2>Nothing is plugged in yet</h2>
      <p>
        In the <TextButton onClick={toLine}>Cable view</TextButton>, write what is cabled into the line above the map (
        <code>a 1 = b 1</code>, then Enter), or “Add switch” and draw a cable from it. A .knot.json file can be imported
        in the list of designs.
      </p>
    </Panel>
  );
}
