/** The spanning tree entities of a network: by tree and switch, begun and ended with the power of their switch. */
import type { TreeId } from '../../model/ids';
import type { Bpdu } from '../../modes/bpdu';
import { SECOND, type Micros, type ProtocolEntity } from '../../modes/entity';
import type { Network } from '../../topology/network';
import { bridgeKeys, type BridgeKeys } from './bridgeKeys';
import { entityOf, entitySettings, settingsIn, type TreeSettings } from './entitySettings';
import { portsPlaced, treesByEntity, type Spoken } from './places';
import type { Running } from './running';

/** What the entities run in. */
export interface Hosting {
  readonly network: Network;
  readonly spoken: Spoken;
  readonly now: Micros;
  /** Hands a BPDU to the medium. */
  readonly transmit: (tree: number, port: number, bpdu: Bpdu, s: number) => void;
  /** Addresses of a tree's VLANs learnt on a port are forgotten. */
  readonly flush: (tree: number, port: number) => void;
  /** How long a switch keeps addresses is another time from now on. */
  readonly ageing: (s: number) => void;
}

export class Entities {
  readonly keys: BridgeKeys;
  /** By tree, then by switch; one with several trees stands in each of them. */
  readonly running: (Running | null)[][];
  /** By tree and switch: how long addresses are kept while a topology change is told (802.1D-1998 8.5.3.8); null as usual. */
  private readonly fast: (Micros | null)[][];
  private readonly host: Hosting;
  private readonly trees: readonly TreeId[];
  private readonly offsets: Float64Array;
  private readonly outside: ReadonlySet<number>;

  /**
   * `offsets`: by switch, when its first hello goes out after a start, as a share of the hello time; `outside`: switches whose
   * entities are not here.
   */
  constructor(
    host: Hosting,
    trees: readonly TreeId[],
    offsets: Float64Array,
    outside: ReadonlySet<number> = new Set(),
  ) {
    const { switches } = host.network;
    this.host = host;
    this.trees = trees;
    this.offsets = offsets;
    this.outside = outside;
    this.keys = bridgeKeys(host.network);
    this.running = trees.map(() => switches.map(() => null));
    this.fast = trees.map(() => switches.map(() => null));
  }

  /** Begins the entities of a switch. */
  start(s: number): void {
    if (this.outside.has(s)) return;
    const { network, spoken } = this.host;
    for (const trees of treesByEntity(network.switches[s]!, spoken.regions[s]!, this.trees)) {
      const [tree] = trees as [number];
      const ports = portsPlaced(network, this.trees[tree]!, s, spoken.places[tree]!);
      const running = this.entityFor(trees, s, ports);
      for (const tree of trees) this.running[tree]![s] = running;
    }
  }

  /** Ends the entities of a switch; `gone` is told of each port that one had, by tree. */
  stop(s: number, gone: (tree: number, port: number) => void): void {
    for (const [tree, all] of this.running.entries()) {
      const running = all[s];
      if (!running) continue;
      all[s] = null;
      this.fast[tree]![s] = null;
      for (const p of running.ports) gone(tree, p);
    }
  }

  settingsOf(network: Network, tree: number, s: number, ports: readonly number[]): TreeSettings {
    return settingsIn(network, this.keys, this.trees[tree]!, s, ports);
  }

  /** The entity of a switch that runs a tree, and the tree's place among its own; null where none does. */
  at(tree: number, s: number): { readonly entity: ProtocolEntity; readonly own: number } | null {
    const running = this.running[tree]![s];
    return running ? { entity: running.entity, own: running.trees.indexOf(tree) } : null;
  }

  /** The path costs of a switch's ports in a tree, in the order of the ports: those of the region where it speaks to its region. */
  costs(tree: number, s: number): number[] {
    const running = this.running[tree]![s];
    if (!running) return [];
    return this.settingsOf(this.host.network, tree, s, running.ports).ports.map(({ cost }, local) =>
      tree !== running.trees[0] || running.entity.inside(local) ? cost.internal : cost.external,
    );
  }

  /** How long a switch keeps the addresses of a VLAN: one of the trees that decide for it there may hurry; null for as long as usual. */
  ageing(s: number, vid: number): Micros | null {
    const all = this.host.spoken.treesFor(s, vid).map((tree) => this.fast[tree]![s] ?? null);
    return all.find((ageing) => ageing !== null) ?? null;
  }

  get resting(): boolean {
    return this.running.every((all) => all.every((running) => running === null || running.entity.resting));
  }

  private entityFor(trees: readonly number[], s: number, ports: readonly number[]): Running {
    const { host, keys } = this;
    const { network, spoken } = host;
    const [tree] = trees as [number];
    const ids = trees.map((each) => this.trees[each]!);
    const [region, offset] = [spoken.regions[s]!, this.offsets[s]!];
    const settings = entitySettings({ network, keys, region, ids, s, ports, offset });
    const dirty = new Set<number>();
    const entity = entityOf(network.switches[s]!, settings, {
      now: () => host.now,
      transmit: (port, bpdu) => host.transmit(tree, ports[port]!, bpdu, s),
      changed: (port, own) => dirty.add(own * ports.length + port),
      flush: (port, own) => host.flush(trees[own]!, ports[port]!),
      fastAgeing: (seconds) => {
        host.ageing(s);
        this.fast[tree]![s] = seconds === null ? null : seconds * SECOND;
      },
    });
    const unheard = ports.map(() => null);
    const [wakes, unsent, hearing, answered, ranBefore] = [Infinity, null, 0, -1, -1];
    return { entity, trees, switch: s, ports, wakes, dirty, unsent, unheard, hearing, answered, ranBefore };
  }
}
