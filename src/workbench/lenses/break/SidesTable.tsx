'use client';
/** The same scenario side by side: in other modes, with other timers, on another revision of the design. */
import { NumberField } from '../../ui/NumberField';
import { spokenAs } from '../../../core/analysis/regions/asDialect';
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import { createStore, useStore } from 'zustand';
import { TIMER_RANGES } from '../../../core/model/legal';
import { SPOKEN, type Design, type Timers } from '../../../core/model/document';
import { oncePer } from '../../../core/base/cache';
import { SECOND } from '../../../core/modes/entity';
import { costOf, type RunCost } from '../../../core/sim/report/cost';
import { TextButton } from '../../ui/TextButton';
import { runnable, useClock, type Draft } from '../../state/clock';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { revisionAt, solvedOf } from '../../state/revisions';
import type { WorkbenchStore } from '../../state/store';
import type { Runner } from '../../state/runner';
import { dialectText } from '../../ui/words/choices';
import kit from '../../ui/kit.module.css';
import styles from '../shared/clock.module.css';
import { NoRun } from './NoRun';
import { durationText } from '../../../core/base/words';

/** The shortest timers that 802.1D-1998 allows (table 8-3), to begin with. */
const SHORTEST: BridgeTimers = { hello: 1, maxAge: 6, forwardDelay: 4 };
const TIMER_FIELDS = [
  ['hello', 'hello'],
  ['maxAge', 'max age'],
  ['forwardDelay', 'forward delay'],
] as const;

type BridgeTimers = Pick<Timers, 'hello' | 'maxAge' | 'forwardDelay'>;

interface Side {
  readonly name: string;
  readonly design: () => Promise<Design | string>;
}

interface Outcome {
  readonly name: string;
  /** What was run; null where it could not be had. */
  readonly design: Design | null;
  readonly why: string | null;
  readonly cost: RunCost | null;
  readonly changes: number;
  readonly settledAt: number | null;
  readonly storms: number;
}

/** What was measured last, of which design and scenario: kept while its runs are looked at. */
interface Measured {
  readonly of: Design;
  readonly scenario: Draft;
  readonly outcomes: readonly Outcome[];
}
const keptOf = oncePer((_: WorkbenchStore) => createStore<{ readonly now: Measured | null }>(() => ({ now: null })));

const NONE: readonly Outcome[] = [];

export function SidesTable() {
  const store = useWorkbenchStore();
  const kept = keptOf(store);
  const measured = useStore(kept, ({ now }) => now);
  const shown = useWorkbench((state) => state.design);
  // While one of the runs is looked at, the others belong to the design that they were made of.
  const design = measured?.outcomes.some((each) => each.design === shown) ? measured.of : shown;
  const id = useWorkbench((state) => state.id);
  const revision = useWorkbench((state) => state.revision);
  const scenario = useClock((clock) => clock.scenario);
  const clockRunner = useClock((clock) => clock.runner);
  const outcomes = measured?.of === design && measured.scenario === scenario ? measured.outcomes : NONE;
  const setOutcomes = (next: readonly Outcome[]) => kept.setState({ now: { of: design, scenario, outcomes: next } });
  const [busy, setBusy] = useState<{ readonly name: string; readonly share: number } | null>(null);
  const [number, setNumber] = useState('');
  const [timers, setTimers] = useState(SHORTEST);
  /** A runner of its own: the clock's run stays as it is. */
  const runner = useRef<Runner | null>(null);
  const wanted = useRef<boolean>(true);
  useEffect(
    () => () => {
      wanted.current = false;
      runner.current?.close();
    },
    [],
  );
  if (!runnable(scenario)) return <NoRun />;
  const timed = (): Design => ({
    ...design,
    switches: design.switches.map((sw) => ({ ...sw, timers: { ...sw.timers, ...timers } })),
  });
  const now: Side = { name: 'as designed', design: () => Promise.resolve(design) };
  const halted = () => !wanted.current;
  const go = async (sides: readonly Side[], keep: readonly Outcome[]) => {
    wanted.current = true;
    const done = [...keep];
    for (const side of sides) {
      if (halted()) break;
      setBusy({ name: side.name, share: 0 });
      const variant = await side.design();
      const outcome =
        typeof variant === 'string'
          ? failed(side.name, variant)
          : await measure((runner.current ??= clockRunner.another()), side.name, variant, scenario, (share) =>
              setBusy({ name: side.name, share }),
            );
      done.splice(0, done.length, ...done.filter((each) => each.name !== side.name), outcome);
      setOutcomes([...done]);
    }
    setBusy(null);
  };
  /** Shows the timeline of one of the runs. */
  const open = ({ name, design: run }: Outcome) => {
    const { look, revision: at, openDrawer } = store.getState();
    if (!run) return;
    look(run === design ? null : { kind: 'proposal', ...solvedOf(run, at, name), moved: null });
    openDrawer('clock');
  };
  const stop = () => {
    wanted.current = false;
    runner.current?.stop();
  };
  const revisions = Number(number);
  const legal = /^\d+$/.test(number) && revisions <= revision;
  const most = Math.max(0, ...outcomes.map((each) => each.cost?.longest ?? 0));
  return (
    <div className={styles.page}>
      <div className={styles.line}>
        <Button
          size="small"
          variant="outlined"
          disabled={busy !== null}
          onClick={() =>
            void go(
              [
                now,
                ...SPOKEN.map((dialect): Side => ({
                  name: dialectText(dialect),
                  design: () => Promise.resolve(spokenAs(design, dialect)),
                })),
              ],
              [],
            )
          }
        >
          Run it in every mode
        </Button>
        <Button
          size="small"
          variant="outlined"
          disabled={busy !== null}
          onClick={() =>
            void go(
              [
                now,
                {
                  name: `timers ${timers.hello}, ${timers.maxAge}, ${timers.forwardDelay} s`,
                  design: () => Promise.resolve(timed()),
                },
              ],
              outcomes,
            )
          }
        >
          With other timers
        </Button>
        {TIMER_FIELDS.map(([key, label]) => (
          <label key={key}>
            {label}{' '}
            <NumberField
              label={`Other timers: ${label}, seconds`}
              value={timers[key]}
              least={TIMER_RANGES[key].min}
              most={TIMER_RANGES[key].max}
              whole
              commit={(seconds) => setTimers({ ...timers, [key]: seconds })}
            />
          </label>
        ))}
        <form
          className={styles.keep}
          onSubmit={(event) => {
            event.preventDefault();
            if (legal)
              void go(
                [
                  now,
                  {
                    name: `revision ${revisions}`,
                    design: async () =>
                      revisionAt(id, revisions, `revision ${revisions}`).then((found) =>
                        found.ok ? found.value.design : found.error,
                      ),
                  },
                ],
                outcomes,
              );
          }}
        >
          <label>
            on revision{' '}
            <input
              className={kit.input}
              style={{ width: 72 }}
              aria-label="Revision"
              value={number}
              onChange={(event) => setNumber(event.target.value)}
            />
          </label>
          <TextButton does="plain" type="submit" disabled={!legal || busy !== null}>
            run it there
          </TextButton>
          {number !== '' && !legal && <span className={styles.fault}>{`0 to ${revision}`}</span>}
        </form>
        {busy && (
          <span className={styles.busy} role="status">
            {busy.name} <progress max={1} value={busy.share} aria-label={busy.name} />
            <TextButton does="plain" onClick={stop}>
              stop
            </TextButton>
          </span>
        )}
      </div>
      {outcomes.length === 0 ? (
        <p className={styles.hint}>
          The scenario on the timeline, run again under other conditions: how long the longest outage is, how long all
          are together, when all has settled.
        </p>
      ) : (
        <table className={styles.sides} aria-label="Side by side">
          <thead>
            <tr>
              <th>The same scenario</th>
              <th>Longest outage</th>
              <th aria-hidden="true" />
              <th>Pairs cut off</th>
              <th>All outages together</th>
              <th>Changes of ports</th>
              <th>Settled at</th>
            </tr>
          </thead>
          <tbody>
            {outcomes.map((each) => (
              <tr key={each.name}>
                <th scope="row">
                  {each.design ? (
                    <TextButton onClick={() => open(each)} title="its run on the timeline">
                      {each.name}
                    </TextButton>
                  ) : (
                    each.name
                  )}
                </th>
                {each.cost ? (
                  <>
                    <td>{durationText(each.cost.longest)}</td>
                    <td className={styles.barCell}>
                      <span
                        style={{
                          width: `${most > 0 ? (100 * Math.log10(1 + each.cost.longest * 1000)) / Math.log10(1 + most * 1000) : 0}%`,
                        }}
                      />
                    </td>
                    <td>{each.cost.pairs.length}</td>
                    <td>{durationText(each.cost.total)}</td>
                    <td>{each.changes}</td>
                    <td>
                      {each.settledAt === null ? 'not by its end' : `${each.settledAt.toFixed(3)} s`}
                      {each.storms > 0 ? `, ${each.storms} loops` : ''}
                    </td>
                  </>
                ) : (
                  <td colSpan={6} className={styles.fault}>
                    {each.why}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {outcomes.length > 1 && <p className={styles.hint}>Bars grow with the order of magnitude.</p>}
    </div>
  );
}

const failed = (name: string, why: string): Outcome => ({
  name,
  design: null,
  why,
  cost: null,
  changes: 0,
  settledAt: null,
  storms: 0,
});

async function measure(
  runner: Runner,
  name: string,
  design: Design,
  { actions, until, talk, fromBoot }: Parameters<Runner['run']>[1],
  tell: (share: number) => void,
): Promise<Outcome> {
  const done = await runner.run(design, { actions, until, talk, fromBoot }, tell);
  if (!done.ok) return failed(name, done.error);
  const trace = done.value;
  return {
    name,
    design,
    why: null,
    cost: costOf(trace.outages, trace.until / SECOND),
    changes: trace.states.times.length,
    settledAt: trace.settledAt === null ? null : trace.settledAt / SECOND,
    storms: trace.storms.length,
  };
}
