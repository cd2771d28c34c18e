'use client';
/** What the steps of a plan do, once somebody asks. */
import Button from '@mui/material/Button';
import { useState, type ReactNode } from 'react';
import type { JudgedPlan } from '../../../../core/analysis/plans/judge';
import type { Plan } from '../../../../core/analysis/plans/plan';
import type { Design } from '../../../../core/model/document';
import { useAsk, type Ask } from '../../../state/ask';
import { askJudged } from '../../../state/questions';
import { Asking } from '../Asking';
import styles from './plan.module.css';
import { summaryText } from '../../../../core/analysis/plans/planWords';

interface Judging {
  readonly judged: JudgedPlan | null;
  /** Asks for it. */
  readonly button: ReactNode;
  /** How far it is, and what came of it. */
  readonly told: ReactNode;
}

/** `notRun`: why nothing can be said of its steps, where that is so. */
export function useJudged(design: Design, plan: Plan | null, notRun?: string): Judging {
  const [wanted, want] = useState<{ readonly plan: Plan; readonly ask: Ask<JudgedPlan> } | null>(null);
  const asked = wanted !== null && wanted.plan === plan ? wanted.ask : null;
  const { status, stop } = useAsk(asked);
  const judged = status.kind === 'found' ? status.value : null;
  return {
    judged,
    button: plan && notRun === undefined && (
      <Button
        size="small"
        variant="outlined"
        disabled={status.kind === 'busy'}
        onClick={() => want({ plan, ask: askJudged(design, plan) })}
      >
        Simulate each step
      </Button>
    ),
    told: asked ? (
      <>
        <Asking status={status} stop={stop} what="Solving and running each step" />
        {judged && <p className={styles.hint}>On the way, {summaryText(judged)}</p>}
      </>
    ) : (
      <p className={styles.hint}>
        {notRun ??
          'Simulate, to see of each step what it moves, whom it cuts off, for how long, and whether frames circle.'}
      </p>
    ),
  };
}
