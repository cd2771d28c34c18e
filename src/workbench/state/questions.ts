/** The questions that the workbench asks workers beside it. */
import type * as Comlink from 'comlink';
import type { Command } from '../../core/edit/commands';
import type { LinkId, SwitchId, TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { fail, ok, type Result } from '../../core/base/result';
import type { Conversation } from '../../core/analysis/dialects/heard';
import type { WayOut } from '../../core/analysis/dialects/waysOut';
import type { EveryFailure } from '../../core/analysis/failures/everyFailure';
import type { Failure } from '../../core/analysis/failures/failure';
import type { FailureRun } from '../../core/analysis/failures/outages';
import type { UnderFailures } from '../../core/analysis/guards/failures';
import type { Intrusion } from '../../core/analysis/guards/intruder';
import type { ChangePlan, PlanOptions } from '../../core/analysis/plans/changePlan';
import type { JudgedPlan } from '../../core/analysis/plans/judge';
import type { Plan } from '../../core/analysis/plans/plan';
import type { ControlCost } from '../../core/analysis/sharing/controlPlane';
import type { RegionMatch } from '../../core/analysis/regions/matching';
import type { GainRow, GroupingProposal } from '../../core/analysis/regions/grouping';
import type { Loads } from '../../core/analysis/sharing/load';
import type { MovingGoal, MovingKind, MovingPlan } from '../../core/analysis/regions/movingPlan';
import type { LossOf } from '../../core/analysis/roots/rootLoss';
import type { SharingProposal } from '../../core/analysis/sharing/share';
import type { Proposal } from '../../core/analysis/steering/steer';
import type { Wish } from '../../core/analysis/steering/wishes';
import type { SteererWorker } from '../../workers/steerer';
import { tellWaiting } from '../ui/loading';
import type { Ask } from './ask';
import { whileAsked, type Tell } from './progress';
import { NoAnswer, workerLink, type WorkerLink } from './workerLink';

/** Ways to fulfil wishes in some trees. */
export const askSteering = (design: Design, wishes: readonly Wish[], trees: readonly TreeId[]): Ask<Proposal[]> =>
  ask(design, (remote, tell) => remote.steer(design, [...wishes], [...trees], tell));

/** Ways to spread some trees over some links. */
export const askSharing = (
  design: Design,
  trees: readonly TreeId[],
  uplinks: readonly LinkId[],
): Ask<SharingProposal[]> => ask(design, (remote, tell) => remote.share(design, [...trees], [...uplinks], tell));

/** Ways to lay VLANs onto instances. */
export const askGrouping = (design: Design): Ask<GroupingProposal[]> =>
  ask(design, (remote, tell) => remote.group(design, tell));

/** What instances, with commands those that they make, gain against one tree for all and one tree a VLAN. */
export const askGain = (design: Design, commands: readonly Command[]): Ask<GainRow[]> =>
  ask(design, (remote) => remote.gain(design, [...commands]));

/** What each mode of spanning tree would cost. */
export const askControl = (design: Design): Ask<ControlCost[]> =>
  ask(design, async (remote) => await remote.control(design), TABLE_SECONDS);

/** How much each link carries. */
export const askLoads = (design: Design): Ask<Loads> =>
  ask(design, async (remote, tell) => await remote.loads(design, tell), TABLE_SECONDS);

/** What the death of each root does. */
export const askLosses = (design: Design): Ask<LossOf[]> =>
  ask(design, async (remote, tell) => await remote.losses(design, tell), TABLE_SECONDS);

/** What comes of a stranger's switch at each port. */
export const askIntrusions = (design: Design): Ask<Intrusion[]> =>
  ask(design, async (remote, tell) => await remote.intrusions(design, tell), TABLE_SECONDS);

/** What guards do under every single failure: as long as it takes. */
export const askGuardsUnderFailures = (design: Design): Ask<UnderFailures> =>
  ask(design, async (remote, tell) => await remote.guardsUnderFailures(design, tell));

/** The order of steps from one state to another. */
export const askChange = (before: Design, after: Design, options: PlanOptions): Ask<ChangePlan> =>
  ask(after, (remote, tell) => remote.change(before, after, options as never, tell));

/** What each step of a plan does. */
export const askJudged = (design: Design, plan: Plan): Ask<JudgedPlan> =>
  ask(design, (remote, tell) => remote.judge(design, plan as never, tell));

/** What failures do, settled. */
export const askEveryFailure = (design: Design, failures: readonly Failure[]): Ask<Pieces<EveryFailure>> =>
  askInTurn({
    of: design,
    items: failures,
    atOnce: SETTLED_AT_ONCE,
    pool: SOLVING,
    question: (remote, some) => remote.everyFailure(some),
  });

/** What failures do, run by the protocols. */
export const askRuns = (design: Design, failures: readonly Failure[]): Ask<Pieces<Result<FailureRun, string>[]>> =>
  askInTurn({
    of: design,
    items: failures,
    atOnce: 1,
    pool: RUNNING,
    question: (remote, some) => remote.runFailures(some),
  });

/** So many failures are solved between two looks at how far it is. */
const SETTLED_AT_ONCE = 12;

/** Either of two switches with the region settings of the other. */
export const askEqual = (design: Design, a: SwitchId, b: SwitchId): Ask<RegionMatch[]> =>
  ask(design, (remote, tell) => remote.equal(design, a, b, tell));

/** Where the network may move to. */
export const askGoals = (design: Design): Ask<MovingGoal[]> =>
  ask(design, (remote, tell) => remote.goals(design, tell));

/** What bridges say to each other. */
export const askConversations = (design: Design): Ask<Conversation[]> =>
  ask(design, (remote, tell) => remote.conversations(design, tell), TABLE_SECONDS);

/** Ways out of a network whose switches do not agree on trees. */
export const askWaysOut = (design: Design): Ask<WayOut[]> =>
  ask(design, (remote, tell) => remote.waysOut(design, tell));

/** The steps that do what commands do, one switch after the other. */
export const askPlan = (design: Design, commands: readonly Command[], kind: MovingKind): Ask<MovingPlan> =>
  ask(design, (remote, tell) => remote.plan(design, [...commands], kind, tell));

/** How long what a table shows may take, seconds. */
const TABLE_SECONDS = 60;

type Question<T> = (remote: Comlink.Remote<SteererWorker>, tell: Tell) => Promise<Result<T, string>>;

const startSteerer = (): WorkerLink<SteererWorker> =>
  workerLink<SteererWorker>(
    () =>
      new Worker(new URL('../../workers/steerer.ts', import.meta.url), { type: 'module', name: 'knot-path-steerer' }),
    (waits) => tellWaiting('steerer', waits),
  );

/** What was answered piece by piece, in no order. */
export interface Pieces<P> {
  readonly pieces: readonly P[];
  /** How many things were asked about, and how many of them are answered: less where it was stopped. */
  readonly asked: number;
  readonly answered: number;
}

/** Most workers that share one question: each holds a design of its own. */
const MOST_SHARING = 4;

/** Workers that stay, since they keep what they have found: after an edit they do again what it touches. */
interface Pool {
  links: readonly WorkerLink<SteererWorker>[];
  idle: ReturnType<typeof setTimeout> | undefined;
}
const SOLVING: Pool = { links: [], idle: undefined };
const RUNNING: Pool = { links: [], idle: undefined };
/** After so long without a question they end, and forget. */
const IDLE_MS = 180_000;

interface InTurn<I, P> {
  readonly of: Design;
  readonly items: readonly I[];
  readonly atOnce: number;
  readonly pool: Pool;
  readonly question: (remote: Comlink.Remote<SteererWorker>, some: I[]) => Promise<P>;
}

/**
 * A question about many things, some at a time, shared by as many workers as there are processors to spare: each thing always by
 * the same one. What is answered is kept where it is stopped; what is under way then ends by itself.
 */
function askInTurn<I, P>({ of, items, atOnce, pool, question }: InTurn<I, P>): Ask<Pieces<P>> {
  return {
    of,
    keeps: true,
    begin(tell) {
      const pieces: P[] = [];
      let over = false;
      const isOver = (): boolean => over;
      let answered = 0;
      let stop: () => void = () => undefined;
      const stopped = new Promise<void>((done) => (stop = done));
      const count = Math.max(1, Math.min(MOST_SHARING, navigator.hardwareConcurrency - 1));
      const links = (pool.links = pool.links.length > 0 ? pool.links : Array.from({ length: count }, startSteerer));
      const letGo = (): void => {
        for (const link of links) link.end();
        if (pool.links === links) pool.links = [];
      };
      clearTimeout(pool.idle);
      const work = async (link: WorkerLink<SteererWorker>, place: number): Promise<void> => {
        const share = items.filter((item) => placeOf(item, links.length) === place);
        if (share.length > 0) await link.ask((remote) => remote.regard(of));
        while (!isOver() && share.length > 0) {
          const some = share.splice(0, atOnce);
          const piece = await link.ask((remote) => question(remote, some));
          if (isOver()) return;
          pieces.push(piece);
          answered += some.length;
          tell(answered / items.length);
        }
      };
      const all = Promise.all(links.map(work)).catch((error: unknown) => {
        letGo();
        if (!(error instanceof NoAnswer)) throw error;
      });
      const found = Promise.race([all, stopped])
        .then(
          () => ok({ pieces, asked: items.length, answered }),
          () => fail('Working this out has failed.'),
        )
        .finally(() => {
          over = true;
          clearTimeout(pool.idle);
          pool.idle = setTimeout(letGo, IDLE_MS);
        });
      return { found, stop };
    },
  };
}

/** Which of several workers something belongs to, the same one each time. */
function placeOf(item: unknown, workers: number): number {
  let sum = 0;
  for (const letter of JSON.stringify(item)) sum = (31 * sum + letter.charCodeAt(0)) % 65_536;
  return sum % workers;
}

/** A question to a worker of its own, which can be stopped. `seconds`: how long it may take. */
const ask = <T>(of: Design, question: Question<T>, seconds?: number): Ask<T> => ({
  of,
  begin(tell) {
    const link = startSteerer();
    const found = whileAsked(tell, (told) => link.ask((remote) => question(remote, told), seconds))
      .catch((error: unknown) => fail(reasonOf(error, seconds)))
      .finally(() => link.end());
    return { found, stop: () => link.end() };
  },
});

const reasonOf = (error: unknown, seconds: number | undefined): string =>
  error instanceof NoAnswer && error.kind === 'late'
    ? `This took longer than ${seconds} seconds and was stopped; the rest of the page is not affected.`
    : 'The search has stopped.';
