/** The order of steps that takes a running network from one state to another: the least harmful next, once it has settled and until then. */
import { fail, ok, type Result } from '../../base/result';
import { touchedPlaces, valueAt } from '../../model/derive/touched';
import type { Design } from '../../model/document';
import { solve } from '../../tree/solve';
import { Settled } from '../intents/settled';
import {
  countedIn,
  effectOf,
  sentences,
  watching,
  type Goal,
  type JudgedPlan,
  type JudgedStep,
  type StepEffect,
} from './judge';
import { mixed, stepKey, stepsBetween, type Grain, type Step } from './mix';
import type { Plan, PlanStep } from './plan';
import { runStep, type StepRun } from './stepRun';

export interface ChangePlan {
  readonly plan: Plan;
  readonly judged: JudgedPlan;
}

/** Candidates that are tried for each place in the order: those after them wait. */
const MOST_TRIED = 16;
const MOST_STEPS = 200;
/** Candidates that are run, where they do equally little once all has settled; of networks whose runs take long, ports x trees, one. */
const MOST_RUN = 3;
const LONG_RUN = 20_000;

export interface PlanOptions {
  readonly grain?: Grain;
  /** By hand: the keys of its steps. */
  readonly order?: readonly string[] | null;
}

interface Planned {
  readonly step: PlanStep;
  readonly judged: JudgedStep;
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
  const counts = countedIn(goal);
  const planned: Planned[] = [];
  let at = new Settled(solve(start));
  const left = [...steps];
  while (left.length > 0) {
    progress(planned.length / steps.length);
    const next = order?.[planned.length];
    const [from, wanted] = [at, next === undefined ? left : left.filter((each) => stepKey(each) === next)];
    const tried = candidates(wanted, (step) => mixed(before, after, new Set([...done, stepKey(step)])), from, goal);
    if (tried.length === 0)
      return fail(
        order
          ? `Step ${planned.length + 1} cannot be done there: it needs something that comes later, as a cable ports that are there and free.`
          : 'No order works: a cable needs a port that is taken until another one is moved. Unplug one of them first.',
      );
    // Of those that do equally little once all has settled, the one that does least until then.
    const best = tried
      .filter(({ effect }) => settledHarm(effect).join() === settledHarm(tried[0]!.effect).join())
      .slice(0, sizeOf(at) > LONG_RUN ? 1 : MOST_RUN)
      .map((each) => ({ ...each, run: runStep(from.network.design, each.to.network.design, counts) }))
      .reduce((least, each) => (isLess(meanwhileHarm(each), meanwhileHarm(least)) ? each : least));
    done.add(stepKey(best.step));
    left.splice(left.indexOf(best.step), 1);
    const to = best.to.network.design;
    planned.push({
      step: planStep(best.step, from.network.design, to),
      judged: { ...best.effect, back: sentences(to, from.network.design), run: best.run },
    });
    at = best.to;
  }
  return ok({
    plan: {
      preparation: [{ do: 'put' as const, puts: putsBetween(before, start) }].filter(({ puts }) => puts.length > 0),
      steps: planned.map(({ step }) => step),
    },
    judged: { watched: goal.musts.length, steps: planned.map(({ judged }) => judged) },
  });
}

const sizeOf = ({ network, solution }: Settled): number => network.ports.length * solution.trees.length;

interface Candidate {
  readonly step: Step;
  readonly to: Settled;
  readonly effect: StepEffect;
}

/** Steps that can be done now, the least harmful first; of many only the first ones. */
function candidates(
  steps: readonly Step[],
  stateAfter: (step: Step) => Design | null,
  from: Settled,
  goal: Goal,
): Candidate[] {
  const found: Candidate[] = [];
  for (const step of steps) {
    if (found.length >= MOST_TRIED) break;
    const design = stateAfter(step);
    if (!design) continue;
    const to = new Settled(solve(design));
    found.push({ step, to, effect: effectOf(from, to, goal) });
  }
  const harm = ({ effect }: Candidate): number[] => [...settledHarm(effect), effect.ends];
  return found.sort((a, b) => (isLess(harm(a), harm(b)) ? -1 : isLess(harm(b), harm(a)) ? 1 : 0));
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
/** Once all has settled, the most important first. */
const settledHarm = ({ broken, cutOff, roots }: StepEffect): number[] => [broken.length, cutOff.length, roots.length];

/** Until then. */
function meanwhileHarm({ run, effect }: Candidate & { readonly run: Result<StepRun, string> }): number[] {
  if (!run.ok) return [2, 0, 0, effect.ends];
  const { worst, pairs, frames } = run.value;
  const longest = worst === null ? 0 : worst.lasting ? Infinity : worst.longest;
  return [frames === 'circle' ? 1 : 0, longest, pairs, effect.ends];
}
