/**
 * Where everything on the map goes: boxes of switches, and for each link the points on two boxes' sides between which it
 * runs. Pure; map units are CSS pixels at zoom 1. Positions of switches are the centres of their boxes.
 */
import type { LinkId, PortId, SwitchId } from '../../core/model/ids';
import type { Point } from '../state/align';
import type { Design, LinkEnd } from '../../core/model/document';

export type { Point };
export type Side = 'left' | 'right' | 'top' | 'bottom';

/** Where a port's cable meets its switch's box. */
export interface Attachment {
  readonly port: PortId;
  readonly side: Side;
  /** Distance from the box's top left corner. */
  readonly at: Point;
}

export interface Box {
  readonly id: SwitchId;
  readonly centre: Point;
  readonly width: number;
  readonly height: number;
  readonly attachments: readonly Attachment[];
  /** On which side the hosts are listed. */
  readonly hostSide: 'top' | 'bottom';
  /** Room kept free for port labels at the top and the bottom. */
  readonly rims: { readonly top: number; readonly bottom: number };
}

/** What a layer of the map is given: the switches' boxes, and the links' lines. */
export interface LayerProps {
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
}

/** A link as drawn: from point to point. `loops` where both ends are on one switch. */
export interface Line {
  readonly link: LinkId;
  readonly from: Point;
  readonly to: Point;
  readonly loops: boolean;
}

/** What of a design decides where things go: an edit of anything else leaves the drawing in place. */
export interface Skeleton {
  readonly switches: readonly {
    readonly id: SwitchId;
    readonly name: string;
    readonly tier: Design['switches'][0]['tier'];
    readonly position: Point | undefined;
  }[];
  readonly links: Design['links'];
  readonly hosts: Design['hosts'];
}

/** The skeleton of a design; `before` itself where nothing in it has changed. */
export function skeletonOf({ switches, links, hosts }: Design, before: Skeleton | null): Skeleton {
  const same =
    before !== null &&
    before.links === links &&
    before.hosts === hosts &&
    before.switches.length === switches.length &&
    before.switches.every((old, i) => {
      const sw = switches[i]!;
      return (
        old.id === sw.id && old.name === (sw.name ?? sw.id) && old.tier === sw.tier && old.position === sw.position
      );
    });
  if (same) return before;
  return {
    switches: switches.map(({ id, name, tier, position }) => ({ id, name: name ?? id, tier, position })),
    links,
    hosts,
  };
}

export interface MapGeometry {
  readonly boxes: readonly Box[];
  readonly lines: readonly Line[];
}

/** How much is drawn: `strands` is the number side by side on each link, each with a figure under every name. */
export interface MapDensity {
  readonly strands: number;
}

/** Distance between strands that run side by side. */
export const STRAND_GAP = 7;
const MIN_PITCH = 22;
const RIM = 13;
/** Root path costs under a name: two a row, each with room for a knot. */
const FIGURE = { perRow: 2, width: 60, height: 17 } as const;
const HOST_ROW = 16;
/** The least that counts as the whole map: two switches must not fill the screen. */
const LEAST = { width: 640, height: 420 } as const;
const NAME_WIDTH = { least: 96, most: 190, perCharacter: 8.3, rim: 46 } as const;

/** Lays out the whole map. `positions` gives every switch a centre. */
export function layOutMap(design: Skeleton, positions: ReadonlyMap<SwitchId, Point>, density: MapDensity): MapGeometry {
  const pitch = Math.max(MIN_PITCH, density.strands * STRAND_GAP + 10);
  const ends = new Map<SwitchId, End[]>(design.switches.map((sw) => [sw.id, []]));
  design.links.forEach((link, index) => {
    ends.get(link.a.switch)?.push(endOf(link.a, link.b, index, 0));
    ends.get(link.b.switch)?.push(endOf(link.b, link.a, index, 1));
  });
  const boxes = design.switches.map((sw) => boxOf(sw, centreOf(sw.id), ends.get(sw.id) ?? [], pitch, density));
  const spots = new Map(boxes.map((box) => [box.id, new Map(box.attachments.map((a) => [a.port, spotOf(box, a)]))]));
  const spot = (end: LinkEnd): Point => spots.get(end.switch)?.get(end.port) ?? centreOf(end.switch);
  const lines = design.links.map((link) => ({
    link: link.id,
    from: spot(link.a),
    to: spot(link.b),
    loops: link.a.switch === link.b.switch,
  }));
  return { boxes, lines };

  function centreOf(id: SwitchId): Point {
    return positions.get(id) ?? { x: 0, y: 0 };
  }
  function endOf(near: LinkEnd, far: LinkEnd, index: number, half: number): End {
    const [a, b] = [centreOf(near.switch), centreOf(far.switch)];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    if (near.switch === far.switch) return { port: near.port, side: 'top', lean: 0, index: index + half / 2 };
    if (Math.abs(dx) > Math.abs(dy) * 1.1) {
      return { port: near.port, side: dx > 0 ? 'right' : 'left', lean: dy / Math.abs(dx), index };
    }
    return { port: near.port, side: dy > 0 ? 'bottom' : 'top', lean: dx / Math.max(1, Math.abs(dy)), index };
  }
}

/** A cable's end before it has its place: ordered along the side by where the far end lies, then by document order. */
interface End {
  readonly port: PortId;
  readonly side: Side;
  readonly lean: number;
  readonly index: number;
}

const spotOf = (box: Box, attachment: Attachment): Point => ({
  x: box.centre.x - box.width / 2 + attachment.at.x,
  y: box.centre.y - box.height / 2 + attachment.at.y,
});

function boxOf(
  sw: Skeleton['switches'][0],
  centre: Point,
  ends: readonly End[],
  pitch: number,
  { strands }: MapDensity,
): Box {
  const bySide = (side: Side) =>
    ends.filter((end) => end.side === side).sort((a, b) => a.lean - b.lean || a.index - b.index);
  const sides = { left: bySide('left'), right: bySide('right'), top: bySide('top'), bottom: bySide('bottom') };
  const across = Math.max(sides.top.length, sides.bottom.length) * pitch + 16;
  const along = Math.max(sides.left.length, sides.right.length) * pitch + 12;
  const name = sw.name.length * NAME_WIDTH.perCharacter + NAME_WIDTH.rim;
  const rims = { top: sides.top.length > 0 ? RIM : 3, bottom: sides.bottom.length > 0 ? RIM : 3 };
  const figures = strands > 0 ? Math.min(FIGURE.perRow, strands) * FIGURE.width + 52 : 0;
  const width = Math.round(Math.max(across, figures, Math.min(NAME_WIDTH.most, Math.max(NAME_WIDTH.least, name))));
  const height = Math.max(along, 30 + rims.top + rims.bottom + Math.ceil(strands / FIGURE.perRow) * FIGURE.height);
  const spread = (side: Side, list: readonly End[]): Attachment[] =>
    list.map((end, i) => {
      const shift = (i - (list.length - 1) / 2) * pitch;
      const at =
        side === 'left' || side === 'right'
          ? { x: side === 'left' ? 0 : width, y: height / 2 + shift }
          : { x: width / 2 + shift, y: side === 'top' ? 0 : height };
      return { port: end.port, side, at };
    });
  const attachments = (Object.keys(sides) as Side[]).flatMap((side) => spread(side, sides[side]));
  return {
    id: sw.id,
    centre,
    width,
    height,
    attachments,
    rims,
    hostSide: sides.top.length < sides.bottom.length ? 'top' : 'bottom',
  };
}

/** Centres for every switch: its own position, else a place in the row of its tier, below everything that is placed. */
export function positionsOf(design: Skeleton): Map<SwitchId, Point> {
  const positions = new Map<SwitchId, Point>();
  const placed = design.switches.flatMap((sw) => sw.position ?? []);
  const top = placed.length > 0 ? Math.max(...placed.map((p) => p.y)) + 180 : 0;
  let row = 0;
  for (const sw of design.switches) if (sw.position) positions.set(sw.id, sw.position);
  for (const tier of ['core', 'distribution', 'access'] as const) {
    const loose = design.switches.filter((sw) => sw.tier === tier && !sw.position);
    for (let i = 0; i < loose.length; i += ROW) {
      const part = loose.slice(i, i + ROW);
      part.forEach((sw, j) => positions.set(sw.id, { x: (j - (part.length - 1) / 2) * 210, y: top + row * 170 }));
      row += 1;
    }
  }
  return positions;
}

const ROW = 12;

/** The rectangle that holds everything drawn, lists of hosts and cables that loop back included. */
export function boundsOf(
  design: Skeleton,
  { boxes }: MapGeometry,
): { x: number; y: number; width: number; height: number } {
  const hosts = new Map<SwitchId, number>();
  for (const host of design.hosts)
    for (const id of new Set(host.attach.map((at) => at.switch))) hosts.set(id, (hosts.get(id) ?? 0) + 1);
  const loops = new Set(design.links.filter((link) => link.a.switch === link.b.switch).map((link) => link.a.switch));
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { id, centre, width, height, hostSide } of boxes) {
    const listed = (hosts.get(id) ?? 0) * HOST_ROW + (hosts.has(id) ? 8 : 0);
    const above = Math.max(hostSide === 'top' ? listed : 0, loops.has(id) ? 70 : 0);
    left = Math.min(left, centre.x - width / 2);
    right = Math.max(right, centre.x + Math.max(width / 2, listed > 0 ? 190 - width / 2 : 0));
    top = Math.min(top, centre.y - height / 2 - above);
    bottom = Math.max(bottom, centre.y + height / 2 + (hostSide === 'bottom' ? listed : 0));
  }
  if (boxes.length === 0) return { x: -LEAST.width / 2, y: -LEAST.height / 2, ...LEAST };
  const [width, height] = [Math.max(LEAST.width, right - left), Math.max(LEAST.height, bottom - top)];
  return { x: (left + right - width) / 2, y: (top + bottom - height) / 2, width, height };
}

/** How many switches stand side by side in a layout of rows: about as wide as a screen is, for its height. */
export const rowLength = (switches: number, step: { readonly x: number; readonly y: number }): number =>
  Math.max(12, Math.ceil(Math.sqrt((switches * 1.7 * step.y) / step.x)));
