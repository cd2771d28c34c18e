'use client';
/** The workbench of one design: lenses on top, trees on the left, the map, the inspector, the drawer. */
import type { OpenDesign } from '../../contract/api';
import { CablingLine } from '../cabling/CablingLine';
import { Inspector } from '../inspector/Inspector';
import { Drawer } from '../ledger/Drawer';
import { MapView } from '../map/MapView';
import { TreeRail } from '../rail/TreeRail';
import { useWorkbench, WorkbenchProvider } from '../state/context';
import { ConflictDialog } from './ConflictDialog';
import styles from './frame.module.css';
import { Header } from './Header';
import { useKeys } from './useKeys';

export function WorkbenchPage({ open }: { readonly open: OpenDesign }) {
  return (
    <WorkbenchProvider open={open}>
      <Frame />
    </WorkbenchProvider>
  );
}

function Frame() {
  useKeys();
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  return (
    <div className={styles.frame}>
      <Header />
      <TreeRail />
      <main className={styles.map} aria-label="Map">
        {cabling && <CablingLine />}
        <div className={styles.mapRoom}>
          <MapView />
        </div>
      </main>
      <Inspector />
      <div className={styles.drawer}>
        <Drawer />
      </div>
      <ConflictDialog />
    </div>
  );
}
