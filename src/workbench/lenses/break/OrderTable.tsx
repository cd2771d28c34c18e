'use client';
/** The order of events in sentences; each leads to its instant. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { TextButton } from '../../ui/TextButton';
import { timeText, useClock, useClockStore } from '../../state/clock';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import styles from '../shared/clock.module.css';
import { NoRun } from './NoRun';

/** Lines drawn at once; the next are a click away. */
const PAGE = 200;

export function OrderTable() {
  const trace = useClock((clock) => clock.player?.trace ?? null);
  const t = useClock((clock) => clock.t);
  const shown = useWorkbench((state) => state.shownTrees);
  const [all, setAll] = useState(false);
  const [text, setText] = useState('');
  const [pages, setPages] = useState(1);
  const store = useClockStore();
  const workbench = useWorkbenchStore();
  const list = useRef<HTMLOListElement>(null);
  const lines = useMemo(() => {
    const word = text.trim().toLowerCase();
    return (trace?.order ?? []).filter(
      (line) =>
        (all || shown.length === 0 || line.kind !== 'ports' || line.trees.some((tree) => shown.includes(tree))) &&
        line.text.toLowerCase().includes(word),
    );
  }, [trace, all, shown, text]);
  const current = lines.findLastIndex((line) => line.t <= t);
  useEffect(() => {
    list.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [current]);
  if (!trace) return <NoRun />;
  return (
    <div className={styles.page}>
      <div className={styles.line}>
        {lines.length} {lines.length === 1 ? 'event' : 'events'}
        <label className={styles.tick}>
          <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} /> all trees
        </label>
        <input
          className={styles.filter}
          aria-label="Filter events"
          placeholder="words"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </div>
      <ol className={styles.order} ref={list} aria-label="Order of events">
        {lines.slice(0, PAGE * Math.max(pages, Math.ceil((current + 1) / PAGE))).map((line, i) => (
          <li key={i}>
            <button
              type="button"
              data-kind={line.kind}
              aria-current={i === current ? 'true' : undefined}
              onClick={() => {
                store.getState().seek(line.t);
                if (line.switch && line.port)
                  workbench.getState().goTo({ kind: 'port', switch: line.switch, port: line.port });
              }}
            >
              <time>{timeText(line.t)}</time>
              <span>{line.text}</span>
            </button>
          </li>
        ))}
      </ol>
      {lines.length > PAGE * pages && (
        <TextButton
          onClick={() => setPages(pages + 1)}
        >{`${Math.min(PAGE, lines.length - PAGE * pages)} more`}</TextButton>
      )}
    </div>
  );
}
