/** The own BPDU check of a running network: a port at which a BPDU of the bridge's own arrives is held, until none has come for three hellos. */
import type { Bpdu } from '../../modes/bpdu';
import { ownCheckedPorts } from '../../topology/ownCheck';
import { Holds } from './holds';
import type { CheckedNetwork } from './vlanChecks';

export class OwnChecks {
  private readonly around: CheckedNetwork;
  readonly holds: Holds;

  /** `showAnew`: what a port shows is another state than before, though its machines have not moved. */
  constructor(around: CheckedNetwork, showAnew: (port: number) => void) {
    this.around = around;
    this.holds = new Holds(around, showAnew);
  }

  /** A BPDU that switch `from` has sent comes in at a port that is in its tree. */
  hears(port: number, bpdu: Bpdu, from: number): void {
    const { network } = this.around;
    if (from !== network.owner[port] || !ownCheckedPorts(network)?.[port]) return;
    if (!network.ports[port]!.bpduRx || !('times' in bpdu)) return;
    if ('role' in bpdu && bpdu.role !== 'designated') return; // an answer to another bridge
    this.holds.renew(port, bpdu.times.hello);
  }
}
