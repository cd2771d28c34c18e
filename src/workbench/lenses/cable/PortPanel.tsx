'use client';
/** What a port is set to. */
import Button from '@mui/material/Button';
import type { Port, Switch } from '../../../core/model/document';
import { useWorkbench } from '../../state/context';
import { TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { PortFields } from './PortFields';

export function PortPanel({ sw, port }: { readonly sw: Switch; readonly port: Port }) {
  const { id } = sw;
  const act = useWorkbench((state) => state.act);
  return (
    <section className={styles.section}>
      <h3>The port</h3>
      <PortFields ports={[{ switch: id, port }]} />
      <TextSetting
        label="Number"
        value={String(port.number)}
        read={read.portNumber}
        commit={(number) => act({ do: 'set-port', switch: id, port: port.id, number })}
      />
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-port', switch: id, port: port.id })}>
          Remove this port
        </Button>
      </div>
    </section>
  );
}
