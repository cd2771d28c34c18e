'use client';
/** Which grouping of a network that does not speak MSTP yet is meant: one that is proposed, or the trees as they are. */
import type { MovingGoal } from '../../../core/analysis/regions/movingPlan';

interface Props {
  readonly label: string;
  readonly goals: readonly MovingGoal[];
  readonly chosen: MovingGoal;
  readonly choose: (key: string) => void;
}

export function GoalChoice({ label, goals, chosen, choose }: Props) {
  return (
    <select aria-label={label} value={chosen.key} title={chosen.name} onChange={(event) => choose(event.target.value)}>
      {goals.map((each) => (
        <option key={each.key} value={each.key}>
          {each.name}
        </option>
      ))}
    </select>
  );
}
