/**
 * What engineers have set, compiled once for all trees: most ports and switches say nothing about single trees, so each
 * tree starts from a copy of what holds everywhere and changes only what its own settings change.
 */
import { methodOf } from '../design/costMethod';
import { CIST, CST, treeVlan, vlanTree, type TreeId } from '../design/ids';
import { isPerVlan, portIdentifier, portIdentifierValue, setBridgePriority, setPathCost } from './bridgeId';
import type { Network } from './network';
import { pathCostOf } from './pathCost';

export interface Settings {
  /** Each port's path cost in a tree, and its port identifier as one number to compare by. */
  portsIn(tree: TreeId): { readonly cost: Int32Array; readonly portKey: Int32Array };
  /** Each switch's place among all bridge identifiers of a tree, 0 the best; whether or not it is a bridge there. */
  bridgesIn(tree: TreeId): Int32Array;
}

const NO_TREE = '' as TreeId;

/** Who has settings of its own for a tree, by index: under its own name, or one under which some dialect keeps them. */
function byTree(all: readonly { readonly trees: Partial<Record<TreeId, object>> }[]): (tree: TreeId) => readonly number[] {
  const found = new Map<string, number[]>();
  all.forEach(({ trees }, i) => {
    for (const key of Object.keys(trees)) found.set(key, [...(found.get(key) ?? []), i]);
  });
  return (tree) => [tree, CST, vlanTree(1)].flatMap((key) => found.get(key) ?? []);
}

/** Compiles the settings of a network. */
export function compileSettings(network: Network): Settings {
  const { switches, ports, owner, design } = network;
  const methodAt = (p: number) => methodOf(design, switches[owner[p]!]!);
  const dialectOf = (p: number) => switches[owner[p]!]!.dialect;
  const speeds = { long: new Map<number, number>(), short: new Map<number, number>() };
  const costOf = (p: number, tree: TreeId): number => {
    const port = ports[p]!;
    const set = setPathCost(port, tree, dialectOf(p));
    if (set !== undefined) return set;
    const method = methodAt(p);
    const known = speeds[method].get(port.speed) ?? pathCostOf(port.speed, method);
    speeds[method].set(port.speed, known);
    return known;
  };
  const keyOf = (p: number, tree: TreeId): number => portIdentifierValue(portIdentifier(ports[p]!, tree, dialectOf(p)));
  const everywhere = { cost: Int32Array.from(ports, (_, p) => costOf(p, NO_TREE)), portKey: Int32Array.from(ports, (_, p) => keyOf(p, NO_TREE)) };
  const specialPorts = byTree(ports);

  const byMac = Array.from(switches.keys()).sort((s, t) => {
    const [a, b] = [switches[s]!, switches[t]!];
    return a.mac < b.mac ? -1 : a.mac > b.mac ? 1 : a.id < b.id ? -1 : 1;
  });
  const macPlace = new Int32Array(switches.length);
  byMac.forEach((s, place) => (macPlace[s] = place));
  const count = switches.length;
  const ownPriority = switches.map((sw) => setBridgePriority(sw, NO_TREE));
  const perVlan = switches.map((sw) => isPerVlan(sw.dialect));
  const specialSwitches = byTree(switches);

  return {
    portsIn(tree) {
      const cost = everywhere.cost.slice();
      const portKey = everywhere.portKey.slice();
      for (const p of specialPorts(tree)) {
        cost[p] = costOf(p, tree);
        portKey[p] = keyOf(p, tree);
      }
      return { cost, portKey };
    },
    bridgesIn(tree) {
      // A bridge with a tree for each VLAN takes part in the CIST with that of VLAN 1.
      const vid = treeVlan(tree) ?? (tree === CIST ? 1 : 0);
      const keys = new Float64Array(count);
      // Priority and extension take 16 bits; below them the place of the MAC makes every key different.
      const keyFor = (s: number, priority: number): number => (priority + (perVlan[s] ? vid : 0)) * count + macPlace[s]!;
      for (let s = 0; s < count; s += 1) keys[s] = keyFor(s, ownPriority[s]!);
      for (const s of specialSwitches(tree)) keys[s] = keyFor(s, setBridgePriority(switches[s]!, tree));
      keys.sort();
      const rank = new Int32Array(count);
      for (let place = 0; place < count; place += 1) rank[byMac[keys[place]! % count]!] = place;
      return rank;
    },
  };
}
