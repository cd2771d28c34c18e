'use client';
/** One line that asks for a name and keeps what was typed until it is taken. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import styles from './table.module.css';

interface Props {
  readonly label: string;
  readonly value: string;
  /** Gives null once the name is kept, or why not. */
  readonly commit: (name: string) => Promise<string | null>;
  readonly close: () => void;
}

export function NameField({ label, value, commit, close }: Props) {
  const [text, setText] = useState(value);
  const [fault, setFault] = useState<string | null>(null);
  const keep = async () => {
    const refused = await commit(text.trim());
    if (refused === null) close();
    else setFault(refused);
  };
  return (
    <form
      className={styles.filter}
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <label htmlFor="name-field">{label}</label>
      <input
        id="name-field"
        className={styles.input}
        autoFocus
        value={text}
        onChange={(event) => setText(event.target.value)}
        aria-invalid={fault !== null}
      />
      <Button type="submit" variant="contained">
        Keep
      </Button>
      <Button onClick={close}>Cancel</Button>
      {fault && (
        <span className={styles.fault} role="alert">
          {fault}
        </span>
      )}
    </form>
  );
}
