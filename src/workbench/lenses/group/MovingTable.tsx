'use client';
/** The way from the present dialects to MSTP: the order of the switches, what each step does, each step simulated before anybody touches a switch. */
import Button from '@mui/material/Button';
import { useMemo, useState, type ReactNode } from 'react';
import type { Design } from '../../../core/model/document';
import { mainRegion } from '../../../core/analysis/regions/asDialect';
import type { MovingGoal, MovingKind, MovingPlan, MovingStep } from '../../../core/analysis/regions/movingPlan';
import { PlanSteps } from '../shared/plan/PlanSteps';
import { useJudged } from '../shared/plan/useJudged';
import { usePresent } from '../shared/plan/usePresent';
import { useWorkbenchStore } from '../../state/context';
import { askGoals, askPlan } from '../../state/questions';
import { useAsk } from '../../state/ask';
import { counted } from '../../../core/base/words';
import { Asking } from '../shared/Asking';
import { GoalChoice } from './GoalChoice';
import styles from '../shared/group.module.css';
import { Select } from '../../ui/Select';

const KINDS: readonly (readonly [MovingKind, string])[] = [
  ['tree', 'root outwards, redundant cables out meanwhile'],
  ['outwards', 'root outwards, every cable in'],
  ['inwards', 'rim inwards, every cable in'],
];

export function MovingTable() {
  const { design } = usePresent();
  const goals = useAsk(useMemo(() => askGoals(design), [design]));
  if (goals.status.kind !== 'found') return <Asking {...goals} what="Looking for what to move to" />;
  return <Plans design={design} goals={goals.status.value} />;
}

function Plans({ design, goals }: { readonly design: Design; readonly goals: readonly MovingGoal[] }) {
  const [asked, setKind] = useState<MovingKind | null>(null);
  const [key, setKey] = useState('');
  // A few that join a region that stands do not need the cables out.
  const kind = asked ?? (mainRegion(design) ? 'outwards' : 'tree');
  const goal = goals.find((each) => each.key === key) ?? goals[0]!;
  const plan = useAsk(useMemo(() => askPlan(design, goal.commands, kind), [design, goal, kind]));
  const choices = (
    <>
      <label>
        To <GoalChoice label="Where to move" goals={goals} chosen={goal} choose={setKey} />
      </label>
      <label>
        How <Select label="Order of the switches" value={kind} options={KINDS} choose={setKind} />
      </label>
    </>
  );
  return (
    <div className={styles.page}>
      {plan.status.kind === 'found' ? (
        <Steps design={design} goal={goal} plan={plan.status.value} choices={choices} />
      ) : (
        <>
          <div className={styles.line}>{choices}</div>
          <Asking {...plan} what="Solving the network after each step" />
        </>
      )}
    </div>
  );
}

function Steps({
  design,
  goal,
  plan,
  choices,
}: {
  readonly design: Design;
  readonly goal: MovingGoal;
  readonly plan: MovingPlan;
  readonly choices: ReactNode;
}) {
  const store = useWorkbenchStore();
  const { judged, button, told } = useJudged(design, plan);
  const takeAll = () => {
    store.getState().look(null);
    store.getState().act(...goal.commands);
  };
  return (
    <>
      <PlanSteps
        plan={plan}
        design={design}
        label="Migration to MSTP"
        judged={judged}
        before={
          <>
            {choices}
            {button}
          </>
        }
        after={
          <Button size="small" variant="outlined" onClick={takeAll}>
            Take over the result
          </Button>
        }
        columns={[['Regions then', (step: MovingStep) => step.regions]]}
        takes
      />
      {told}
      {plan.preparation.length > 0 && (
        <p className={styles.soft}>
          Before the first step: {counted(plan.preparation.length, 'setting')} for region and instances, on every
          switch. They do nothing as long as a switch does not run MSTP.
        </p>
      )}
    </>
  );
}
