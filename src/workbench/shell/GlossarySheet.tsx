'use client';
/** Every term of the screen in a sentence, to be looked through or searched. */
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { useWorkbench } from '../state/context';
import { TextButton } from '../ui/TextButton';
import { TERMS } from '../ui/words/terms';
import styles from './dialogs.module.css';

export function GlossarySheet() {
  const openDialog = useWorkbench((state) => state.openDialog);
  const [text, setText] = useState('');
  const wanted = text.trim().toLowerCase();
  const found = TERMS.filter(({ term, says, also = [] }) =>
    [term, says, ...also].some((each) => each.toLowerCase().includes(wanted)),
  );
  return (
    <Dialog open onClose={() => openDialog(null)} maxWidth="md" fullWidth aria-labelledby="glossary-title">
      <DialogTitle id="glossary-title" className={styles.title}>
        Glossary{' '}
        <TextButton does="plain" onClick={() => openDialog(null)}>
          close
        </TextButton>
      </DialogTitle>
      <DialogContent>
        <input
          className={styles.find}
          aria-label="Find a term"
          placeholder="Find a term"
          autoFocus
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        {found.length === 0 && <p className={styles.note}>No term has these letters.</p>}
        <dl className={styles.terms}>
          {found.map(({ term, says, source }) => (
            <div key={term}>
              <dt>{term}</dt>
              <dd>
                {says} {source && <small>{source}</small>}
              </dd>
            </div>
          ))}
        </dl>
      </DialogContent>
    </Dialog>
  );
}
