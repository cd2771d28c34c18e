/**
 * State and role of every port in every tree, now: as bridges have them, and as their switches show them. They differ at pairs
 * that act as one, whose halves of a bundle are what the bundle is, and whose peer link forwards.
 */
import type { Micros, RunRole, RunState } from '../../modes/entity';
import { isOne } from '../../topology/acting';
import type { PairedBridges } from '../../topology/shape';
import type { Network } from '../../topology/network';
import { peerRole, rootPortsOf } from '../../tree/spread';
import type { Cause, PortChange } from '../trace/recording';
import { PortStates } from './portStates';

/** The bridges of a run. */
export interface Bridged {
  /** As its switches are. */
  readonly physical: Network;
  readonly now: Micros;
  readonly cause: Cause;
  /** The root port of a bridge; -1 at a root, null where it has no part in the tree. */
  rootPort(tree: number, s: number): number | null;
}

type Shown = readonly [RunState, RunRole, held: boolean];
const DISABLED: Shown = ['disabled', 'disabled', false];

export class ShownPorts {
  /** As the bridges have them. */
  readonly acting: PortStates;
  /** What ports of pairs show; of all others that is what bridges have. */
  private readonly paired: PortStates;
  private readonly ofPairs: ReadonlySet<number>;
  private readonly of: Bridged;
  private readonly tell: (change: PortChange) => void;

  /** `tell` hears of each change that a switch shows. */
  constructor(of: Bridged, { pairs, ports }: Network, trees: number, tell: (change: PortChange) => void) {
    this.of = of;
    this.tell = tell;
    this.acting = new PortStates(trees, ports.length);
    this.ofPairs = new Set(pairs.flatMap(portsOf));
    this.paired = this.ofPairs.size === 0 ? this.acting : new PortStates(trees, ports.length);
  }

  at(tree: number, port: number): Shown {
    const of = this.ofPairs.has(port) ? this.paired : this.acting;
    return [of.state(tree, port), of.role(tree, port), of.isHeld(tree, port)];
  }

  /** A bridge has a port otherwise than before; false where it has not. What a pair shows then is to be asked for: `tellPairs`. */
  set(tree: number, port: number, to: RunState, role: RunRole, held: boolean): boolean {
    const from = this.acting.set(tree, port, to, role, held);
    if (from !== null && !this.ofPairs.has(port)) this.change(tree, port, from, to, role, held);
    return from !== null;
  }

  /** Tells what the ports of pairs show otherwise than before in some trees: of all, or of the one that bridge `s` is of. */
  tellPairs(trees: Iterable<number>, s: number | null = null): void {
    if (this.ofPairs.size === 0) return;
    const pairs = this.of.physical.pairs.filter(({ first }) => s === null || first === s || first + 1 === s);
    for (const tree of trees)
      for (const pair of pairs)
        for (const port of portsOf(pair)) {
          const [to, role, held] = this.now(tree, pair, port);
          const from = this.paired.set(tree, port, to, role, held);
          if (from !== null) this.change(tree, port, from, to, role, held);
        }
  }

  private change(tree: number, port: number, from: RunState, to: RunState, role: RunRole, held: boolean): void {
    const { now: t, cause } = this.of;
    this.tell({ t, tree, port, from, to, role, held, cause });
  }

  private now(tree: number, pair: PairedBridges, port: number): Shown {
    const { acting, of } = this;
    const { live, far } = of.physical;
    const as = (p: number): Shown => [acting.state(tree, p), acting.role(tree, p), acting.isHeld(tree, p)];
    if (!isOne(pair)) return as(port);
    if (!live[port]) return DISABLED;
    if (!pair.peer.includes(port)) return as(pair.bundles.find((halves) => halves.includes(port))![0]);
    const rootPort = of.rootPort(tree, pair.first);
    if (rootPort === null || far[port]! < 0) return DISABLED;
    return ['forwarding', peerRole(port, rootPortsOf(of.physical, pair, rootPort)), false];
  }
}

const portsOf = ({ bundles, peer }: PairedBridges): number[] => [...bundles.flat(), ...peer];
