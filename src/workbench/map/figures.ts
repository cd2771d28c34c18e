/** What a switch's box says of the trees shown: root path costs, knots of roots, loops of standbys. Pure. */
import { treeLabel, type SwitchId } from '../../core/model/ids';
import { standbyRoot, takesPart } from '../../core/tree/explain/election';
import { costsIn, treeOf } from '../../core/tree/settled';
import type { Workbench } from '../state/workbench';
import { strandStyle } from '../ui/strandStyle';
import { groupText } from '../ui/words/units';

export type Shown = Pick<Workbench, 'solution' | 'shownTrees' | 'lens'>;

/** `treeIndex,label,cost,mark` for each shown tree; mark is K for root, L for standby. */
export function figuresKey({ solution, shownTrees, lens }: Shown, id: SwitchId): string {
  const s = solution?.network.switchIndex.get(id);
  if (!solution || s === undefined || lens === 'Cable') return '';
  return shownTrees
    .flatMap((treeId) => {
      const tree = treeOf(solution, treeId);
      if (!tree || tree.root[s]! < 0) return [];
      if (!takesPart(solution.network, tree, s)) return [];
      const mark = tree.root[s] === s ? 'K' : standbyRoot(tree, tree.root[s]!) === s ? 'L' : '';
      return [
        [
          solution.trees.indexOf(tree),
          treeLabel(treeId),
          costsIn(tree, s).join('/'),
          lens === 'Break' && mark === 'L' ? '' : mark,
        ].join(','),
      ];
    })
    .join(';');
}

export const readFigures = (key: string) =>
  key === ''
    ? []
    : key.split(';').map((part) => {
        const [index, label = '', cost, mark] = part.split(',');
        return {
          ...strandStyle(Number(index)),
          label,
          cost: (cost ?? '')
            .split('/')
            .map((each) => groupText(Number(each)))
            .join(' / '),
          mark,
        };
      });

/** Of a root path cost with its sign, pixels. */
export const widthOf = ({ cost, mark }: ReturnType<typeof readFigures>[0]): number =>
  cost.length * 6.7 + (mark ? 22 : 0);

/** The strand colours of the shown trees whose root this switch is. */
export function rootColours({ solution, shownTrees, lens }: Shown, id: SwitchId): string {
  const s = solution?.network.switchIndex.get(id);
  if (!solution || s === undefined || lens === 'Cable') return '';
  return shownTrees
    .flatMap((treeId) => {
      const index = solution.trees.findIndex((tree) => tree.id === treeId);
      const tree = solution.trees[index];
      return tree && tree.root[s] === s && takesPart(solution.network, tree, s) ? [strandStyle(index).colour] : [];
    })
    .join(',');
}
