/**
 * The LANs of one tree: which bridge ports hear each other. A cable joins two ports; a switch that merely floods the
 * tree's frames joins the cables plugged into it to one segment.
 */
import { isClassic, isInterop } from '../model/document';
import { oncePer } from '../base/cache';
import { treeVlan, type TreeId } from '../model/ids';
import type { VlanSet } from '../model/vlanSet';
import type { Network } from './network';
import { belongs, partAt, partOf, type TreePart } from './trees';

export interface Segments {
  /** The part of each switch. */
  readonly parts: readonly TreePart[];
  /** 1 where the port is a bridge's and belongs to the tree (with signal or without). */
  readonly member: Uint8Array;
  /** Segment of each port that is a member with signal, else -1. Segments are numbered as links, then as ports. */
  readonly of: Int32Array;
  /** Length segments + 1, into `ports`. */
  readonly first: Int32Array;
  /** Member ports with signal, grouped by segment. */
  readonly ports: Int32Array;
  /** Whether a classic bridge takes part. */
  readonly classic: boolean;
}

/** Of a network and of those that differ in settings alone: the distinct sets of VLANs that ports carry, and the segments found so far by what decides them. */
interface Known {
  readonly carried: Network['carried'];
  readonly sets: readonly VlanSet[];
  readonly found: Map<string, Segments>;
}
/** By what such networks share. */
const slotOf = oncePer((_: Network['live']) => ({ known: null as Known | null }));

function knownOf({ live, carried }: Network): Known {
  const slot = slotOf(live);
  if (slot.known?.carried !== carried) slot.known = { carried, sets: [...new Set(carried)], found: new Map() };
  return slot.known;
}

/**
 * Finds the segments of a tree. `relayForwards` says whether a standard bridge's port forwards in its own tree:
 * only there does it flood another VLAN's tree frames.
 */
export function segmentsOf(network: Network, tree: TreeId, relayForwards: (port: number) => boolean): Segments {
  const vid = treeVlan(tree);
  // Without a relay the kind of tree and the ports that carry its VLAN decide, and most VLANs are carried alike.
  const { sets, found } = knownOf(network);
  const key = `${vid === null || vid === 1 ? tree : 'vlan'} ${vid === null ? '' : sets.map((set) => Number(set.has(vid))).join('')}`;
  const alike = found.get(key);
  if (alike) return alike;
  const segments = segmentsBy(network, tree, relayForwards);
  if (!segments.parts.includes('relay') && !hasInterop(network)) found.set(key, segments);
  return segments;
}

const hasInterop = oncePer(({ switches, ports, owner }: Network): boolean =>
  ports.some((port, p) => isInterop(switches[owner[p]!]!, port)),
);

function segmentsBy(network: Network, tree: TreeId, relayForwards: (port: number) => boolean): Segments {
  const { switches, ports, carried, owner, link, live, firstPort } = network;
  const vid = treeVlan(tree);
  const parts = switches.map((sw) => partOf(sw, tree));
  const partHere = (p: number): TreePart => partAt(switches[owner[p]!]!, ports[p]!, tree, parts[owner[p]!]!);
  const links = network.design.links.length;
  const joined = new Int32Array(links).map((_, l) => l);
  const lead = (l: number): number => {
    while (joined[l] !== l) l = joined[l] = joined[joined[l]!]!;
    return l;
  };

  const member = new Uint8Array(ports.length);
  for (let s = 0; s < switches.length; s += 1) {
    /** The link before, of those that are flooded to each other. */
    const last = { hub: -1, relay: -1 };
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      if (!belongs(switches[s]!, carried[p]!, vid) || (network.bundleOf[p]! >= 0 && network.serves[p] !== p)) continue;
      const part = partHere(p);
      if (part === 'bridge') member[p] = 1;
      else if (live[p] && link[p]! >= 0 && (part === 'hub' || relayForwards(p))) {
        if (last[part] >= 0) joined[lead(link[p]!)] = lead(last[part]);
        last[part] = link[p]!;
      }
    }
  }

  const of = new Int32Array(ports.length).fill(-1);
  const first = new Int32Array(links + ports.length + 1);
  for (let p = 0; p < ports.length; p += 1) {
    if (!member[p] || !live[p]) continue;
    of[p] = link[p]! >= 0 ? segmentOf(p) : links + p;
    first[of[p]! + 1]! += 1;
  }
  for (let i = 1; i < first.length; i += 1) first[i]! += first[i - 1]!;
  const fill = first.slice();
  const grouped = new Int32Array(first[first.length - 1]!);
  for (let p = 0; p < ports.length; p += 1) if (of[p]! >= 0) grouped[fill[of[p]!]!++] = p;
  return {
    parts,
    member,
    of,
    first,
    ports: grouped,
    classic: switches.some((sw, s) => parts[s] === 'bridge' && isClassic(sw)),
  };

  /** The lead link of the cable's segment; a cable into a flooding port that is closed to this tree stays alone. */
  function segmentOf(p: number): number {
    const q = network.far[p]!;
    const s = owner[q]!;
    const part = partHere(q);
    const open = part === 'bridge' || (belongs(switches[s]!, carried[q]!, vid) && (part === 'hub' || relayForwards(q)));
    return open ? lead(link[p]!) : links + p;
  }
}
