/** Where a network is other than designed, and what would make the design like the network. */
import type { Command } from '../../../edit/commands';
import type { BridgePortId, LinkId, SwitchId, TreeId } from '../../../model/ids';
import { treeName } from '../../../model/ids';
import type { Names } from '../../../model/names';

/** From the worst on: nobody is heard, the wrong root, another mode or region, cables, where frames go, members, VLANs, settings that change nothing yet. */
export const HARMS = ['silent', 'root', 'mode', 'cable', 'path', 'bundle', 'vlan', 'setting'] as const;
export type Harm = (typeof HARMS)[number];

export interface Difference {
  readonly harm: Harm;
  readonly what: string;
  /** Null where it is about the network as a whole, or about somebody whom the design does not have. */
  readonly switch: SwitchId | null;
  readonly port: BridgePortId | null;
  readonly link: LinkId | null;
  readonly trees: readonly TreeId[];
  readonly designed: string;
  readonly observed: string;
  /** A likely reason, in a sentence; empty where none is known. */
  readonly why: string;
  /** What makes the design like the network in this; null where it follows from something else, or nobody can tell. */
  readonly takeOver: (() => readonly Command[]) | null;
}

/** `lodge port 3: role in VLAN 15: alternate; the design says root`. */
export function differenceText(
  names: Names,
  { switch: sw, port, trees, what, designed, observed, why }: Difference,
): string {
  const where = sw === null ? '' : `${port === null ? names.switch(sw) : names.end({ switch: sw, port })}: `;
  const of = trees.length > 0 ? ` in ${trees.map(treeName).join(', ')}` : '';
  return `${where}${what}${of}: ${observed}; the design says ${designed}${why === '' ? '' : ` (${why})`}`;
}
