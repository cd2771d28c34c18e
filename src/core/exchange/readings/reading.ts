/** What a switch says of itself, whatever it is: its bridge, ports and bundles, with what is known and what not. */
import type { BridgeId } from '../../topology/bridgeId';
import type { Role } from '../../tree/settled';

/** `moving`: on its way to forwarding (listening, learning). */
export type ReadState = 'forwarding' | 'discarding' | 'moving' | 'disabled';

export interface PortReading {
  readonly interface: string;
  readonly state: ReadState;
  /** Null where it is not known. */
  readonly role: Role | null;
  readonly cost: number | null;
  /** The four bits of priority of its identifier, as they are set: 0 to 240. */
  readonly priority: number | null;
  /** VLANs that it carries, as `1,15-20`; null where they are not known. */
  readonly vlans: string | null;
  /** The VLAN whose frames have no tag; null where there is none, or where it is not known. */
  readonly untagged: number | null;
}

export interface BundleReading {
  readonly interface: string;
  /** Interfaces, in the order of their names. */
  readonly members: readonly string[];
  /** Those that carry frames. */
  readonly active: readonly string[];
}

export interface BridgeReading {
  readonly id: BridgeId;
  readonly root: BridgeId;
  readonly rootPathCost: number;
  /** An interface; null at the root. */
  readonly rootPort: string | null;
}

/** Whom a switch sees at a port by LLDP. */
export interface NeighbourReading {
  readonly interface: string;
  /** The system name; null where it is not told. */
  readonly system: string | null;
  readonly port: string;
}

export interface SwitchReading {
  /** Null where it runs no spanning tree. */
  readonly bridge: BridgeReading | null;
  readonly ports: readonly PortReading[];
  readonly bundles: readonly BundleReading[];
  /** Left out where they are not known. */
  readonly neighbours?: readonly NeighbourReading[];
}
