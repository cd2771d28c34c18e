'use client';
/** A field for lines of a small language: what may follow, what the lines will do, where they are wrong. */
import Button from '@mui/material/Button';
import { flushSync } from 'react-dom';
import { useDeferredValue, useId, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { Completions } from '../../../../core/cabling/complete';
import { counted } from '../../../../core/base/words';
import { Faults, type ReadLine } from './Faults';
import styles from './line.module.css';

/** What was understood of a text. */
export interface Understood {
  readonly lines: readonly ReadLine[];
  /** Whether there is anything to do. */
  readonly does: boolean;
}

interface Props<U extends Understood> {
  readonly id?: string;
  /** What the strip is called, and its field. */
  readonly name: string;
  readonly label: string;
  readonly placeholder: string;
  readonly keys?: string;
  /** What the button does with the lines. */
  readonly verb: 'Do' | 'Add';
  complete(line: string, at: number): Completions;
  /** Reads a text against the design that is shown; `now`, against the newest. */
  read(text: string, now?: boolean): U;
  /** Does what was read; gives why not. */
  act(read: U): string | null;
  /** What doing it will do. */
  preview(read: U): ReactNode;
  /** What people see before they have typed. */
  readonly hint: ReactNode;
}

interface Caret {
  /** Line, counted from 0, its text, and the place in it. */
  readonly line: number;
  readonly text: string;
  readonly at: number;
  /** Where the line begins in the whole text. */
  readonly start: number;
}

function caretOf(text: string, cursor: number): Caret {
  const before = text.slice(0, cursor).split('\n');
  const start = cursor - before.at(-1)!.length;
  const end = text.indexOf('\n', start);
  return { line: before.length - 1, start, at: cursor - start, text: text.slice(start, end < 0 ? undefined : end) };
}

export function LineEditor<U extends Understood>({
  id,
  name,
  label,
  placeholder,
  keys,
  verb,
  complete,
  read,
  act,
  preview,
  hint,
}: Props<U>) {
  const [text, setText] = useState('');
  const [cursor, setCursor] = useState(0);
  const [chosen, setChosen] = useState(-1);
  const [open, setOpen] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [recalled, setRecalled] = useState<readonly string[]>([]);
  const field = useRef<HTMLTextAreaElement>(null);
  const listId = useId();

  const planned = useDeferredValue(text);
  const plan = useMemo(() => read(planned), [read, planned]);
  const faulty = plan.lines.some(({ fault }) => fault);
  const caret = caretOf(text, cursor);
  const { options, from, to } = useMemo(() => complete(caret.text, caret.at), [complete, caret.text, caret.at]);
  const listed = open ? options : [];

  const put = (next: string, at: number) => {
    // At once: a key that comes before the next frame goes where the caret will be.
    flushSync(() => {
      setText(next);
      setCursor(at);
      setChosen(-1);
      setRefused(null);
    });
    field.current?.setSelectionRange(at, at);
  };
  const take = (index: number) => {
    const option = options[index];
    if (!option) return;
    const [head, tail] = [text.slice(0, caret.start + from), text.slice(caret.start + to)];
    const gap = tail.startsWith(' ') ? '' : ' ';
    put(head + option.text + gap + tail, head.length + option.text.length + 1);
  };
  const apply = () => {
    const fresh = read(text, true);
    const wrong = fresh.lines.find((line) => line.fault);
    if (wrong?.fault) {
      const at =
        text
          .split('\n')
          .slice(0, wrong.line)
          .reduce((sum, line) => sum + line.length + 1, 0) + wrong.fault.at;
      setOpen(true);
      setCursor(at);
      field.current?.setSelectionRange(at, at + wrong.fault.length);
      return;
    }
    if (!fresh.does) return;
    const problem = act(fresh);
    if (problem !== null) return setRefused(problem);
    setRecalled([...recalled.filter((line) => line !== text), text].slice(-50));
    put('', 0);
    // What it did is on the map: the help comes back with the next word.
    setOpen(false);
  };
  const onKey = (event: KeyboardEvent) => {
    const { key } = event;
    if ((key === 'ArrowDown' || key === 'ArrowUp') && listed.length > 0 && text !== '') {
      event.preventDefault();
      setChosen(
        (chosen + (key === 'ArrowDown' ? 1 : -1) + listed.length + (chosen < 0 && key === 'ArrowUp' ? 1 : 0)) %
          listed.length,
      );
    } else if (key === 'ArrowUp' && text === '' && recalled.length > 0) {
      event.preventDefault();
      put(recalled.at(-1)!, recalled.at(-1)!.length);
      setOpen(true);
    } else if (key === 'Tab' && !event.shiftKey && listed.length > 0 && text.trim() !== '') {
      event.preventDefault();
      take(Math.max(0, chosen));
    } else if (key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      if (chosen >= 0) take(chosen);
      else apply();
    } else if (key === 'Escape') {
      // Completions close first; where there is nothing to close, the field is left.
      if (!open || text.trim() === '') field.current?.blur();
      setOpen(false);
      setChosen(-1);
    }
  };

  const rows = Math.min(8, text.split('\n').length);
  const previewed = open && text.trim() !== '';
  return (
    <section className={styles.room} aria-label={name}>
      <div className={styles.line}>
        <textarea
          ref={field}
          id={id}
          className={styles.field}
          rows={rows}
          value={text}
          spellCheck={false}
          placeholder={placeholder}
          aria-label={label}
          aria-controls={listed.length > 0 ? listId : undefined}
          aria-autocomplete="list"
          aria-activedescendant={chosen >= 0 ? `${listId}-${chosen}` : undefined}
          aria-keyshortcuts={keys}
          data-draft={text.trim() === '' ? undefined : ''}
          aria-invalid={faulty}
          onChange={(event) => {
            setText(event.target.value);
            setCursor(event.target.selectionStart);
            setChosen(-1);
            setRefused(null);
            setOpen(true);
          }}
          onSelect={(event) => setCursor(event.currentTarget.selectionStart)}
          onFocus={() => setOpen(true)}
          onBlur={() => setOpen(false)}
          onKeyDown={onKey}
        />
        <Button
          variant="contained"
          disabled={faulty || !plan.does}
          onMouseDown={(event) => event.preventDefault()}
          onClick={apply}
        >
          {plan.lines.length > 1 ? `${verb} ${counted(plan.lines.length, 'line')}` : `${verb} it`}
        </Button>
      </div>
      {refused && (
        <p className={styles.refused} role="alert">
          {refused}
        </p>
      )}
      {(previewed || listed.length > 0) && (
        <div className={styles.below} onMouseDown={(event) => event.preventDefault()}>
          <ul id={listId} role="listbox" aria-label="What may follow" className={styles.options}>
            {listed.map((option, i) => (
              <li
                key={option.text}
                id={`${listId}-${i}`}
                role="option"
                aria-selected={i === chosen}
                onClick={() => take(i)}
              >
                <b>{option.text.slice(0, 40)}</b> <span>{option.detail}</span>
              </li>
            ))}
          </ul>
          <div className={styles.preview} {...(previewed ? { role: 'status', 'aria-live': 'polite' as const } : {})}>
            {previewed ? faulty ? <Faults lines={plan.lines} text={planned} /> : preview(plan) : hint}
          </div>
        </div>
      )}
    </section>
  );
}
