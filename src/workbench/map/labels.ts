/**
 * Which labels there is room for: blocked ends first, then what is cut and what moved, other letters, speeds, trees. What
 * does not fit is left out, never shrunk and never laid over another. Pure; pixels of the screen.
 */
import type { LinkId } from '../../core/model/ids';
import type { Box, Line, Point } from './drawn';
import { hostsRectangle } from './hosts';
import type { LinkStrand } from './linkStrands';
import { around, Occupied, type Rectangle } from './occupied';
import { atEnd, courseOf, type Course } from './run';

/** Where the labels of one link stand. */
export interface LinkLabels {
  /** By the tree's index: how far from either end its letter stands; null where there is no room. */
  readonly letters: Readonly<Record<number, readonly [number | null, number | null]>>;
  /** By the tree's index: the share of the way at which its name stands. */
  readonly trees: Readonly<Record<number, number | null>>;
  /** The share of the way at which the link's own text stands. */
  readonly text: number | null;
  /** The shares at which further texts stand, as they were asked for. */
  readonly names?: readonly (number | null)[];
}

/** A link with what it would like to say. */
export interface Labelled {
  readonly line: Line;
  readonly strands: readonly LinkStrand[];
  /** Its speed, or that it is cut. */
  readonly text: string | null;
  /** What it may say later, where there is room left. */
  readonly reserves?: string | null;
  /** Further texts, each for itself; an empty one is none. */
  readonly names?: readonly string[];
  /** What it says is that something blocks. */
  readonly blocks?: boolean;
}

/** Letters and their backing. */
export const LETTER = { width: 11.5, moved: 25, height: 13 } as const;
export const TEXT = { size: 11, tree: 10 } as const;

/** The rectangle of a short text. */
export const textSize = (text: string, size: number): { readonly width: number; readonly height: number } => ({
  width: text.length * size * 0.62 + 5,
  height: size * 1.4,
});

/** Where letters are tried, from the end on. */
const AWAY = [34, 47, 60, 26] as const;
/** Letters of both ends keep this clear of the middle. */
const MIDDLE = 7;
/** Where a link's text and the names of its trees are tried. */
const SHARES = [0.5, 0.4, 0.6, 0.32, 0.68] as const;

interface Wish {
  readonly rank: number;
  readonly put: () => void;
}

/** Places the labels of all links at once; `bands` are points that bundles' bands run over, `kept` what else is not to be covered. */
export function placeLabels(
  links: readonly Labelled[],
  boxes: readonly Box[],
  bands: readonly Point[],
  kept: readonly Rectangle[] = [],
): Map<LinkId, LinkLabels> {
  const taken = new Occupied();
  for (const box of boxes) {
    taken.take(around(box.centre, box.width, box.height));
    const hosts = hostsRectangle(box);
    if (hosts) taken.take(hosts);
  }
  for (const rectangle of kept) taken.take(rectangle);
  for (const point of bands) taken.take(around(point, 12, 12));
  // Lines are drawn in the order given: a label may hide a bit of one that comes before its own, but none may run over it.
  const order = new Map(links.map(({ line }, i) => [line.link as string, i]));
  const ways = new Occupied();
  for (const { line } of links) {
    const run = courseOf(line, 0);
    const steps = Math.max(1, Math.ceil(run.length / WAY));
    for (let i = 0; i <= steps; i += 1) ways.take(around(run.along(i / steps), WAY / 2, WAY / 2), line.link);
  }
  const placed = new Map<LinkId, LinkLabels>();
  const wishes: Wish[] = [];
  for (const { line, strands, text, reserves = null, names, blocks = false } of links) {
    const letters: Record<number, [number | null, number | null]> = {};
    const trees: Record<number, number | null> = {};
    const places: (number | null)[] = (names ?? []).map(() => null);
    const labels = { letters, trees, text: null as number | null, ...(names ? { names: places } : {}) };
    placed.set(line.link, labels);
    strands.forEach((strand, place) => {
      const run = courseOf(line, (place - (strands.length - 1) / 2) * line.gap);
      letters[strand.treeIndex] = [null, null];
      trees[strand.treeIndex] = null;
      [run.from, run.to].forEach((end, side) => {
        const role = strand.roles[side];
        if (!role || role === 'disabled') return;
        const was = strand.moved?.[side];
        const width = was && was !== role ? LETTER.moved : LETTER.width;
        const most = line.loops ? Infinity : run.length / 2 - MIDDLE;
        wishes.push({
          rank: rankOf(role, strand.disputed[side] ?? false, was != null),
          put: () => {
            const found = best(AWAY, line.link, (away) => {
              const rectangle = around(atEnd(end, away), width, LETTER.height);
              return away > most || !taken.free(rectangle) ? null : rectangle;
            });
            if (!found) return;
            taken.take(found.rectangle, line.link);
            letters[strand.treeIndex]![side] = found.at;
          },
        });
      });
      if (strands.length > 1)
        wishes.push({
          rank: RANK.tree,
          put: () => (trees[strand.treeIndex] = along(run, strand.label, TEXT.tree, line.link)),
        });
    });
    names?.forEach((name, i) => {
      if (name !== '')
        wishes.push({
          rank: blocks ? RANK.blocked : RANK.text,
          put: () => (places[i] = along(courseOf(line, 0), name, TEXT.size, line.link)),
        });
    });
    const said = text ?? reserves;
    if (said !== null)
      wishes.push({
        rank: text === null ? RANK.reserved : blocks ? RANK.blocked : RANK.text,
        // What it may say later takes the place of its letters: then it carries no tree.
        put: () =>
          (labels.text = along(courseOf(line, 0), said, TEXT.size, line.link, text === null ? line.link : undefined)),
      });
  }
  wishes.sort((a, b) => a.rank - b.rank);
  for (const { put } of wishes) put();
  return placed;

  function along(run: Course, text: string, size: number, link: LinkId, owner?: string): number | null {
    const { width, height } = textSize(text, size);
    if (run.length < width) return null;
    const found = best(SHARES, link, (share) => {
      const rectangle = around(run.along(share), width, height);
      return taken.free(rectangle, owner) ? rectangle : null;
    });
    if (!found || found.over > HIDDEN) return null;
    taken.take(found.rectangle);
    return found.at;
  }

  /** The first place that no line runs over, else the one that hides least; null where there is none at all. */
  function best(
    tried: readonly number[],
    link: LinkId,
    at: (place: number) => Rectangle | null,
  ): { readonly at: number; readonly rectangle: Rectangle; readonly over: number } | null {
    let found: { readonly at: number; readonly rectangle: Rectangle; readonly over: number } | null = null;
    for (const place of tried) {
      const rectangle = at(place);
      if (!rectangle) continue;
      const others = new Set(ways.ownersAt(rectangle));
      others.delete(link);
      let over = 0;
      for (const other of others) over += order.get(other)! > order.get(link)! ? HIDDEN + 1 : 1;
      if (over === 0) return { at: place, rectangle, over };
      if (!found || over < found.over) found = { at: place, rectangle, over };
    }
    return found;
  }
}

/** From point to point of a line, as it is looked for under labels. */
const WAY = 8;
/** So many lines drawn before may be hidden by a text; one that is drawn later counts for more. */
const HIDDEN = 2;

const RANK = { blocked: 0, text: 1, moved: 2, towardsRoot: 3, other: 4, tree: 5, reserved: 6 } as const;

function rankOf(role: NonNullable<LinkStrand['roles'][0]>, disputed: boolean, moved: boolean): number {
  if (disputed || role === 'alternate' || role === 'backup') return RANK.blocked;
  if (moved) return RANK.moved;
  return role === 'designated' ? RANK.other : RANK.towardsRoot;
}
