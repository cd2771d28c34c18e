/**
 * What a spanning tree protocol entity is to the network around it: one for each tree of a switch, whatever its dialect;
 * with MSTP one for all its trees, the CIST being tree 0 and instances following in the order of the settings.
 */
import type { MstConfigurationId } from '../wire/mstConfiguration';
import type { Bpdu } from './bpdu';
import type { Times, Vector } from './vector';

/** Simulated time in microseconds. */
export type Micros = number;
export const SECOND: Micros = 1_000_000;

/** The state of a port as an engineer reads it: classic ports block and listen, the others discard. */
export type RunState = 'disabled' | 'blocking' | 'listening' | 'discarding' | 'learning' | 'forwarding';
export type RunRole = 'root' | 'designated' | 'alternate' | 'backup' | 'master' | 'disabled';

/** What an entity asks of the switch that it runs in. Ports are numbered as the entity was given them. */
export interface Surroundings {
  readonly now: () => Micros;
  /** Hands a BPDU to the medium. */
  readonly transmit: (port: number, bpdu: Bpdu) => void;
  /** A port took another state or role in a tree. */
  readonly changed: (port: number, tree: number) => void;
  /** Forgets the addresses of a tree's VLANs learnt on a port. */
  readonly flush: (port: number, tree: number) => void;
  /** Addresses age in so many seconds, or, null, again as usual (802.1D-1998 8.5.3.8, topology change). */
  readonly fastAgeing: (seconds: number | null) => void;
}

export interface ProtocolEntity {
  /** Takes a BPDU from the medium. */
  receive(port: number, bpdu: Bpdu): void;
  /** Runs what is due. */
  wake(): void;
  /** When something will be due next; Infinity for never. */
  readonly due: Micros;
  /** Signal comes or goes. */
  enable(port: number, on: boolean): void;
  /** A port's BPDUs say that it may not forward, whatever its role; of an entity of one tree (trade practice). It begins anew. */
  setHeld(port: number, on: boolean): void;
  /** Another cost: outside regions that of the CIST, inside one that of a tree. */
  setPathCost(port: number, cost: PortCost, tree?: number): void;
  setPortId(port: number, id: number, tree?: number): void;
  /** Another bridge identifier (802.1Q-2018 13.26.2). */
  setBridge(key: number, tree?: number): void;
  role(port: number, tree?: number): RunRole;
  state(port: number, tree?: number): RunState;
  /** Whether loop guard or a check keeps a port from forwarding. */
  isHeld(port: number, tree?: number): boolean;
  /** What a port holds of its segment's designated bridge, its own words where it is that (802.1Q-2018 13.27 portPriority; 802.1D-1998 8.5.5). */
  held(port: number): Vector;
  /** Whether what a port heard last comes from the bridge's own region. */
  inside(port: number): boolean;
  /** Whether nothing is under way: no port on its way to forward, no topology change being told. */
  readonly resting: boolean;
  /** The root that the bridge believes in, and what it costs to get there (13.27, rootPriority). */
  rootVector(tree?: number): Vector;
  /** -1 where it has none. */
  rootPort(tree?: number): number;
  /** For an entity that has just begun: how it begins at rest; null where its kind does not. */
  readonly beginning: Beginning | null;
  /** How it is spared to say again what it has said; null where its kind is not. */
  readonly steady: Steady | null;
}

/** What a port says of a tree's root. */
export interface Offer {
  readonly vector: Vector;
  readonly times: Times;
  /** The region that it says that it is of; null where it sends RST BPDUs. */
  readonly region: MstConfigurationId | null;
}

/**
 * What a port will hear: it has no signal; it is heard by no bridge and hears none; or what a bridge offers in each of the
 * entity's trees, the CIST first, null in an instance that the bridge does not have, the latest at `last`.
 */
export type Heard =
  | { readonly kind: 'off' }
  | { readonly kind: 'nobody' }
  | { readonly kind: 'bridge'; readonly offers: readonly [Offer, ...(Offer | null)[]]; readonly last: Micros };

/** What a port goes on saying: the BPDU that it sent last, `next` being when it is due again, every `period`. */
export interface Hello {
  readonly bpdu: Bpdu;
  readonly next: Micros;
  readonly period: Micros;
}

/** Hellos that say nothing new need not be sent and heard one by one: when the latest one came is known all the same. */
export interface Steady {
  /** How often the machines have run: in between, nothing changes what a port says or makes of what it hears. */
  readonly runs: number;
  /** By port, what it will say until the machines run again, null for nothing; null where there is something new to come. */
  hellos(): readonly (Hello | null)[] | null;
  /** Sends no hellos until `speak`; `due` is when a machine may move. */
  hush(): void;
  /** Sends hellos again, the next ones at a moment (now, or just after) or later, as though it had sent all those before. */
  speak(from: Micros): void;
  /** While hushed: whether a machine moves now; `due` is put off where none does. */
  stirs(): boolean;
  /** Whether a BPDU would be nothing new at a port. */
  knows(port: number, bpdu: Bpdu): boolean;
  /** A port hears what it knows again and again: what it holds does not age, until `letGo`. */
  hold(port: number): void;
  /** A port heard what it knows last at a moment. */
  letGo(port: number, at: Micros): void;
}

/** Puts an entity where it would come to rest by itself. */
export interface Beginning {
  /** Takes what is offered at a port for the way to a tree's root: what its own ports offer then follows. The CIST comes first. */
  leadTo(port: number, offer: Offer, tree: number): void;
  /** What a port offers in a tree. */
  offer(port: number, tree: number): Offer;
  /** When a port that sends hellos sent its latest one. */
  lastHello(port: number): Micros;
  /**
   * Brings the machines to rest on what the ports hear, one entry each; false where they do not come to rest so, or the way to the
   * root leads out of the region: what bridges of a region tell each other of that hangs on the way there.
   */
  rest(heard: readonly Heard[]): boolean;
  /** What a port that rests said last; null where it says nothing. */
  said(port: number): Bpdu | null;
  /** A port that rests heard that last. */
  knew(port: number, bpdu: Bpdu): void;
}

/** Path costs of a port (802.1Q-2018 13.27, ExternalPortPathCost and InternalPortPathCost); an instance has the internal one only. */
export interface PortCost {
  readonly external: number;
  readonly internal: number;
}

/** A port in a tree: its identifier and costs. */
export interface PortSettings {
  readonly id: number;
  readonly cost: PortCost;
}

/** What a port is in every tree (802.1Q-2018 13.27: AdminEdge, AutoEdge, restrictedRole, restrictedTcn, enableBPDUrx, enableBPDUtx), and its guards. */
export interface PortKind {
  readonly edge: boolean;
  readonly autoEdge: boolean;
  readonly pointToPoint: boolean;
  /** Root guard: it is no root port, whatever it hears. */
  readonly restrictedRole: boolean;
  readonly restrictedTcn: boolean;
  readonly enableBPDUrx: boolean;
  readonly enableBPDUtx: boolean;
  /** What the standard has of a whole bridge (13.28 rstpVersion): not where it is forced to version 0 (13.7.2). */
  readonly rstpVersion: boolean;
  /** It discards where BPDUs stop coming. */
  readonly loopGuard: boolean;
}

/** Where an MSTP bridge belongs, and what it is in each instance. */
export interface RegionSettings {
  readonly configurationId: MstConfigurationId;
  readonly instances: readonly {
    readonly mstid: number;
    readonly bridge: number;
    readonly ports: readonly PortSettings[];
  }[];
}

/** What an entity starts with. */
export interface EntitySettings {
  readonly bridge: number;
  readonly times: {
    readonly hello: number;
    readonly maxAge: number;
    readonly forwardDelay: number;
    readonly maxHops: number;
    readonly txHold: number;
    /** 256ths of a second; of classic bridges. */
    readonly ageIncrement: number;
  };
  readonly ports: readonly (PortSettings & PortKind)[];
  /** Null where the bridge speaks RST BPDUs, or is a classic one. */
  readonly region: RegionSettings | null;
  /** When the first hello is due after the start, microseconds: switches are not in step. */
  readonly offset: Micros;
}
