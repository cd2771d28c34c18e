'use client';
/** Asks for the name of a new design and what its switches are to run, and says what each choice means. */
import Button from '@mui/material/Button';
import OutlinedInput from '@mui/material/OutlinedInput';
import { useState } from 'react';
import { SPOKEN, isClassic, traitsOf, type Dialect } from '../../core/model/document';
import styles from './designs.module.css';

/** The rapid ones first: the classic ones are for old switches. */
const MODES = [...SPOKEN].sort((a, b) => Number(isClassic({ dialect: a })) - Number(isClassic({ dialect: b })));

interface Props {
  readonly create: (name: string, mode: Dialect) => void;
  readonly close: () => void;
}

export function NewDesignForm({ create, close }: Props) {
  const [name, setName] = useState('');
  const [mode, setMode] = useState<Dialect>('rstp');
  return (
    <form
      className={styles.fresh}
      aria-label="New design"
      onSubmit={(event) => {
        event.preventDefault();
        create(name, mode);
      }}
    >
      <div className={styles.naming}>
        <label htmlFor="new-name">Name of the new design</label>
        <OutlinedInput
          id="new-name"
          autoFocus
          value={name}
          onChange={(event) => setName(event.target.value)}
          sx={{ width: 320 }}
        />
        <Button type="submit" variant="contained" disabled={name.trim() === ''}>
          Create
        </Button>
        <Button onClick={close}>Cancel</Button>
      </div>
      <fieldset className={styles.modes}>
        <legend>Its switches run</legend>
        {MODES.map((each) => (
          <label key={each}>
            <input type="radio" name="mode" checked={mode === each} onChange={() => setMode(each)} />
            <b>{traitsOf(each).name}</b>
            <span>{traitsOf(each).says}</span>
          </label>
        ))}
      </fieldset>
      <p className={styles.later}>It can be changed later, for all switches or for one.</p>
    </form>
  );
}
