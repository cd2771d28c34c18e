/** The searches for ways to steer, to share, to group and to move, and what is solved many times over for a table, in a worker of their own: they may take seconds, and stopping one is ending the worker. */
import * as Comlink from 'comlink';
import type { Command } from '../core/edit/commands';
import { sharingParts } from '../core/model/derive/touched';
import type { LinkId, SwitchId, TreeId } from '../core/model/ids';
import type { Design } from '../core/model/document';
import { ok, type Result } from '../core/base/result';
import { conversationsIn, type Conversation } from '../core/analysis/dialects/heard';
import { waysOut, type WayOut } from '../core/analysis/dialects/waysOut';
import { SolvedFailures, everyFailure, type EveryFailure } from '../core/analysis/failures/everyFailure';
import type { Failure } from '../core/analysis/failures/failure';
import { RanFailures, type FailureRun } from '../core/analysis/failures/outages';
import { underFailures, type UnderFailures } from '../core/analysis/guards/failures';
import { intrusionsOf, type Intrusion } from '../core/analysis/guards/intruder';
import { planChange, type ChangePlan, type PlanOptions } from '../core/analysis/plans/changePlan';
import { judgePlan, type JudgedPlan } from '../core/analysis/plans/judge';
import type { Plan } from '../core/analysis/plans/plan';
import { controlCosts, type ControlCost } from '../core/analysis/sharing/controlPlane';
import { regionMatches, type RegionMatch } from '../core/analysis/regions/matching';
import { groupingGain, proposeGroupings, type GainRow, type GroupingProposal } from '../core/analysis/regions/grouping';
import { linkLoads, type Loads } from '../core/analysis/sharing/load';
import {
  movingGoals,
  planMoving,
  type MovingGoal,
  type MovingKind,
  type MovingPlan,
} from '../core/analysis/regions/movingPlan';
import { lossesOf, type LossOf } from '../core/analysis/roots/rootLoss';
import { shareTrees, type SharingProposal } from '../core/analysis/sharing/share';
import { steer, type Progress, type Proposal } from '../core/analysis/steering/steer';
import type { Wish } from '../core/analysis/steering/wishes';
import { resolve } from '../core/tree/resolve';
import type { Solution } from '../core/tree/settled';
import { solve } from '../core/tree/solve';

/** Told how far a search is, 0 to 1. */
type Tell = (share: number) => void;

/** What failures are asked about, and what they came to. */
let regarded: { readonly solution: Solution; readonly failed: SolvedFailures; readonly ran: RanFailures } | null = null;

const steerer = {
  steer: (design: Design, wishes: readonly Wish[], trees: readonly TreeId[], tell: Tell): Result<Proposal[], string> =>
    solved(design, tell, (solution, progress) => steer(solution, wishes, trees, progress)),
  share: (
    design: Design,
    trees: readonly TreeId[],
    uplinks: readonly LinkId[],
    tell: Tell,
  ): Result<SharingProposal[], string> =>
    solved(design, tell, (solution, progress) => shareTrees(solution, trees, uplinks, progress)),
  control: (design: Design): Result<ControlCost[], string> => ok(controlCosts(design)),
  loads: (design: Design, tell: Tell): Result<Loads, string> =>
    solved(design, tell, (solution) => ok(linkLoads(solution))),
  losses: (design: Design, tell: Tell): Result<LossOf[], string> =>
    solved(design, tell, (solution) => ok(lossesOf(solution, tell))),
  intrusions: (design: Design, tell: Tell): Result<Intrusion[], string> =>
    solved(design, tell, (solution) => ok(intrusionsOf(solution, tell))),
  guardsUnderFailures: (design: Design, tell: Tell): Result<UnderFailures, string> =>
    solved(design, tell, (solution) => ok(underFailures(solution, tell))),
  change: (before: Design, after: Design, options: PlanOptions, tell: Tell): Result<ChangePlan, string> =>
    planChange(before, after, options, tell),
  judge: (design: Design, plan: Plan, tell: Tell): Result<JudgedPlan, string> => judgePlan(design, plan, tell),
  /** The design that failures are asked about from now on: of the one before what is alike is taken over. */
  regard(design: Design): void {
    const now = regarded ? sharingParts(regarded.solution.network.design, design) : design;
    const solution = regarded ? resolve(regarded.solution, now).solution : solve(now);
    const { failed = new SolvedFailures(), ran = new RanFailures() } = regarded ?? {};
    regarded = { solution, failed, ran };
  },
  everyFailure(failures: readonly Failure[]): EveryFailure {
    if (!regarded) throw new Error('no design is regarded');
    return everyFailure(regarded.solution, failures, undefined, regarded.failed);
  },
  runFailures(failures: readonly Failure[]): Result<FailureRun, string>[] {
    if (!regarded) throw new Error('no design is regarded');
    const { solution, ran } = regarded;
    return failures.map((failure) => ran.run(solution.network.design, failure));
  },
  gain: (design: Design, commands: readonly Command[]): Result<GainRow[], string> => ok(groupingGain(design, commands)),
  equal: (design: Design, a: SwitchId, b: SwitchId, tell: Tell): Result<RegionMatch[], string> =>
    solved(design, tell, (solution) => regionMatches(solution, a, b)),
  goals: (design: Design, tell: Tell): Result<MovingGoal[], string> => solved(design, tell, movingGoals),
  conversations: (design: Design, tell: Tell): Result<Conversation[], string> =>
    solved(design, tell, (solution, progress) => ok(conversationsIn(solution, progress))),
  waysOut: (design: Design, tell: Tell): Result<WayOut[], string> => solved(design, tell, waysOut),
  plan: (design: Design, commands: readonly Command[], kind: MovingKind, tell: Tell): Result<MovingPlan, string> =>
    solved(design, tell, (solution, progress) => planMoving(solution, commands, kind, progress)),
  group: (design: Design, tell: Tell): Result<GroupingProposal[], string> => solved(design, tell, proposeGroupings),
};

function solved<T>(
  design: Design,
  tell: Tell,
  search: (solution: Solution, progress: Progress) => Result<T, string>,
): Result<T, string> {
  return search(solve(design), (share) => {
    tell(share);
    return true;
  });
}

export type SteererWorker = typeof steerer;

Comlink.expose(steerer);
