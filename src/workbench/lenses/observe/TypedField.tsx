'use client';
/** A labelled field of a line of them, with its unit behind it. */
import styles from '../../ui/table.module.css';
import room from './observe.module.css';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly change: (value: string) => void;
  readonly width: string;
  readonly hint?: string;
  readonly unit?: string;
}

export const TypedField = ({ label, value, change, width, hint, unit }: Props) => (
  <label className={room.field}>
    {label}
    <input
      className={styles.input}
      style={{ width }}
      placeholder={hint}
      value={value}
      onChange={(event) => change(event.target.value)}
    />
    {unit}
  </label>
);
