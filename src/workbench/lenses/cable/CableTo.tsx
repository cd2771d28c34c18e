'use client';
/** Joins the selected switch to another by a new cable. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { freshCable } from '../../../core/edit/fresh';
import type { Switch } from '../../../core/model/document';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { readSpeed } from '../../ui/words/units';
import styles from '../../ui/panel.module.css';
import { Select, type Option } from '../../ui/Select';

export function CableTo({ sw }: { readonly sw: Switch }) {
  const switches = useWorkbench((state) => state.design.switches);
  const store = useWorkbenchStore();
  const [to, setTo] = useState('');
  const [speed, setSpeed] = useState('1 Gb/s');
  const [fault, setFault] = useState<string | null>(null);
  const cable = () => {
    const read = readSpeed(speed);
    const far = switches.find((other) => other.id === to);
    if (!far) return setFault('Choose the switch at the other end.');
    if (!read.ok) return setFault(read.error);
    const { design, act } = store.getState();
    setFault(act(...freshCable(design, { switch: sw.id }, { switch: far.id }, read.value).commands));
  };
  return (
    <section className={styles.section}>
      <h3>Cable to</h3>
      <div className={styles.cableTo}>
        <Select
          label="Switch at the other end"
          wide
          value={to}
          options={[
            ['', 'choose a switch'],
            ...switches.map((other): Option<string> => [
              other.id,
              `${(other.name ?? other.id).slice(0, 60)}${other.id === sw.id ? ' (itself)' : ''}`,
            ]),
          ]}
          choose={setTo}
        />
        <span className={styles.input}>
          <input value={speed} onChange={(event) => setSpeed(event.target.value)} aria-label="Speed of the new cable" />
        </span>
        <Button variant="outlined" onClick={cable}>
          Plug in
        </Button>
      </div>
      {fault && (
        <div className={styles.fault} role="alert">
          {fault}
        </div>
      )}
    </section>
  );
}
