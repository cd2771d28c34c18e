/** What a compiled network is made of. */
import type { Design } from '../model/document';
import type { BridgePortId, SwitchId } from '../model/ids';
import type { VlanSet } from '../model/vlanSet';
import type { Aggregate, MemberUse } from './aggregated';
import type { Bridge, BridgePort } from './bridges';
import type { Bundles } from './lag/ends';
import type { PairState } from './pairs';

/** A pair by the places of a network. */
export interface PairedBridges {
  readonly state: PairState;
  /** The primary; the secondary comes after it. */
  readonly first: number;
  /** Their halves of each bundle, the primary's before the secondary's; those that are unlike are bundles each by itself. */
  readonly bundles: readonly (readonly [number, number])[];
  /** The ports that the peer link is in: bundles, the primary's before the secondary's. */
  readonly peer: readonly [number, number];
  /** Who calls itself by the pair's address. */
  readonly named: readonly [boolean, boolean];
}

/**
 * Bridge ports, and what is plugged in. A port that carries frames of a bundle is none itself: the bundle is, which stands
 * after the ports of its switch. `far`, `link`, `live` and `carried` are about bridge ports; `plug`, `cable` and `macOperational`
 * about aggregationPorts.
 */
export interface Network {
  readonly design: Design;
  /** The switches, with a port for each bundle after a switch's own ports. */
  readonly switches: readonly Bridge[];
  readonly ports: readonly BridgePort[];
  /** The switch, or the bridge that it is part of. */
  readonly switchIndex: ReadonlyMap<SwitchId, number>;
  /** Length switches + 1: the ports of bridge `s` are `firstPort[s]` up to `firstPort[s + 1]`. */
  readonly firstPort: Int32Array;
  /** The switch of each port; where a pair acts as one, of both switches' ports the primary. */
  readonly owner: Int32Array;
  /** The switch that each port is at. */
  readonly home: Int32Array;
  /** Pairs of switches: the secondary stands behind its primary. */
  readonly pairs: readonly PairedBridges[];
  /** The same as its bridges are, for protocols and frames, with the same places: pairs that act as one are one bridge, in the place of the primary. Itself where there are none. */
  readonly acting?: Network;
  /** The bridge port that a port's BPDUs arrive at, or -1 (nothing, a host, a bundle's member that is kept out). */
  readonly far: Int32Array;
  /** The index of the link that a port's BPDUs take, or -1. */
  readonly link: Int32Array;
  /** 1 where the port is a bridge port that has signal. */
  readonly live: Uint8Array;
  /** The port at the other end of the cable, or -1 (nothing, or a host). */
  readonly plug: Int32Array;
  /** The index of the link in each port, or -1. */
  readonly cable: Int32Array;
  /** By link, the ports at its two ends: 2 x link, 2 x link + 1. */
  readonly linkEnds: Int32Array;
  /** 1 where the aggregationPort has signal. */
  readonly macOperational: Uint8Array;
  /** Of a member the port that its bundle is, else -1. */
  readonly bundleOf: Int32Array;
  /** The bridge port whose frames a aggregationPort carries now: itself, or its bundle; -1 for a member that is kept out. */
  readonly serves: Int32Array;
  /** The aggregationPort by which a bridge port's BPDUs leave; of a bundle one of its members, -1 where none is active. */
  readonly transmitPort: Int32Array;
  /** Of a bundle that is none at its other end: ports that it hears, beside the one that hears it. */
  readonly oneWayPeers: ReadonlyMap<number, readonly number[]>;
  /** By the port that a bundle is. */
  readonly aggregates: ReadonlyMap<number, Aggregate>;
  readonly bundles: Bundles;
  /** What each member is used for. */
  readonly use: readonly MemberUse[];
  /** By bridge port, what shut it: a code of `SHUT_BY`. */
  readonly shut: Uint8Array;
  /** The VLANs that each port carries. */
  readonly carried: readonly VlanSet[];
  /** Rank of each port by (switch id, port id): the last resort where port identifiers collide. */
  readonly order: Int32Array;
  readonly portIndexOf: (sw: SwitchId, port: BridgePortId) => number;
}
