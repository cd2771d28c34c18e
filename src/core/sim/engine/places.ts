/** Which entities run in a switch, and which of its ports each has. */
import { oncePerNumber } from '../../base/cache';
import type { Bridge, BridgePort } from '../../topology/bridges';
import { isOpen, runsTrees } from '../../model/document';
import { treeInstance, treeVlan, type TreeId } from '../../model/ids';
import type { RunState } from '../../modes/entity';
import type { Network } from '../../topology/network';
import { regionsOf, sameRegion, type RegionMap } from '../../topology/region';
import { portVlanTrees } from '../../topology/vlanTree';
import { belongs, partAt, partOf } from '../../topology/trees';

/** Whether a switch, once it has power, takes part in a tree. */
export function takesPartIn(sw: Bridge, region: RegionMap | null, tree: TreeId): boolean {
  const mstid = treeInstance(tree);
  if (!runsTrees(sw) || partOf({ ...sw, up: true }, tree) !== 'bridge') return false;
  return !mstid || (region?.instances.some((instance) => instance.mstid === mstid) ?? false);
}

/** Whether a switch or one of its ports speaks another dialect, or it is of another MST configuration: its protocol then starts over (802.1Q-2018 13.8, 13.38). */
export function speaksOtherwise(
  [before, was]: readonly [Bridge, RegionMap | null],
  [after, is]: readonly [Bridge, RegionMap | null],
): boolean {
  if (before.dialect !== after.dialect) return true;
  // Ports that come or go, as a pair joins or parts, change what is spoken where they speak otherwise than their switch.
  const longer = before.ports.length > after.ports.length ? before.ports : after.ports;
  const asBefore = (_: BridgePort, i: number): boolean =>
    after.ports[i]?.speaks === before.ports[i]?.speaks && after.ports[i]?.speaksFor === before.ports[i]?.speaksFor;
  if (!longer.every(asBefore)) return true;
  return (
    was !== is &&
    was !== null &&
    is !== null &&
    !(
      sameRegion(was, is) &&
      was.instances.map(({ mstid }) => mstid).join() === is.instances.map(({ mstid }) => mstid).join()
    )
  );
}

/** What the switches of a network speak, and what follows for the trees of a run. */
export interface Spoken {
  readonly regions: readonly (RegionMap | null)[];
  /** The tree that decides where a VLAN's frames pass at a port; -1 where none does. */
  readonly treeFor: (port: number, vid: number) => number;
  /** Those that do so at the ports of a switch. */
  readonly treesFor: (s: number, vid: number) => readonly number[];
  /** By tree, then by port: its place in its entity, -1 where it is not in the tree. */
  readonly places: readonly Int32Array[];
}

/** `alike`: further trees, and the place of the one that decides in their stead. */
export function spokenIn(
  network: Network,
  trees: readonly TreeId[],
  alike: ReadonlyMap<TreeId, number> = new Map(),
): Spoken {
  const regions = network.switches.map(regionsOf(network.design));
  const placeOf = [...trees.keys(), ...alike.values()];
  const treeAt = portVlanTrees(network, [...trees, ...alike.keys()]);
  const treeFor = (port: number, vid: number): number => placeOf[treeAt(port, vid)] ?? -1;
  const { firstPort } = network;
  const found = network.switches.map((_, s) =>
    oncePerNumber((vid: number): readonly number[] => {
      const own = Array.from({ length: firstPort[s + 1]! - firstPort[s]! }, (__, i) => treeFor(firstPort[s]! + i, vid));
      return [...new Set(own)].filter((tree) => tree >= 0);
    }),
  );
  const places = placesOf(network, trees, regions);
  return { regions, treeFor, treesFor: (s, vid) => found[s]!(vid), places };
}

/** By tree, then by port: its place in its entity, -1 where it is not in the tree. */
function placesOf(
  { switches, ports, owner, carried }: Network,
  trees: readonly TreeId[],
  regions: readonly (RegionMap | null)[],
): Int32Array[] {
  return trees.map((tree) => {
    const places = new Int32Array(ports.length).fill(-1);
    const next = new Int32Array(switches.length);
    const isPlaced = placing({ switches, ports, carried }, tree);
    const takesPart = switches.map((sw, s) => takesPartIn(sw, regions[s]!, tree));
    for (let p = 0; p < ports.length; p += 1) {
      const s = owner[p]!;
      if (takesPart[s] && isPlaced(p, s)) places[p] = next[s]!++;
    }
    return places;
  });
}

/** Whether a port has a place in the entity of a switch that takes part in a tree. */
function placing(
  { switches, ports, carried }: Pick<Network, 'switches' | 'ports' | 'carried'>,
  tree: TreeId,
): (p: number, s: number) => boolean {
  const vid = treeVlan(tree);
  return (p, s) =>
    partAt(switches[s]!, ports[p]!, tree, 'bridge') === 'bridge' && belongs(switches[s]!, carried[p]!, vid);
}

/** The ports that have a place in the entity of a switch; of a primary also those of its secondary, which come to it once they are one. */
export function portsPlaced(network: Network, tree: TreeId, s: number, places: Int32Array): number[] {
  const { firstPort, pairs, home, owner } = network;
  const found: number[] = [];
  for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) if (places[p]! >= 0) found.push(p);
  if (!pairs.some(({ first }) => first === s)) return found;
  const isPlaced = placing(network, tree);
  home.forEach((at, p) => at === s + 1 && owner[p] !== s && isPlaced(p, s) && found.push(p));
  return found;
}

/** The trees of each entity of a switch, by their places among all: one each, but with MSTP one entity for the CIST and its instances. */
export function treesByEntity(sw: Bridge, region: RegionMap | null, trees: readonly TreeId[]): number[][] {
  const mine = trees.flatMap((tree, i) => (takesPartIn(sw, region, tree) ? [i] : []));
  const together = mine.filter((i) => region !== null && treeInstance(trees[i]!) !== null);
  const apart = mine.filter((i) => !together.includes(i)).map((i) => [i]);
  return together.length > 0 ? [together, ...apart] : apart;
}

/** Whether a port lets frames of a VLAN through now. */
export function letsFramesThrough(
  {
    network: { switches, ports, owner, live, carried },
    spoken,
    state,
  }: {
    readonly network: Network;
    readonly spoken: Pick<Spoken, 'treeFor'>;
    readonly state: (tree: number, port: number) => RunState;
  },
  vid: number,
  port: number,
): boolean {
  if (!live[port] || !carried[port]!.has(vid)) return false;
  if (isOpen(switches[owner[port]!]!, ports[port]!)) return true;
  const tree = spoken.treeFor(port, vid);
  return tree >= 0 && state(tree, port) === 'forwarding';
}

/** When a port lets a tree's BPDUs through as any multicast: of a switch without spanning tree, or one that passes them on, or a standard bridge's in another VLAN, where it forwards. */
export function letsThrough(
  { switches, ports, owner, carried }: Network,
  tree: TreeId,
  port: number,
): 'always' | 'forwarding' | 'never' {
  const sw = switches[owner[port]!]!;
  const part = partAt({ ...sw, up: true }, ports[port]!, tree);
  if (part === 'bridge' || !belongs(sw, carried[port]!, treeVlan(tree))) return 'never';
  return part === 'hub' ? 'always' : 'forwarding';
}

/** Whether a port lets a tree's BPDUs through now; `forwards` says whether it forwards in a VLAN. */
export function letsBpduThrough(
  network: Network,
  tree: TreeId,
  port: number,
  forwards: (vid: number, port: number) => boolean,
): boolean {
  const lets = letsThrough(network, tree, port);
  return lets === 'always' || (lets === 'forwarding' && forwards(treeVlan(tree)!, port));
}
