/** What a run of a scenario is, and what may be asked of it. */
import type { Design } from '../model/document';
import type { BridgePortId, SwitchId, TreeId } from '../model/ids';
import type { RunRole, RunState } from '../modes/entity';
import type { TreeView } from '../tree/settled';
import type { FlushLog } from './trace/flushLog';
import type { MemberLog } from './trace/memberLog';
import type { Recording } from './trace/recording';
import type { SentLacpdu, SentLog } from './trace/sentLog';
import type { Timeline } from './trace/timeline';
import type { Outage, Storm } from './traffic/dataPlane';
import type { Reach } from './traffic/reach';

/** A port of a tree took another state or role. Seconds since the start. */
export interface TraceEntry {
  readonly t: number;
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly tree: TreeId;
  readonly from: RunState;
  readonly to: RunState;
  readonly role: RunRole;
}

/**
 * How a run ends: at rest; stopped; still on the way to rest, which it reaches at `at` seconds; or restless, with the ports that
 * go on changing however long it lasts.
 */
export type Ending =
  | { readonly kind: 'rests' }
  | { readonly kind: 'stopped' }
  | { readonly kind: 'moves'; readonly at: number }
  | { readonly kind: 'restless'; readonly ports: readonly PortInTree[] };

export interface PortInTree {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly tree: TreeId;
}

export interface Run {
  /** The design that ran: with everything that the scenario brought along. */
  readonly design: Design;
  readonly trees: readonly TreeId[];
  /** Every change, and every instant; times in microseconds from the start. */
  readonly recording: Recording;
  /** The changes by identifiers, made when they are asked for. */
  readonly trace: readonly TraceEntry[];
  readonly outages: readonly Outage[];
  /** Which pairs of hosts reach each other at any instant. */
  readonly reach: Reach;
  /** Loops that no spanning tree closed. */
  readonly storms: readonly Storm[];
  /** When the last port changed, seconds; null where something still moves at the end. */
  readonly settledAt: number | null;
  readonly ending: Ending;
  /** Ports that went on changing until the scenario began, since it never came to rest before; null where it did, or began with booting. */
  readonly restlessBefore: readonly PortInTree[] | null;
  /** Ports that still listen or learn at the end. */
  readonly moving: readonly TraceEntry[];
  /** How each tree stands at the end; empty where the options want no views. */
  readonly final: { readonly trees: readonly TreeView[] };
  /** Messages and timers that it took. */
  readonly events: number;
  /** True where it was stopped before its end. */
  readonly stopped: boolean;
  /** How far it has come, seconds. */
  readonly reached: number;
  /** Every BPDU sent from the start on; where helpers ran some of it `complete` is to be waited for before frames are read. */
  readonly sent: SentLog;
  /** Which ports have signal, and whose frames arrive: `LIVE` and `CARRIES` of each port. */
  readonly signal: Timeline;
  /** How the members of bundles stand. */
  readonly members: MemberLog;
  /** LACPDUs sent from the start on. */
  readonly negotiation: readonly SentLacpdu[];
  /** Where addresses were forgotten since a topology change was told, or a port closed. */
  readonly flushes: FlushLog;
  /** Pairs of hosts that were not followed: there are too many. */
  readonly unfollowed: number;
}

export type Clocks = 'all on one' | 'one of each kind' | 'each its own';

export interface RunOptions {
  /** Runs these trees alone, as they would fare in a run of all: for networks whose trees do not hear each other. */
  readonly only?: ReadonlySet<TreeId>;
  /** Moves the hellos of the switches against each other. */
  readonly seed?: number;
  /** All switches powered on at once at 0, instead of settled. */
  readonly fromBoot?: boolean;
  /** How a network comes to the rest that a scenario begins with: large ones are put there, others boot; so do those of which it cannot be said beforehand. */
  readonly begins?: 'booted' | 'at-rest';
  /** Told how far the run is, 0 to 1; false stops it. */
  readonly progress?: (share: number) => boolean;
  /** Most BPDUs that are kept. */
  readonly mostFrames?: number;
  /** Whether `final` is wanted. */
  readonly views?: boolean;
  /**
   * Which trees share a clock: all, also those that fare alike (the plain way, to compare with); one of each kind; or none, each
   * has its own. Where nothing is said, large networks have one for each,
   * unless many of their ports negotiate bundles.
   */
  readonly clocks?: Clocks;
  /** Runs every hello, also those that say nothing new: the slow way, to compare with. */
  readonly everyHello?: boolean;
  /** Most events: a run that takes more is stopped. */
  readonly mostEvents?: number;
}
