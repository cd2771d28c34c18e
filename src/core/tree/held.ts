/** Ports that the VLAN check holds once all has settled: those at whose other end somebody goes on sending BPDUs of another VLAN. */
import { treeVlan, type TreeId } from '../model/ids';
import type { Network } from '../topology/network';
import { treesOf } from '../topology/trees';
import { wrongVlans, type WrongVlan } from '../topology/vlanCheck';
import { isOld } from './hearing';
import { HELD, type SettledTree } from './settled';

/** The VLAN whose tree per-VLAN bridges have there: the common tree is that of VLAN 1, which instances follow. */
export const vlanOf = (tree: TreeId): number => treeVlan(tree) ?? 1;

/** By VLAN, the ports that are held in it. */
export type HeldPorts = ReadonlyMap<number, ReadonlySet<number>>;

/**
 * Which ports are held. Who begins sends, so all are held at first; a port that is held hears nothing in its two
 * VLANs. It stays so for as long as its neighbour sends: as designated port, which may hang on who hears whom, and where both
 * are rapid in any case, since what is held proposes again and again, and is answered (802.1Q-2018 13.37).
 */
export function heldPorts(network: Network, solve: (tree: TreeId, held: HeldPorts) => SettledTree): HeldPorts {
  const all = treesOf(network.design);
  const treeFor = (vid: number): TreeId | undefined => all.find((tree) => vlanOf(tree) === vid);
  let held = [...wrongVlans(network)].filter(
    ([p, { from, heard }]) => network.live[p] === 1 && network.live[from] === 1 && treeFor(heard) !== undefined,
  );
  for (;;) {
    const ports = byVlan(held);
    const known = new Map<number, SettledTree>();
    const left = held.filter(([p, { from, heard }]) => {
      if (!isOld(network, p) && !isOld(network, from)) return true;
      const tree = known.get(heard) ?? solve(treeFor(heard)!, ports);
      known.set(heard, tree);
      return tree.designated[from] === from;
    });
    if (left.length === held.length) return ports;
    held = left;
  }
}

function byVlan(held: readonly (readonly [number, WrongVlan])[]): Map<number, Set<number>> {
  const ports = new Map<number, Set<number>>();
  for (const [p, { heard, own }] of held)
    for (const vid of [heard, own]) ports.set(vid, (ports.get(vid) ?? new Set<number>()).add(p));
  return ports;
}

/** The network as a tree has it, whose ports that are held take no BPDU in. */
export function deafIn(network: Network, held: HeldPorts, tree: TreeId): Network {
  const own = held.get(vlanOf(tree));
  return own
    ? { ...network, ports: network.ports.map((port, p) => (own.has(p) ? { ...port, bpduRx: false } : port)) }
    : network;
}

export const markHeld = (disputed: Uint8Array, held: Iterable<number> = []): void => {
  for (const p of held) disputed[p] = HELD;
};
