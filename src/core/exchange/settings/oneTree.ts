/** What systems with one tree for all VLANs have in common: which of a switch's settings such a form cannot say. */
import type { LeftOut } from './form';
import type { BridgePortSet, BundleSet, PortSet, SwitchSet } from './settings';

/** What a port may have, as sentences call it. */
const HAS = {
  bpduGuard: 'BPDU guard',
  loopProbe: 'loop probe',
  rootGuard: 'root guard',
  loopGuard: 'loop guard',
  restrictedTcn: 'restricted topology change',
} as const;
export type PortFeature = keyof typeof HAS;

/** Ports that spanning tree sees: bundles in place of their members. */
export const outsideOf = (sw: SwitchSet): (PortSet | BundleSet)[] => [
  ...sw.ports.filter(({ bundle }) => bundle === null),
  ...sw.bundles,
];

/** Notes what of a port goes unsaid; `who`: "Open vSwitch"; `lacks`: what it does not have. */
export function noteUnsaid(port: BridgePortSet, who: string, lacks: readonly PortFeature[], left: LeftOut): void {
  const name = port.interface;
  const [common, ...others] = port.trees;
  if (others.some((tree) => tree.cost !== common?.cost || tree.priority !== common.priority))
    left.note('There is one tree: costs and priorities are those of the first', name);
  for (const feature of lacks) if (port[feature]) left.note(`${who} has no ${HAS[feature]}`, name);
  if (port.speaks !== null || !port.bpduRx || !port.bpduTx) left.note(`${who} has no port that speaks otherwise`, name);
}

/** Whether a bundle negotiates by LACP. Notes where it does so otherwise, or keeps members in reserve; `who`: "a bond". */
export function noteBundle(bundle: BundleSet, who: string, left: LeftOut): boolean {
  if (bundle.mode === 'initiate' || bundle.mode === 'answer')
    left.note(`${who} has no negotiation older than LACP: it is static`, bundle.interface);
  if (bundle.maxActive < bundle.members.length) left.note(`${who} has no maximum of active links`, bundle.interface);
  return bundle.mode === 'active' || bundle.mode === 'passive';
}
