/** The workbench's side of the steering worker: each search has one of its own, which can be stopped. */
import * as Comlink from 'comlink';
import type { Command } from '../../core/edit/commands';
import type { LinkId, SwitchId, TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { fail, type Result } from '../../core/base/result';
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
import { NoAnswer, workerLink } from './workerLink';

export interface Search<T> {
  readonly found: Promise<Result<T[], string>>;
  stop(): void;
}

/** Starts a search over a design; `tell` is told how far it is, 0 to 1. */
export type Begin<T> = (design: Design, tell: (share: number) => void) => Search<T>;

/** Looks for ways to fulfil wishes in some trees. */
export const startSteering =
  (wishes: readonly Wish[], trees: readonly TreeId[]): Begin<Proposal> =>
  (design, tell) =>
    inWorker((remote) => remote.steer(design, [...wishes], [...trees], Comlink.proxy(tell)));

/** Looks for ways to spread some trees over some links. */
export const startSharing =
  (trees: readonly TreeId[], uplinks: readonly LinkId[]): Begin<SharingProposal> =>
  (design, tell) =>
    inWorker((remote) => remote.share(design, [...trees], [...uplinks], Comlink.proxy(tell)));

/** A question to the worker, asked when it is called; `tell` is told how far the answer is, 0 to 1. */
export type Ask<T> = (tell: (share: number) => void) => { readonly found: Promise<Result<T, string>>; stop(): void };

/** What instances, with commands those that they make, gain against one tree for all and one tree a VLAN. */
export const askGain =
  (design: Design, commands: readonly Command[]): Ask<GainRow[]> =>
  () =>
    inWorker((remote) => remote.gain(design, [...commands]));

/** What each mode of spanning tree would cost. */
export const askControl =
  (design: Design): Ask<ControlCost[]> =>
  () =>
    inWorker(async (remote) => await remote.control(design), TABLE_SECONDS);

/** How much each link carries. */
export const askLoads =
  (design: Design): Ask<Loads> =>
  (tell) =>
    inWorker(async (remote) => await remote.loads(design, Comlink.proxy(tell)), TABLE_SECONDS);

/** What the death of each root does. */
export const askLosses =
  (design: Design): Ask<LossOf[]> =>
  (tell) =>
    inWorker(async (remote) => await remote.losses(design, Comlink.proxy(tell)), TABLE_SECONDS);

/** Either of two switches with the region settings of the other. */
export const askEqual =
  (design: Design, a: SwitchId, b: SwitchId): Ask<RegionMatch[]> =>
  (tell) =>
    inWorker((remote) => remote.equal(design, a, b, Comlink.proxy(tell)));

/** Where the network may move to. */
export const askGoals =
  (design: Design): Ask<MovingGoal[]> =>
  (tell) =>
    inWorker((remote) => remote.goals(design, Comlink.proxy(tell)));

/** The steps that do what commands do, one switch after the other. */
export const askPlan =
  (design: Design, commands: readonly Command[], kind: MovingKind): Ask<MovingPlan> =>
  (tell) =>
    inWorker((remote) => remote.plan(design, [...commands], kind, Comlink.proxy(tell)));

/** Looks for ways to lay VLANs onto instances. */
export const startGrouping = (): Begin<GroupingProposal> => (design, tell) =>
  inWorker((remote) => remote.group(design, Comlink.proxy(tell)));

/** How long what a table shows may take, seconds. */
const TABLE_SECONDS = 60;

function inWorker<T>(
  search: (remote: Comlink.Remote<SteererWorker>) => Promise<Result<T, string>>,
  seconds?: number,
): { readonly found: Promise<Result<T, string>>; stop(): void } {
  const link = workerLink<SteererWorker>(
    () =>
      new Worker(new URL('../../workers/steerer.ts', import.meta.url), { type: 'module', name: 'knot-path-steerer' }),
    (waits) => tellWaiting('steerer', waits),
  );
  const found = link
    .ask(search, seconds)
    .catch((error: unknown) =>
      fail(
        error instanceof NoAnswer && error.kind === 'late'
          ? `This took longer than ${seconds} seconds and was stopped; the rest of the page is not affected.`
          : 'The search has stopped.',
      ),
    )
    .finally(() => link.end());
  return { found, stop: () => link.end() };
}
