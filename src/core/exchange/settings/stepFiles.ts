/** Settings step by step: what each step of a plan sets at which switch, in the order of the plan, with what to check. */
import type { JudgedPlan } from '../../analysis/plans/judge';
import { isToBeHeld } from '../../analysis/plans/judge';
import { statesOf, type Plan } from '../../analysis/plans/plan';
import { stepsText } from '../../analysis/plans/planWords';
import { ok, type Result } from '../../base/result';
import { namesOf } from '../../model/derive/names';
import type { Design } from '../../model/document';
import type { SettingsForm } from './form';
import { settingsFiles, type NamedFile, type SwitchFiles } from './forms';

/** The file that says what to do in which order, and what to check. */
export const STEPS = 'steps.txt';

export interface StepFiles {
  /** `01-ridge-a.linux.sh` and so on, and `steps.txt`. */
  readonly files: readonly NamedFile[];
  /** What the form cannot say, each switch once. */
  readonly leftOut: readonly Pick<SwitchFiles, 'of' | 'leftOut'>[];
}

/** `label` heads the steps; `judged`: what each step does, where it is known; the error is a sentence. */
export function stepFiles(
  before: Design,
  plan: Plan,
  judged: JudgedPlan | null,
  form: SettingsForm,
  label: string,
): Result<StepFiles, string> {
  const states = statesOf(before, plan);
  if (!states.ok) return states;
  const leftOut = new Map<string, Pick<SwitchFiles, 'of' | 'leftOut'>>();
  const files: NamedFile[] = [];
  const digits = String(plan.steps.length).length;
  let from = before;
  states.value.forEach((to, step) => {
    for (const each of settingsFiles(to, form, { from })) {
      leftOut.set(each.switch, each);
      for (const { name, text } of each.files)
        files.push({ name: `${String(step).padStart(Math.max(2, digits), '0')}-${name}`, text });
    }
    from = to;
  });
  const holds = judged ? judged.steps.map((step, i) => i < judged.steps.length - 1 && isToBeHeld(step)) : [];
  return ok({
    files: [...files, { name: STEPS, text: stepsText(label, plan, judged, holds, namesOf(before)) }],
    leftOut: [...leftOut.values()],
  });
}
