/**
 * The settled solver: what a network of bridges of any dialect comes to rest in, without running the protocol; MSTP's trees are in cist.ts and instance.ts.
 * IEEE 802.1Q-2018 clauses 13.9 to 13.12 (with 802.1D-2004 clause 17.4 to 17.6): every bridge takes the best root
 * priority vector it can hear, every segment the best designated one; roles follow.
 */
import { isMultiple } from '../model/document';
import { CIST, instanceTree, treeInstance, treeVlan, vlanTree, type TreeId } from '../model/ids';
import { MAX_COST } from '../model/legal';
import type { Design } from '../model/document';
import { solveInstance } from './instance';
import { mstpContext, solveCist } from './cist';
import { compileNetwork, type Network } from '../topology/network';
import { ageing, noticing, type Wear } from './ageing';
import { boundsBeside, silencedBeside } from './beside';
import { designatedOn, disputeBeside, disputeUnheard, mayLead, rolesOf, thrownAway } from './roles';
import { segmentsOf, type Segments } from '../topology/segments';
import { compileSettings, type TreeSettings } from './settings';
import { costsFrom, walkFromRoots, type Costs } from './shortestPaths';
import { markOwnHeard } from './ownHeard';
import { markRootsHeld } from './rootsHeld';
import { spread } from './spread';
import { type SettledTree, type Solution, forwards } from './settled';
import { ownCheckedPorts } from '../topology/ownCheck';
import { rootCheckedPorts } from '../topology/rootCheck';
import { treesOf } from '../topology/trees';
import { wrongVlans } from '../topology/vlanCheck';
import { deafIn, heldPorts, markHeld, vlanOf, type HeldPorts } from './held';

const NONE: ReadonlySet<number> = new Set();

/** Solves every tree of a checked design. */
export function solve(design: Design): Solution {
  const network = compileNetwork(design);
  return { network, trees: solveTrees(network, treesOf(design)) };
}

/** Solves the trees named. */
export function solveTrees(network: Network, trees: readonly TreeId[]): SettledTree[] {
  if (network.acting) return solveTrees(network.acting, trees).map((tree) => spread(network, tree));
  if (ownCheckedPorts(network) === null) return solveChecked(network, trees);
  // Whether a port is held in one tree hangs on all others.
  const own = treesOf(network.design);
  const all = solveChecked(network, [...new Set([...own, ...trees])]);
  markOwnHeard(network, all, own.length);
  return trees.map((id) => all.find((tree) => tree.id === id)!);
}

function solveChecked(network: Network, trees: readonly TreeId[]): SettledTree[] {
  if (wrongVlans(network).size === 0) return solveHeld(network, trees, NONE_HELD);
  return solveHeld(
    network,
    trees,
    heldPorts(network, (tree, held) => solveHeld(network, [tree], held)[0]!),
  );
}

const NONE_HELD: HeldPorts = new Map();

function solveHeld(network: Network, trees: readonly TreeId[], held: HeldPorts): SettledTree[] {
  const settings = compileSettings(network);
  if (network.switches.some((sw) => sw.up && isMultiple(sw))) return solveWithMstp(network, settings, trees, held);
  // A relay's ports do in another VLAN's tree what they do in its own, which is one with VLAN 1's.
  let common: SettledTree | null = null;
  const solved = (tree: TreeId, relayForwards: (port: number) => boolean): SettledTree =>
    solveTree(deafIn(network, held, tree), tree, settings, relayForwards, held.get(vlanOf(tree)));
  const relayForwards = (port: number): boolean => forwards((common ??= solved(vlanTree(1), () => false)), port);
  return trees.map((tree) => solved(tree, relayForwards));
}

/** With MSTP the CIST takes the place of the common tree; a relay's ports do in a VLAN's tree what they do in the tree that has the VLAN there. */
function solveWithMstp(
  given: Network,
  settings: TreeSettings,
  trees: readonly TreeId[],
  held: HeldPorts,
): SettledTree[] {
  const network = deafIn(given, held, CIST);
  const context = mstpContext(
    network,
    segmentsOf(network, CIST, () => false),
    settings,
  );
  const cist = solveCist(context, held.get(vlanOf(CIST)));
  let known = new Map<TreeId, SettledTree>([[CIST, cist]]);
  const standard = (id: TreeId): SettledTree => {
    const tree = known.get(id) ?? solveInstance(context, cist, id);
    known.set(id, tree);
    return tree;
  };
  const ofVlan = (id: TreeId): SettledTree => {
    const vid = treeVlan(id) ?? 0;
    const relayForwards = (port: number): boolean =>
      forwards(standard(instanceTree(context.regions[network.owner[port]!]?.instanceOf(vid) ?? 0)), port);
    return solveTree(deafIn(given, held, id), id, settings, relayForwards, held.get(vlanOf(id)));
  };
  if (rootCheckedPorts(network).size > 0)
    markRootsHeld(network, cist, (vlans) => {
      known = new Map([[CIST, cist]]); // instances follow what is held by now
      return vlans.map(ofVlan);
    });
  return trees.map((id) => (treeInstance(id) !== null ? standard(id) : ofVlan(id)));
}

function solveTree(
  network: Network,
  id: TreeId,
  settings: TreeSettings,
  relayForwards: (port: number) => boolean,
  held: ReadonlySet<number> = NONE,
): SettledTree {
  const segments = segmentsOf(network, id, relayForwards);
  const { cost, portKey } = settings.portsIn(id);
  const rank = settings.bridgesIn(id).map((place, s) => (segments.parts[s] === 'bridge' ? place : -1));

  /** The tail of a priority vector that two ports send, bridge identifier and port identifier: negative where p's is better. */
  const compareSenders = (p: number, q: number): number =>
    rank[network.owner[p]!]! - rank[network.owner[q]!]! || comparePorts(p, q);
  const comparePorts = (p: number, q: number): number =>
    portKey[p]! - portKey[q]! || network.order[p]! - network.order[q]!;
  const wear = ageing(network);
  const { root, cost: rootPathCost } = rootPaths(network, segments, { rank, cost, wear, compareSenders });
  // Where messages grow too old on the way, or a bundle hears beside its segment, two may know of unlike roots.
  const dearer = MAX_COST.long * (rank.length + 1); // than any root path cost
  const rootOrder = rootPathCost.map((total, s) => (root[s]! < 0 ? Infinity : rank[root[s]!]! * dearer + total));
  const offersMore = (p: number, q: number): boolean =>
    (rootOrder[network.owner[p]!]! - rootOrder[network.owner[q]!]! || compareSenders(p, q)) < 0;
  const { owner } = network;
  const tooOld = (from: number, p: number): boolean => !wear.counts(owner[from]!, root[owner[from]!]!, owner[p]!);
  const designated = silencedBeside(network, segments, designatedOn(network, segments, offersMore), offersMore);
  const noticed = noticing(network, segments);
  const disputed = thrownAway(designated, tooOld, noticed);
  const hears = { designated, isWorse: (p: number, than: number) => offersMore(than, p) };
  markHeld(disputed, held); // who learns nothing is no reason to dispute
  disputeBeside(network, disputed, hears, noticed);
  disputeUnheard(network, segments, disputed, hears, noticed);
  markHeld(disputed, held);
  const hearsBetter = (p: number, q: number): boolean =>
    (compareSenders(designated[p]!, designated[q]!) || comparePorts(p, q)) < 0;
  const rootPort = rootPorts(network, { root, rootPathCost, cost, designated }, hearsBetter);
  return {
    id,
    root,
    rootPathCost,
    rootPort,
    rank,
    role: rolesOf(network, segments, rootPort, designated),
    cost,
    designated,
    disputed,
  };
}

interface Paths {
  readonly rank: Int32Array;
  readonly cost: Int32Array;
  readonly wear: Wear;
  readonly compareSenders: (p: number, q: number) => number;
}

/** Root and root path cost of each bridge; beyond the root's max age another root rules. */
function rootPaths(network: Network, segments: Segments, { rank, cost, wear, compareSenders }: Paths): Costs {
  const costs = costsFrom({ rank, cost, wear, takes: (_, q) => mayLead(network, q) });
  const nearer = (q: number, p: number): boolean => {
    const [t, s] = [network.owner[q]!, network.owner[p]!];
    return costs.root[t] === costs.root[s] && (costs.cost[t]! - costs.cost[s]! || compareSenders(q, p)) < 0;
  };
  walkFromRoots(network, segments, rank, costs, boundsBeside(network, segments, nearer));
  return costs;
}

/**
 * The port of each bridge with the best root priority vector (802.1Q-2018 13.9): root path cost through it, then the
 * sender's bridge and port identifiers, then its own; -1 at roots.
 */
function rootPorts(
  network: Network,
  { root, rootPathCost, cost, designated }: Pick<SettledTree, 'root' | 'rootPathCost' | 'cost' | 'designated'>,
  hearsBetter: (p: number, q: number) => boolean,
): Int32Array {
  const chosen = new Int32Array(network.switches.length).fill(-1);
  for (let s = 0; s < chosen.length; s += 1) {
    if (root[s]! < 0 || root[s] === s) continue;
    for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) {
      const sender = designated[p]!;
      if (sender < 0 || network.owner[sender] === s || !mayLead(network, p)) continue;
      if (
        root[network.owner[sender]!] !== root[s] ||
        rootPathCost[network.owner[sender]!]! + cost[p]! > rootPathCost[s]!
      )
        continue;
      if (chosen[s]! < 0 || hearsBetter(p, chosen[s]!)) chosen[s] = p;
    }
  }
  return chosen;
}
