/** Boxes of switches: how large each would like to be, and what it shows in the room that it gets. Pure; pixels of the screen. */
import type { PortId } from '../../core/model/ids';
import { isSheafEnd } from './folded';
import { shortened } from '../ui/words/shortened';
import { spreadAlong, type Size } from './fit';
import type { Attachment, Box, MapDensity, Point, Side, Skeleton } from './drawn';

/** Between ends on one side of a box, where there is room. */
export const MIN_PITCH = 22;
/** A rim at the top or the bottom of a box: with labels of ports, and without. */
export const RIM = { labels: 13, bare: 3 } as const;
/** Root path costs under a name: two a row, each with room for a knot. */
export const FIGURE = { perRow: 2, width: 60, height: 17 } as const;
/** Height of a box with its name alone, in a roomy box and in a tight one. */
export const NAME_HEIGHT = { roomy: 30, tight: 18 } as const;
export const NAME_WIDTH = { least: 96, most: 190, perCharacter: 8.3, rim: 46 } as const;
/** Widths of a character of a port's label, and of a shortened name. */
const CHARACTER = { port: 6.1, name: 6.9 } as const;
/** The least height that has a name in it. */
const LEAST_HEIGHT = 15;
/** From the border of a box to its name, and the least width of a box that has nothing else. */
const TIGHT = 3;
/** The same where ports have labels at the sides, though not in its row. */
const NAME_CLEAR = 8;
/** From the middle of a name to that of a label below or above it: half of the ink of both. */
const IN_ROW = 12;
const NAME_ONLY = 40;
const NAMELESS = 24;
/** The least that a name needs: four characters. */
const LEAST_NAME = 4;

/** A cable's end before it has its place: ordered along the side by where the far end lies, then by document order. */
export interface End {
  readonly port: PortId;
  readonly side: Side;
  readonly lean: number;
  readonly index: number;
}

export type Sides = Readonly<Record<Side, readonly End[]>>;

export const spotOf = (box: Box, attachment: Attachment): Point => ({
  x: box.centre.x - box.width / 2 + attachment.at.x,
  y: box.centre.y - box.height / 2 + attachment.at.y,
});

export function sidesOf(ends: readonly End[]): Sides {
  const bySide = (side: Side) =>
    ends.filter((end) => end.side === side).sort((a, b) => a.lean - b.lean || a.index - b.index);
  return { left: bySide('left'), right: bySide('right'), top: bySide('top'), bottom: bySide('bottom') };
}

export const rowsOf = (strands: number): number => Math.ceil(strands / FIGURE.perRow);
const rimOf = (ends: readonly End[]): number => (ends.length > 0 ? RIM.labels : RIM.bare);

/** How large a box would like to be: with every label, and every end `pitch` apart unless that made a wall of it. */
export function wishOf(
  sw: Skeleton['switches'][0],
  sides: Sides,
  pitch: number,
  { strands, tallest = Infinity }: MapDensity,
): Size {
  const across = Math.min(WALL.width, Math.max(sides.top.length, sides.bottom.length) * pitch + 16);
  const along = Math.min(WALL.height, Math.max(sides.left.length, sides.right.length) * pitch + 12);
  const name = sw.name.length * NAME_WIDTH.perCharacter + NAME_WIDTH.rim;
  if (sw.inside !== undefined) return groupWish(sw.name, across, along, strands);
  const figures = strands > 0 ? Math.min(FIGURE.perRow, strands) * FIGURE.width + 52 : 0;
  return {
    width: Math.round(Math.max(across, figures, Math.min(NAME_WIDTH.most, Math.max(NAME_WIDTH.least, name)))),
    height: Math.min(
      tallest,
      Math.max(along, NAME_HEIGHT.roomy + rimOf(sides.top) + rimOf(sides.bottom) + rowsOf(strands) * FIGURE.height),
    ),
  };
}

/** A folded group says what is in it in a row of its own, has one to unfold it, one for each tree, and one to spare for a root. */
export const GROUP = { width: 132, most: 230, row: 16, least: 66 } as const;
const groupRows = (strands: number): number => 2 + strands + (strands > 0 ? 1 : 0);

/** Height of a folded group that says all of it. */
export const groupHeight = (strands: number): number => NAME_HEIGHT.roomy + groupRows(strands) * GROUP.row + 8;

function groupWish(name: string, across: number, along: number, strands: number): Size {
  return {
    width: Math.max(across, Math.min(GROUP.most, Math.max(GROUP.width, name.length * NAME_WIDTH.perCharacter + 70))),
    height: Math.max(along, groupHeight(strands)),
  };
}

/** A box with many ports grows no further than this: its ports change together. */
const WALL = { width: 260, height: 200 } as const;

export function boxOf(
  sw: Skeleton['switches'][0],
  centre: Point,
  sides: Sides,
  pitch: number,
  room: Size,
  { strands }: MapDensity,
): Box {
  const { height } = room;
  const group = sw.inside !== undefined;
  const figures = group ? 0 : rowsOf(strands) * FIGURE.height;
  // Where only the name is left, so is its width: boxes in a column look alike.
  const nameOnly = height < NAME_HEIGHT.tight + Math.max(1, figures);
  const named = height >= LEAST_HEIGHT && room.width >= LEAST_NAME * CHARACTER.name + 2 * TIGHT;
  const busiest = named ? Math.max(sides.top.length, sides.bottom.length) * 6 + 12 : 0;
  const alone = named ? Math.max(NAME_ONLY, sw.name.length * CHARACTER.name + 2 * TIGHT + 4) : NAMELESS;
  const width = nameOnly ? Math.min(room.width, Math.max(busiest, alone)) : room.width;
  const labelled = !group && height >= NAME_HEIGHT.tight + figures + rimOf(sides.top) + rimOf(sides.bottom);
  const fits = (ends: readonly End[]): boolean =>
    labelled &&
    ends.every(
      ({ port }) =>
        isSheafEnd(port) ||
        (Math.min(5, port.length) + 1) * CHARACTER.port <= Math.min(pitch, (width - 8) / ends.length),
    );
  const labels = {
    top: fits(sides.top),
    bottom: fits(sides.bottom),
    left: !group && width >= 90 && height / Math.max(1, sides.left.length) >= RIM.labels,
    right: !group && width >= 90 && height / Math.max(1, sides.right.length) >= RIM.labels,
  };
  const rims = {
    top: labels.top ? rimOf(sides.top) : RIM.bare,
    bottom: labels.bottom ? rimOf(sides.bottom) : RIM.bare,
  };
  const beside = ['left', 'right'].some((side) => labels[side as Side] && sides[side as Side].length > 0) ? 19 : TIGHT;
  const free = height - rims.top - rims.bottom;
  const figured =
    !group &&
    strands > 0 &&
    free >= NAME_HEIGHT.tight + figures &&
    width >= Math.min(FIGURE.perRow, strands) * FIGURE.width;
  const spread = (side: Side): Attachment[] => {
    const ends = sides[side];
    const upright = side === 'left' || side === 'right';
    const [length, depth] = upright ? [height, width] : [width, height];
    // Labels of two sides keep clear of each other at the corner.
    const edge = Math.min(upright ? Math.max(rims.top, rims.bottom) : Math.max(8, beside - 3), length / 3);
    const wishes = ends.map(({ lean }) => length / 2 + (lean * depth) / 2);
    const spots = spreadAlong(wishes, pitch, Math.min(edge + 4, length / 2), Math.max(length - edge - 4, length / 2));
    const room = ends.length > 1 ? Math.min(pitch, (length - 2 * edge) / ends.length) : pitch;
    return ends.map((end, i) => ({
      port: end.port,
      side,
      room,
      at: upright ? { x: side === 'left' ? 0 : width, y: spots[i]! } : { x: spots[i]!, y: side === 'top' ? 0 : height },
    }));
  };
  const attachments = SIDES.flatMap(spread);
  // A name makes room for the labels that stand in its row, and for no others.
  const middle = rims.top + (free - (figured ? figures : 0)) / 2;
  const crowded = attachments.some(
    ({ side, at }) => (side === 'left' || side === 'right') && labels[side] && Math.abs(at.y - middle) < IN_ROW,
  );
  const nameWidth = width - 2 * (crowded ? beside : Math.min(beside, NAME_CLEAR));
  const roomy = sw.name.length * NAME_WIDTH.perCharacter <= nameWidth && free >= NAME_HEIGHT.tight;
  const characters = Math.floor(nameWidth / CHARACTER.name);
  return {
    id: sw.id,
    centre,
    width,
    height,
    attachments,
    rims,
    beside,
    labels,
    name:
      height >= LEAST_HEIGHT && characters >= LEAST_NAME ? (roomy ? sw.name : shortened(sw.name, characters)) : null,
    nameWidth,
    tight: !roomy,
    figures: figured,
    rows: group && width >= GROUP.least ? Math.max(0, Math.floor((free - NAME_HEIGHT.tight) / GROUP.row)) : 0,
    hostSide: sides.top.length < sides.bottom.length ? 'top' : 'bottom',
    hosts: { rows: 0, width: 0 },
  };
}

const SIDES: readonly Side[] = ['left', 'right', 'top', 'bottom'];
