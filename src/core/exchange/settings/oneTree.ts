/** What systems with one tree for all VLANs have in common: what of a switch's settings such a form can say, and what not. */
import type { LeftOut } from './form';
import type { BridgePortSet, BundleSet, PortInTreeSet, PortSet, SwitchSet } from './settings';

/** What a port may have, as sentences call it. */
const HAS = {
  bpduGuard: 'BPDU guard',
  loopProbe: 'loop probe',
  rootGuard: 'root guard',
  loopGuard: 'loop guard',
  restrictedTcn: 'restricted topology change',
} as const;
export type PortFeature = keyof typeof HAS;

/** Ports that spanning tree sees, in the order of their numbers: bundles in place of their members. */
export const outsideOf = (sw: SwitchSet): (PortSet | BundleSet)[] =>
  [...sw.ports.filter(({ bundle }) => bundle === null), ...sw.bundles].sort((a, b) => a.number - b.number);

export const isBundle = (port: PortSet | BundleSet): port is BundleSet => 'members' in port;

/** The cost that counts: these systems' own costs by speed are others than ours. */
export const costIn = ({ cost, bySpeed }: PortInTreeSet): number => cost ?? bySpeed;

/** A switch's bridge as an interface: letters, digits and hyphens, short enough for one. */
export const bridgeName = ({ id }: { readonly id: string }): string =>
  id
    .replaceAll(/[^A-Za-z0-9_.-]/g, '-')
    .replace(/^[.-]+/, '')
    .slice(0, LONGEST) || 'bridge';
/** The longest name that an interface may have. */
const LONGEST = 15;

/** Notes what of a port goes unsaid; `who`: "Open vSwitch"; `lacks`: what it does not have. */
export function noteUnsaid(port: PortSet | BundleSet, who: string, lacks: readonly PortFeature[], left: LeftOut): void {
  const name = port.interface;
  const [common, ...others] = port.trees;
  if (others.some((tree) => tree.cost !== common?.cost || tree.priority !== common.priority))
    left.note('There is one tree: costs and priorities are those of the first', name);
  if (isBundle(port) && common?.cost === null)
    left.note('The cost of a bundle is set for all its members, and does not follow those that are up', name);
  for (const feature of lacks) if (port[feature]) left.note(`${who} has no ${HAS[feature]}`, name);
  if (speaksOtherwise(port)) left.note(`${who} has no port that speaks otherwise`, name);
}

const speaksOtherwise = ({ speaks, bpduRx, bpduTx }: BridgePortSet): boolean => speaks !== null || !bpduRx || !bpduTx;

/** Whether a bundle negotiates by LACP. */
export const negotiates = ({ mode }: Pick<BundleSet, 'mode'>): boolean => mode === 'active' || mode === 'passive';

/** Notes where a bundle negotiates otherwise, or keeps members in reserve; `who`: "A bond". */
export function noteBundle(bundle: BundleSet, who: string, left: LeftOut): void {
  if (bundle.mode === 'initiate' || bundle.mode === 'answer')
    left.note(`${who} has no negotiation older than LACP: it is static`, bundle.interface);
  if (bundle.maxActive < bundle.members.length) left.note(`${who} has no maximum of active links`, bundle.interface);
}
