/** The VLAN check of a running network: who hears a BPDU in another VLAN than it is of holds its port in both, until none has come for three hellos. */
import type { TreeId } from '../../model/ids';
import type { Bpdu } from '../../modes/bpdu';
import { SECOND, type Micros } from '../../modes/entity';
import { vlanOf } from '../../tree/held';
import { wrongVlans } from '../../topology/vlanCheck';
import type { Network } from '../../topology/network';

export interface CheckedNetwork {
  readonly network: Network;
  readonly trees: readonly TreeId[];
  readonly now: Micros;
  /** Puts something on the clock. */
  at(t: Micros, act: () => void): void;
}

/** How many hello times a check remembers. */
const HELLOS = 3;

export class VlanChecks {
  /** Until when each port is held. */
  private readonly until = new Map<number, Micros>();
  private readonly around: CheckedNetwork;

  private readonly hold: (tree: number, port: number, on: boolean) => void;

  /** `hold`: a port of a tree may not forward any more, or may again. */
  constructor(around: CheckedNetwork, hold: (tree: number, port: number, on: boolean) => void) {
    this.around = around;
    this.hold = hold;
  }

  /** A BPDU comes in at a port: whether the check keeps it from the tree. */
  catches(tree: number, port: number, bpdu: Bpdu): boolean {
    const { network, trees, now } = this.around;
    const wrong = wrongVlans(network).get(port);
    if (!wrong) return false;
    const vid = vlanOf(trees[tree]!);
    // A notification names no VLAN.
    if (vid !== wrong.heard || !('times' in bpdu))
      return [wrong.own, wrong.heard].includes(vid) && this.until.has(port);
    const lasts = now + HELLOS * bpdu.times.hello * SECOND;
    const isNew = !this.until.has(port);
    this.until.set(port, lasts);
    if (isNew) {
      this.setHeld(port, true);
      this.lookAt(lasts, port);
    }
    return true;
  }

  /** Ports whose switch begins anew are held by nothing. */
  forget(s: number): void {
    for (const port of this.until.keys()) if (this.around.network.owner[port] === s) this.until.delete(port);
  }

  private lookAt(t: Micros, port: number): void {
    this.around.at(t, () => {
      const until = this.until.get(port);
      if (until === undefined) return;
      if (until > t) return this.lookAt(until, port);
      this.until.delete(port);
      this.setHeld(port, false);
    });
  }

  private setHeld(port: number, on: boolean): void {
    const { network, trees } = this.around;
    const wrong = wrongVlans(network).get(port);
    for (const [tree, id] of trees.entries())
      if (!wrong || [wrong.heard, wrong.own].includes(vlanOf(id))) this.hold(tree, port, on);
  }
}
