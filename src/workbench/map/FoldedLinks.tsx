'use client';
/** The links between folded groups, as sheaves: a band, in it each tree shown, cut where all of its links block, and how many there are. */
import { memo, useMemo } from 'react';
import { crossingOf, type Crossing } from '../../core/analysis/groups/counts';
import type { Link } from '../../core/model/document';
import { treeLabel, treeName, type LinkId } from '../../core/model/ids';
import { treeOf, type Solution } from '../../core/tree/settled';
import { useInstant } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { isSelected, selectionOf, type Item } from '../state/selection';
import type { Workbench } from '../state/store';
import { means } from '../ui/means';
import { strandStyle } from '../ui/strandStyle';
import { counted } from '../ui/words/units';
import type { Line } from './drawn';
import { TEXT, textSize, type Labelled, type LinkLabels } from './labels';
import { courseOf } from './run';

/** A sheaf as drawn: its links, and of each tree shown how many of them carry it and how many block. */
export interface Sheaf {
  readonly line: Line;
  readonly links: readonly Link[];
  readonly trees: readonly (Crossing & { readonly index: number; readonly label: string; readonly name: string })[];
  readonly text: string;
}

/** Width of the band, and the share of the way that is left out of a tree that all of it blocks. */
const BAND = 9;
const GAP = 0.3;

/** The sheaves among lines, counted in the trees shown. */
export function useSheaves(lines: readonly Line[], sheaves: ReadonlyMap<LinkId, readonly Link[]>): readonly Sheaf[] {
  const settled = useWorkbench((state) => (state.lens === 'Cable' ? null : state.solution));
  const solution = useInstant((clock) => clock.picture) ?? settled;
  const shownTrees = useWorkbench((state) => state.shownTrees);
  return useMemo(
    () =>
      lines.flatMap((line) => {
        const links = sheaves.get(line.link);
        return links ? [sheafOf(line, links, solution, shownTrees)] : [];
      }),
    [lines, sheaves, solution, shownTrees],
  );
}

export function sheafOf(
  line: Line,
  links: readonly Link[],
  solution: Solution | null,
  shown: Workbench['shownTrees'],
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

export const FoldedLinks = memo(function FoldedLinks({
  sheaves,
  labels,
}: {
  readonly sheaves: readonly Sheaf[];
  readonly labels: ReadonlyMap<LinkId, LinkLabels>;
}) {
  return sheaves.map((sheaf) => <SheafView key={sheaf.line.link} sheaf={sheaf} labels={labels.get(sheaf.line.link)} />);
});

function SheafView({ sheaf, labels }: { readonly sheaf: Sheaf; readonly labels: LinkLabels | undefined }) {
  const { line, links, trees, text } = sheaf;
  const store = useWorkbenchStore();
  const selected = useWorkbench(({ selection }) =>
    links.every((link) => isSelected(selection, { kind: 'link', link: link.id })),
  );
  const whole = courseOf(line, 0);
  const gap = Math.min(line.gap, BAND / Math.max(1, trees.length - 1));
  const path = whole.path(0, 0);
  return (
    <g data-sheaf={links.length} data-blocked={trees.map(({ block }) => block).join()}>
      {selected && <path d={path} stroke="var(--accent)" strokeOpacity={0.35} strokeWidth={BAND + 8} fill="none" />}
      <path d={path} stroke="var(--cable)" strokeOpacity={0.45} strokeWidth={BAND} fill="none" />
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
      <path
        d={path}
        stroke="transparent"
        strokeWidth={BAND + 8}
        fill="none"
        pointerEvents="stroke"
        style={{ cursor: 'pointer' }}
        onClick={(event) => {
          const items = links.map((link): Item => ({ kind: 'link', link: link.id }));
          const { select, pick } = store.getState();
          if (means(event) === 'alone') select(selectionOf(items));
          else for (const item of items) pick(item, 'more');
        }}
      >
        <title>{[counted(links.length, 'link'), ...trees.map(told)].join('; ')}</title>
      </path>
      {labels?.text != null && <SheafText at={whole.along(labels.text)} text={text} />}
      {trees.map((tree, i) => {
        const share = labels?.names?.[i];
        return share == null ? null : (
          <SheafText
            key={tree.index}
            at={whole.along(share)}
            text={treeText(tree)}
            colour={strandStyle(tree.index).colour}
          />
        );
      })}
    </g>
  );
}

const told = ({ name, carry, block }: Sheaf['trees'][0]): string => `${name}: ${carry} carry it, ${block} block`;

function SheafText({
  at,
  text,
  colour = 'var(--ink)',
}: {
  readonly at: { readonly x: number; readonly y: number };
  readonly text: string;
  readonly colour?: string;
}) {
  const { width, height } = textSize(text, TEXT.size);
  return (
    <g pointerEvents="none">
      <rect x={at.x - width / 2} y={at.y - height / 2} width={width} height={height} rx={4} fill="var(--paper)" />
      <text
        x={at.x}
        y={at.y + 3.8}
        fontSize={TEXT.size}
        fontFamily="var(--mono)"
        fontWeight={600}
        textAnchor="middle"
        fill={colour}
      >
        {text}
      </text>
    </g>
  );
}
