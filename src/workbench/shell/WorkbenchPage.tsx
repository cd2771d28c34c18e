'use client';
/** The workbench of one design: lenses on top, trees on the left, the map, the inspector, the drawer. */
import { selectionText } from '../state/selectionText';
import Snackbar from '@mui/material/Snackbar';
import { useState } from 'react';
import type { OpenDesign } from '../../contract/api';
import { usePlaying } from '../lenses/break/usePlaying';
import { CablingLine } from '../lenses/cable/CablingLine';
import { Inspector } from '../inspector/Inspector';
import { Drawer } from './Drawer';
import { MapView } from '../map/MapView';
import { TreeRail } from './TreeRail';
import { useWorkbench, WorkbenchProvider } from '../state/context';
import { usePresence } from '../state/usePresence';
import { Boundary } from '../ui/Boundary';
import { ConflictDialog } from './ConflictDialog';
import styles from './frame.module.css';
import { Header } from './Header';
import { KeySheet } from './KeySheet';
import { Notices } from './Notices';
import { Palette } from './Palette';
import { useKeys } from './useKeys';

export function WorkbenchPage({ open }: { readonly open: OpenDesign }) {
  return (
    <WorkbenchProvider open={open}>
      <Frame />
    </WorkbenchProvider>
  );
}

function Frame() {
  const [told, tell] = useState<string | null>(null);
  useKeys(tell);
  usePresence();
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  const breaking = useWorkbench((state) => state.lens === 'Break');
  return (
    <div className={styles.frame}>
      <Header />
      <TreeRail />
      <main className={styles.map} aria-label="Map">
        <Notices />
        {cabling && (
          <Boundary what="The cabling line">
            <CablingLine />
          </Boundary>
        )}
        <div className={styles.mapRoom}>
          <Boundary what="The map">
            <MapView />
          </Boundary>
        </div>
      </main>
      <Boundary what="The inspector">
        <Inspector />
      </Boundary>
      <div className={styles.drawer}>
        <Boundary what="The drawer">
          <Drawer />
        </Boundary>
      </div>
      <ConflictDialog />
      <Palette />
      <KeySheet />
      {breaking && <Turning />}
      <SelectionVoice />
      <Snackbar open={told !== null} autoHideDuration={6000} onClose={() => tell(null)} message={told} />
    </div>
  );
}

/** Turns the clock, whatever table is open. */
function Turning() {
  usePlaying();
  return null;
}

/** Says what is selected to those who hear the screen. */
function SelectionVoice() {
  const text = useWorkbench(selectionText);
  return (
    <div className="visually-hidden" role="status" aria-live="polite" aria-label="Selection">
      {text}
    </div>
  );
}
