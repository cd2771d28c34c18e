'use client';
/** When the server does not take a change: what happened, and ways on that lose nothing unasked. */
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { leanDesign } from '../../core/model/derive/write';
import { api } from '../state/api';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { counted } from '../../core/base/words';

export function ConflictDialog() {
  const save = useWorkbench((state) => state.save);
  const unsent = useWorkbench((state) => state.unsent);
  const store = useWorkbenchStore();
  const [trouble, setTrouble] = useState<string | null>(null);
  if (save.kind !== 'conflict' && save.kind !== 'refused') return null;
  const { failure } = save;
  const reload = () => {
    store.getState().abandon();
    window.location.reload();
  };
  const keepMine = async () => {
    const { design } = store.getState();
    const created = await api.create({
      do: 'import',
      document: leanDesign({ ...design, name: `${design.name} (my changes)` }),
    });
    if (!created.ok) return setTrouble([created.error.message, ...created.error.details].join(' '));
    store.getState().abandon();
    window.location.assign(`/designs/${encodeURIComponent(created.value.id)}`);
  };
  return (
    <Dialog open aria-labelledby="conflict-title" maxWidth="sm">
      <DialogTitle id="conflict-title">
        {save.kind === 'conflict' ? 'Changed elsewhere in the meantime' : 'The server did not take this change'}
      </DialogTitle>
      <DialogContent>
        <p>{failure.message}</p>
        {failure.details.map((detail) => (
          <p key={detail}>{detail}</p>
        ))}
        {failure.since && failure.since.length > 0 && (
          <>
            <p>Since then, in another window:</p>
            <ul>
              {failure.since.map((label, i) => (
                <li key={i}>{label.slice(0, 200)}</li>
              ))}
            </ul>
          </>
        )}
        <p>
          {counted(unsent(), 'change')} of yours {unsent() === 1 ? 'is' : 'are'} not saved. Nothing has been
          overwritten.
        </p>
        {trouble && <p role="alert">{trouble}</p>}
      </DialogContent>
      <DialogActions>
        <Button onClick={reload}>Open the saved revision, drop mine</Button>
        <Button variant="contained" onClick={() => void keepMine()}>
          Keep mine as a new design
        </Button>
      </DialogActions>
    </Dialog>
  );
}
