/** Quiet outlines around groups that are drawn open, each with its name where there is room for it. Pure; pixels of the screen. */
import type { Filled } from '../../core/analysis/groups/groups';
import type { GroupId } from '../../core/model/ids';
import { nameOf } from '../../core/model/names';
import type { Box } from './drawn';
import { shortened } from '../ui/words/shortened';
import { hostsRectangle } from './hosts';
import { around, Occupied, overlaps, type Rectangle } from './occupied';

export interface Outline {
  readonly group: GroupId;
  readonly name: string;
  /** One around all of it, or around each of its boxes where others stand between them. */
  readonly rectangles: readonly Rectangle[];
  /** Where the name stands, as far as it is written; null where there is no room. */
  readonly label: { readonly at: Rectangle; readonly text: string } | null;
}

/** From boxes to the innermost outline, from each outline to the one around it, and where there is little room. */
const PAD = { box: 9, group: 8, least: 3 } as const;
export const NAME = { size: 11.5, height: 16, character: 6.6, most: 30, least: 5 } as const;

/** Outlines of groups, the outer ones first. */
export function outlinesOf(open: readonly Filled[], boxes: readonly Box[]): Outline[] {
  if (open.length === 0) return [];
  const at = new Map(boxes.map((box) => [box.id, box]));
  const taken = new Occupied();
  for (const box of boxes) {
    taken.take(around(box.centre, box.width, box.height));
    const hosts = hostsRectangle(box);
    if (hosts) taken.take(hosts);
  }
  const deepest = Math.max(...open.map(({ depth }) => depth));
  return open.flatMap(({ group, switches, depth }): Outline[] => {
    const own = switches.flatMap((id) => at.get(id) ?? []);
    if (own.length === 0) return [];
    const inside = new Set(own);
    const padded = (pad: number): Rectangle[] =>
      own.map(({ centre, width, height }) => around(centre, width + 2 * pad, height + 2 * pad));
    const alone = (hull: Rectangle): boolean =>
      boxes.every((box) => inside.has(box) || !overlaps(hull, around(box.centre, box.width, box.height)));
    const usual = PAD.box + (deepest - depth) * PAD.group;
    const whole = [usual, PAD.least].map((pad) => hullOf(padded(pad))).find(alone);
    const rectangles = whole ? [whole] : padded(PAD.least);
    const name = nameOf(group);
    const label = labelFor(name, rectangles[0]!, taken);
    if (label) taken.take(label.at);
    return [{ group: group.id, name, rectangles, label }];
  });
}

function hullOf(rectangles: readonly Rectangle[]): Rectangle {
  const [x, y] = [Math.min(...rectangles.map((r) => r.x)), Math.min(...rectangles.map((r) => r.y))];
  return {
    x,
    y,
    width: Math.max(...rectangles.map((r) => r.x + r.width)) - x,
    height: Math.max(...rectangles.map((r) => r.y + r.height)) - y,
  };
}

/** On the outline's upper or lower edge, or on its sides, whole or shortened. */
function labelFor(name: string, { x, y, width, height }: Rectangle, taken: Occupied): Outline['label'] {
  const room = Math.floor((width - 16) / NAME.character) - 1;
  for (const most of [NAME.most, Math.ceil(NAME.most / 2), NAME.least]) {
    const text = shortened(name, Math.min(most, room));
    if ([...text].length < Math.min(NAME.least, [...name].length)) continue;
    const wide = [...text].length * NAME.character + 8;
    const [upper, lower] = [y - NAME.height / 2, y + height - NAME.height / 2];
    const across = [x + 8, x + width - 8 - wide, x + (width - wide) / 2];
    const down = [0.25, 0.5, 0.75].map((share) => y + height * share);
    const spots = [
      ...[upper, lower].flatMap((top) => across.map((left) => [left, top] as const)),
      ...[x, x + width].flatMap((edge) => down.map((top) => [edge - wide / 2, top] as const)),
    ];
    for (const [left, top] of spots) {
      const at = { x: left, y: top, width: wide, height: NAME.height };
      if (taken.free(at)) return { at, text };
    }
    if (text === name) break;
  }
  return null;
}
