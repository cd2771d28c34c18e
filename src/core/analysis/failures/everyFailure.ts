/** Every single failure in turn, settled: what moves, who is cut off for good, who becomes root, how full the fullest link is, which intents break. */
import type { Design, Intent } from '../../model/document';
import type { HostId, LinkId, SwitchId, TreeId } from '../../model/ids';
import { movedEnds } from '../../tree/moved';
import type { Solution } from '../../tree/settled';
import { resolve } from '../../tree/resolve';
import { solve } from '../../tree/solve';
import type { Breach } from '../intents/claim';
import { readIntent, type Meant } from '../intents/intents';
import { Settled } from '../intents/settled';
import { deadIn, failed, failuresOf, isOf, type Failure } from './failure';

/** What one failure does, once all has settled. */
export interface FailureOutcome {
  readonly failure: Failure;
  /** Trees in which some end of a switch that lives has another role. */
  readonly moves: readonly TreeId[];
  readonly ends: number;
  /** Trees with another root, by that root: null where none is left. */
  readonly roots: readonly { readonly tree: TreeId; readonly root: SwitchId | null }[];
  /** Hosts that reached others of their VLAN before and do not reach all of them that live; those that went with what failed are not counted. */
  readonly cutOff: readonly HostId[];
  /** Hosts that hang on nothing but what failed. */
  readonly lost: readonly HostId[];
  /** The fullest link, where some link has a load: its share of its speed, 1 is full. */
  readonly peak: { readonly link: LinkId; readonly share: number } | null;
  /** Intents of the kind "whatever fails" that this failure breaks. */
  readonly broken: readonly Broken[];
}

export interface Broken extends Breach {
  readonly intent: string;
}

export interface EveryFailure {
  readonly outcomes: readonly FailureOutcome[];
  /** Links that VLANs' frames pass now, or under one of these failures. */
  readonly carries: readonly LinkId[];
}

/** Intents that hold under failures, with what they mean. */
interface Watched {
  readonly id: string;
  readonly meant: Meant;
}

export const watchedIn = (design: Design): Watched[] =>
  design.intents.flatMap(({ id, line }: Intent): Watched[] => {
    const meant = readIntent(design, line, true);
    return meant.ok && meant.value.whatever ? [{ id, meant: meant.value }] : [];
  });

/** Networks after failures, as they were solved last: after an edit only the trees that it can have moved are solved again. */
export class SolvedFailures {
  private readonly known = new Map<string, Solution>();
  private kept = 0;

  after(design: Design, failure: Failure): Solution {
    const key = JSON.stringify(failure);
    const before = this.known.get(key);
    const next = failed(design, failure);
    const solution = before ? resolve(before, next).solution : solve(next);
    const size = solution.network.ports.length * solution.trees.length;
    if (!before && this.kept + size > MOST_KEPT) return solution;
    if (!before) this.kept += size;
    this.known.set(key, { ...solution }); // without what was made of it meanwhile
    return solution;
  }
}
/** Ports x trees that are kept, at some 25 octets each. */
const MOST_KEPT = 10_000_000;

/** Solves failures, all of those of one thing unless some are given; `progress` is told how far it is, 0 to 1. */
export function everyFailure(
  before: Solution,
  failures: readonly Failure[] = failuresOf(before),
  progress: (share: number) => void = () => undefined,
  solved = new SolvedFailures(),
): EveryFailure {
  const { design } = before.network;
  const watched = watchedIn(design);
  const now = new Settled(before);
  const together = groupsOf(now);
  const carries = linksIn(now);
  const outcomes = failures.map((failure, i) => {
    progress(i / failures.length);
    const after = new Settled(solved.after(design, failure), deadIn(failure));
    for (const link of linksIn(after)) carries.add(link);
    return outcomeOf(now, after, failure, { together, watched });
  });
  return { outcomes, carries: [...carries] };
}

/** Links that no failure needs, and the network as it is neither. */
export const unneededIn = ({ links }: Design, { carries }: EveryFailure): LinkId[] => {
  const used = new Set(carries);
  return links.map(({ id }) => id).filter((id) => !used.has(id));
};

/** Of several, which were worked out apart. */
export const joined = (parts: readonly EveryFailure[]): EveryFailure => ({
  outcomes: parts.flatMap(({ outcomes }) => outcomes),
  carries: [...new Set(parts.flatMap(({ carries }) => carries))],
});

/** By host, which hosts of its VLAN it reaches: those of one number reach each other. */
function groupsOf(of: Settled): ReadonlyMap<HostId, number> {
  const groups = new Map<HostId, number>();
  const byVlan = new Map<number, { readonly id: HostId; readonly at: readonly number[] }[]>();
  for (const host of of.network.design.hosts) {
    const all = byVlan.get(host.vlan) ?? [];
    byVlan.set(host.vlan, all);
    all.push({ id: host.id, at: of.switchesAt(host) });
  }
  let next = 0;
  for (const [vid, hosts] of byVlan)
    for (const { id, at } of hosts) {
      if (groups.has(id) || at.length === 0) continue;
      const ways = of.ways(vid, at);
      for (const other of hosts) if (other.at.some((s) => ways[s]! >= 0)) groups.set(other.id, next);
      next += 1;
    }
  return groups;
}

/** Links that some VLAN's frames pass. */
const linksIn = ({ loads }: Settled): Set<LinkId> =>
  new Set(loads.links.filter(({ state }) => state === 'carries').map(({ link }) => link));

function outcomeOf(
  now: Settled,
  after: Settled,
  failure: Failure,
  { together, watched }: { readonly together: ReadonlyMap<HostId, number>; readonly watched: readonly Watched[] },
): FailureOutcome {
  const dead = deadIn(failure);
  const moved = movedEnds(now.solution, after.solution).filter(
    (end) => !dead.has(end.switch) && end.after !== 'disabled',
  );
  const { hosts } = now.network.design;
  const lost = hosts.filter(
    (host) => host.attach.length > 0 && together.has(host.id) && after.switchesAt(host).length === 0,
  );
  const isLost = new Set(lost.map(({ id }) => id));
  const still = groupsOf(after);
  const { peak } = after.loads;
  return {
    failure,
    moves: [...new Set(moved.map(({ tree }) => tree))],
    ends: moved.length,
    roots: after.newRoots(now),
    cutOff: splitOff(
      hosts.filter(({ id }) => together.has(id) && !isLost.has(id)).map(({ id }) => id),
      together,
      still,
    ),
    lost: lost.map(({ id }) => id),
    peak: peak && { link: peak.link, share: peak.share },
    broken: watched.flatMap(({ id, meant }): Broken[] => {
      if (!isOf(failure, meant.whatever!)) return [];
      const breach = meant.claim.judge(after);
      return breach ? [{ intent: id, ...breach }] : [];
    }),
  };
}

/** Hosts that are no longer with the most of those that they were with. */
function splitOff(
  hosts: readonly HostId[],
  before: ReadonlyMap<HostId, number>,
  after: ReadonlyMap<HostId, number>,
): HostId[] {
  const byGroup = new Map<number, Map<number | undefined, HostId[]>>();
  for (const id of hosts) {
    const was = byGroup.get(before.get(id)!) ?? new Map<number | undefined, HostId[]>();
    byGroup.set(before.get(id)!, was);
    const is = after.get(id);
    was.set(is, [...(was.get(is) ?? []), id]);
  }
  const away = new Set(
    [...byGroup.values()].flatMap((parts) =>
      [...parts.values()]
        .sort((a, b) => b.length - a.length)
        .slice(1)
        .flat(),
    ),
  );
  return hosts.filter((id) => away.has(id));
}

/** How bad an outcome is, the worst first: musts that break, hosts cut off, hosts lost, what breaks beside, new roots, ends that move. */
export function byHarm(design: Design): (a: FailureOutcome, b: FailureOutcome) => number {
  const must = new Set(design.intents.filter(({ severity }) => severity === 'must').map(({ id }) => id));
  const rank = ({ broken, cutOff, lost, roots, ends }: FailureOutcome): number[] => [
    broken.filter(({ intent }) => must.has(intent)).length,
    cutOff.length,
    broken.length,
    lost.length,
    roots.length,
    ends,
  ];
  return (a, b) => {
    const [x, y] = [rank(a), rank(b)];
    const first = x.findIndex((n, i) => n !== y[i]);
    return first < 0 ? 0 : y[first]! - x[first]!;
  };
}
