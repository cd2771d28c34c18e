/** Failures run by the protocols: which hosts are cut off from each other meanwhile, for how long, and why. */
import { fail, ok, type Result } from '../../base/result';
import type { Design } from '../../model/document';
import type { HostId } from '../../model/ids';
import { DEFAULT_TALK, type Action } from '../../model/scenario';
import { costOf, type PairCost } from '../../sim/report/cost';
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
export function runFailure(design: Design, failure: Failure): Result<FailureRun, string> {
  const actions = actionsOf(failure).map((action) => ({ ...action, at: FAILS_AT }) as Action);
  const done = simulate(
    design,
    { actions, until: FAILS_AT + WATCHED, talk: DEFAULT_TALK, fromBoot: false },
    { mostFrames: 0, views: false },
  );
  if (!done.ok) return fail(done.error);
  const lost = new Set<HostId>(
    design.hosts
      .filter(({ id, attach }) => attach.length > 0 && attach.every((end) => takesCard(failure, id, end)))
      .map(({ id }) => id),
  );
  const { pairs } = costOf(
    done.value.outages.filter(({ from, to, start }) => start >= FAILS_AT && !lost.has(from) && !lost.has(to)),
    FAILS_AT + WATCHED,
  );
  const { settledAt } = done.value;
  return ok({
    failure,
    pairs,
    worst: pairs.length === 0 ? null : Math.max(...pairs.map(({ longest }) => longest)),
    forGood: pairs.filter(({ lasting }) => lasting).length,
    settledAfter: settledAt === null ? null : Math.max(0, settledAt - FAILS_AT),
  });
}

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
