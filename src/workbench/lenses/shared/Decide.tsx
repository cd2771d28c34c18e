'use client';
/** What was decided about a finding, and deciding it. */
import Button from '@mui/material/Button';
import { useState } from 'react';
import { DECIDED, decidedText, type Decision } from '../../../core/model/decision';
import { Select } from '../../ui/Select';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';

export function Decided({
  decision,
  again,
}: {
  readonly decision: Decision | null;
  /** Takes the decision of that id back; null where nothing may be changed. */
  readonly again: ((id: string) => void) | null;
}) {
  if (!decision) return null;
  return (
    <p className={styles.decided}>
      {decidedText(decision)}{' '}
      {again && (
        <TextButton does="edit" onClick={() => again(decision.id)}>
          open it again
        </TextButton>
      )}
    </p>
  );
}

interface Props {
  readonly given: Decision | null;
  readonly decide: (decided: Decision['decided'], why: string) => void;
  readonly leave: () => void;
}

export function Decide({ given, decide, leave }: Props) {
  const [decided, setDecided] = useState<Decision['decided']>(given?.decided ?? 'stays');
  const [why, setWhy] = useState(given?.why ?? '');
  return (
    <form
      className={styles.decide}
      onSubmit={(event) => {
        event.preventDefault();
        decide(decided, why.trim());
      }}
    >
      <Select
        label="Decision"
        value={decided}
        options={DECIDED.map((each) => [each, decidedText({ decided: each, why: '' })])}
        choose={setDecided}
      />
      <label>
        Reason{' '}
        <input
          className={styles.input}
          autoFocus
          maxLength={2000}
          value={why}
          onChange={(event) => setWhy(event.target.value)}
        />
      </label>
      <Button size="small" variant="contained" type="submit">
        Keep it
      </Button>
      <TextButton does="plain" onClick={leave}>
        leave it open
      </TextButton>
    </form>
  );
}
