'use client';
/** The right-hand panel: what is selected, why it is as it is, and its settings. */
import { useWorkbench } from '../state/context';
import { DesignInspector } from './DesignInspector';
import { HostInspector } from './HostInspector';
import styles from '../ui/panel.module.css';
import { LinkInspector } from './LinkInspector';
import { PortInspector } from './PortInspector';
import { SeveralInspector } from './SeveralInspector';
import { SwitchInspector } from './SwitchInspector';

export function Inspector() {
  const selection = useWorkbench((state) => state.selection);
  return (
    <aside className={styles.panel} aria-label="Inspector">
      <Selected key={selection?.kind === 'several' ? 'several' : JSON.stringify(selection)} />
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
    case 'host':
      return <HostInspector id={selection.host} />;
    case 'several':
      return <SeveralInspector items={selection.items} />;
    case undefined:
      return <DesignInspector />;
  }
}
