'use client';
/** One line that keeps the rows in which every typed word occurs somewhere. */
import InputBase from '@mui/material/OutlinedInput';
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { TextButton } from './TextButton';
import styles from './table.module.css';

interface Filter<T> {
  readonly text: string;
  readonly setText: (text: string) => void;
  readonly rows: readonly T[];
  readonly total: number;
}

/** Filters rows of plain data by words. */
export function useFilter<T extends object>(all: readonly T[]): Filter<T> {
  const [text, setText] = useState('');
  const words = useDeferredValue(text);
  const rows = useMemo(() => matching(all, words), [all, words]);
  return { text, setText, rows, total: all.length };
}

/** The rows that hold every word of `text` at the start of some word of some value, upper or lower case. */
export function matching<T extends object>(rows: readonly T[], text: string): readonly T[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return rows;
  return rows.filter((row) => {
    const whole = ` ${Object.values(row)
      .filter((value) => typeof value === 'string' || typeof value === 'number')
      .join(' ')}`.toLowerCase();
    return words.every((word) => whole.includes(` ${word}`));
  });
}

interface FieldProps {
  readonly what: string;
  readonly example: string;
  /** Selects every row that is left, for settings of all of them at once. */
  readonly onSelect?: () => void;
  /** Gives the rows that are left as CSV, to be copied. */
  readonly csv?: () => string;
  readonly children?: ReactNode;
}

export function FilterField<T>({
  text,
  setText,
  rows,
  total,
  what,
  example,
  onSelect,
  csv,
  children,
}: Filter<T> & FieldProps) {
  return (
    <div className={styles.filter}>
      <InputBase
        value={text}
        placeholder={`Filter, such as ${example}`}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ input: { 'aria-label': `Filter ${what}`, 'data-filter': '' } as object }}
        sx={{ width: 272, flex: 'none' }}
      />
      {onSelect && rows.length > 0 && (
        <TextButton does="plain" onClick={onSelect} title="to set something for all of them at once">
          select {rows.length === total ? 'all' : 'these'}
        </TextButton>
      )}
      <span aria-live="polite">{text ? `${rows.length} of ${total} ${what}` : `${total} ${what}`}</span>
      {children}
      {csv && rows.length > 0 && <CopyCsv csv={csv} />}
    </div>
  );
}

function CopyCsv({ csv }: { readonly csv: () => string }) {
  const [copied, setCopied] = useState<string | null>(null);
  const copy = () =>
    void navigator.clipboard.writeText(csv()).then(
      () => setCopied('copied'),
      () => setCopied('this browser lets nothing be copied'),
    );
  return (
    <TextButton
      does="plain"
      onClick={copy}
      onBlur={() => setCopied(null)}
      title="the rows that are left, as the table shows them"
    >
      {copied ?? 'copy as CSV'}
    </TextButton>
  );
}
