/** The root check of a running network: a port out of a region at which a VLAN's root does not fit the CIST's is held, until no such BPDU has come for three hellos. */
import { CIST, treeVlan, type TreeId } from '../../model/ids';
import type { Bpdu } from '../../modes/bpdu';
import type { Micros, ProtocolEntity, RunRole } from '../../modes/entity';
import type { Network } from '../../topology/network';
import { rootCheckedPorts, rootsAgree } from '../../topology/rootCheck';
import type { BridgeKeys } from './bridgeKeys';
import { Holds } from './holds';

export interface RootedNetwork {
  readonly network: Network;
  readonly trees: readonly TreeId[];
  readonly now: Micros;
  readonly keys: BridgeKeys;
  /** The entity of a switch that runs a tree, and the tree's place among its own; null where none does. */
  entity(tree: number, s: number): { readonly entity: ProtocolEntity; readonly own: number } | null;
  role(tree: number, port: number): RunRole;
  /** Puts something on the clock. */
  at(t: Micros, act: () => void): void;
}

export class RootChecks {
  private readonly around: RootedNetwork;
  readonly holds: Holds;

  /** `showAnew`: what a port shows is another state than before, though its machines have not moved. */
  constructor(around: RootedNetwork, showAnew: (port: number) => void) {
    this.around = around;
    this.holds = new Holds(around, showAnew);
  }

  /** A BPDU comes in at a port that may check it. */
  hears(tree: number, port: number, bpdu: Bpdu): void {
    const { network, trees, keys } = this.around;
    if (!rootCheckedPorts(network).has(port) || !('vector' in bpdu)) return;
    if ('role' in bpdu && bpdu.role !== 'designated') return; // an answer offers nothing
    const vid = treeVlan(trees[tree]!) ?? 1;
    const cist = trees.indexOf(CIST);
    const runs = cist < 0 ? null : this.around.entity(cist, network.owner[port]!);
    if (vid === 1 || !runs) return;
    const root = runs.entity.rootVector(runs.own).root;
    if (rootsAgree(this.around.role(cist, port), keys.idOf(root), keys.idOf(bpdu.vector.root))) return;
    this.holds.renew(port, bpdu.times.hello);
  }
}
