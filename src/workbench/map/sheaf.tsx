/** A sheaf of links between folded groups: what it says, and how it is drawn. Pure: on the screen and in pictures alike. */
import { crossingOf, type Crossing } from '../../core/analysis/groups/counts';
import type { Link } from '../../core/model/document';
import { treeLabel, treeName, type TreeId } from '../../core/model/ids';
import { treeOf, type Solution } from '../../core/tree/settled';
import { strandStyle } from '../ui/strandStyle';
import { counted } from '../../core/base/words';
import type { Line } from './drawn';
import { TEXT, type Labelled, type LinkLabels } from './labels';
import { courseOf } from './run';
import { MapLabel } from './StrandView';

/** A sheaf as drawn: its links, and of each tree shown how many of them carry it and how many block. */
export interface Sheaf {
  readonly line: Line;
  readonly links: readonly Link[];
  readonly trees: readonly (Crossing & { readonly index: number; readonly label: string; readonly name: string })[];
  readonly text: string;
}

/** Width of the band, and the share of the way that is left out of a tree that all of it blocks. */
export const BAND = 9;
const GAP = 0.3;

export function sheafOf(
  line: Line,
  links: readonly Link[],
  solution: Solution | null,
  shown: readonly TreeId[],
): Sheaf {
  const trees = shown.flatMap((id) => {
    const tree = solution ? treeOf(solution, id) : undefined;
    if (!solution || !tree) return [];
    const index = solution.trees.indexOf(tree);
    return [{ ...crossingOf(solution, tree, links), index, label: treeLabel(id), name: treeName(id) }];
  });
  const [only] = trees;
  const count = counted(links.length, 'link');
  return { line, links, trees, text: only && trees.length === 1 && only.block > 0 ? blockText(only) : count };
}

/** `12 of 24 block`, `24 block`. */
const blockText = ({ carry, block }: Crossing): string =>
  `${carry === 0 ? block : `${block} of ${carry + block}`} ${block === 1 ? 'blocks' : 'block'}`;

/** What a sheaf would like to say. */
export const labelledSheaf = ({ line, trees, text }: Sheaf): Labelled => ({
  line,
  strands: [],
  text,
  names: trees.length > 1 ? trees.map(treeText) : [],
  blocks: trees.some(({ block }) => block > 0),
});

const treeText = (tree: Sheaf['trees'][0]): string => (tree.block === 0 ? '' : `${tree.label}: ${blockText(tree)}`);

/** The band, the trees along it, and its texts. */
export function SheafDrawing({ sheaf, labels }: { readonly sheaf: Sheaf; readonly labels: LinkLabels | undefined }) {
  const { line, trees, text } = sheaf;
  const whole = courseOf(line, 0);
  const gap = Math.min(line.gap, BAND / Math.max(1, trees.length - 1));
  return (
    <>
      <path d={whole.path(0, 0)} stroke="var(--cable)" strokeOpacity={0.45} strokeWidth={BAND} fill="none" />
      {trees.map((tree, i) => {
        if (tree.carry + tree.block === 0) return null;
        const run = courseOf(line, (i - (trees.length - 1) / 2) * gap);
        const { colour, dash } = strandStyle(tree.index);
        const cut = tree.carry === 0;
        const part = (run.length * (1 - GAP)) / 2;
        return (
          <path
            key={tree.index}
            d={run.path(0, 0)}
            stroke={colour}
            strokeWidth={cut ? 1.4 : 3}
            strokeDasharray={cut ? `${part} ${run.length * GAP} ${part}` : dash}
            fill="none"
          />
        );
      })}
      {labels?.text != null && (
        <MapLabel at={whole.along(labels.text)} text={text} colour="var(--ink)" size={TEXT.size} />
      )}
      {trees.map((tree, i) => {
        const share = labels?.names?.[i];
        return share == null ? null : (
          <MapLabel
            key={tree.index}
            at={whole.along(share)}
            text={treeText(tree)}
            colour={strandStyle(tree.index).colour}
            size={TEXT.size}
          />
        );
      })}
    </>
  );
}
