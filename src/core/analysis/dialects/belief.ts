/** The network as a switch believes it to be, from what it hears, beside what it is: in a mixed network they differ. */
import { isPerVlan, runsTrees } from '../../model/document';
import { treesName, treeInstance, type TreeId } from '../../model/ids';
import { islandRoots } from '../../tree/explain/election';
import { switchName } from '../../tree/explain/phrases';
import { costText } from '../../tree/explain/vector';
import { CODE, roleOf, type SettledTree, type Solution } from '../../tree/settled';

/** What a switch takes for true of some trees, and what is. */
export interface Belief {
  readonly trees: readonly TreeId[];
  /** `root hall-a, at cost 20 000 by port 1`. */
  readonly root: string;
  /** What is so, where that is something else. */
  readonly truth: string | null;
  /** Ports at which it takes another switch for its neighbour than its cable leads to, or hears none where there is one. */
  readonly neighbours: readonly BelievedNeighbour[];
}

export interface BelievedNeighbour {
  readonly port: string;
  readonly believes: string;
  readonly truth: string;
}

/** By tree, those of which it believes the same together; trees in which it has no part, or meets nobody, are left out. */
export function beliefsOf(solution: Solution, s: number): Belief[] {
  const found = new Map<string, Belief & { readonly trees: TreeId[] }>();
  for (const tree of solution.trees) {
    if (tree.root[s]! < 0 || treeInstance(tree.id) || !meetsOthers(solution, tree, s)) continue;
    const belief = beliefIn(solution, tree, s);
    const key = JSON.stringify(belief);
    const known = found.get(key);
    if (known) known.trees.push(tree.id);
    else found.set(key, { ...belief, trees: [tree.id] });
  }
  return [...found.values()];
}

/** Whether a cable of the switch carries the tree to another one. */
function meetsOthers({ network: { firstPort, live, far, owner } }: Solution, tree: SettledTree, s: number): boolean {
  for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
    if (live[p] && far[p]! >= 0 && owner[far[p]!] !== s && roleOf(tree, p) !== null) return true;
  return false;
}

function beliefIn({ network }: Solution, tree: SettledTree, s: number): Omit<Belief, 'trees'> {
  const { switches, ports, owner, plug, live, firstPort, transmitPort } = network;
  const name = (t: number): string => switchName(switches[t]!);
  const [root, up] = [tree.root[s]!, tree.rootPort[s]!];
  const others = islandRoots(network, tree).filter((other) => other !== root);
  const neighbours = Array.from({ length: firstPort[s + 1]! - firstPort[s]! }, (_, i) => firstPort[s]! + i).flatMap(
    (p): BelievedNeighbour[] => {
      const there = plug[transmitPort[p]! >= 0 ? transmitPort[p]! : p]!;
      if (!live[p] || there < 0 || roleOf(tree, p) === null) return [];
      const by = owner[tree.designated[p]!]!;
      const [port, truth] = [ports[p]!.id, owner[there]!];
      if (tree.role[p] === CODE.designated || by === truth) return [];
      const believes = by === s ? 'itself' : name(by);
      return [{ port, believes, truth: name(truth) }];
    },
  );
  return {
    root:
      root === s
        ? 'it is root itself'
        : `root ${name(root)}, at cost ${costText(tree.rootPathCost[s]!)} by port ${ports[up]!.id}`,
    truth:
      others.length > 0
        ? `${others.map(name).join(', ')} ${others.length === 1 ? 'is' : 'are'} root too, elsewhere`
        : null,
    neighbours,
  };
}

/** Trees of VLANs in which a switch has no part, though it carries their frames: it knows nothing of them. */
export function unknownTo({ network, trees }: Solution, s: number): TreeId[] {
  const sw = network.switches[s]!;
  return !sw.up || !runsTrees(sw) || isPerVlan(sw)
    ? []
    : trees.flatMap((tree) => (tree.root[s]! < 0 && !treeInstance(tree.id) ? [tree.id] : []));
}

/** `VLANs 15,25`. */
export const beliefTrees = ({ trees }: Belief): string => treesName(trees);
