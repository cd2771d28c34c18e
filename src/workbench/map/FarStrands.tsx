'use client';
/**
 * The strands of a map seen from afar: letters and glyphs would be specks, so each tree is drawn as few paths, of links
 * that carry frames and of links that block, cut short where they block; ends that the last change moved stand out.
 */
import { oncePer } from '../../core/base/cache';
import { bridgePortOf } from '../../core/topology/network';
import { memo, useMemo, useState, type SVGProps } from 'react';
import type { Design } from '../../core/model/document';
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
    const squares = new Map<string, string>();
    for (const line of lines) {
      const square = squareOf(line);
      squares.set(square, (squares.get(square) ?? '') + pieceOf(line, 0, 0, 0));
    }
    return squares;
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
 * The square of the map that a line is in. Whatever part of a path comes into view, a browser draws all of it; and the squares
 * that an edit leaves alone stay as they are.
 */
const squareOf = ({ from, to }: Line): string =>
  `${Math.floor((from.x + to.x) / 2 / SQUARE)} ${Math.floor((from.y + to.y) / 2 / SQUARE)}`;

/** Paths by the square that they are in. */
type Pieces = ReadonlyMap<string, string>;

function FarPaths({ of, ...look }: { readonly of: Pieces } & SVGProps<SVGPathElement>) {
  return [...of].map(([square, d]) => <path key={square} d={d} {...look} />);
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
  const [draw] = useState(pathKeeper);
  const paths = useMemo(
    () => (tree ? draw(tree, solution, lines, place, moved) : null),
    [draw, tree, solution, lines, place, moved],
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

/** The links that have a line, by the square that they are in, in the order of the design. */
const placedIn = oncePer((lines: readonly Line[]) =>
  oncePer((links: Design['links']) => {
    const lineOf = new Map(lines.map((line) => [line.link, line]));
    const squares = new Map<string, { readonly l: number; readonly line: Line }[]>();
    links.forEach(({ id }, l) => {
      const line = lineOf.get(id);
      if (!line) return;
      const square = squareOf(line);
      const own = squares.get(square);
      if (own) own.push({ l, line });
      else squares.set(square, [{ l, line }]);
    });
    return squares;
  }),
);

/** How a link is drawn, as bits: that it is; that an end blocks; that an end has moved. */
const LINK = { drawn: 1, blocksA: 2, blocksB: 4, movedA: 8, movedB: 16 } as const;

function linkCodes(tree: SettledTree, { network }: Solution, moved: Moved | null): Uint8Array {
  const before = moved?.before.get(tree.id);
  return Uint8Array.from(network.design.links, (_, l) => {
    const aggregationPort = network.linkEnds[2 * l]!;
    const [p, q] = [bridgePortOf(network, aggregationPort), bridgePortOf(network, network.linkEnds[2 * l + 1]!)];
    if (!tree.role[p] || !tree.role[q] || !network.macOperational[aggregationPort]) return 0;
    return (
      LINK.drawn +
      (forwards(tree, p) ? 0 : LINK.blocksA) +
      (forwards(tree, q) ? 0 : LINK.blocksB) +
      (before?.has(p) ? LINK.movedA : 0) +
      (before?.has(q) ? LINK.movedB : 0)
    );
  });
}

interface Paths {
  readonly blocks: Map<string, string>;
  readonly carries: Map<string, string>;
  readonly moved: Map<string, string>;
}

/** Draws a tree; of one that was drawn before, the squares in which something is another. */
function pathKeeper() {
  let known: { squares: object; place: number; codes: Uint8Array; paths: Paths } | null = null;
  return (
    tree: SettledTree,
    solution: Solution,
    lines: readonly Line[],
    place: number,
    moved: Moved | null,
  ): Readonly<Paths> => {
    const squares = placedIn(lines)(solution.network.design.links);
    const codes = linkCodes(tree, solution, moved);
    const before = known?.squares === squares && known.place === place ? known : null;
    const paths: Paths = {
      blocks: new Map(before?.paths.blocks),
      carries: new Map(before?.paths.carries),
      moved: new Map(before?.paths.moved),
    };
    for (const [square, all] of squares) {
      if (before && all.every(({ l }) => codes[l] === before.codes[l])) continue;
      let [blocks, carries, touched] = ['', '', ''];
      for (const { l, line } of all) {
        const code = codes[l]!;
        if (code === 0) continue;
        const aside = place * Math.min(line.gap, FAR_GAP);
        const [from, to] = [code & LINK.blocksA ? CUT : 0, code & LINK.blocksB ? CUT : 0];
        const piece = pieceOf(line, aside, from, to);
        if (from === 0 && to === 0) carries += piece;
        else blocks += piece;
        if (code & LINK.movedA) touched += stub(courseOf(line, aside).from);
        if (code & LINK.movedB) touched += stub(courseOf(line, aside).to);
      }
      put(paths.blocks, square, blocks);
      put(paths.carries, square, carries);
      put(paths.moved, square, touched);
    }
    known = { squares, place, codes, paths };
    return paths;
  };
}

function put(pieces: Map<string, string>, square: string, path: string): void {
  if (path === '') pieces.delete(square);
  else pieces.set(square, path);
}
