'use client';
/**
 * The strands of a map seen from afar: letters and glyphs would be specks, so each tree is drawn as few paths, of links
 * that carry frames and of links that block, cut short where they block; ends that the last change moved stand out.
 */
import { oncePer } from '../../core/base/cache';
import { bridgePortOf } from '../../core/topology/network';
import { memo, useMemo, type SVGProps } from 'react';
import type { TreeId } from '../../core/model/ids';
import { treeOf, type SettledTree, type Solution, forwards } from '../../core/tree/settled';
import { useInstant } from '../state/clock';
import { useWorkbench } from '../state/context';
import type { Moved } from '../state/moved';
import type { Line } from './drawn';
import { atEnd, courseOf, polyline, type CourseEnd } from './run';
import { strandStyle } from '../ui/strandStyle';

/** How far a frayed end stays from its switch, enough to be seen. */
const CUT = 9;
/** Between strands side by side. */
const FAR_GAP = 3.4;

export const FarStrands = memo(function FarStrands({ lines }: { readonly lines: readonly Line[] }) {
  const settled = useWorkbench((state) => state.solution);
  const solution = useInstant((clock) => clock.picture) ?? settled;
  const shown = useWorkbench((state) => state.shownTrees);
  const moved = useWorkbench((state) => state.moved);
  const cabling = useWorkbench((state) => state.lens === 'Cable');
  const cables = useMemo(() => {
    const pieces = new Pieces();
    for (const line of lines) pieces.add(line, pieceOf(line, 0, 0, 0));
    return pieces;
  }, [lines]);
  return (
    <g fill="none" pointerEvents="none">
      <FarPaths
        of={cables}
        stroke={cabling ? 'var(--rule-strong)' : 'var(--cable)'}
        strokeWidth={cabling ? 1.6 : 0.8}
      />
      {!cabling &&
        solution &&
        shown.map((id, i) => (
          <FarTree
            key={id}
            id={id}
            place={i - (shown.length - 1) / 2}
            solution={solution}
            lines={lines}
            moved={moved}
          />
        ))}
    </g>
  );
});

/** Side of a square of the map whose links are drawn as one path, pixels. */
const SQUARE = 240;

/**
 * Paths by the square that they are in. Whatever part of a path comes into view, a browser draws all of it; and the
 * squares that an edit leaves alone stay as they are.
 */
class Pieces {
  readonly squares = new Map<string, string>();

  add({ from, to }: Line, path: string): void {
    const square = `${Math.floor((from.x + to.x) / 2 / SQUARE)} ${Math.floor((from.y + to.y) / 2 / SQUARE)}`;
    this.squares.set(square, (this.squares.get(square) ?? '') + path);
  }
}

function FarPaths({ of, ...look }: { readonly of: Pieces } & SVGProps<SVGPathElement>) {
  return [...of.squares].map(([square, d]) => <path key={square} d={d} {...look} />);
}

interface Props {
  readonly id: TreeId;
  /** Steps to the side of the middle. */
  readonly place: number;
  readonly solution: Solution;
  readonly lines: readonly Line[];
  readonly moved: Moved | null;
}

function FarTree({ id, place, solution, lines, moved }: Props) {
  const tree = treeOf(solution, id);
  const paths = useMemo(
    () => (tree ? pathsOf(tree, solution, lines, place, moved) : null),
    [tree, solution, lines, place, moved],
  );
  if (!tree || !paths) return null;
  const { colour, dash } = strandStyle(solution.trees.indexOf(tree));
  return (
    <>
      <FarPaths of={paths.blocks} data-afar="blocks" stroke={colour} strokeWidth={1.1} strokeOpacity={0.75} />
      <FarPaths of={paths.carries} stroke={colour} strokeWidth={2.2} strokeDasharray={dash} />
      <FarPaths of={paths.moved} stroke={colour} strokeWidth={6} />
    </>
  );
}

/** The path of a line with its ends cut by so much; an edit changes few of them. */
const piecesOf = oncePer((_: Line) => new Map<string, string>());
function pieceOf(line: Line, aside: number, from: number, to: number): string {
  const [pieces, key] = [piecesOf(line), `${aside} ${from} ${to}`];
  const known = pieces.get(key);
  if (known !== undefined) return known;
  const path = courseOf(line, aside).path(from, to);
  pieces.set(key, path);
  return path;
}

const stub = (end: CourseEnd): string => polyline([atEnd(end, 4), atEnd(end, 15)]);

function pathsOf(tree: SettledTree, { network }: Solution, lines: readonly Line[], place: number, moved: Moved | null) {
  const [blocks, carries, touched] = [new Pieces(), new Pieces(), new Pieces()];
  const lineOf = new Map(lines.map((line) => [line.link, line]));
  network.design.links.forEach(({ id }, l) => {
    const aggregationPort = network.linkEnds[2 * l]!;
    const [p, q] = [bridgePortOf(network, aggregationPort), bridgePortOf(network, network.linkEnds[2 * l + 1]!)];
    const line = lineOf.get(id);
    if (!line || !tree.role[p] || !tree.role[q] || !network.macOperational[aggregationPort]) return;
    const aside = place * Math.min(line.gap, FAR_GAP);
    const [from, to] = [forwards(tree, p) ? 0 : CUT, forwards(tree, q) ? 0 : CUT];
    (from === 0 && to === 0 ? carries : blocks).add(line, pieceOf(line, aside, from, to));
    const before = moved?.before.get(tree.id);
    if (!before) return;
    if (before.has(p)) touched.add(line, stub(courseOf(line, aside).from));
    if (before.has(q)) touched.add(line, stub(courseOf(line, aside).to));
  });
  return { blocks, carries, moved: touched };
}
