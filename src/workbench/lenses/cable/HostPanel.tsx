'use client';
/** What a host is, and where it is plugged in. */
import Button from '@mui/material/Button';
import { ok, type Result } from '../../../core/base/result';
import { planLines } from '../../../core/cabling/plan';
import { endWords } from '../../../core/cabling/print';
import type { Host } from '../../../core/model/document';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { TextSetting, type FieldFault } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';

export function HostPanel({ host }: { readonly host: Host }) {
  const { id } = host;
  const store = useWorkbenchStore();
  const design = useWorkbench((state) => state.design);
  const { act } = store.getState();
  const plugIn = (text: string): string | null => {
    if (text.trim() === '') return act({ do: 'set-host', host: id, attach: [] });
    const { commands, lines } = planLines(
      store.getState().design,
      `host "${(host.name ?? host.id).replace(/[\\"]/g, '\\$&')}" = ${text}`,
    );
    const fault = lines.find((line) => line.fault)?.fault;
    return fault ? `${fault.message}.` : act(...commands);
  };
  return (
    <section className={styles.section}>
      <h3>The host</h3>
      <TextSetting
        label="Name"
        value={host.name ?? host.id}
        read={read.name}
        commit={(name) => act({ do: 'set-host', host: id, name })}
      />
      <TextSetting
        label="VLAN"
        value={String(host.vlan)}
        read={read.vlan}
        commit={(vlan) => act({ do: 'set-host', host: id, vlan })}
      />
      <TextSetting
        label="MAC address"
        value={host.mac}
        read={read.mac}
        commit={(mac) => act({ do: 'set-host', host: id, mac })}
      />
      <TextSetting
        label="Plugged into"
        value={endWords(design, host.attach)}
        placeholder="nowhere"
        read={asTyped}
        commit={plugIn}
        note="such as ridge-b 8 + ridge-b 9; a new port becomes an access port of its VLAN"
      />
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-host', host: id })}>
          Remove this host
        </Button>
      </div>
    </section>
  );
}

const asTyped = (text: string): Result<string, FieldFault> => ok(text);
