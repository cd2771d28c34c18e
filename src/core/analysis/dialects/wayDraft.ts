/** A way out as it is put together, before it is reckoned. */
import type { Command } from '../../edit/commands';
import type { Undated } from '../../model/scenario';
import type { PlanStep } from '../regions/planSteps';

/** A step with what it changes. */
export interface WayStep extends PlanStep {
  readonly changes: readonly Command[];
}

export interface Draft {
  readonly key: string;
  readonly name: string;
  readonly says: string;
  readonly preparation?: readonly Command[];
  /** What each does in a run; null where no run shows it. */
  readonly steps: readonly (Omit<WayStep, 'at'> & { readonly does: readonly Undated[] | null })[];
}
