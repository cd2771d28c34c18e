'use client';
/** The inspector's fields: one line each, label on the left. What was typed stays, with the reason, until it is legal. */
import InputBase from '@mui/material/OutlinedInput';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useId, useState, type ReactNode } from 'react';
import type { Result } from '../../core/result';
import { TextButton } from '../frame/TextButton';
import styles from './inspector.module.css';

/** Why a text is not taken, and values that would be. */
export interface FieldFault {
  readonly message: string;
  readonly suggestions?: readonly string[];
}

interface TextProps<T> {
  readonly label: string;
  /** What stands in the design, as text; empty where nothing is set. */
  readonly value: string;
  /** Shown where nothing is set. */
  readonly placeholder?: string;
  readonly note?: ReactNode;
  readonly read: (text: string) => Result<T, FieldFault>;
  /** Takes the value; gives a sentence where the design does not. */
  readonly commit: (value: T) => string | null;
  readonly disabled?: boolean;
}

/** A text field that takes its value with Enter or on leaving it; Escape brings back what stands in the design. */
export function TextSetting<T>({ label, value, placeholder, note, read, commit, disabled }: TextProps<T>) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<FieldFault | null>(null);
  const settle = (text: string) => {
    if (text === value) return forget();
    const result = read(text);
    const refused = result.ok ? commit(result.value) : null;
    if (!result.ok) setFault(result.error);
    else if (refused !== null) setFault({ message: refused });
    else forget();
  };
  const forget = () => {
    setDraft(null);
    setFault(null);
  };
  return (
    <div className={styles.row}>
      <label htmlFor={id}>{label}</label>
      <InputBase
        id={id}
        fullWidth
        disabled={disabled ?? false}
        error={fault !== null}
        value={draft ?? value}
        placeholder={placeholder ?? ''}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => draft !== null && settle(draft)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && draft !== null) settle(draft);
          if (event.key === 'Escape') forget();
        }}
        slotProps={{ input: { 'aria-describedby': `${id}-note`, spellCheck: false } }}
      />
      <div id={`${id}-note`} className={fault ? styles.fault : styles.note} role={fault ? 'alert' : undefined}>
        {fault ? <FaultText fault={fault} take={(text) => { setDraft(text); settle(text); }} /> : note}
      </div>
    </div>
  );
}

function FaultText({ fault, take }: { readonly fault: FieldFault; readonly take: (text: string) => void }) {
  return (
    <>
      {fault.message}
      {fault.suggestions?.map((text) => (
        // The press must not take the focus from the field: its blur would judge the old text once more.
        <TextButton key={text} sx={{ ml: 1.5 }} onMouseDown={(event) => event.preventDefault()} onClick={() => take(text)}>
          use {text}
        </TextButton>
      ))}
    </>
  );
}

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [value: T, label: string])[];
  readonly commit: (value: T) => void;
  readonly note?: ReactNode;
}

/** A choice among a few values. */
export function ChoiceSetting<T extends string>({ label, value, options, commit, note }: ChoiceProps<T>) {
  const id = useId();
  return (
    <div className={styles.row}>
      <label id={id}>{label}</label>
      <Select fullWidth value={value} labelId={id} onChange={(event) => commit(event.target.value as T)}>
        {options.map(([option, text]) => (
          <MenuItem key={option} value={option} dense>
            {text}
          </MenuItem>
        ))}
      </Select>
      {note && <div className={styles.note}>{note}</div>}
    </div>
  );
}
