/**
 * What engineers have set, compiled once for all trees: most ports and switches say nothing about single trees, so each
 * tree starts from a copy of what holds everywhere and changes only what its own settings change.
 */
import type { Bridge, BridgePort } from '../topology/bridges';
import { oncePer } from '../base/cache';
import { methodOf } from '../model/costMethod';
import { CIST, CST, treeVlan, vlanTree, type TreeId } from '../model/ids';
import { isPerVlan } from '../model/document';
import { portIdentifier, portIdentifierValue, setBridgePriority, setPathCost } from '../topology/bridgeId';
import type { Network } from '../topology/network';
import { pathCostOf } from '../topology/pathCost';

export interface TreeSettings {
  /** Each port's path cost in a tree, and its port identifier as one number to compare by; trees may have the same lists: not to be written to. */
  portsIn(tree: TreeId): { readonly cost: Int32Array; readonly portKey: Int32Array };
  /** Each switch's place among all bridge identifiers of a tree, 0 the best; whether or not it is a bridge there. */
  bridgesIn(tree: TreeId): Int32Array;
}

const NO_TREE = '' as TreeId;

/** Who has settings of its own for a tree, by index: under its own name, or one under which some dialect keeps them. */
function byTree(
  all: readonly { readonly trees: Partial<Record<TreeId, object>> }[],
): (tree: TreeId) => readonly number[] {
  const found = new Map<string, number[]>();
  all.forEach(({ trees }, i) => {
    for (const key of Object.keys(trees)) {
      const own = found.get(key);
      if (own) own.push(i);
      else found.set(key, [i]);
    }
  });
  return (tree) => [tree, CST, vlanTree(1)].flatMap((key) => found.get(key) ?? []);
}

/** What does not depend on settings for single trees, and who has some. */
interface Compiled {
  readonly network: Network;
  readonly everywhere: { readonly cost: Int32Array; readonly portKey: Int32Array };
  readonly byMac: readonly number[];
  readonly macPlace: Int32Array;
  readonly ownPriority: readonly number[];
  readonly specialPorts: (tree: TreeId) => readonly number[];
  readonly specialSwitches: (tree: TreeId) => readonly number[];
}
/** By what networks share that differ in settings alone. */
const slotOf = oncePer((_: Network['live']) => ({ compiled: null as Compiled | null }));

/** What differs in a network from the one that was compiled is looked up tree by tree, up to this share of it. */
const FEW = 1 / 8;

/** The places where two lists do not hold the same. */
const others = <T>(now: readonly T[], then: readonly T[]): number[] =>
  now === then ? [] : Array.from(now.keys()).filter((i) => now[i] !== then[i]);

/** What was compiled of a network, or of one that differs from it in settings alone, and where it does. */
function compiledFor(network: Network) {
  const slot = slotOf(network.live);
  const { switches, ports } = network;
  if (slot.compiled) {
    const { network: base } = slot.compiled;
    const [otherPorts, otherSwitches] = [others(ports, base.ports), others(switches, base.switches)];
    const same = base.design === network.design;
    if (same || otherPorts.length + otherSwitches.length <= (ports.length + switches.length) * FEW)
      return { ...slot.compiled, otherPorts, otherSwitches };
  }
  slot.compiled = compiled(network);
  return { ...slot.compiled, otherPorts: [], otherSwitches: [] };
}

function compiled(network: Network): Compiled {
  const { switches, ports, owner } = network;
  const byMac = Array.from(switches.keys()).sort((s, t) => {
    const [a, b] = [switches[s]!, switches[t]!];
    return a.mac < b.mac ? -1 : a.mac > b.mac ? 1 : a.id < b.id ? -1 : 1;
  });
  const macPlace = new Int32Array(switches.length);
  byMac.forEach((s, place) => (macPlace[s] = place));
  return {
    network,
    byMac,
    macPlace,
    everywhere: {
      cost: Int32Array.from(ports, (_, p) => costOf(network, p, NO_TREE)),
      portKey: Int32Array.from(ports, (port, p) => keyOf(port, switches[owner[p]!]!, NO_TREE)),
    },
    ownPriority: switches.map((sw) => setBridgePriority(sw, NO_TREE)),
    specialPorts: byTree(ports),
    specialSwitches: byTree(switches),
  };
}

function costOf({ ports, switches, owner, design }: Network, p: number, tree: TreeId): number {
  const sw = switches[owner[p]!]!;
  return setPathCost(ports[p]!, tree, sw.dialect) ?? pathCostOf(ports[p]!.speed, methodOf(design, sw));
}

const keyOf = (port: BridgePort, { dialect }: Bridge, tree: TreeId): number =>
  portIdentifierValue(portIdentifier(port, tree, dialect));

/** Compiles the settings of a network; of one that differs from another in settings alone, what those change. */
export function compileSettings(network: Network): TreeSettings {
  const { switches, ports, owner } = network;
  const { everywhere, byMac, macPlace, ownPriority, specialPorts, specialSwitches, otherPorts, otherSwitches } =
    compiledFor(network);
  const count = switches.length;
  const perVlan = switches.map((sw) => isPerVlan(sw));

  return {
    portsIn(tree) {
      const special = [...specialPorts(tree), ...otherPorts];
      if (special.length === 0) return everywhere;
      const cost = everywhere.cost.slice();
      const portKey = everywhere.portKey.slice();
      for (const p of special) {
        cost[p] = costOf(network, p, tree);
        portKey[p] = keyOf(ports[p]!, switches[owner[p]!]!, tree);
      }
      return { cost, portKey };
    },
    bridgesIn(tree) {
      // A bridge with a tree for each VLAN takes part in the CIST with that of VLAN 1; who takes part in another VLAN's has it there.
      const vid = treeVlan(tree) ?? (tree === CIST ? 1 : 0);
      const keys = new Float64Array(count);
      // Priority and extension take 16 bits; below them the place of the MAC makes every key different.
      const keyFor = (s: number, priority: number): number =>
        (priority + (perVlan[s] || vid > 1 ? vid : 0)) * count + macPlace[s]!;
      for (let s = 0; s < count; s += 1) keys[s] = keyFor(s, ownPriority[s]!);
      for (const s of [...specialSwitches(tree), ...otherSwitches])
        keys[s] = keyFor(s, setBridgePriority(switches[s]!, tree));
      keys.sort();
      const rank = new Int32Array(count);
      for (let place = 0; place < count; place += 1) rank[byMac[keys[place]! % count]!] = place;
      return rank;
    },
  };
}
