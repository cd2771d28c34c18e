'use client';
/** The report of a design: its chapters chosen and put in order, with a note each, written as one file. */
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import { CHAPTERS } from '../../../core/exchange/report/chapters';
import { wholeReport, type Wanted } from '../../../core/exchange/report/html';
import { fileStemOf } from '../../../core/model/derive/write';
import { useAsk, type Ask } from '../../state/ask';
import { useWorkbench } from '../../state/context';
import { mayEdit } from '../../state/looking';
import { Editable } from '../../ui/editable';
import { saveFile } from '../../ui/saveFile';
import { Select } from '../../ui/Select';
import { TextButton } from '../../ui/TextButton';
import styles from '../../ui/table.module.css';
import { Asking } from '../shared/Asking';
import { usePresent } from '../shared/plan/usePresent';
import { fromThere, useEarlier } from '../shared/useEarlier';
import { askReport } from './askReport';
import room from './handOver.module.css';
import { useRevision } from './useWritten';

const NOW = 'now';

export function ReportTable() {
  const { design } = usePresent();
  const readOnly = useWorkbench((state) => state.readOnly);
  const act = useWorkbench((state) => state.act);
  const revision = useWorkbench((state) => state.revision);
  const [since, setSince] = useState(NOW);
  const earlier = useEarlier();
  const before = useRevision(since === NOW ? null : Number(since));
  const [ask, setAsk] = useState<Ask<string> | null>(null);
  const { status, stop } = useAsk(ask);
  const saved = useRef<Ask<string> | null>(null);
  useEffect(() => {
    if (status.kind !== 'found' || saved.current === ask) return;
    saved.current = ask;
    saveFile(`${fileStemOf(status.of)}.report.html`, 'text/html', status.value);
  }, [status, ask]);
  const editable = useWorkbench(mayEdit);
  const wanted: readonly Wanted[] = design.report ?? wholeReport(true);
  const others = CHAPTERS.filter(({ key }) => !wanted.some(({ chapter }) => chapter === key));
  const set = (report: readonly Wanted[]) => act({ do: 'set-report', report: report.map((each) => ({ ...each })) });
  const label = (earlier ?? []).find(({ number }) => String(number) === since);
  const write = () =>
    setAsk(
      askReport({
        design,
        revision,
        wanted: wanted.filter(({ chapter }) => since !== NOW || !CHAPTERS.find(({ key }) => key === chapter)?.ofChange),
        before: before.design && label ? { label: `revision ${label.number}`, design: before.design } : null,
      }),
    );
  const move = (i: number, by: -1 | 1) => {
    const next = [...wanted];
    [next[i], next[i + by]] = [next[i + by]!, next[i]!];
    set(next);
  };
  return (
    <>
      <div className={styles.filter}>
        <Button
          size="small"
          variant="contained"
          disabled={wanted.length === 0 || status.kind === 'busy' || (since !== NOW && !before.design)}
          onClick={write}
        >
          Write the report
        </Button>
        <label>
          of{' '}
          <Select<string>
            label="What it reports"
            value={since}
            options={[[NOW, 'the design as it is'], ...(earlier ?? []).map(fromThere)]}
            choose={setSince}
            title="the design as it is, or also what has changed since an earlier revision"
          />
        </label>
        {design.report && (
          <Editable value={!readOnly}>
            <TextButton does="edit" onClick={() => act({ do: 'set-report', report: null })}>
              all chapters again
            </TextButton>
          </Editable>
        )}
        <span>One HTML file that needs nothing from outside and prints on A4 and letter.</span>
        {before.trouble && <span role="alert">{before.trouble}</span>}
      </div>
      <Asking status={status} stop={stop} what="Solving failures, drawing trees" />
      <ol className={room.chapters} aria-label="Chapters">
        {wanted.map(({ chapter, note }, i) => {
          const found = CHAPTERS.find(({ key }) => key === chapter);
          if (!found) return null;
          return (
            <li key={chapter}>
              <label className={room.chapter}>
                <input
                  type="checkbox"
                  disabled={!editable}
                  checked
                  onChange={() => set(wanted.filter((each) => each.chapter !== chapter))}
                />
                {found.name}
                {found.ofChange && <small> of a change</small>}
              </label>
              <TextButton
                does="edit"
                disabled={i === 0}
                aria-label={`earlier, ${found.name}`}
                onClick={() => move(i, -1)}
              >
                earlier
              </TextButton>
              <TextButton
                does="edit"
                disabled={i === wanted.length - 1}
                aria-label={`later, ${found.name}`}
                onClick={() => move(i, 1)}
              >
                later
              </TextButton>
              <Note
                key={note}
                name={found.name}
                note={note}
                keep={(text) => set(wanted.map((each) => (each.chapter === chapter ? { ...each, note: text } : each)))}
              />
            </li>
          );
        })}
        {others.map(({ key, name }) => (
          <li key={key}>
            <label className={room.chapter}>
              <input type="checkbox" checked={false} onChange={() => set([...wanted, { chapter: key, note: '' }])} />
              {name}
            </label>
          </li>
        ))}
      </ol>
    </>
  );
}

interface NoteProps {
  readonly name: string;
  readonly note: string;
  readonly keep: (text: string) => void;
}

function Note({ name, note, keep }: NoteProps) {
  const [text, setText] = useState(note);
  return (
    <textarea
      className={room.note}
      rows={text.includes('\n') ? 3 : 1}
      value={text}
      placeholder="a note, at its beginning"
      aria-label={`Note to ${name}`}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => text !== note && keep(text)}
    />
  );
}
