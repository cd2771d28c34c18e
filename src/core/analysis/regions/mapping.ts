/** Which VLANs a region maps to which instance, as people read it: what no instance has is in the IST (IEEE 802.1Q-2018 8.9). */
import { isMultiple } from '../../model/document';
import type { Design, RegionSettings } from '../../model/document';
import { VlanSet, vlanSet } from '../../model/vlanSet';

/** VLAN 1 and every VLAN that the design lists. */
export const listedVlans = (design: Design): number[] =>
  [...new Set([1, ...design.vlans.map((vlan) => vlan.id)])].sort((a, b) => a - b);

/** The instance of a VLAN; 0 is the IST. */
export const instanceOf = (instances: RegionSettings['instances'], vid: number): number =>
  instances.find(({ vlans }) => vlanSet(vlans).has(vid))?.id ?? 0;

/** The VLANs of an instance, of the IST the listed ones that are left. */
export function vlansIn(design: Design, instances: RegionSettings['instances'], mstid: number): VlanSet {
  if (mstid > 0) return vlanSet(instances.find(({ id }) => id === mstid)?.vlans ?? '');
  return VlanSet.of(
    listedVlans(design)
      .filter((vid) => instanceOf(instances, vid) === 0)
      .map((vid) => [vid, vid]),
  );
}

/** The regions that some switch speaks of: those of powered MSTP switches. */
export const regionsInUse = (design: Design): RegionSettings[] =>
  design.regions.filter((region) => design.switches.some((sw) => sw.up && isMultiple(sw) && sw.region === region.id));

/** Another map of the listed VLANs; those that the design does not list stay in the instance that they are in. */
export function keepingUnlisted(
  design: Design,
  before: RegionSettings['instances'],
  after: RegionSettings['instances'],
): RegionSettings['instances'] {
  const listed = VlanSet.of(listedVlans(design).map((vid) => [vid, vid]));
  const found = new Map(after.map(({ id, vlans }) => [id, vlanSet(vlans)]));
  for (const { id, vlans } of before) {
    const unlisted = vlanSet(vlans).differenceBothWays(vlanSet(vlans).intersect(listed));
    if (!unlisted.isEmpty) found.set(id, (found.get(id) ?? VlanSet.empty).union(unlisted));
  }
  return [...found].map(([id, vlans]) => ({ id, vlans: vlans.format() })).sort((a, b) => a.id - b.id);
}
