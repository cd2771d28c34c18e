/**
 * The VLAN check (trade practice, without a clause): a per-VLAN bridge names the VLAN in its BPDUs. One that arrives in another
 * VLAN, since it left untagged and comes in untagged where another VLAN is the untagged one, has its port held in both.
 */
import { oncePer } from '../base/cache';
import { isPerVlan, type Carriage } from '../model/document';
import type { Network } from './network';

/** A port at which BPDUs arrive in another VLAN than they are of. */
export interface WrongVlan {
  /** The port that sends them. */
  readonly from: number;
  /** The VLAN that they are of. */
  readonly heard: number;
  /** The VLAN that they arrive in. */
  readonly own: number;
}

/** The VLAN whose frames a port sends and takes untagged. */
export const untagged = (vlans: Carriage): number => (vlans.mode === 'access' ? vlans.vlan : vlans.native);

/** By port of a bridge that checks, where untagged frames are of another VLAN at the other end, whose BPDUs name it: trunks alone do. */
export const wrongVlans: (network: Network) => ReadonlyMap<number, WrongVlan> = oncePer((network: Network) => {
  const { switches, ports, owner, far, carried } = network;
  const found = new Map<number, WrongVlan>();
  if (!switches.some((sw) => sw.vlanCheck)) return found;
  ports.forEach((port, p) => {
    const [sw, there] = [switches[owner[p]!]!, far[p]!];
    if (!sw.vlanCheck || !isPerVlan(sw) || there < 0 || !port.bpduRx) return;
    const [other, sender] = [ports[there]!, switches[owner[there]!]!];
    if (!isPerVlan(sender) || other.vlans.mode === 'access' || !other.bpduTx) return;
    const [heard, own] = [untagged(other.vlans), untagged(port.vlans)];
    if (heard !== own && carried[there]!.has(heard)) found.set(p, { from: there, heard, own });
  });
  return found;
});
