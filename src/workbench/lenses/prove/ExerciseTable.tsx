'use client';
/** An exercise: what is asked, which intents hold already, and with how many settings touched; or how to make one of the design. */
import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { bestSheet, settingsTouched } from '../../../core/analysis/intents/exercise';
import type { Design, Exercise } from '../../../core/model/document';
import { treeName, type TreeId } from '../../../core/model/ids';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { mayEdit } from '../../state/looking';
import { revisionAt } from '../../state/revisions';
import { useStandings, useWaiting } from '../../state/standings';
import { Select } from '../../ui/Select';
import styles from '../../ui/table.module.css';
import { TextButton } from '../../ui/TextButton';
import { counted } from '../../../core/base/words';
import own from './prove.module.css';

export function ExerciseTable() {
  const exercise = useFollowing((state) => state.design.exercise);
  return exercise ? <Taken exercise={exercise} /> : <Make />;
}

function Make() {
  const act = useWorkbench((state) => state.act);
  const revision = useWorkbench((state) => state.revision);
  const intents = useFollowing((state) => state.design.intents.length);
  const viewing = !useWorkbench(mayEdit);
  const trees = useFollowing((state) => state.solution?.trees);
  const [task, setTask] = useState('');
  const [worksheet, setWorksheet] = useState<TreeId | ''>('');
  if (intents === 0 && (trees ?? []).length === 0)
    return (
      <p className={styles.empty}>
        An exercise is a design whose intents do not hold yet, or one of whose trees is to be worked out by hand. Write
        the intents first, then say here what is asked. The list of designs has six to begin with.
      </p>
    );
  return (
    <form
      className={own.make}
      onSubmit={(event) => {
        event.preventDefault();
        const sheet = worksheet === '' ? {} : { worksheet };
        act({ do: 'set-exercise', exercise: { task: task.trim(), begins: revision + 1, ...sheet } });
      }}
    >
      <label htmlFor="exercise-task">What is asked of whoever takes it</label>
      <textarea
        id="exercise-task"
        rows={3}
        value={task}
        placeholder="Make the two core switches roots, so that both uplinks of every access switch are used."
        onChange={(event) => setTask(event.target.value)}
      />
      <label>
        To be worked out by hand, too:{' '}
        <Select<TreeId | ''>
          label="Worksheet for"
          value={worksheet}
          options={[['', 'nothing'], ...(trees ?? []).map(({ id }) => [id, treeName(id)] as const)]}
          choose={setWorksheet}
        />
      </label>
      <Button
        type="submit"
        variant="outlined"
        size="small"
        disabled={viewing || task.trim() === '' || (intents === 0 && worksheet === '')}
      >
        Make an exercise of this
      </Button>
    </form>
  );
}

function Taken({ exercise: { task, begins, worksheet } }: { readonly exercise: Exercise }) {
  const store = useWorkbenchStore();
  const id = useWorkbench((state) => state.id);
  const act = useWorkbench((state) => state.act);
  const design = useFollowing((state) => state.design);
  const saved = useWorkbench((state) => state.save.kind === 'saved');
  const viewing = !useWorkbench(mayEdit);
  const standings = useStandings();
  const waiting = useWaiting();
  const { begin, trouble } = useBeginning(id, begins, saved);
  const touched = useMemo(() => (begin ? settingsTouched(begin, design) : null), [begin, design]);
  const [refused, setRefused] = useState<string | null>(null);
  const asked = standings.filter(({ intent }) => intent.severity === 'must');
  const extra = standings.filter(({ intent }) => intent.severity === 'should');
  const hold = (all: typeof standings): number => all.filter(({ is }) => is === 'holds').length;
  const sheet = worksheet === undefined ? null : bestSheet(begin, design, worksheet);
  const filled = worksheet === undefined || (sheet !== null && sheet.right === sheet.of);
  const done = (asked.length > 0 || worksheet !== undefined) && hold(asked) === asked.length && filled;
  return (
    <div className={own.exercise}>
      <p className={own.task}>{task}</p>
      <p role="status" data-done={done || undefined}>
        <b>{done ? 'Done. ' : ''}</b>
        {asked.length + extra.length > 0 && (
          <>
            {hold(asked)} of {asked.length} that must hold do
            {extra.length > 0 && `, and ${hold(extra)} of ${extra.length} that should`}
            {touched !== null && `, with ${counted(touched, 'setting')} touched`}.
          </>
        )}
        {worksheet !== undefined &&
          ` Of the worksheet ${sheet ? `${sheet.right} of ${sheet.of} are right` : 'nothing is filled in yet'}.`}
        {waiting !== null && ` Trying failures, ${Math.round(waiting * 100)} %…`}
      </p>
      <ul className={own.asked} aria-label="What is asked">
        {worksheet !== undefined && (
          <li data-is={filled ? 'holds' : 'broken'}>
            <span className={own.state} data-is={filled ? 'holds' : 'broken'} data-severity="must">
              {filled ? 'done' : 'not yet'}
            </span>
            <span>
              The worksheet for {treeName(worksheet)}, worked out by hand.{' '}
              {!viewing && (
                <TextButton onClick={() => store.getState().openWorksheet(worksheet)}>
                  {sheet === null ? 'fill it in' : 'fill it in again'}
                </TextButton>
              )}
            </span>
          </li>
        )}
        {[...asked, ...extra].map(({ intent, text, is, why }) => (
          <li key={intent.id} data-is={is}>
            <span className={own.state} data-is={is} data-severity={intent.severity}>
              {is === 'holds' ? 'holds' : is === 'waits' ? 'not known yet' : 'not yet'}
            </span>
            <span>
              {text} {intent.severity === 'should' && <span className={styles.why}>(should)</span>}
              {why !== '' && is !== 'holds' && <span className={styles.why}> {why}</span>}
            </span>
          </li>
        ))}
      </ul>
      {(trouble ?? refused) && (
        <p className={styles.fault} role="alert">
          {trouble ?? refused}
        </p>
      )}
      {!viewing && (
        <p className={own.small}>
          <TextButton
            does="edit"
            disabled={!begin || touched === 0}
            onClick={() => begin && setRefused(store.getState().restore(begins, begin))}
            title={`as it was in revision ${begins}; what you did stays in the history`}
          >
            begin again
          </TextButton>
          <TextButton does="plain" onClick={() => setRefused(act({ do: 'set-exercise', exercise: null }))}>
            no exercise any more
          </TextButton>
        </p>
      )}
    </div>
  );
}

/** The design as the exercise began; null until it is here. */
function useBeginning(
  id: string,
  revision: number,
  saved: boolean,
): { readonly begin: Design | null; readonly trouble: string | null } {
  const [found, setFound] = useState<{
    readonly of: string;
    readonly begin: Design | null;
    readonly trouble: string | null;
  } | null>(null);
  const of = `${id} ${revision}`;
  const there = found?.of === of ? found : null;
  const wanted = !there?.begin && saved;
  useEffect(() => {
    if (!wanted) return;
    let gone = false;
    void revisionAt(id, revision, 'the beginning').then((answer) => {
      if (gone) return;
      setFound({ of, begin: answer.ok ? answer.value.design : null, trouble: answer.ok ? null : answer.error });
    });
    return () => {
      gone = true;
    };
  }, [id, revision, of, wanted]);
  return { begin: there?.begin ?? null, trouble: there?.trouble ?? null };
}
