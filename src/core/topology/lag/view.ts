/** Settled bundles by identifiers, as the command line prints them. */
import type { MemberState } from '../../modes/lacp/state';
import type { HostId, SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';
import { bundlesOf } from './ends';
import { settleBundles, type PortInfo } from './settled';

export interface MemberReport {
  readonly state: MemberState;
  readonly reason: string;
  readonly actor: PortInfo;
  readonly partner: PortInfo | null;
}

/** One end of a bundle; of a host's its id stands as `host`, and its members are its cards, numbered from 1. */
export interface BundleReport {
  readonly switch?: SwitchId;
  readonly host?: HostId;
  readonly id: string;
  readonly up: boolean;
  readonly reason: string;
  readonly members: Readonly<Record<string, MemberReport>>;
}

/** What the bundles of a design settle to. */
export function viewBundles(design: Design): BundleReport[] {
  const bundles = bundlesOf(design);
  const settled = settleBundles(bundles);
  return bundles.ends.map(({ index, id, owner, members }) => ({
    ...(owner.kind === 'switch' ? { switch: owner.switch } : { host: owner.host }),
    id,
    up: settled.ends[index]!.up,
    reason: settled.ends[index]!.reason,
    members: Object.fromEntries(
      members.map((m) => {
        const { state, reason, actor, partner } = settled.members[m]!;
        return [bundles.members[m]!.id, { state, reason, actor, partner }];
      }),
    ),
  }));
}
