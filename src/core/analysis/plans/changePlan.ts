/** The order of steps that takes a running network from one state to another: each judged once it has settled, the least harmful next. */
import { fail, ok, type Result } from '../../base/result';
import { touchedPlaces, valueAt } from '../../model/derive/touched';
import type { Design } from '../../model/document';
import { solve } from '../../tree/solve';
import { Settled } from '../intents/settled';
import { countedIn, effectOf, sentences, watching, type JudgedPlan, type JudgedStep, type StepEffect } from './judge';
import { mixed, stepKey, stepsBetween, type Grain, type Step } from './mix';
import type { Plan, PlanStep } from './plan';
import { runStep } from './stepRun';

export interface ChangePlan {
  readonly plan: Plan;
  readonly judged: JudgedPlan;
}

/** Candidates that are tried for each place in the order: those after them wait. */
const MOST_TRIED = 16;
const MOST_STEPS = 200;
/** The share of the work that is the search; the rest runs the steps. */
const SEARCHING = 0.6;

export interface PlanOptions {
  readonly grain?: Grain;
  /** By hand: the keys of its steps. */
  readonly order?: readonly string[] | null;
}

interface Planned {
  readonly step: PlanStep;
  readonly effect: StepEffect;
  readonly from: Design;
  readonly to: Design;
}

/** Finds an order, or judges the one that is given; the error is a sentence. `progress` is told how far it is, 0 to 1. */
export function planChange(
  before: Design,
  after: Design,
  { grain = 'visits', order = null }: PlanOptions = {},
  progress: (share: number) => void = () => undefined,
): Result<ChangePlan, string> {
  const steps = stepsBetween(before, after, grain);
  if (steps.length === 0) return fail('Nothing that is set at a switch or plugged in differs.');
  if (steps.length > MOST_STEPS) return fail(`${steps.length} steps are more than ${MOST_STEPS}: plan it in parts.`);
  const done = new Set<string>();
  const start = mixed(before, after, done);
  if (!start) return fail('The two states do not fit together.');
  const goal = watching(new Settled(solve(start)), new Settled(solve(after)));
  const planned: Planned[] = [];
  let at = new Settled(solve(start));
  const left = [...steps];
  while (left.length > 0) {
    progress((planned.length / steps.length) * SEARCHING);
    let best: { readonly step: Step; readonly to: Settled; readonly effect: StepEffect } | null = null;
    let tried = 0;
    const next = order?.[planned.length];
    for (const step of next === undefined ? left : left.filter((each) => stepKey(each) === next)) {
      if (tried >= MOST_TRIED) break;
      const design = mixed(before, after, new Set([...done, stepKey(step)]));
      if (!design) continue;
      tried += 1;
      const to = new Settled(solve(design));
      const effect = effectOf(at, to, goal);
      if (!best || isLess(harm(effect), harm(best.effect))) best = { step, to, effect };
    }
    if (!best)
      return fail(
        order
          ? `Step ${planned.length + 1} cannot be done there: it needs something that comes later, as a cable ports that are there and free.`
          : 'No order works: a cable needs a port that is taken until another one is moved. Unplug one of them first.',
      );
    done.add(stepKey(best.step));
    left.splice(left.indexOf(best.step), 1);
    const [from, to] = [at.network.design, best.to.network.design];
    planned.push({ step: planStep(best.step, from, to), effect: best.effect, from, to });
    at = best.to;
  }
  const counts = countedIn(goal);
  return ok({
    plan: {
      preparation: [{ do: 'put', puts: putsBetween(before, start) }].filter(({ puts }) => puts.length > 0) as never,
      steps: planned.map(({ step }) => step),
    },
    judged: {
      watched: goal.musts.length,
      steps: planned.map(({ effect, from, to }, i): JudgedStep => {
        progress(SEARCHING + (1 - SEARCHING) * (i / planned.length));
        return { ...effect, back: sentences(to, from), run: runStep(from, to, counts) };
      }),
    },
  });
}

const planStep = (step: Step, from: Design, to: Design): PlanStep => ({
  key: stepKey(step),
  switch: step.kind === 'cable' ? null : step.switch,
  does: sentences(from, to),
  why: null,
  changes: [{ do: 'put', puts: putsBetween(from, to) }],
});

const putsBetween = (from: Design, to: Design) =>
  touchedPlaces(from, to).map((place) => {
    const value = valueAt(to, place);
    return { place: [...place], ...(value === undefined ? {} : { value }) };
  });

const isLess = (a: readonly number[], b: readonly number[]): boolean => {
  const at = a.findIndex((n, i) => n !== b[i]);
  return at >= 0 && a[at]! < b[at]!;
};
/** The most important first. */
const harm = ({ broken, cutOff, roots, ends }: StepEffect): number[] => [
  broken.length,
  cutOff.length,
  roots.length,
  ends,
];
