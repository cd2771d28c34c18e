'use client';
/** The quick-cabling line: text that adds and joins, with what it will do, what may follow, and where it is wrong. */
import Button from '@mui/material/Button';
import { flushSync } from 'react-dom';
import { useDeferredValue, useId, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { completionsAt } from '../../../core/cabling/complete';
import { planLines } from '../../../core/cabling/plan';
import { withPlaces } from '../../map/places';
import { useFollowing, useWorkbenchStore } from '../../state/context';
import { counted } from '../../ui/words/units';
import styles from './cabling.module.css';
import { CABLING_FIELD } from '../../state/cablingField';
import { PlanPreview } from './PlanPreview';

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

export function CablingLine() {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => state.design);
  const [text, setText] = useState('');
  const [cursor, setCursor] = useState(0);
  const [chosen, setChosen] = useState(-1);
  const [open, setOpen] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [recalled, setRecalled] = useState<readonly string[]>([]);
  const field = useRef<HTMLTextAreaElement>(null);
  const listId = useId();

  const planned = useDeferredValue(text);
  const plan = useMemo(() => planLines(design, planned), [design, planned]);
  const caret = caretOf(text, cursor);
  const { options, from, to } = useMemo(
    () => completionsAt(design, caret.text, caret.at),
    [design, caret.text, caret.at],
  );
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
    const { newest, act } = store.getState();
    const now = newest();
    const fresh = planLines(now, text);
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
    if (fresh.commands.length === 0) return;
    const problem = act(...withPlaces(now, fresh.commands));
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
  const preview = open && text.trim() !== '';
  return (
    <section className={styles.room} aria-label="Quick cabling">
      <div className={styles.line}>
        <textarea
          ref={field}
          id={CABLING_FIELD}
          className={styles.field}
          rows={rows}
          value={text}
          spellCheck={false}
          placeholder="Cable in words, such as  ridge-a 1-2 = ridge-b 1-2 10G"
          aria-label="Quick-cabling line"
          aria-controls={listed.length > 0 ? listId : undefined}
          aria-autocomplete="list"
          aria-activedescendant={chosen >= 0 ? `${listId}-${chosen}` : undefined}
          aria-keyshortcuts="/"
          data-draft={text.trim() === '' ? undefined : ''}
          aria-invalid={plan.faults > 0}
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
          disabled={plan.faults > 0 || plan.commands.length === 0}
          onMouseDown={(event) => event.preventDefault()}
          onClick={apply}
        >
          {plan.lines.length > 1 ? `Do ${counted(plan.lines.length, 'line')}` : 'Do it'}
        </Button>
      </div>
      {refused && (
        <p className={styles.refused} role="alert">
          {refused}
        </p>
      )}
      {(preview || listed.length > 0) && (
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
          {preview ? <PlanPreview design={design} plan={plan} text={planned} /> : <Hint />}
        </div>
      )}
    </section>
  );
}

function Hint() {
  return (
    <div className={styles.preview}>
      <p className={styles.soft}>
        <code>a 1-2 = b 1-2 10G</code> joins ports one to one; <code>hut-[1-4] * ridge-[a,b]</code> each with each;
        without ports, free ones are taken. <code>host desk = a 9 vlan 45</code> hangs a host. Several lines can be
        pasted. Tab takes a word, Enter does it.
      </p>
    </div>
  );
}
