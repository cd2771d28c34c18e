/**
 * Where everything on the map goes: boxes of switches, and for each link the points on two boxes' sides between which it
 * runs. Pure. Places of switches are the centres of their boxes, in map units; what is drawn is laid out in pixels of the
 * screen for a scale, so that text keeps its size: from afar boxes stand closer together and say less.
 */
import type { PortId, SwitchId } from '../../core/model/ids';
import { placesOf } from '../../core/analysis/structure/places';
import { boxOf, MIN_PITCH, sidesOf, spotOf, wishOf, type End, type Sides } from './boxes';
import {
  STRAND_GAP,
  type Box,
  type Line,
  type MapDensity,
  type MapGeometry,
  type Point,
  type Side,
  type Skeleton,
} from './drawn';
import { Detours } from './detours';
import { facing, type Sides2 } from './facing';
import { roomsFor, type Size } from './fit';
import { withHosts } from './hosts';
import { around } from './occupied';

export * from './drawn';

/** Lays out the whole map. `places` gives every switch a centre, in map units; the answer is in pixels at `density.scale`. */
export function layOutMap(design: Skeleton, places: ReadonlyMap<SwitchId, Point>, density: MapDensity): MapGeometry {
  const { scale = 1, quick = false } = density;
  const pitch = Math.max(MIN_PITCH, density.strands * STRAND_GAP + 10);
  const index = new Map(design.switches.map((sw, i) => [sw.id, i]));
  const ends = design.links.map(({ a, b }) => [index.get(a.switch) ?? -1, index.get(b.switch) ?? -1] as const);
  const centres = design.switches.map(({ id }): Point => {
    const { x, y } = places.get(id) ?? { x: 0, y: 0 };
    return { x: x * scale, y: y * scale };
  });
  const usual = ends.map(([a, b]): Sides2 => [facing(centres[a]!, centres[b]!), facing(centres[b]!, centres[a]!)]);
  const sides = sidesOfAll(usual);
  const wishes = sides.map((own, i) => wishOf(design.switches[i]!, own, pitch, density));
  const joined = new Set(ends.flatMap(([a, b]) => [a * design.switches.length + b, b * design.switches.length + a]));
  // Between folded groups sheaves pass to those behind them.
  const apart = (i: number, j: number): boolean =>
    joined.has(i * design.switches.length + j) ||
    (design.switches[i]!.inside !== undefined && design.switches[j]!.inside !== undefined);
  const rooms = roomsFor(centres, wishes, apart);
  const boxAt = (own: Sides, i: number, room: Size): Box =>
    boxOf(design.switches[i]!, centres[i]!, own, pitch, room, density);
  const first = sides.map((own, i) => boxAt(own, i, rooms[i]!));
  const found = detoursOf(first);
  const best = ends.map(([a, b], l): Sides2 => (a === b ? ['top', 'top'] : quick ? usual[l]! : found.sides(a, b)));
  const boxes = withHosts(
    sidesOfAll(best).map((own, i) => boxAt(own, i, first[i]!)),
    design,
    scale,
  );
  const detours = detoursOf(boxes);
  const spots = boxes.map((box) => new Map(box.attachments.map((a) => [a.port, a])));
  const lines = design.links.map((link, l): Line => {
    const [i, j] = ends[l]!;
    const [a, b] = [spots[i]!.get(link.a.port)!, spots[j]!.get(link.b.port)!];
    const [from, to] = [spotOf(boxes[i]!, a), spotOf(boxes[j]!, b)];
    return {
      link: link.id,
      from,
      to,
      bends: i === j || quick ? NO_BENDS : detours.bends(from, to, [i, j]),
      loops: i === j,
      gap: Math.min(STRAND_GAP, (Math.min(a.room, b.room) * 0.8) / Math.max(1, density.strands)),
    };
  });
  return { boxes, lines };

  /** The ends of links on each side of each box, in the order in which they stand there. */
  function sidesOfAll(chosen: readonly Sides2[]): Sides[] {
    const all = design.switches.map((): End[] => []);
    design.links.forEach((link, l) => {
      const [a, b] = ends[l]!;
      all[a]!.push(endOf(link.a.port, chosen[l]![0], a, b, l));
      all[b]!.push(endOf(link.b.port, chosen[l]![1], b, a, l + (a === b ? 0.5 : 0)));
    });
    return all.map(sidesOf);
  }
  function endOf(port: PortId, side: Side, near: number, far: number, order: number): End {
    const [dx, dy] = [centres[far]!.x - centres[near]!.x, centres[far]!.y - centres[near]!.y];
    const [across, out] = side === 'left' || side === 'right' ? [dy, dx] : [dx, dy];
    return { port, side, lean: near === far ? 0 : across / Math.max(1, Math.abs(out)), index: order };
  }
}

const detoursOf = (boxes: readonly Box[]): Detours =>
  new Detours(boxes.map(({ centre, width, height }) => around(centre, width, height)));

/** Centres for every switch, in map units. */
export const positionsOf = (design: Skeleton): Map<SwitchId, Point> => placesOf(design);

const NO_BENDS: readonly Point[] = [];

/** How many switches stand side by side in a layout of rows: about as wide as a screen is, for its height. */
export const rowLength = (switches: number, step: { readonly x: number; readonly y: number }): number =>
  Math.max(12, Math.ceil(Math.sqrt((switches * 1.7 * step.y) / step.x)));
