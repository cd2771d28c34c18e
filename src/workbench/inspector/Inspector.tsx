'use client';
/** The right-hand panel: what is selected, why it is as it is, and its settings. */
import { useWorkbench } from '../state/context';
import { DesignInspector } from './DesignInspector';
import styles from './inspector.module.css';
import { LinkInspector } from './LinkInspector';
import { PortInspector } from './PortInspector';
import { SwitchInspector } from './SwitchInspector';

export function Inspector() {
  const selection = useWorkbench((state) => state.selection);
  return (
    <aside className={styles.panel} aria-label="Inspector">
      <Selected key={JSON.stringify(selection)} />
    </aside>
  );
}

function Selected() {
  const selection = useWorkbench((state) => state.selection);
  switch (selection?.kind) {
    case 'switch':
      return <SwitchInspector id={selection.switch} />;
    case 'port':
      return <PortInspector id={selection.switch} port={selection.port} />;
    case 'link':
      return <LinkInspector id={selection.link} />;
    default:
      return <DesignInspector />;
  }
}
