'use client';
/** The workbench of one design: lenses on top, trees on the left, the map, the inspector, the drawer. */
import { selectionText } from '../state/selectionText';
import Snackbar from '@mui/material/Snackbar';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { manifestOf } from '../lenses/lenses';
import { Inspector } from '../inspector/Inspector';
import { Divider } from './Divider';
import { Drawer } from './Drawer';
import { MapView } from '../map/MapView';
import { Tour } from './Tour';
import { tourInUrl } from './tourSteps';
import { TreeRail } from './TreeRail';
import { useWorkbench, WorkbenchProvider } from '../state/context';
import type { Opened } from '../state/store';
import { usePresence } from '../state/usePresence';
import { Editable } from '../ui/editable';
import { Boundary } from '../ui/Boundary';
import { ConflictDialog } from './ConflictDialog';
import styles from './frame.module.css';
import { Header } from './Header';
import { loadable } from '../ui/loadable';
import { KeySheet } from './KeySheet';
import { Notices } from './Notices';
import { Palette } from './Palette';
import { useRoom } from './room';
import { useFailures } from './useFailures';
import { useKeys } from './useKeys';

interface Props {
  readonly open: Opened;
  /** What is seen before the page is alive. */
  readonly first?: ReactNode;
}

export function WorkbenchPage({ open, first }: Props) {
  return (
    <WorkbenchProvider open={open} first={first}>
      <Room />
    </WorkbenchProvider>
  );
}

const GlossarySheet = loadable('the glossary', () => import('./GlossarySheet').then((m) => m.GlossarySheet));

/** Where nothing can be changed, nothing looks as though it could. */
function Room() {
  const readOnly = useWorkbench((state) => state.readOnly);
  return (
    <Editable value={!readOnly}>
      <Frame />
    </Editable>
  );
}

function Frame() {
  const [told, tell] = useState<string | null>(null);
  useKeys(tell);
  const setTour = useWorkbench((state) => state.setTour);
  useEffect(() => {
    if (tourInUrl()) setTour(0);
  }, [setTour]);
  usePresence();
  useFailures();
  const lens = useWorkbench((state) => state.lens);
  const glossary = useWorkbench((state) => state.dialog === 'glossary');
  const { Above, layers, Signs } = manifestOf(lens);
  const open = useWorkbench((state) => state.inspector);
  const [room, divide] = useRoom();
  const drawer = useRef<HTMLElement>(null);
  const sizes: Record<string, string> = { '--inspector': open ? `${room.inspector}px` : '30px' };
  if (room.drawer !== null) sizes['--drawer'] = `${room.drawer}px`;
  return (
    <div className={styles.frame} style={sizes}>
      <Header />
      <TreeRail />
      <main className={styles.map} aria-label="Map">
        <Notices />
        <Tour />
        {Above && (
          <Boundary what="The line above the map">
            <Above />
          </Boundary>
        )}
        <div className={styles.mapRoom}>
          <Boundary what="The map">
            <MapView Under={layers?.under} Over={layers?.over} Signs={Signs} />
          </Boundary>
        </div>
      </main>
      <aside className={styles.inspector} aria-label="Inspector">
        {open && (
          <Divider
            label="Width of the inspector"
            along="vertical"
            size={() => room.inspector}
            onSize={(size) => divide('inspector', size)}
          />
        )}
        <Boundary what="The inspector">
          <Inspector />
        </Boundary>
      </aside>
      <section className={styles.drawer} ref={drawer} aria-label="Table">
        <Divider
          label="Height of the table"
          along="horizontal"
          size={() => drawer.current?.offsetHeight ?? 0}
          onSize={(size) => divide('drawer', size)}
        />
        <Boundary what="The table">
          <Drawer />
        </Boundary>
      </section>
      <ConflictDialog />
      <Palette />
      <KeySheet />
      {glossary && <GlossarySheet />}
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
