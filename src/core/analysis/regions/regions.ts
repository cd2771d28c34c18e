/** Which switches form which MST region, whether it hangs together, and in what two switches differ (IEEE 802.1Q-2018 13.8). */
import type { Bridge } from '../../topology/bridges';
import type { RegionId, SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';
import { MAX_VLAN, MIN_VLAN, VlanSet } from '../../model/vlanSet';
import { insidePorts } from '../../tree/cist';
import type { Network } from '../../topology/network';
import { switchName } from '../../tree/explain/phrases';
import { regionsOf, sameRegion, type RegionMap } from '../../topology/region';
import { partsOf } from '../parts';

/** The powered MSTP switches of one configuration. */
export interface Region {
  readonly map: RegionMap;
  /** Whether its settings are some that the design lists; else its switches have none, and it is named by an address. */
  readonly given: boolean;
  readonly switches: readonly SwitchId[];
  /** Switches that hang together over cables inside of the region, the most first. Several are several regions. */
  readonly pieces: readonly (readonly SwitchId[])[];
}

/** Every region of a network, the largest first; one without a neighbour of its own is one of a single switch. */
export function regionsIn(network: Network): Region[] {
  const { design, switches } = network;
  const regionOf = regionsOf(design);
  const inside = insidePorts(network);
  const piece = partsOf(network, (p) => inside[p] === 1);
  const found: { map: RegionMap; given: boolean; members: number[] }[] = [];
  switches.forEach((sw, s) => {
    const map = sw.up ? regionOf(sw) : null;
    if (!map) return;
    const known = found.find((region) => sameRegion(region.map, map));
    if (known) known.members.push(s);
    else found.push({ map, given: sw.region !== undefined, members: [s] });
  });
  const named = (members: readonly number[]): SwitchId[] => members.map((s) => switches[s]!.id);
  return found
    .sort((a, b) => b.members.length - a.members.length)
    .map(({ map, given, members }): Region => {
      const pieces = new Map<number, number[]>();
      for (const s of members) pieces.set(piece[s]!, [...(pieces.get(piece[s]!) ?? []), s]);
      return {
        map,
        given,
        switches: named(members),
        pieces: [...pieces.values()].sort((a, b) => b.length - a.length).map(named),
      };
    });
}

/** VLANs that two switches map to different instances; 0 is the IST. */
export interface MapDifference {
  readonly vlans: VlanSet;
  readonly a: number;
  readonly b: number;
}

/** Two MST configurations, field by field. */
export interface RegionComparison {
  readonly name: readonly [string, string];
  readonly revision: readonly [number, number];
  readonly digest: readonly [string, string];
  /** By pair of instances, the lowest VLAN first; empty where the maps agree. */
  readonly vlans: readonly MapDifference[];
  readonly same: boolean;
}

export function compareRegions(a: RegionMap, b: RegionMap): RegionComparison {
  const [x, y] = [a.configurationId, b.configurationId];
  const pairs = new Map<string, { a: number; b: number; vids: [number, number][] }>();
  if (x.digest !== y.digest) {
    for (let vid = MIN_VLAN; vid <= MAX_VLAN; vid += 1) {
      const [p, q] = [a.instanceOf(vid), b.instanceOf(vid)];
      if (p === q) continue;
      const key = `${p} ${q}`;
      pairs.set(key, { a: p, b: q, vids: [...(pairs.get(key)?.vids ?? []), [vid, vid]] });
    }
  }
  const vlans = [...pairs.values()].map((pair): MapDifference => ({
    a: pair.a,
    b: pair.b,
    vlans: VlanSet.of(pair.vids),
  }));
  return {
    name: [x.name, y.name],
    revision: [x.revision, y.revision],
    digest: [x.digest, y.digest],
    vlans,
    same: sameRegion(a, b),
  };
}

/** The parts of the MST Configuration Identifier that differ, as the screen names them (13.8). */
export function partsThatDiffer(a: RegionMap, b: RegionMap): string[] {
  const [x, y] = [a.configurationId, b.configurationId];
  return [
    ...(x.name === y.name ? [] : ['name']),
    ...(x.revision === y.revision ? [] : ['revision']),
    ...(x.digest === y.digest ? [] : ['VLANs']),
  ];
}

/** `instance 2`, `the IST`. */
export const instanceText = (mstid: number): string => (mstid === 0 ? 'the IST' : `instance ${mstid}`);

/** Whether two names are one to a reader: apart from capitals, blanks and punctuation, or but for one letter. Other figures are another name. */
export function namesAlike(a: string, b: string): boolean {
  const bare = (name: string): string => name.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  const figures = (name: string): string => name.replace(/\D/g, '');
  if (bare(a) === bare(b)) return true;
  if (figures(a) !== figures(b)) return false;
  const [short, long] = bare(a).length <= bare(b).length ? [bare(a), bare(b)] : [bare(b), bare(a)];
  if (long.length - short.length > 1 || short.length < 3) return false;
  let at = 0;
  while (at < short.length && short[at] === long[at]) at += 1;
  return short.slice(at + (long.length === short.length ? 1 : 0)) === long.slice(at + 1);
}

/** The two maps group VLANs alike and number the groups otherwise. */
const onlyRenumbered = ({ vlans }: RegionComparison, a: RegionMap, b: RegionMap): boolean => {
  const [there, back] = [new Map<number, number>(), new Map<number, number>()];
  for (let vid = MIN_VLAN; vid <= MAX_VLAN; vid += 1) {
    const [p, q] = [a.instanceOf(vid), b.instanceOf(vid)];
    if ((there.get(p) ?? q) !== q || (back.get(q) ?? p) !== p) return false;
    there.set(p, q);
    back.set(q, p);
  }
  return vlans.length > 0;
};

/** What is likely wrong, in one sentence; null where two switches agree. `them` is what is said of the other side: a switch, or `the others`. */
export function misconfigurationText(
  name: string,
  own: RegionMap,
  them: string,
  other: RegionMap,
  given: readonly [boolean, boolean] = [true, true],
): string | null {
  const difference = compareRegions(own, other);
  if (difference.same) return null;
  const has = them === 'the others' ? 'have' : 'has';
  if (!given[0])
    return `${name} has no region settings: it is a region of its own, named by its address, with every VLAN in the IST`;
  if (!given[1]) return `${them} ${has} no region settings`;
  const parts: string[] = [];
  const [a, b] = difference.name;
  if (a !== b)
    parts.push(
      `${name} is named “${a}”, ${them} “${b}”${namesAlike(a, b) ? ': capitals, blanks and every other octet count' : ''}`,
    );
  if (difference.revision[0] !== difference.revision[1])
    parts.push(`${name} has revision ${difference.revision[0]}, ${them} ${difference.revision[1]}`);
  if (onlyRenumbered(difference, own, other))
    parts.push(`${name} has the same groups of VLANs under other instance numbers`);
  else
    for (const { vlans, a: mine, b: theirs } of difference.vlans.slice(0, 3))
      parts.push(`${name} maps ${vlansName(vlans)} to ${instanceText(mine)}, ${them} to ${instanceText(theirs)}`);
  if (difference.vlans.length > 3) parts.push(`and ${difference.vlans.length - 3} groups of VLANs more`);
  return parts.join('; ');
}

/** `VLAN 55`, `VLANs 45,55-59`. */
export function vlansName(vlans: VlanSet): string {
  const text = vlans.format();
  return /^\d+$/.test(text) ? `VLAN ${text}` : `VLANs ${text}`;
}

/** What a switch's settings should be where it stands outside of a region by a slip alone. */
export interface Misconfiguration {
  readonly switch: SwitchId;
  /** Which field is the slip. */
  readonly field: 'name' | 'revision' | 'map' | 'none';
  /** The region that it was meant to be in, and its settings in the document. */
  readonly region: Region;
  readonly settings: RegionId;
  readonly text: string;
}

/**
 * MSTP switches that all but one field has in a larger region: name and map agree and the revision differs, name and
 * revision agree and the map differs, all else agrees and the names are alike; or with no settings at all beside a region.
 */
export function misconfigurationsOf(
  network: Network,
  regions: readonly Region[] = regionsIn(network),
): Misconfiguration[] {
  const { design, switches, switchIndex } = network;
  const at = (id: SwitchId): Bridge => switches[switchIndex.get(id)!]!;
  const settingsOf = (region: Region): RegionId | undefined =>
    region.switches.map((id) => at(id).region).find((id) => id !== undefined);
  return regions.flatMap((odd, i) =>
    regions.slice(0, i).flatMap((main): Misconfiguration[] => {
      const settings = settingsOf(main);
      const field = misconfiguredField(odd, main);
      if (
        field === null ||
        settings === undefined ||
        regions.slice(0, regions.indexOf(main)).some((larger) => misconfiguredField(odd, larger) !== null)
      )
        return [];
      return odd.switches.map((id): Misconfiguration => ({
        switch: id,
        field,
        region: main,
        settings,
        text: misconfigurationText(
          switchName(design.switches.find((sw) => sw.id === id)!),
          odd.map,
          'the others',
          main.map,
          [odd.given, main.given],
        )!,
      }));
    }),
  );
}

/** The one field in which two regions differ; null where it is none, or more. */
function misconfiguredField(odd: Region, main: Region): Misconfiguration['field'] | null {
  if (!main.given) return null;
  if (!odd.given) return 'none';
  const { name, revision, vlans } = compareRegions(odd.map, main.map);
  const [sameName, sameRevision, sameMap] = [name[0] === name[1], revision[0] === revision[1], vlans.length === 0];
  if (sameName && sameMap && !sameRevision) return 'revision';
  if (sameName && sameRevision && !sameMap) return 'map';
  return sameRevision && sameMap && namesAlike(...name) && main.map.instances.length > 0 ? 'name' : null;
}

/** The MST configuration of a switch; null where it does not speak MSTP. */
export const regionMapOf = (design: Design, sw: Bridge): RegionMap | null => regionsOf(design)(sw);
