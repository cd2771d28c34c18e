/**
 * The own BPDU check (trade practice, without a clause): a per-VLAN bridge that hears its own BPDU at a port holds that port in all
 * VLANs. By the standard it would be a backup port in the VLAN concerned, and might forward others into the same loop.
 */
import { oncePer } from '../base/cache';
import { isPerVlan } from '../model/document';
import type { Network } from './network';

/** By port, 1 where a BPDU of the bridge's own holds it; null where no bridge checks. */
export const ownCheckedPorts: (network: Network) => Uint8Array | null = oncePer((network: Network) => {
  const { switches, ports, owner } = network;
  const checks = switches.map((sw) => sw.ownCheck && isPerVlan(sw));
  return checks.includes(true) ? Uint8Array.from(ports, (_, p) => (checks[owner[p]!] ? 1 : 0)) : null;
});
