/** Which tree decides where a VLAN's frames pass, switch by switch. */
import { hasTreeOf, isPerVlan } from '../model/document';
import { CIST, instanceTree, vlanTree, type TreeId } from '../model/ids';
import type { Network } from './network';
import { regionsOf } from './region';
import { commonTree } from './trees';

/** By switch index and VLAN: the index of the tree among `trees`, -1 where none decides. A switch without spanning tree has none. */
export function vlanTrees(
  { design, switches }: Pick<Network, 'design' | 'switches'>,
  trees: readonly TreeId[],
): (s: number, vid: number) => number {
  const common = commonTree(trees);
  const regionOf = regionsOf(design);
  const found = switches.map(() => new Map<number, number>());
  const places = placesOf(trees);
  return (s, vid) => {
    const known = found[s]!.get(vid);
    if (known !== undefined) return known;
    const sw = switches[s]!;
    const map = regionOf(sw);
    const own = map ? instanceTree(map.instanceOf(vid)) : isPerVlan(sw) ? vlanTree(vid) : null;
    const tree = own === null || (own === vlanTree(1) && trees[common] === CIST) ? common : (places.get(own) ?? -1);
    found[s]!.set(vid, tree);
    return tree;
  };
}

/** The same by port: a switch of the standard dialects has a VLAN's own tree at some of its ports alone. */
export function portVlanTrees(
  network: Pick<Network, 'design' | 'switches' | 'ports' | 'owner'>,
  trees: readonly TreeId[],
): (p: number, vid: number) => number {
  const treeAt = vlanTrees(network, trees);
  const { switches, ports, owner } = network;
  const places = placesOf(trees);
  return (p, vid) =>
    hasTreeOf(switches[owner[p]!]!, ports[p]!, vid) ? (places.get(vlanTree(vid)) ?? -1) : treeAt(owner[p]!, vid);
}

const placesOf = (trees: readonly TreeId[]): ReadonlyMap<TreeId, number> => new Map(trees.map((id, i) => [id, i]));
