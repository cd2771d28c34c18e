/** What a change moved: the ends whose role differs between two solutions. */
import type { BridgePortId, SwitchId, TreeId } from '../model/ids';
import type { Design } from '../model/document';
import { passing } from './passing';
import { roleOf, treeOf, type Role, type Solution } from './settled';

/** One end that plays another part than before; null where it was not, or is no longer, in the tree. */
export interface MovedEnd {
  readonly tree: TreeId;
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  /** The port's index in the later network. */
  readonly index: number;
  readonly before: Role | null;
  readonly after: Role | null;
}

/** Every moved end of the trees that both solutions have, by tree and then in the order of the later design. */
export function movedEnds(before: Solution, after: Solution): MovedEnd[] {
  const same = sameShape(before, after);
  const { network } = after;
  const moved: MovedEnd[] = [];
  for (const tree of after.trees) {
    const old = treeOf(before, tree.id);
    if (!old || (same && old === tree)) continue;
    for (let p = 0; p < network.ports.length; p += 1) {
      if (same && old.role[p] === tree.role[p]) continue;
      const sw = network.switches[network.owner[p]!]!.id;
      const port = network.ports[p]!.id;
      const q = same ? p : before.network.portIndexOf(sw, port);
      const was = q < 0 ? null : roleOf(old, q);
      const is = roleOf(tree, p);
      if (was !== is) moved.push({ tree: tree.id, switch: sw, port, index: p, before: was, after: is });
    }
  }
  return moved;
}

/** A VLAN whose frames take another way, and on how many links they begin or cease to pass. */
export interface MovedVlan {
  readonly vid: number;
  readonly links: number;
}

/** Listed VLANs that go with other trees than before, where a change of dialects, regions or maps has put them there. */
export function movedVlans(before: Solution, after: Solution): MovedVlan[] {
  const [old, now] = [before.network.design, after.network.design];
  const speak = (design: Design): string =>
    design.switches.map((sw) => `${sw.id} ${sw.dialect} ${sw.region}`).join('\n');
  if (!sameShape(before, after) || (old.regions === now.regions && speak(old) === speak(now))) return [];
  return [...new Set([1, ...now.vlans.map((vlan) => vlan.id)])].flatMap((vid): MovedVlan[] => {
    const [was, is] = [passing(before, vid), passing(after, vid)];
    const passes = (of: Uint8Array, p: number): boolean => of[p] === 1 && of[after.network.far[p]!] === 1;
    let links = 0;
    after.network.far.forEach((q, p) => (links += Number(q > p && passes(was, p) !== passes(is, p))));
    return links > 0 ? [{ vid, links }] : [];
  });
}

/** Whether indices mean the same ports in both, the usual case after an edit of settings. */
function sameShape(before: Solution, after: Solution): boolean {
  const [a, b] = [before.network, after.network];
  return (
    a.ports.length === b.ports.length &&
    a.switches.length === b.switches.length &&
    a.switches.every((sw, s) => sw.id === b.switches[s]!.id && a.firstPort[s] === b.firstPort[s]) &&
    a.ports.every((port, p) => port.id === b.ports[p]!.id)
  );
}
