'use client';
/** The order of steps that takes the network from an earlier revision to the present design: each judged settled and run, shown on the map, moved by hand. */
import Button from '@mui/material/Button';
import { useCallback, useMemo, useState } from 'react';
import type { ChangePlan, PlannedStep } from '../../../core/analysis/plans/changePlan';
import { mixed, stepKey } from '../../../core/analysis/plans/mix';
import { namesOf } from '../../../core/model/derive/names';
import type { Design } from '../../../core/model/document';
import { treesName } from '../../../core/model/ids';
import type { Names } from '../../../core/model/names';
import { movedEnds } from '../../../core/tree/moved';
import { solve } from '../../../core/tree/solve';
import { useAsk, type Ask } from '../../state/ask';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { atPresent } from '../../state/looking';
import { movedOf } from '../../state/moved';
import { askChange } from '../../state/questions';
import { revisionAt, revisionName, solvedOf } from '../../state/revisions';
import { Select } from '../../ui/Select';
import styles from '../../ui/table.module.css';
import { TextButton } from '../../ui/TextButton';
import { durationText } from '../../ui/words/durations';
import { counted } from '../../ui/words/units';
import { Asking } from '../shared/Asking';
import { BackToNow, MapShows } from '../shared/lossTable';
import { useHistory } from '../shared/useHistory';
import own from './prove.module.css';

/** Revisions offered to begin with, beside those with names. */
const MOST = 40;

interface Wanted {
  readonly before: Design;
  readonly after: Design;
  readonly from: string;
  readonly ask: Ask<ChangePlan>;
}

export function ChangePlanTable() {
  const id = useWorkbench((state) => state.id);
  const design = useFollowing((state) => state.design);
  const saved = useWorkbench((state) => (state.save.kind === 'saved' && atPresent(state) ? state.revision : null));
  const present = useWorkbench(atPresent);
  const { entries } = useHistory(id, saved);
  const [chosen, choose] = useState<number | null>(null);
  const [wanted, want] = useState<Wanted | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { status, stop } = useAsk(wanted?.ask ?? null);
  const earlier = (entries ?? []).filter(({ number }) => number < (saved ?? Infinity));
  const offered = earlier.filter(({ baseline }, i) => i < MOST || baseline !== null);
  const from = offered.find(({ number }) => number === chosen) ?? offered[0];
  const find = async () => {
    if (!from) return;
    const name = revisionName(from.number, from.baseline);
    const begin = await revisionAt(id, from.number, name);
    setTrouble(begin.ok ? null : begin.error);
    if (begin.ok)
      want({ before: begin.value.design, after: design, from: name, ask: askChange(begin.value.design, design, null) });
  };
  const reorder = useCallback(
    (order: readonly string[]) => want((now) => now && { ...now, ask: askChange(now.before, now.after, order) }),
    [],
  );
  if (entries !== null && !from)
    return (
      <p className={styles.empty}>
        Once something has been changed, this finds the order of steps from an earlier revision to the present design.
      </p>
    );
  return (
    <>
      <div className={styles.filter}>
        {present ? (
          <>
            {from && (
              <Select
                label="From"
                value={String(from.number)}
                options={offered.map(({ number, baseline, label }) => [
                  String(number),
                  `${revisionName(number, baseline)}: ${label}`.slice(0, 70),
                ])}
                choose={(number) => choose(Number(number))}
              />
            )}
            <span>to now</span>
            <Button
              size="small"
              variant="outlined"
              disabled={!from || status.kind === 'busy'}
              onClick={() => void find()}
            >
              Find an order
            </Button>
          </>
        ) : (
          <span>
            <MapShows /> <BackToNow />
          </span>
        )}
        {trouble && <span role="alert">{trouble}</span>}
      </div>
      <Asking status={status} stop={stop} what="Finding an order, and running its steps" />
      {wanted && status.kind === 'found' && (
        <Steps plan={status.value} wanted={wanted} stale={present && wanted.after !== design} reorder={reorder} />
      )}
    </>
  );
}

function Steps({
  plan: { steps, watched },
  wanted: { before, after, from },
  stale,
  reorder,
}: {
  readonly plan: ChangePlan;
  readonly wanted: Wanted;
  readonly stale: boolean;
  readonly reorder: (order: readonly string[]) => void;
}) {
  const store = useWorkbenchStore();
  const names = useMemo(() => ({ ...namesOf(after) }), [after]);
  const keys = steps.map(({ step }) => stepKey(step));
  const [shown, setShown] = useState<number | null>(null);
  const viewing = !useWorkbench(atPresent);
  const show = (i: number) => {
    const [was, is] = [i, i + 1].map((count) => mixed(before, after, new Set(keys.slice(0, count))));
    if (!was || !is) return;
    store.getState().look(null);
    const label = `the network after step ${i + 1}`;
    const there = solvedOf(is, store.getState().revision, label);
    setShown(i);
    store.getState().look({
      ...there,
      kind: 'loss',
      moved: movedOf(label, movedEnds(solve(was), there.solution), 'comparison'),
    });
  };
  const move = (i: number, by: -1 | 1) => {
    const order = [...keys];
    [order[i], order[i + by]] = [order[i + by]!, order[i]!];
    store.getState().look(null);
    reorder(order);
  };
  return (
    <>
      <p className={styles.summary}>
        {counted(steps.length, 'step')} from {from} to now: {summaryOf(steps, watched)}
        {stale && ' The design has changed since: find it again.'}
      </p>
      <ol className={`${styles.findings} ${own.steps}`} aria-label="Steps">
        {steps.map((step, i) => (
          <li key={keys[i]} data-shown={(viewing && shown === i) || undefined}>
            <div>
              {step.does.map((text, at) => (
                <p key={text}>
                  {at === 0 && `${i + 1}. `}
                  {text}
                </p>
              ))}
              <p className={styles.why}>{effectOf(step, names)}</p>
              <details className={styles.why}>
                <summary>Take it back</summary>
                {step.back.join(' ')}
              </details>
            </div>
            <span className={own.ways}>
              <TextButton onClick={() => show(i)} title="the map once this step is done and all has settled">
                show it
              </TextButton>
              <TextButton
                does="plain"
                disabled={i === 0}
                aria-label={`step ${i + 1} earlier`}
                onClick={() => move(i, -1)}
              >
                earlier
              </TextButton>
              <TextButton
                does="plain"
                disabled={i === steps.length - 1}
                aria-label={`step ${i + 1} later`}
                onClick={() => move(i, 1)}
              >
                later
              </TextButton>
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}

/** What a step does, in a sentence or some. */
export function effectOf({ ends, roots, cutOff, broken, run }: PlannedStep, names: Names): string {
  const byRoot = new Map<string, string[]>();
  for (const { tree, root } of roots) {
    const name = root === null ? 'nobody' : names.switch(root);
    byRoot.set(name, [...(byRoot.get(name) ?? []), tree]);
  }
  return [
    ends === 0
      ? 'No port of others changes its role.'
      : `${counted(ends, 'port')} ${ends === 1 ? 'changes its' : 'change their'} role.`,
    ...[...byRoot].map(([name, trees]) => `Check: the root of ${treesName(trees as never)} is ${name}.`),
    meanwhile(run, names),
    ...(cutOff.length > 0
      ? [`Until a later step, cut off: ${cutOff.map((host) => names.host(host)).join(', ')}.`]
      : []),
    ...broken.map((text) => `Breaks until a later step: ${text}.`),
  ].join(' ');
}

function meanwhile(run: PlannedStep['run'], names: Names): string {
  if (!run.ok) return run.error;
  const { worst, pairs, loops } = run.value;
  const circle = loops ? ' Frames circle meanwhile.' : '';
  if (!worst) return `Nobody is cut off meanwhile.${circle}`;
  const time = worst.lasting ? 'to the end' : `for ${durationText(worst.longest)}`;
  return `Meanwhile ${names.host(worst.from)} does not reach ${names.host(worst.to)} ${time}${pairs > 1 ? `, and ${counted(pairs - 1, 'more pair')} for less` : ''}.${circle}`;
}

/** `watched`: intents that must hold and do at both ends. */
function summaryOf(steps: readonly PlannedStep[], watched: number): string {
  const times = steps.flatMap(({ run }) => (run.ok && run.value.worst ? [run.value.worst.longest] : []));
  const broken = steps.filter(({ broken: all }) => all.length > 0).length;
  return `${times.length === 0 ? 'nobody is cut off on the way' : `the longest outage lasts ${durationText(Math.max(...times))}`}${broken > 0 ? `; ${counted(broken, 'step')} with an intent broken` : watched > 0 ? ', and every must about the network as it is that holds at both ends does all the way' : ''}.`;
}
