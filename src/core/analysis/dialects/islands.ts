/** Islands of a mixed network: switches that hang together by cables over which they hear each other in all their trees, and what becomes of trees where two islands meet. */
import { oncePer } from '../../base/cache';
import { isMultiple, isPerVlan, runsTrees } from '../../model/document';
import { treeVlan, treesName, type LinkId, type SwitchId } from '../../model/ids';
import { regionsOf } from '../../topology/region';
import type { Network } from '../../topology/network';
import { partAt, treesOf } from '../../topology/trees';
import { insidePorts } from '../../tree/cist';
import { partsOf } from '../parts';

/** What the switches of an island run: a tree for each VLAN, instances of one MST region, or one tree for all. */
export type IslandKind = 'vlans' | 'region' | 'common';

export interface Island {
  readonly kind: IslandKind;
  /** `trees of VLANs`, `region valley`, `one tree`. */
  readonly label: string;
  readonly switches: readonly SwitchId[];
}

export interface Islands {
  /** The largest first. Who runs no spanning tree, or has no power, is on none. */
  readonly islands: readonly Island[];
  /** What a tree is taken for at the other end, by cable between two islands. */
  readonly borders: ReadonlyMap<LinkId, string>;
}

export const islandsOf = oncePer((network: Network): Islands => {
  const { design, switches, ports, owner, far, live, link, carried } = network;
  const trees = treesOf(design);
  const inside = insidePorts(network);
  const regionOf = regionsOf(design);
  const kinds = switches.map((sw): IslandKind | null => {
    if (!sw.up || !runsTrees(sw)) return null;
    return isPerVlan(sw) ? 'vlans' : isMultiple(sw) ? 'region' : 'common';
  });
  const kindAt = (p: number): IslandKind | null => kinds[owner[p]!]!;
  const takesPart = (p: number, tree: (typeof trees)[number]): boolean =>
    partAt(switches[owner[p]!]!, ports[p]!, tree) === 'bridge';
  const isWithin = (p: number): boolean => {
    const q = far[p]!;
    if (q < 0 || !live[p] || kindAt(p) === null || kindAt(p) !== kindAt(q)) return false;
    if (kindAt(p) === 'region') return inside[p] === 1;
    return trees.every((tree) => takesPart(p, tree) === takesPart(q, tree));
  };

  const piece = partsOf(network, isWithin);
  const members = new Map<number, number[]>();
  for (const s of switches.keys())
    if (kinds[s] !== null) members.set(piece[s]!, [...(members.get(piece[s]!) ?? []), s]);
  const labelOf = (s: number): string =>
    kinds[s] === 'vlans'
      ? 'trees of VLANs'
      : kinds[s] === 'common'
        ? 'one tree'
        : `region ${regionOf(switches[s]!)!.configurationId.name || 'without a name'}`;
  const borders = new Map<LinkId, string>();
  for (const [p, q] of far.entries()) {
    const cable = design.links[link[p]!];
    if (q < p || !cable || !live[p] || isWithin(p) || kindAt(p) === null || kindAt(q) === null) continue;
    borders.set(cable.id, borderAt(p, q));
  }
  return {
    islands: [...members.values()]
      .sort((a, b) => b.length - a.length)
      .map((own) => ({
        kind: kinds[own[0]!]!,
        label: labelOf(own[0]!),
        switches: own.map((s) => switches[s]!.id),
      })),
    borders,
  };

  function borderAt(p: number, q: number): string {
    const perVlan = [p, q].find((end) => kindAt(end) === 'vlans');
    if (perVlan === undefined)
      return kindAt(p) === 'common' && kindAt(q) === 'common' ? 'one tree alone' : 'region as one bridge';
    // A port of a standard switch may speak as a per-VLAN one.
    const both = trees.filter((tree) => (treeVlan(tree) ?? 1) !== 1 && takesPart(p, tree) && takesPart(q, tree));
    const common = carried[perVlan]!.has(1); // VLAN 1's tree runs over ports that carry it
    if (both.length === 0) return common ? 'VLAN 1 as common tree' : 'no tree in common';
    return common ? `VLAN 1 as common tree, ${treesName(both)} too` : `${treesName(both)} alone`;
  }
});
