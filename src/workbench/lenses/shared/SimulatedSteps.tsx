'use client';
/** The steps of a plan as a table, each with what a simulation says of it: who is cut off, for how long, whether frames circle. */
import Button from '@mui/material/Button';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { DEFAULT_TALK, type Action } from '../../../core/model/scenario';
import type { Design } from '../../../core/model/document';
import { outcomesOf, type StepOutcome } from '../../../core/analysis/regions/planSteps';
import { TextButton } from '../../ui/TextButton';
import { useClockStore } from '../../state/clock';
import type { Runner } from '../../state/runner';
import { counted } from '../../ui/words/units';
import styles from './clock.module.css';
import { durationText } from '../../ui/words/durations';

export interface Steps {
  readonly steps: readonly { readonly at: number; readonly text: string; readonly why: string }[];
  readonly actions: readonly Action[];
  readonly until: number;
}

interface Props<P extends Steps> {
  readonly plan: P;
  /** Why no run shows the steps, where that is so. */
  readonly notRun?: string | undefined;
  /** The network that the plan begins with. */
  readonly design: Design;
  readonly label: string;
  /** Choices before the buttons, and buttons after. */
  readonly before?: ReactNode;
  readonly after?: ReactNode;
  /** Columns of its own between the reason and the outcome. */
  readonly columns?: readonly (readonly [heading: string, cell: (step: P['steps'][number]) => ReactNode])[];
}

export function SimulatedSteps<P extends Steps>({
  plan,
  notRun,
  design,
  label,
  before,
  after,
  columns = [],
}: Props<P>) {
  const clock = useClockStore();
  const [ran, setRan] = useState<{ readonly of: P; readonly outcomes: readonly StepOutcome[] | string } | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const runner = useRef<Runner | null>(null);
  useEffect(() => () => runner.current?.close(), []);
  const shown = ran?.of === plan ? ran.outcomes : null;
  const outcomes = Array.isArray(shown) ? (shown as readonly StepOutcome[]) : null;
  const simulate = async () => {
    setShare(0);
    const done = await (runner.current ??= clock.getState().runner.another()).run(
      design,
      { actions: [...plan.actions], until: plan.until, talk: DEFAULT_TALK, fromBoot: false },
      setShare,
    );
    setShare(null);
    setRan({ of: plan, outcomes: done.ok ? outcomesOf(plan, done.value) : done.error });
  };
  return (
    <>
      <div className={styles.stepsLine}>
        {before}
        {notRun === undefined && (
          <Button size="small" variant="outlined" disabled={share !== null} onClick={() => void simulate()}>
            Simulate each step
          </Button>
        )}
        {after}
        {share !== null && (
          <span role="status">
            running <progress max={1} value={share} aria-label="Simulating the plan" />{' '}
            <TextButton does="plain" onClick={() => runner.current?.stop()}>
              stop
            </TextButton>
          </span>
        )}
      </div>
      <table className={styles.planSteps} aria-label={label}>
        <thead>
          <tr>
            <th scope="col">Step</th>
            <th scope="col">What to do</th>
            <th scope="col">Why</th>
            {columns.map(([heading]) => (
              <th key={heading} scope="col">
                {heading}
              </th>
            ))}
            {notRun === undefined && <th scope="col">Simulated</th>}
          </tr>
        </thead>
        <tbody>
          {plan.steps.map((step, i) => (
            <tr key={step.at}>
              <th scope="row">{i + 1}</th>
              <td>{step.text}</td>
              <td>{step.why}</td>
              {columns.map(([heading, cell]) => (
                <td key={heading}>{cell(step)}</td>
              ))}
              {notRun === undefined && (
                <td data-bad={outcomes && (outcomes[i]!.frames !== null || outcomes[i]!.outage > 1) ? '' : undefined}>
                  {outcomes ? outcomeText(outcomes[i]!) : ''}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {typeof shown === 'string' && (
        <p className={styles.stepsFault} role="alert">
          {shown}
        </p>
      )}
      {!outcomes && (
        <p className={styles.stepsHint}>
          {notRun ?? 'Simulate, to see of each step whom it cuts off, for how long, and whether frames circle.'}
        </p>
      )}
    </>
  );
}

function outcomeText({ outage, pairs, frames }: StepOutcome): string {
  const cut =
    pairs === 0
      ? 'nobody is cut off'
      : `${counted(pairs, 'pair')} cut off, the longest for ${outage === Infinity ? 'good' : durationText(outage)}`;
  return frames === 'circle'
    ? `frames circle; ${cut}`
    : frames === 'come twice'
      ? `frames come back or come twice; ${cut}`
      : cut;
}
