'use client';
/** The steps of a plan, whoever made it: what to do and why, what each does, what to look at, how it goes back; shown on the map, held, played. */
import Button from '@mui/material/Button';
import { useMemo, useState, type ReactNode } from 'react';
import { isToBeHeld, type JudgedPlan, type JudgedStep } from '../../../../core/analysis/plans/judge';
import type { Plan, PlanStep } from '../../../../core/analysis/plans/plan';
import { namesOf } from '../../../../core/model/derive/names';
import type { Design } from '../../../../core/model/document';
import { useClockStore } from '../../../state/clock';
import { useWorkbench, useWorkbenchStore } from '../../../state/context';
import { mayEdit } from '../../../state/looking';
import { Editable } from '../../../ui/editable';
import { TextButton } from '../../../ui/TextButton';
import { BackToNow, MapShows } from '../lossTable';
import { checksOf, meanwhileText, settledText, stepsText } from '../../../../core/analysis/plans/planWords';
import styles from './plan.module.css';
import { SaveSteps } from './SaveSteps';
import { playPlan, showStep } from './showPlan';

interface Props<S extends PlanStep> {
  /** The network that it begins with, before its preparation. */
  readonly design: Design;
  readonly plan: Plan<S>;
  readonly label: string;
  /** What each step does; null as long as nobody has asked. */
  readonly judged: JudgedPlan | null;
  /** Why it cannot be run, where that is so. */
  readonly notRun?: string | undefined;
  /** Choices before the buttons, and buttons after. */
  readonly before?: ReactNode;
  readonly after?: ReactNode;
  /** Columns of its own. */
  readonly columns?: readonly (readonly [heading: string, cell: (step: S) => ReactNode])[];
  /** Puts the steps in another order; their keys. */
  readonly reorder?: (order: readonly string[]) => void;
  /** Whether its steps can be taken into the design one by one. */
  readonly takes?: boolean;
}

export function PlanSteps<S extends PlanStep>(props: Props<S>) {
  const { design, plan, label, judged, notRun, before, after, columns = [], reorder, takes = false } = props;
  const { steps } = plan;
  const store = useWorkbenchStore();
  const clock = useClockStore();
  const readOnly = useWorkbench((state) => state.readOnly);
  const viewing = !useWorkbench(mayEdit);
  const [shown, setShown] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [chosen, setChosen] = useState<ReadonlyMap<string, boolean>>(new Map());
  const names = useMemo(() => ({ ...namesOf(design) }), [design]);
  const judgedAt = (i: number): JudgedStep | null => judged?.steps[i] ?? null;
  const isHeld = (i: number): boolean =>
    i < steps.length - 1 && (chosen.get(steps[i]!.key) ?? (judged !== null && isToBeHeld(judgedAt(i)!)));
  const show = (i: number) => {
    const fault = showStep(store, design, plan, i);
    setTrouble(fault);
    setShown(fault === null ? steps[i]!.key : null);
  };
  const move = (i: number, by: -1 | 1) => {
    const order = steps.map(({ key }) => key);
    [order[i], order[i + by]] = [order[i + by]!, order[i]!];
    store.getState().look(null);
    reorder?.(order);
  };
  const take = ({ changes }: S) => {
    store.getState().look(null);
    setTrouble(store.getState().act(...plan.preparation, ...changes));
  };
  const play = () => {
    const holds = steps.flatMap((_, i) =>
      isHeld(i) ? [[i, ...(judged ? checksOf(judgedAt(i)!, names).after : [])] as const] : [],
    );
    setTrouble(playPlan(store, clock, { design, plan, name: label, holds }));
  };
  const copy = async () => {
    const text = stepsText(
      label,
      plan,
      judged,
      steps.map((_, i) => isHeld(i)),
      names,
    );
    await navigator.clipboard.writeText(text).then(
      () => setTrouble(null),
      () => setTrouble('The clipboard cannot be written to.'),
    );
  };
  const reasons = steps.some(({ why }) => why !== null);
  return (
    <>
      <div className={styles.line}>
        {before}
        {notRun === undefined && (
          <Button size="small" variant="outlined" onClick={play}>
            Play it on the timeline
          </Button>
        )}
        {after}
        <TextButton onClick={() => void copy()}>copy the steps</TextButton>
        <SaveSteps design={design} plan={plan} judged={judged} label={label} fail={setTrouble} />
        {viewing && (
          <span>
            <MapShows /> <BackToNow />
          </span>
        )}
        {trouble && (
          <span className={styles.fault} role="alert">
            {trouble}
          </span>
        )}
      </div>
      <Editable value={!readOnly}>
        <table className={styles.steps} aria-label={label}>
          <thead>
            <tr>
              <th scope="col">Step</th>
              <th scope="col">What to do</th>
              {reasons && <th scope="col">Why</th>}
              {columns.map(([heading]) => (
                <th key={heading} scope="col">
                  {heading}
                </th>
              ))}
              {judged && <th scope="col">Once settled</th>}
              {judged && <th scope="col">Meanwhile, simulated</th>}
              <th scope="col">
                <abbr title="Hold points: played on the timeline, it halts after these steps">Hold</abbr>
              </th>
              <th scope="col">On the map</th>
            </tr>
          </thead>
          <tbody>
            {steps.map((step, i) => {
              const found = judgedAt(i);
              return (
                <tr key={step.key} data-shown={(viewing && shown === step.key) || undefined}>
                  <th scope="row">{i + 1}</th>
                  <td>
                    {step.does.map((text) => (
                      <p key={text}>{text}</p>
                    ))}
                    {found && found.back.length > 0 && (
                      <details>
                        <summary>Take it back</summary>
                        {found.back.map((text) => (
                          <p key={text}>{text}</p>
                        ))}
                      </details>
                    )}
                  </td>
                  {reasons && <td>{step.why}</td>}
                  {columns.map(([heading, cell]) => (
                    <td key={heading}>{cell(step)}</td>
                  ))}
                  {found && (
                    <td data-bad={found.cutOff.length + found.broken.length > 0 ? '' : undefined}>
                      {settledText(found, names)}
                      <Checks step={found} names={names} />
                    </td>
                  )}
                  {found && <td data-bad={isBad(found) ? '' : undefined}>{meanwhileText(found.run, names)}</td>}
                  <td>
                    {i < steps.length - 1 && (
                      <input
                        type="checkbox"
                        aria-label={`hold after step ${i + 1}`}
                        checked={isHeld(i)}
                        onChange={(event) => setChosen(new Map(chosen).set(step.key, event.target.checked))}
                      />
                    )}
                  </td>
                  <td className={styles.ways}>
                    <TextButton
                      onClick={() => show(i)}
                      aria-label={`show it, step ${i + 1}`}
                      title="the map once this step is done and all has settled"
                    >
                      show it
                    </TextButton>
                    {takes && (
                      <TextButton does="edit" onClick={() => take(step)} aria-label={`take this step, step ${i + 1}`}>
                        take this step
                      </TextButton>
                    )}
                    {reorder && (
                      <>
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
                      </>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Editable>
    </>
  );
}

/** What to look at at the switches, before and after. */
function Checks({ step, names }: { readonly step: JudgedStep; readonly names: Parameters<typeof checksOf>[1] }) {
  const { before, after } = checksOf(step, names);
  if (before.length + after.length === 0) return null;
  return (
    <details>
      <summary>What to check</summary>
      <p>Before: {before.join('; ')}.</p>
      <p>After: {after.join('; ')}.</p>
    </details>
  );
}

const isBad = ({ run }: JudgedStep): boolean =>
  run.ok &&
  (run.value.frames !== null || (run.value.worst !== null && (run.value.worst.lasting || run.value.worst.longest > 1)));
