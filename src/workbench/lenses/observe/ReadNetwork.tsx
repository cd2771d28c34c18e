'use client';
/** Reads the network from here: the server asks the switches, and only those inside of what is named. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { Source } from '../../../contract/observe';
import { api } from '../../state/api';
import { useWorkbench } from '../../state/context';
import { HAS_SERVER } from '../../state/reach';
import { refreshWatch, useWatched } from '../../state/watching';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import { SourceFields, sourceIn, useSource } from './SourceFields';

export function ReadNetwork() {
  const id = useWorkbench((state) => state.id);
  const { view, reading } = useWatched();
  const [source, setSource] = useSource(view);
  const [trouble, setTrouble] = useState<string | null>(null);
  const readOnly = useWorkbench((state) => state.readOnly);
  if (!HAS_SERVER || !view || readOnly) return null;
  const busy = reading?.state === 'reading';
  const start = async () => {
    const read = sourceIn(source);
    if (!read.ok) return setTrouble(read.error);
    const started = await api.startReading(id, read.value satisfies Source);
    setTrouble(started.ok ? null : started.error.message);
    await refreshWatch(id, true);
  };
  const stop = async () => {
    await api.stopReading(id);
    await refreshWatch(id, true);
  };
  return (
    <form
      className={styles.filter}
      aria-label="Read the network"
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <SourceFields source={source} change={setSource} names={view.credentials} />
      <Button size="small" variant="outlined" type="submit" disabled={busy || view.credentials.length === 0}>
        Read the network
      </Button>
      {busy && (
        <span role="status">
          {reading.done} of {reading.known} read{reading.newest === null ? '' : `, ${reading.newest} just now`}{' '}
          <TextButton does="plain" onClick={() => void stop()}>
            stop
          </TextButton>
        </span>
      )}
      {view.trouble && <span>{view.trouble}</span>}
      {(trouble ?? (reading?.state === 'failed' ? reading.why : null)) && (
        <span className={styles.fault} role="alert">
          {trouble ?? reading?.why}
        </span>
      )}
    </form>
  );
}
