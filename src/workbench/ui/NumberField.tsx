'use client';
import { useState } from 'react';
import styles from './numberField.module.css';

interface NumberProps {
  readonly label: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly whole?: boolean;
  readonly commit: (value: number) => void;
}

/** A small field for a number: taken with Enter or on leaving it, when it is in range. */
export function NumberField({ label, value, least, most, whole = false, commit }: NumberProps) {
  const [text, setText] = useState<string | null>(null);
  const read = (typed: string): number | null =>
    (whole ? /^\d+$/ : /^\d+([.,]\d+)?$/).test(typed.trim()) ? Number(typed.trim().replace(',', '.')) : null;
  const typed = text === null ? value : read(text);
  const legal = typed !== null && typed >= least && typed <= most;
  const settle = () => {
    if (text !== null && legal && typed !== value) commit(typed);
    if (legal) setText(null);
  };
  return (
    <input
      className={styles.number}
      aria-label={label}
      aria-invalid={!legal}
      title={legal ? undefined : `${least} to ${most}`}
      inputMode="decimal"
      value={text ?? String(value)}
      onChange={(event) => setText(event.target.value)}
      onBlur={settle}
      onKeyDown={(event) => event.key === 'Enter' && settle()}
    />
  );
}
