/** Settings worth trying to make a wish come true in a tree: what to change near the link, and by how much. */
import { methodOf } from '../../model/costMethod';
import { BRIDGE_PRIORITY, MAX_COST, PORT_PRIORITY } from '../../model/legal';
import { setBridgePriority } from '../../topology/bridgeId';
import type { Network } from '../../topology/network';
import type { SettledTree } from '../../tree/settled';
import { wayToRoot } from '../../tree/wayToRoot';
import { firstFlip, rounded } from './margin';
import { solveWith, type Setting } from './whatIf';
import type { Target } from './wishes';

/** Sets of settings of one kind, the nearest to the present ones first. */
export type Candidate = () => Iterable<readonly Setting[]>;

/** How many flips of one cost are followed in each direction. */
const FLIPS = 4;

/** Cheap ones first: one cost, one port priority, one bridge priority, the costs of a switch's ways together, two costs. */
export function candidatesFor(network: Network, tree: SettledTree, target: Target): Candidate[] {
  const { a, b } = target;
  const ends = [network.owner[a]!, network.owner[b]!];
  const near = new Set<number>([a, b]);
  for (const s of ends) {
    for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1)
      if (tree.designated[p]! >= 0) near.add(p);
    for (const p of wayToRoot(network, tree, s)) near.add(p);
  }
  const ports = [...near];
  const maxCost = (p: number): number => MAX_COST[methodOf(network.design, network.switches[network.owner[p]!]!)];
  const priorities = [
    PORT_PRIORITY.default - PORT_PRIORITY.step,
    PORT_PRIORITY.default + PORT_PRIORITY.step,
    PORT_PRIORITY.min,
    PORT_PRIORITY.max,
  ];
  const strong = network.switches.flatMap((sw, s) =>
    tree.root[s]! >= 0 && (sw.tier !== 'access' || ends.includes(s)) ? [s] : [],
  );
  return [
    ...ports.map(
      (port): Candidate =>
        () =>
          flipsOf(network, tree, port, maxCost(port)).map((value) => [{ of: 'cost', port, value }]),
    ),
    ...ports.map(
      (port): Candidate =>
        () =>
          priorities.map((value) => [{ of: 'portPriority', port, value }]),
    ),
    ...strong.map(
      (s): Candidate =>
        () =>
          bridgeValues(network, tree, s).map((value) => [{ of: 'bridgePriority', switch: s, value }]),
    ),
    ...ends.map(
      (s): Candidate =>
        () =>
          raisedTogether(network, tree, s, [a, b]),
    ),
    ...ports.map(
      (port): Candidate =>
        () =>
          pairs(tree, port, ports, maxCost),
    ),
  ];
}

/** The costs of a port at which the tree changes, nearest first, on both sides; made round where that does no harm. */
function flipsOf(network: Network, tree: SettledTree, port: number, most: number): number[] {
  const found: number[] = [];
  for (const end of [most, 1]) {
    let now = tree.cost[port]!;
    let here = tree;
    for (let i = 0; i < FLIPS; i += 1) {
      const roles = here.role;
      const flip = firstFlip(now, end, (value) =>
        solveWith(network, tree.id, [{ of: 'cost', port, value }]).role.every((code, q) => code === roles[q]),
      );
      if (flip === null) break;
      found.push(...rounded(flip, end, most), flip);
      now = flip;
      here = solveWith(network, tree.id, [{ of: 'cost', port, value: flip }]);
    }
  }
  return found;
}

/** Bridge priorities other than the present one, the nearest first. */
function bridgeValues(network: Network, tree: SettledTree, s: number): number[] {
  const now = setBridgePriority(network.switches[s]!, tree.id);
  const { min, max, step } = BRIDGE_PRIORITY;
  return Array.from({ length: (max - min) / step + 1 }, (_, i) => min + i * step)
    .filter((value) => value !== now)
    .sort((x, y) => Math.abs(x - now) - Math.abs(y - now));
}

/** All ways of a switch to the root made dearer by the same factor, but for the link itself. */
function raisedTogether(
  network: Network,
  tree: SettledTree,
  s: number,
  link: readonly number[],
): (readonly Setting[])[] {
  const ways: number[] = [];
  for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) {
    if (!link.includes(p) && tree.designated[p]! >= 0 && network.owner[tree.designated[p]!] !== s) ways.push(p);
  }
  if (ways.length < 2 || ways.length > 4) return [];
  return [2, 5, 20].map((times) =>
    ways.map((port): Setting => ({
      of: 'cost',
      port,
      value: Math.min(MAX_COST[methodOf(network.design, network.switches[s]!)], tree.cost[port]! * times),
    })),
  );
}

/** A port made much dearer or cheaper together with one other. */
function pairs(
  tree: SettledTree,
  port: number,
  ports: readonly number[],
  maxCost: (p: number) => number,
): (readonly Setting[])[] {
  const moves = (p: number): Setting[] =>
    [10, 0.1].map((times): Setting => ({
      of: 'cost',
      port: p,
      value: Math.max(1, Math.min(maxCost(p), Math.round(tree.cost[p]! * times))),
    }));
  return ports
    .filter((other) => other > port)
    .flatMap((other) => moves(port).flatMap((x) => moves(other).map((y) => [x, y])));
}
