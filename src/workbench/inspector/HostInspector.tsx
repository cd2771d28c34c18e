'use client';
/** A host: its name, MAC address and VLAN, and where it is plugged in. */
import Button from '@mui/material/Button';
import { planLines } from '../../core/cabling/plan';
import { endWords } from '../../core/cabling/print';
import type { HostId } from '../../core/model/ids';
import { ok, type Result } from '../../core/base/result';
import { TextButton } from '../ui/TextButton';
import { HostCards } from '../lenses/bundle/HostCards';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { TextSetting, type FieldFault } from '../ui/fields';
import styles from '../ui/panel.module.css';
import * as read from '../ui/read';

export function HostInspector({ id }: { readonly id: HostId }) {
  const store = useWorkbenchStore();
  const host = useWorkbench((state) => state.design.hosts.find((h) => h.id === id));
  const design = useWorkbench((state) => state.design);
  const { act, select } = store.getState();
  if (!host) return null;
  const nameOf = (sw: string) => design.switches.find((s) => s.id === sw)?.name ?? sw;
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
    <>
      <div className={styles.title}>
        <h2 title={host.name ?? host.id}>{host.name ?? host.id}</h2>
        <span className={styles.note}>host</span>
      </div>
      <p className={styles.sub}>
        {host.attach.length === 0 ? 'plugged in nowhere' : 'plugged into '}
        {host.attach.map((at, i) => (
          <span key={`${at.switch} ${at.port}`}>
            {i > 0 && ' and '}
            <TextButton onClick={() => select({ kind: 'port', switch: at.switch, port: at.port })}>
              {nameOf(at.switch)} port {at.port}
            </TextButton>
          </span>
        ))}
      </p>
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
      <HostCards host={host} />
    </>
  );
}

const asTyped = (text: string): Result<string, FieldFault> => ok(text);
