/** The VLAN check of a running network: who hears a BPDU in another VLAN than it is of holds its port in both, until none has come for three hellos. */
import type { TreeId } from '../../model/ids';
import type { Bpdu } from '../../modes/bpdu';
import type { Micros } from '../../modes/entity';
import { vlanOf } from '../../tree/held';
import { Holds } from './holds';
import { wrongVlans } from '../../topology/vlanCheck';
import type { Network } from '../../topology/network';

export interface CheckedNetwork {
  readonly network: Network;
  readonly trees: readonly TreeId[];
  readonly now: Micros;
  /** Puts something on the clock. */
  at(t: Micros, act: () => void): void;
}

export class VlanChecks {
  private readonly around: CheckedNetwork;
  readonly holds: Holds;

  private readonly hold: (tree: number, port: number, on: boolean) => void;

  /** `hold`: a port of a tree may not forward any more, or may again. */
  constructor(around: CheckedNetwork, hold: (tree: number, port: number, on: boolean) => void) {
    this.around = around;
    this.hold = hold;
    this.holds = new Holds(around, (port, on) => this.setHeld(port, on));
  }

  /** A BPDU comes in at a port: whether the check keeps it from the tree. */
  catches(tree: number, port: number, bpdu: Bpdu): boolean {
    const { network, trees } = this.around;
    const wrong = wrongVlans(network).get(port);
    if (!wrong) return false;
    const vid = vlanOf(trees[tree]!);
    // A notification names no VLAN.
    if (vid !== wrong.heard || !('times' in bpdu))
      return [wrong.own, wrong.heard].includes(vid) && this.holds.has(port);
    this.holds.renew(port, bpdu.times.hello);
    return true;
  }

  private setHeld(port: number, on: boolean): void {
    const { network, trees } = this.around;
    const wrong = wrongVlans(network).get(port);
    for (const [tree, id] of trees.entries())
      if (!wrong || [wrong.heard, wrong.own].includes(vlanOf(id))) this.hold(tree, port, on);
  }
}
