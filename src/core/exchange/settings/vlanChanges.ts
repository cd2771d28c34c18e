/** What leads from the VLANs that a port carries to those that it is to carry. */
import type { Carriage } from '../../model/document';
import { VlanSet, vlanSet } from '../../model/vlanSet';

export interface VlanChanges {
  /** With a tag; on a trunk also the one that then goes without. */
  readonly come: VlanSet;
  readonly go: VlanSet;
  /** The VLAN that comes and goes without a tag from now on; null where that stays, or there is none. */
  readonly untagged: number | null;
  /** The VLAN that went without a tag and goes with one from now on; null where there is none. */
  readonly tagged: number | null;
}

/** `was`: null where there was nothing. */
export function vlanChanges(now: Carriage, was: Carriage | null): VlanChanges {
  const [after, before] = [carried(now), was ? carried(was) : VlanSet.empty];
  const [untagged, old] = [untaggedOf(now), was ? untaggedOf(was) : null];
  const moves = untagged !== old;
  return {
    come: now.mode === 'access' ? VlanSet.empty : minus(after, before),
    go: minus(before, after),
    untagged: moves ? untagged : null,
    tagged: moves && old !== null && after.has(old) ? old : null,
  };
}

export const carried = (vlans: Carriage): VlanSet =>
  vlanSet(vlans.mode === 'access' ? String(vlans.vlan) : vlans.allowed);

/** The VLAN whose frames have no tag; null where it is not carried. */
export const untaggedOf = (vlans: Carriage): number | null =>
  vlans.mode === 'access' ? vlans.vlan : carried(vlans).has(vlans.native) ? vlans.native : null;

const minus = (all: VlanSet, without: VlanSet): VlanSet => all.differenceBothWays(all.intersect(without));
