'use client';
/** Which grouping of a network that does not speak MSTP yet is meant: one that is proposed, or the trees as they are. */
import type { MovingGoal } from '../../../core/analysis/regions/movingPlan';
import { Select } from '../../ui/Select';

interface Props {
  readonly label: string;
  readonly goals: readonly MovingGoal[];
  readonly chosen: MovingGoal;
  readonly choose: (key: string) => void;
}

export function GoalChoice({ label, goals, chosen, choose }: Props) {
  return (
    <Select
      label={label}
      value={chosen.key}
      title={chosen.name}
      options={goals.map((each) => [each.key, each.name])}
      choose={choose}
    />
  );
}
