/**
 * The root check (trade practice, without a clause): a bridge of a region looks at what per-VLAN bridges say where it has a port
 * to one. While the CIST has its root on this side, no VLAN may have a better one on theirs; while it has it on theirs, none a worse one.
 */
import { oncePer } from '../base/cache';
import { isMultiple, isPerVlan } from '../model/document';
import type { BridgeId } from './bridgeId';
import type { Network } from './network';

/** Ports at which bridges of regions check the roots of VLANs; each leads straight to a per-VLAN bridge. */
export const rootCheckedPorts: (network: Network) => ReadonlySet<number> = oncePer((network: Network) => {
  const { switches, ports, owner, far } = network;
  const checks = (p: number): boolean => {
    const [sw, there] = [switches[owner[p]!]!, far[p]!];
    return sw.rootCheck && isMultiple(sw) && there >= 0 && isPerVlan(switches[owner[there]!]!);
  };
  return new Set(switches.some((sw) => sw.rootCheck) ? [...ports.keys()].filter(checks) : []);
});

/** Whether a VLAN's root fits the CIST's at a port of this role; VLANs go by priorities without their numbers (802.1Q-2018 13.26.2). */
export function rootsAgree(role: string, cist: BridgeId, vlan: BridgeId): boolean {
  const order =
    (cist.priority & PRIORITY) - (vlan.priority & PRIORITY) || (cist.mac < vlan.mac ? -1 : cist.mac > vlan.mac ? 1 : 0);
  return role === 'designated' ? order <= 0 : role === 'root' ? order >= 0 : true;
}
/** The bits of a bridge identifier's first sixteen that are its priority. */
const PRIORITY = 0xf000;
