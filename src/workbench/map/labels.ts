/**
 * Which labels there is room for: blocked ends first, then what is cut and what moved, other letters, speeds, trees. What
 * does not fit is left out, never shrunk and never laid over another. Pure; pixels of the screen.
 */
import type { LinkId } from '../../core/model/ids';
import { VlanSet } from '../../core/model/vlanSet';
import type { Role } from '../../core/tree/settled';
import { ROLE_LETTERS } from '../ui/words/roles';
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
  /** One letter for several trees that agree at an end, with their names: `R 10-41`. */
  readonly merged?: readonly MergedLetter[];
  /** The shares at which further texts stand, as they were asked for. */
  readonly names?: readonly (number | null)[];
}

export interface MergedLetter {
  readonly text: string;
  readonly at: Point;
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
export const LETTER = { width: 11.5, moved: 25, height: 13, guarded: { width: 21, height: 18 } } as const;
export const TEXT = { size: 11, tree: 10 } as const;

/** The rectangle of a short text. */
export const textSize = (text: string, size: number): { readonly width: number; readonly height: number } => ({
  width: text.length * size * 0.62 + 5,
  height: size * 1.4,
});

/** Where letters are tried, from the end on. */
const AWAY = [34, 47, 60, 26] as const;
/** The most characters of trees' names where one letter is for all of them. */
const SHORT = 6;
/** Where a letter for several trees is tried: beyond the glyph at the end, and on from there. */
const MERGED = { glyph: 27, steps: [0, 13, 26, 42] } as const;
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
    const merged: MergedLetter[] = [];
    const labels = {
      letters,
      trees,
      text: null as number | null,
      ...(strands.length > 1 ? { merged } : {}),
      ...(names ? { names: places } : {}),
    };
    placed.set(line.link, labels);
    const offsetOf = (place: number): number => (place - (strands.length - 1) / 2) * line.gap;
    const runs = strands.map((_, place) => courseOf(line, offsetOf(place)));
    /** Places the letter of one strand at one end. */
    const putLetter = (place: number, side: 0 | 1, moved: number): void => {
      const guarded = strands[place]!.guards[side] !== null;
      const width = guarded ? Math.max(moved, LETTER.guarded.width) : moved;
      const height = guarded ? LETTER.guarded.height : LETTER.height;
      const run = runs[place]!;
      const end = side === 0 ? run.from : run.to;
      const most = line.loops ? Infinity : run.length / 2 - MIDDLE;
      const found = best(AWAY, line.link, (away) => {
        const rectangle = around(atEnd(end, away), width, height);
        return away > most || !taken.free(rectangle) ? null : rectangle;
      });
      if (!found) return;
      taken.take(found.rectangle, line.link);
      letters[strands[place]!.treeIndex]![side] = found.at;
    };
    strands.forEach((strand, place) => {
      letters[strand.treeIndex] = [null, null];
      trees[strand.treeIndex] = null;
      if (strands.length > 1)
        wishes.push({
          rank: RANK.tree,
          put: () => (trees[strand.treeIndex] = along(runs[place]!, strand.label, TEXT.tree, line.link)),
        });
    });
    for (const side of [0, 1] as const) {
      for (const { role, was, disputed, places } of agreeing(strands, side)) {
        const width = was && was !== role ? LETTER.moved : LETTER.width;
        const rank = rankOf(role, disputed, was !== null);
        if (places.length === 1) wishes.push({ rank, put: () => putLetter(places[0]!, side, width) });
        else
          wishes.push({
            rank,
            put: () => {
              if (!putMerged(role, side, places)) for (const place of places) putLetter(place, side, width);
            },
          });
      }
    }
    function putMerged(role: Role, side: 0 | 1, places: readonly number[]): boolean {
      const run = courseOf(line, places.reduce((sum, place) => sum + offsetOf(place), 0) / places.length);
      const end = side === 0 ? run.from : run.to;
      const names = namesOf(places.map((place) => strands[place]!.label));
      // Of all of them the letter alone says as much.
      const text =
        places.length === strands.length && names.length > SHORT
          ? ROLE_LETTERS[role]
          : `${ROLE_LETTERS[role]} ${names}`;
      const { width, height } = textSize(text, TEXT.size);
      const most = line.loops ? Infinity : run.length / 2;
      // Clear of the glyph at the end, whichever way the link runs.
      const half = (Math.abs(end.out.x) * width + Math.abs(end.out.y) * height) / 2;
      const tried = MERGED.steps.map((step) => MERGED.glyph + half + step);
      const found = best(tried, line.link, (away) => {
        const rectangle = around(atEnd(end, away), width, height);
        return away > most || !taken.free(rectangle) ? null : rectangle;
      });
      if (!found || found.over > HIDDEN) return false;
      taken.take(found.rectangle, line.link);
      merged.push({ text, at: atEnd(end, found.at) });
      return true;
    }
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

/** Strands that have one letter at an end: of one role, neither moved nor disputed; each other one by itself. */
interface Agreeing {
  readonly role: Role;
  readonly was: Role | null;
  readonly disputed: boolean;
  readonly places: readonly number[];
}

function agreeing(strands: readonly LinkStrand[], side: 0 | 1): Agreeing[] {
  const found: (Agreeing & { readonly places: number[] })[] = [];
  strands.forEach((strand, place) => {
    const role = strand.roles[side];
    if (!role || role === 'disabled') return;
    const [was, disputed] = [strand.moved?.[side] ?? null, strand.disputed[side]];
    const plain = was === null && !disputed && strand.states === null && strand.guards[side] === null;
    const same = plain && found.find((each) => each.role === role && each.was === null && !each.disputed);
    if (same) same.places.push(place);
    else found.push({ role, was, disputed, places: [place] });
  });
  return found;
}

/** Trees as short as they can be told: `10-41`. */
function namesOf(labels: readonly string[]): string {
  const numbers = labels.map(Number);
  return numbers.every((n) => Number.isInteger(n) && n > 0)
    ? VlanSet.of(numbers.map((n) => [n, n])).format()
    : labels.join(',');
}
