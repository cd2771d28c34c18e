/**
 * Plans: steps that take a running network from one state to another, each a change of the design. Whoever plans says what is to
 * be done and why; they are judged, played and shown in one way.
 */
import { fail, ok, type Result } from '../../base/result';
import type { Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import { isClassic, type Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { problemText } from '../../model/problem';

export interface PlanStep {
  /** Tells it from the other steps of its plan. */
  readonly key: string;
  /** The switch at which it is done; null where it is a cable. */
  readonly switch: SwitchId | null;
  /** What is to be done, a sentence for each setting. */
  readonly does: readonly string[];
  readonly why: string | null;
  readonly changes: readonly Command[];
}

export interface Plan<S extends PlanStep = PlanStep> {
  /** What is set before the first step, and does nothing by itself. */
  readonly preparation: readonly Command[];
  readonly steps: readonly S[];
}

/** Seconds between two steps, in which all comes to rest: more where ports take two forward delays. */
export const pauseIn = ({ switches }: Design): number => (switches.some((sw) => sw.up && isClassic(sw)) ? 60 : 10);

/** The states of a design on the way: prepared, and after each step; the error is a sentence. */
export function statesOf(design: Design, { preparation, steps }: Plan): Result<Design[], string> {
  const states: Design[] = [];
  let at = design;
  for (const changes of [preparation, ...steps.map((step) => step.changes)]) {
    const edited = editAll(at, changes);
    if (!edited.ok) return fail(`The plan does not fit the design: ${problemText(edited.error)}`);
    at = edited.value.design;
    states.push(at);
  }
  return ok(states);
}

/** The network that a plan begins with: prepared, with nothing done yet. */
export function preparedDesign(design: Design, { preparation }: Pick<Plan, 'preparation'>): Design {
  const edited = editAll(design, preparation);
  return edited.ok ? edited.value.design : design;
}
