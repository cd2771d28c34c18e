/** Why a switch is root: the ranking of bridge identifiers in its island. */
import { isMultiple } from '../../model/document';
import { CIST, treeName } from '../../model/ids';
import { bridgeId, bridgeIdText, setBridgePriority, systemIdExtension, type BridgeId } from '../../topology/bridgeId';
import { bridgeOf } from '../../topology/acting';
import type { Network } from '../../topology/network';
import { calledBy } from '../spread';
import { switchName } from './phrases';
import type { SettledTree } from '../settled';
import { costText } from './vector';

/** One place in an election, best first. */
export interface Contender {
  readonly switchIndex: number;
  readonly name: string;
  readonly id: BridgeId;
  /** The settable part of the priority and what the tree adds to it. */
  readonly priority: number;
  readonly extension: number;
}

export interface Election {
  readonly ranking: readonly Contender[];
  /** What parted the root from the next in line; null where it is alone. */
  readonly decidedBy: 'priority' | 'mac' | null;
  readonly sentence: string;
}

/** The election in the island of switch index `s`; null where the switch takes no part in the tree. */
export function explainRoot(network: Network, tree: SettledTree, s: number): Election | null {
  const root = tree.root[s]!;
  if (root < 0) return null;
  const ranking = network.switches
    .map((_, i) => i)
    .filter((i) => tree.root[i] === root && calledBy(network, bridgeOf(network, i)) === i)
    .sort((a, b) => tree.rank[a]! - tree.rank[b]!)
    .map((i): Contender => {
      const sw = network.switches[i]!;
      return {
        switchIndex: i,
        name: switchName(sw),
        id: bridgeId(sw, tree.id),
        priority: setBridgePriority(sw, tree.id),
        extension: systemIdExtension(sw, tree.id),
      };
    });
  const [first, second] = ranking;
  if (!first || !second)
    return {
      ranking,
      decidedBy: null,
      sentence: `${first?.name ?? ''} is root: no other bridge of ${treeName(tree.id)} can be reached.`,
    };
  if (first.id.priority !== second.id.priority) {
    const sentence = `${first.name} is root by priority: ${bridgeIdText(first.id)} beats ${second.name}'s ${bridgeIdText(second.id)}.`;
    return { ranking, decidedBy: 'priority', sentence };
  }
  const tied = ranking.filter((c) => c.id.priority === first.id.priority).length;
  const all = tied === ranking.length ? `all ${tied} bridges have` : `${tied} bridges have`;
  return {
    ranking,
    decidedBy: 'mac',
    sentence: `${first.name} is root by MAC address alone: ${all} priority ${first.id.priority}, and ${first.id.mac} is the lowest MAC.`,
  };
}

/** In a CIST with regions: why a switch's regional root is that, in a sentence (802.1Q-2018 13.9); null for a bridge that is in no region. */
export function explainRegionalRoot({ switches, ports }: Network, tree: SettledTree, s: number): string | null {
  const regional = tree.regional?.root[s] ?? -1;
  if (tree.id !== CIST || regional < 0 || !isMultiple(switches[s]!)) return null;
  const name = switchName(switches[regional]!);
  if (tree.root[s] === regional) return `${name} is the root of the CIST, and so the regional root of its own region.`;
  const p = tree.rootPort[regional]!;
  const out =
    p < 0
      ? ''
      : `: through its port ${ports[p]!.id} the region leaves for the root, at an external root path cost of ${costText(tree.rootPathCost[regional]!)}`;
  const inside =
    regional === s
      ? ''
      : `; ${switchName(switches[s]!)} reaches it at ${costText(tree.regional!.cost[s]!)} inside of the region`;
  return `${name} is the regional root${out}${inside}.`;
}

/** The bridge that would be elected without the root: the second in the ranking, or -1. */
export function standbyRoot(tree: SettledTree, root: number): number {
  let best = -1;
  tree.root.forEach((r, s) => {
    if (r === root && s !== root && (best < 0 || tree.rank[s]! < tree.rank[best]!)) best = s;
  });
  return best;
}

/** Whether a switch is a bridge with a live port in the tree: without one it is its own root in name only. */
export function takesPart(network: Network, tree: SettledTree, s: number): boolean {
  if (tree.root[s]! < 0) return false;
  for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) if (tree.designated[p]! >= 0) return true;
  return false;
}

/** The roots of a tree's islands, the largest island first; of bridges that take no part only where there is nothing else. */
export function islandRoots(network: Network, tree: SettledTree): number[] {
  const size = new Map<number, number>();
  tree.root.forEach((root, s) => {
    if (root >= 0) size.set(root, (size.get(root) ?? 0) + (takesPart(network, tree, s) ? 1 : 0));
  });
  const all = [...size].sort((a, b) => b[1] - a[1] || tree.rank[a[0]]! - tree.rank[b[0]]!);
  const peopled = all.filter(([, count]) => count > 0);
  return (peopled.length > 0 ? peopled : all.slice(0, 1)).map(([root]) => root);
}
