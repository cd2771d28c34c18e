'use client';
/** The inspector's fields: one line each, label on the left. What was typed stays, with the reason, until it is legal. */
import { useId, useState, type ReactNode } from 'react';
import type { Result } from '../../core/base/result';
import { useEditable } from './editable';
import { TextButton } from './TextButton';
import styles from './panel.module.css';
import { Select } from './Select';
import { Term } from './Term';

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
  /** A few characters at the right end of the field. */
  readonly adornment?: string | undefined;
  readonly read: (text: string) => Result<T, FieldFault>;
  /** Takes the value; gives a sentence where the design does not. */
  readonly commit: (value: T) => string | null;
}

/** A text field that takes its value with Enter or on leaving it; Escape brings back what stands in the design. */
export function TextSetting<T>({ label, value, placeholder, note, adornment, read, commit }: TextProps<T>) {
  const id = useId();
  const editable = useEditable();
  // A draft belongs to the value that stood in the design when it was typed: once that changes, the draft is done with.
  const [typed, setTyped] = useState<{ readonly text: string; readonly over: string } | null>(null);
  const [fault, setFault] = useState<FieldFault | null>(null);
  const draft = typed?.over === value ? typed.text : null;
  const setDraft = (text: string) => setTyped({ text, over: value });
  const forget = () => {
    setTyped(null);
    setFault(null);
  };
  const settle = (text: string) => {
    if (text === value) return forget();
    const result = read(text);
    const refused = result.ok ? commit(result.value) : null;
    setFault(!result.ok ? result.error : refused !== null ? { message: refused } : null);
  };
  return (
    <div className={styles.row}>
      <label htmlFor={id}>
        <Term>{label}</Term>
      </label>
      <span className={styles.input} data-adorned={adornment !== undefined || undefined}>
        <input
          id={id}
          disabled={!editable}
          aria-invalid={fault !== null}
          aria-describedby={`${id}-note`}
          spellCheck={false}
          value={draft ?? value}
          placeholder={placeholder ?? ''}
          onChange={(event) => setDraft(event.target.value)}
          onBlur={() => draft !== null && settle(draft)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && draft !== null) settle(draft);
            if (event.key === 'Escape') forget();
          }}
        />
        {adornment && <span className={styles.adornment}>{adornment}</span>}
      </span>
      <div id={`${id}-note`} className={fault ? styles.fault : styles.note} role={fault ? 'alert' : undefined}>
        {fault ? (
          <FaultText
            fault={fault}
            take={(text) => {
              setDraft(text);
              settle(text);
            }}
          />
        ) : (
          note
        )}
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
        <TextButton
          does="edit"
          key={text}
          style={{ marginLeft: 6 }}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => take(text)}
        >
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
  const editable = useEditable();
  return (
    <div className={styles.row}>
      <label htmlFor={id}>
        <Term>{label}</Term>
      </label>
      <Select id={id} wide value={value} options={options} choose={commit} disabled={!editable} />
      {note && <div className={styles.note}>{note}</div>}
    </div>
  );
}
