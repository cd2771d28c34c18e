/** What a spanning tree protocol entity is to the network around it: one for each tree of a switch, whatever its dialect. */
import type { Bpdu } from './bpdu';

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
  /** A port took another state or role. */
  readonly changed: (port: number) => void;
  /** Forgets the addresses learnt on a port. */
  readonly flush: (port: number) => void;
  /** Addresses age fast, or again as usual (802.1D-1998 8.5.3, topology change). */
  readonly fastAgeing: (on: boolean) => void;
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
  setPathCost(port: number, cost: number): void;
  setPortId(port: number, id: number): void;
  /** Another bridge identifier (802.1Q-2018 13.26.2). */
  setBridge(key: number): void;
  role(port: number): RunRole;
  state(port: number): RunState;
  /** Whether nothing is under way: no port on its way to forward, no topology change being told. */
  readonly resting: boolean;
  /** The root that the bridge believes in, and what it costs to get there. */
  readonly root: number;
  readonly rootPathCost: number;
  readonly rootPort: number;
}

/** What an entity starts with. */
export interface EntitySettings {
  readonly bridge: number;
  readonly times: { readonly hello: number; readonly maxAge: number; readonly forwardDelay: number; readonly maxHops: number; readonly txHold: number };
  readonly ports: readonly { readonly id: number; readonly cost: number; readonly edge: boolean; readonly pointToPoint: boolean }[];
  /** When the first hello is due after the start, microseconds: switches are not in step. */
  readonly offset: Micros;
}
