/** If a root dies: who takes over in which tree, which ports change, who is cut off, which trees lose their sharing. */
import { editAll } from '../../edit/edit';
import type { HostId, SwitchId, TreeId } from '../../model/ids';
import type { Design } from '../../model/document';
import { islandRoots } from '../../tree/explain/election';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import { treeForVlan } from '../../tree/passing';
import { solve } from '../../tree/solve';
import { treeOf, type SettledTree, type Solution } from '../../tree/settled';

/** What becomes of one tree whose root is gone. */
export interface RootLoss {
  readonly tree: TreeId;
  readonly root: SwitchId;
  /** Null where no bridge is left. */
  readonly takesOver: SwitchId | null;
  /** Ends of other switches that have another role afterwards; those at the dead one and toward it are not counted. */
  readonly ends: readonly MovedEnd[];
  /** Switches that no longer hang together with the new root. */
  readonly cutOff: readonly SwitchId[];
  /** Hosts of the tree's VLANs all of whose cards are at the dead switch, or at one that is cut off. */
  readonly hostsCutOff: readonly HostId[];
  /** Trees that had another root before and have the same one now: their traffic no longer takes different ways. */
  readonly sharesWith: readonly TreeId[];
}

/** A design with a switch dead, and what that does to the trees it is root of. */
export interface SwitchLoss {
  readonly switch: SwitchId;
  readonly design: Design;
  readonly solution: Solution;
  readonly losses: readonly RootLoss[];
}

/** A switch and what its death does, without the network that it leaves. */
export type LossOf = Pick<SwitchLoss, 'switch' | 'losses'>;

/** The losses of every root in turn; `progress` is told how far it is, 0 to 1. */
export const lossesOf = (solution: Solution, progress: (share: number) => void = () => undefined): LossOf[] =>
  rootSwitches(solution).flatMap((id, i, all) => {
    progress(i / all.length);
    const loss = ifSwitchDies(solution, id);
    return loss ? [{ switch: loss.switch, losses: loss.losses }] : [];
  });

/** The root of a tree's largest island, -1 without one. */
const mainRoot = (solution: Solution, tree: SettledTree): number => islandRoots(solution.network, tree)[0] ?? -1;

/** Every switch that is root of some tree, in the order of the document. */
export function rootSwitches(solution: Solution): SwitchId[] {
  const roots = new Set(solution.trees.map((tree) => mainRoot(solution, tree)));
  return solution.network.switches.flatMap((sw, s) => (roots.has(s) ? [sw.id] : []));
}

/** Takes a switch's power away and compares; null where the switch is not there or has none. */
export function ifSwitchDies(before: Solution, id: SwitchId): SwitchLoss | null {
  const s = before.network.switchIndex.get(id);
  if (s === undefined || !before.network.switches[s]!.up) return null;
  const edited = editAll(before.network.design, [{ do: 'set-switch', switch: id, up: false }]);
  if (!edited.ok) return null;
  const after = solve(edited.value.design);
  const moved = movedEnds(before, after).filter((end) => end.switch !== id && end.after !== 'disabled');
  const rootsBefore = new Map(before.trees.map((tree) => [tree.id, nameOf(before, mainRoot(before, tree))]));
  const rootsAfter = new Map(after.trees.map((tree) => [tree.id, nameOf(after, mainRoot(after, tree))]));
  const { design, switches, ports, switchIndex, portIndexOf } = before.network;
  const treeOfVlan = new Map(
    [...new Set(design.hosts.map((host) => host.vlan))].map((vid) => [vid, treeForVlan(before, vid)?.id]),
  );
  /** Hosts of a tree's VLANs that hang on nothing but these switches, and on something now. */
  const hostsOnlyAt = (lost: ReadonlySet<SwitchId>, tree: TreeId): HostId[] =>
    design.hosts.flatMap((host) => {
      const cards = host.attach.filter(
        (at) => switches[switchIndex.get(at.switch) ?? -1]?.up && ports[portIndexOf(at.switch, at.port)]?.up,
      );
      const all = cards.length > 0 && cards.every((at) => lost.has(at.switch));
      return all && treeOfVlan.get(host.vlan) === tree ? [host.id] : [];
    });
  const losses = before.trees.flatMap((tree): RootLoss[] => {
    if (rootsBefore.get(tree.id) !== id) return [];
    const next = treeOf(after, tree.id);
    const takesOver = rootsAfter.get(tree.id) ?? null;
    const root = takesOver === null ? -1 : after.network.switchIndex.get(takesOver)!;
    const was = mainRoot(before, tree);
    const cutOff = after.network.switches.flatMap((sw, t) =>
      t !== s && tree.root[t] === was && next && next.root[t] !== root ? [sw.id] : [],
    );
    return [
      {
        tree: tree.id,
        root: id,
        takesOver,
        ends: moved.filter((end) => end.tree === tree.id),
        cutOff,
        hostsCutOff: hostsOnlyAt(new Set([id, ...cutOff]), tree.id),
        sharesWith: before.trees.flatMap(({ id: other }) =>
          takesOver !== null && rootsBefore.get(other) !== id && rootsAfter.get(other) === takesOver ? [other] : [],
        ),
      },
    ];
  });
  return { switch: id, design: edited.value.design, solution: after, losses };
}

const nameOf = ({ network }: Solution, s: number): SwitchId | null => network.switches[s]?.id ?? null;
