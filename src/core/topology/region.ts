/** MST regions of a design (IEEE 802.1Q-2018 13.8): which VLANs a switch maps to which instance, and what names its region. */
import type { Bridge } from './bridges';
import { isMultiple } from '../model/document';
import { oncePer } from '../base/cache';
import type { Design, RegionSettings } from '../model/document';
import { vlanSet, type VlanSet } from '../model/vlanSet';
import { configurationDigest, sameConfiguration, type MstConfigurationId } from '../wire/mstConfiguration';

/** A region as a switch knows it. */
export interface RegionMap {
  readonly configurationId: MstConfigurationId;
  /** In rising order. */
  readonly instances: readonly { readonly mstid: number; readonly vlans: VlanSet }[];
  /** The instance of a VLAN; 0 is the IST. */
  readonly instanceOf: (vid: number) => number;
}

/** Whether two switches are in one region: name, revision and digest agree (13.8); null is a switch without MSTP. */
export const sameRegion = (a: RegionMap | null, b: RegionMap | null): boolean =>
  a !== null && b !== null && sameConfiguration(a.configurationId, b.configurationId);

export const hasInstance = (region: RegionMap | null, mstid: number): boolean =>
  mstid === 0 || (region?.instances.some((instance) => instance.mstid === mstid) ?? false);

/** The regions of a design's MSTP switches; one that is not given any is a region of its own, named by its address (12.12.3.3). */
export function regionsOf(design: Design): (sw: Bridge) => RegionMap | null {
  return (sw) => {
    if (!isMultiple(sw)) return null;
    const given = design.regions.find((region) => region.id === sw.region);
    return given ? mapOfSettings(given) : mapOfOwn(sw);
  };
}

const mapOfSettings = oncePer(({ name, revision, instances }: RegionSettings) => regionMap(name, revision, instances));
const mapOfOwn = oncePer(({ mac }: Bridge) => regionMap(mac, 0, []));

function regionMap(name: string, revision: number, given: Design['regions'][number]['instances']): RegionMap {
  const instances = given
    .map(({ id, vlans }) => ({ mstid: id, vlans: vlanSet(vlans) }))
    .sort((a, b) => a.mstid - b.mstid);
  const table = new Uint16Array(4096);
  for (const { mstid, vlans } of instances)
    for (const [first, last] of vlans.ranges()) table.fill(mstid, first, last + 1);
  const instanceOf = (vid: number): number => table[vid] ?? 0;
  return { configurationId: { name, revision, digest: configurationDigest(instanceOf) }, instances, instanceOf };
}
