/** Failures run by the protocols: which hosts are cut off from each other meanwhile, for how long, and why. */
import { fail, ok, type Result } from '../../base/result';
import type { Design } from '../../model/document';
import { dirtyBetween } from '../../model/derive/dirty';
import { vlanTree, type HostId, type TreeId } from '../../model/ids';
import { SECOND } from '../../modes/entity';
import { DEFAULT_TALK, type Action } from '../../model/scenario';
import { areApart } from '../../sim/engine/parts';
import { byCost, costOf, type PairCost } from '../../sim/report/cost';
import { simulate } from '../../sim/simulate';
import { actionsOf, takesCard, type Failure } from './failure';

/** When a failure comes, and how long the network is watched, seconds: classic bridges forget a root after Max Age and learn for twice the forward delay. */
const FAILS_AT = 1;
export const WATCHED = 60;

/** What hosts lost while a network got over a failure. */
export interface FailureRun {
  readonly failure: Failure;
  /** Pairs that reached each other before and were cut off, those with a host that went with what failed left out. */
  readonly pairs: readonly PairCost[];
  /** The longest time that any of them was cut off, seconds; null where nobody was. Those cut off to the end count as long as they were watched. */
  readonly worst: number | null;
  /** Pairs cut off to the end. */
  readonly forGood: number;
  /** When the last port changed its state, seconds after the failure; null where that goes on. */
  readonly settledAfter: number | null;
}

/** Runs one failure; the error is a sentence. */
export const runFailure = (design: Design, failure: Failure): Result<FailureRun, string> => {
  const ran = runTrees(design, failure);
  return ran.ok ? ok(ran.value.run) : ran;
};

/** A run, and when each of its trees came to rest, seconds after the failure. */
interface Ran {
  readonly design: Design;
  readonly run: FailureRun;
  readonly settled: ReadonlyMap<TreeId, number>;
}

/** Failures as they ran last: after an edit those trees alone are run again that it can have moved. */
export class RanFailures {
  private readonly known = new Map<string, Ran>();

  run(design: Design, failure: Failure): Result<FailureRun, string> {
    const key = JSON.stringify(failure);
    const ran = again(this.known.get(key), design, failure) ?? runTrees(design, failure);
    if (!ran.ok) return ran;
    this.known.set(key, ran.value);
    return ok(ran.value.run);
  }
}

/** What is known of a run, with what an edit can have changed done again; null where all of it is to be. */
function again(known: Ran | undefined, design: Design, failure: Failure): Result<Ran, string> | null {
  if (!known || known.run.settledAfter === null) return null;
  const dirty = dirtyBetween(known.design, design);
  if (!dirty.run) return ok({ ...known, design });
  const scenario = { actions: happening(failure) };
  if (dirty.runOfAll || dirty.trees === 'all' || !areApart(known.design, scenario) || !areApart(design, scenario))
    return null;
  const moved = runTrees(design, failure, dirty.trees);
  if (!moved.ok || moved.value.run.settledAfter === null) return null;
  const isMoved = ({ vlan }: PairCost): boolean => (dirty.trees as ReadonlySet<TreeId>).has(vlanTree(vlan));
  const pairs = [...known.run.pairs.filter((pair) => !isMoved(pair)), ...moved.value.run.pairs.filter(isMoved)];
  const settled = new Map([...known.settled, ...moved.value.settled]);
  const rest = Math.max(moved.value.run.settledAfter, ...settled.values());
  return ok({ design, run: outcome(failure, pairs.sort(byCost), rest), settled });
}

const happening = (failure: Failure): Action[] =>
  actionsOf(failure).map((action) => ({ ...action, at: FAILS_AT }) as Action);

function runTrees(design: Design, failure: Failure, only?: ReadonlySet<TreeId>): Result<Ran, string> {
  const done = simulate(
    design,
    { actions: happening(failure), until: FAILS_AT + WATCHED, talk: DEFAULT_TALK, fromBoot: false },
    { mostFrames: 0, views: false, ...(only ? { only } : {}) },
  );
  if (!done.ok) return fail(done.error);
  const { outages, settledAt, recording, trees } = done.value;
  const lost = new Set<HostId>(
    design.hosts
      .filter(({ id, attach }) => attach.length > 0 && attach.every((end) => takesCard(failure, id, end)))
      .map(({ id }) => id),
  );
  const { pairs } = costOf(
    outages.filter(({ from, to, start }) => start >= FAILS_AT && !lost.has(from) && !lost.has(to)),
    FAILS_AT + WATCHED,
  );
  const after = (t: number): number => Math.max(0, t - FAILS_AT);
  const settled = new Map(trees.map((tree) => [tree, 0]));
  for (let i = 0; i < recording.count; i += 1)
    settled.set(trees[recording.treeOf(i)]!, after(recording.timeOf(i) / SECOND));
  return ok({ design, run: outcome(failure, pairs, settledAt === null ? null : after(settledAt)), settled });
}

const outcome = (failure: Failure, pairs: readonly PairCost[], settledAfter: number | null): FailureRun => ({
  failure,
  pairs,
  worst: pairs.length === 0 ? null : Math.max(...pairs.map(({ longest }) => longest)),
  forGood: pairs.filter(({ lasting }) => lasting).length,
  settledAfter,
});

/** The worst that befell each pair, and under which failure; the worst pair first. */
export function worstByPair(runs: readonly FailureRun[]): { readonly pair: PairCost; readonly run: FailureRun }[] {
  const worst = new Map<string, { readonly pair: PairCost; readonly run: FailureRun }>();
  for (const run of runs)
    for (const pair of run.pairs) {
      const key = `${pair.from}\n${pair.to}\n${pair.vlan}`;
      const known = worst.get(key);
      if (!known || pair.longest > known.pair.longest) worst.set(key, { pair, run });
    }
  return [...worst.values()].sort((a, b) => b.pair.longest - a.pair.longest);
}
