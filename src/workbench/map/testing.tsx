/** What tests of the map share: plain boxes and lines, and every link of a design drawn as from near. */
import type { Design } from '../../core/model/document';
import type { LinkId, SwitchId } from '../../core/model/ids';
import type { Box, Line, Point } from './drawn';
import { layOutMap, positionsOf, skeletonOf } from './geometry';
import { LinkView } from './LinkView';
import { useLabels } from './useLabels';

/** A box without ports, 100 by 40. */
export const plainBox = (id: string, { x, y }: Point = { x: 0, y: 0 }, hostSide: Box['hostSide'] = 'bottom'): Box => ({
  id: id as SwitchId,
  centre: { x, y },
  width: 100,
  height: 40,
  attachments: [],
  hostSide,
  hosts: { rows: 0, width: 0 },
  rims: { top: 0, bottom: 0 },
  beside: 3,
  nameWidth: 84,
  labels: { top: false, bottom: false, left: false, right: false },
  name: id,
  tight: false,
  figures: false,
  rows: 0,
});

export const plainLine = (link: string, from: Point, to: Point): Line => ({
  link: link as LinkId,
  from,
  to,
  bends: [],
  loops: false,
  gap: 7,
});

/** The lines of a design as placed, at scale 1. */
export function linesOf(design: Design): readonly Line[] {
  const bones = skeletonOf(design, null);
  return layOutMap(bones, positionsOf(bones), { strands: 1 }).lines;
}

/** Every link of a design with the labels that it has room for. */
export function DrawnLinks({ design }: { readonly design: Design }) {
  const lines = linesOf(design);
  const near = design.links.map((link, i) => ({ link, line: lines[i]!, speed: 1000 }));
  const labels = useLabels(near, design.links, lines, NO_BOXES, NOTHING, NOTHING);
  return near.map(({ link, line, speed }) => (
    <LinkView key={link.id} link={link} line={line} speed={speed} labels={labels.get(link.id)} />
  ));
}

const NO_BOXES: readonly Box[] = [];
const NOTHING: readonly never[] = [];
