'use client';
/** The workbench of one design: lenses on top, trees on the left, the map, the inspector, the drawer. */
import { selectionText } from '../state/selectionText';
import Snackbar from '@mui/material/Snackbar';
import { useState } from 'react';
import type { OpenDesign } from '../../contract/api';
import { manifestOf } from '../lenses/lenses';
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
  const lens = useWorkbench((state) => state.lens);
  const { Above, layers } = manifestOf(lens);
  return (
    <div className={styles.frame}>
      <Header />
      <TreeRail />
      <main className={styles.map} aria-label="Map">
        <Notices />
        {Above && (
          <Boundary what="The line above the map">
            <Above />
          </Boundary>
        )}
        <div className={styles.mapRoom}>
          <Boundary what="The map">
            <MapView Under={layers?.under} Over={layers?.over} />
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
      <SelectionVoice />
      <Snackbar open={told !== null} autoHideDuration={6000} onClose={() => tell(null)} message={told} />
    </div>
  );
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
