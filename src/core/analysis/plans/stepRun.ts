/** One step of a plan run by the protocols: who is cut off while the network goes over from one state to the next. */
import { fail, ok, type Result } from '../../base/result';
import type { Design } from '../../model/document';
import type { HostId } from '../../model/ids';
import { DEFAULT_TALK, type Action } from '../../model/scenario';
import { costOf, type PairCost } from '../../sim/report/cost';
import { scenarioProblems } from '../../sim/scenario/scenario';
import { simulate } from '../../sim/simulate';
import { pauseIn } from './plan';
import { actionsBetween } from './played';

/** When a step is done, seconds. */
const DONE_AT = 1;

export interface StepRun {
  /** The pair that was cut off longest; null where none was. */
  readonly worst: PairCost | null;
  /** Pairs that were cut off. */
  readonly pairs: number;
  /** Frames circled without end, or came back or came twice. */
  readonly frames: 'circle' | 'come twice' | null;
}

/** Runs a step until all can have come to rest; `counts` says of which pairs; the error is a sentence. */
export function runStep(
  from: Design,
  to: Design,
  counts: (from: HostId, to: HostId) => boolean,
): Result<StepRun, string> {
  const until = DONE_AT + Math.max(pauseIn(from), pauseIn(to));
  const actions = actionsBetween(from, to, '').map((each) => ({ ...each, at: DONE_AT }) as Action);
  const [problem] = scenarioProblems({ actions, until }, from).flat();
  if (problem) return fail(`Not run: ${problem.found} at ${problem.path}.`);
  const scenario = { actions, until, talk: DEFAULT_TALK, fromBoot: false };
  const done = simulate(from, scenario, { mostFrames: 0, views: false });
  if (!done.ok) return fail(`Not run: ${done.error}`);
  const { outages, storms } = done.value;
  const { pairs } = costOf(
    outages.filter((outage) => outage.start >= DONE_AT && counts(outage.from, outage.to)),
    until,
  );
  const circling = storms.filter(({ end }) => end === null || end > DONE_AT);
  return ok({
    worst: pairs[0] ?? null,
    pairs: pairs.length,
    frames: circling.some(({ endless }) => endless) ? 'circle' : circling.length > 0 ? 'come twice' : null,
  });
}
