'use client';
/** The line for intents: what must hold, with whether it does already. */
import { useCallback } from 'react';
import {
  intentCompletions,
  keptLine,
  readIntent,
  verdictOf,
  writeIntent,
  type Meant,
} from '../../../core/analysis/intents/intents';
import { Settled } from '../../../core/analysis/intents/settled';
import { newTo } from '../../../core/analysis/intents/sets';
import type { Design } from '../../../core/model/document';
import type { Solution } from '../../../core/tree/settled';
import { useFollowing, useWorkbenchStore } from '../../state/context';
import styles from '../shared/lines/line.module.css';
import { LineEditor, type Understood } from '../shared/lines/LineEditor';
import { addIntents } from './addIntents';

interface Read extends Understood {
  readonly meant: readonly Meant[];
}

/** Lines shown at once. */
const MOST = 6;

export function IntentLine() {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => state.design);
  const solution = useFollowing((state) => state.solution);
  const read = useCallback(
    (text: string, now = false): Read => readAll(now ? store.getState().newest() : design, text),
    [store, design],
  );
  return (
    <LineEditor
      name="Intents"
      label="Line for intents"
      placeholder="What must hold, such as  whatever link fails, all hosts reach each other"
      verb="Add"
      complete={useCallback((line: string, at: number) => intentCompletions(design, line, at), [design])}
      read={read}
      act={({ meant }) => {
        const { newest, act } = store.getState();
        const now = newest();
        const fresh = newTo(
          now,
          meant.map((each) => ({ line: keptLine(now, each), severity: 'must' })),
          true,
        );
        return fresh.length === 0 ? 'The design has this intent already.' : act(...addIntents(now, fresh));
      }}
      preview={({ meant }) => <Preview design={design} solution={solution} meant={meant} />}
      hint={
        <p className={styles.soft}>
          <code>ridge-a is root of vlan 15</code>, <code>lodge 1 blocks vlan 25</code>,{' '}
          <code>all hosts reach each other</code>, <code>no link above 70 %</code>; with{' '}
          <code>whatever link fails,</code> in front it is held against every failure of a link. Several lines can be
          pasted. Tab takes a word, Enter adds it.
        </p>
      }
    />
  );
}

function readAll(design: Design, text: string): Read {
  const all = text
    .split('\n')
    .map((source, line) => ({ source, line }))
    .filter(({ source }) => source.replace(/#.*/, '').trim() !== '')
    .map(({ source, line }) => ({ line, read: readIntent(design, source) }));
  return {
    lines: all.map(({ line, read }) => ({ line, fault: read.ok ? null : read.error })),
    meant: all.flatMap(({ read }) => (read.ok ? [read.value] : [])),
    does: all.length > 0,
  };
}

function Preview({
  design,
  solution,
  meant,
}: {
  readonly design: Design;
  readonly solution: Solution | null;
  readonly meant: readonly Meant[];
}) {
  const of = solution && new Settled(solution);
  return (
    <>
      <p className={styles.soft}>Enter adds:</p>
      <ul className={styles.effects}>
        {meant.slice(0, MOST).map((each, i) => (
          <li key={i}>
            {writeIntent(design, each)} <span className={styles.soft}>({saysNow(of, each)})</span>
          </li>
        ))}
      </ul>
      {meant.length > MOST && <p className={styles.soft}>and {meant.length - MOST} more</p>}
    </>
  );
}

function saysNow(of: Settled | null, { whatever, claim }: Meant): string {
  if (whatever) return 'held against every such failure once it is added';
  if (!of) return 'no trees yet';
  const verdict = verdictOf(claim, of);
  return verdict.is === 'broken' ? `does not hold now: ${verdict.why}` : 'holds now';
}
