'use client';
/** Joins the selected switch to another by a new cable. */
import Button from '@mui/material/Button';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { freshCable } from '../../core/design/fresh';
import type { Switch } from '../../core/design/schema';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { readSpeed } from '../words/units';
import styles from './inspector.module.css';

export function CableTo({ sw }: { readonly sw: Switch }) {
  const switches = useWorkbench((state) => state.design.switches);
  const store = useWorkbenchStore();
  const [to, setTo] = useState<Switch | null>(null);
  const [speed, setSpeed] = useState('1 Gb/s');
  const [fault, setFault] = useState<string | null>(null);
  const cable = () => {
    const read = readSpeed(speed);
    if (!to) return setFault('Choose the switch at the other end.');
    if (!read.ok) return setFault(read.error);
    const { design, act } = store.getState();
    setFault(act(...freshCable(design, sw.id, to.id, read.value).commands));
  };
  return (
    <section className={styles.section}>
      <h3>Cable to</h3>
      <div className={styles.cableTo}>
        <Autocomplete
          options={switches}
          value={to}
          onChange={(_, chosen) => setTo(chosen)}
          getOptionLabel={(option) => option.name ?? option.id}
          getOptionKey={(option) => option.id}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          size="small"
          renderInput={(params) => <TextField {...params} placeholder="switch" aria-label="Switch at the other end" />}
        />
        <TextField size="small" value={speed} onChange={(event) => setSpeed(event.target.value)} slotProps={{ htmlInput: { 'aria-label': 'Speed of the new cable' } }} />
        <Button variant="outlined" onClick={cable}>Plug in</Button>
      </div>
      {fault && <div className={styles.fault} role="alert">{fault}</div>}
    </section>
  );
}
