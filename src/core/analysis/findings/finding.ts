/** A finding: something that a practitioner would want to know about a design, short of an error in the document. */
import type { Command } from '../../edit/commands';
import type { LinkId, BridgePortId, SwitchId, TreeId } from '../../model/ids';

/** A change that would end a finding. */
export interface Remedy {
  /** What it does, as the words on a button. */
  readonly label: string;
  readonly commands: readonly Command[];
}

/** What rules are called, on the command line and in intents. */
export const RULES = [
  'access-no-edge',
  'access-vlans-joined',
  'beyond-max-age',
  'beyond-max-hops',
  'bpdus-discarded',
  'bundle-member-settings',
  'bundle-min-links',
  'bundle-neighbour',
  'bundle-never-up',
  'bundle-one-sided',
  'bundle-over-limit',
  'bundle-single',
  'bundle-speeds',
  'bundle-split',
  'bundle-uneven',
  'bundle-vlans',
  'converter-without-loop-guard',
  'duplicate-mac',
  'duplicate-port-number',
  'edge-between-switches',
  'edge-unguarded',
  'fast-check',
  'frames-circle',
  'guard-holds-way',
  'guard-shuts-way',
  'guard-without-tree',
  'host-vlan-not-carried',
  'instance-off-trunk',
  'instance-without-root',
  'later-vlan-by-mac',
  'loop-without-spanning-tree',
  'mixed-cost-methods',
  'native-differs',
  'neighbour-differs',
  'no-spanning-tree-in-loop',
  'one-root-for-all',
  'own-bpdu-returns',
  'pair-apart',
  'pair-bundle-half',
  'pair-bundle-unlike',
  'pair-half',
  'pair-keepalive',
  'pair-keepalive-lost',
  'pair-orphans',
  'pair-peer-vlans',
  'pair-priorities',
  'pair-twice',
  'pair-unlike',
  'parallel-links',
  'passes-on',
  'recovery-in-vain',
  'recovery-off-unmanned',
  'region-map-differs',
  'region-name-slip',
  'region-revision-alone',
  'region-split',
  'region-without-settings',
  'root-by-mac',
  'root-on-access',
  'roots-held',
  'speed-differs',
  'stack-address',
  'stack-apart',
  'stack-chain',
  'stack-one-way-out',
  'standby-by-mac',
  'standby-far',
  'standby-on-access',
  'timers',
  'vlan-at-one-end',
  'vlan-not-listed',
  'vlan-without-path',
  'vlans-held',
] as const;
export type Rule = (typeof RULES)[number];

export interface Finding {
  /** Which rule found it. */
  readonly rule: Rule;
  /** What is the matter, in one sentence. */
  readonly text: string;
  /** Why it matters. */
  readonly why: string;
  /** Where on the map it is. */
  readonly at: {
    readonly switch?: SwitchId;
    readonly port?: BridgePortId;
    readonly link?: LinkId;
    readonly trees?: readonly TreeId[];
  };
  /** The best first; none where it takes judgement. */
  readonly remedies: readonly Remedy[];
}
