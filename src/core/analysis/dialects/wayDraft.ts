/** A way out as it is put together, before it is reckoned. */
import type { Command } from '../../edit/commands';
import type { PlanStep } from '../plans/plan';

export interface Draft {
  readonly key: string;
  readonly name: string;
  readonly says: string;
  readonly preparation?: readonly Command[];
  readonly steps: readonly Omit<PlanStep, 'key'>[];
  /** Switches are off while they are rebuilt: no run shows it. */
  readonly rebuilds?: true;
}
