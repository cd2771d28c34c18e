/**
 * The map with groups folded: each is one box, boxes closer together than what is in them, and the links that cross its border run as one sheaf to each box beyond.
 * Unfolded again, everything is where it was. Pure.
 */
import type { Filled } from '../../core/analysis/groups/groups';
import type { Link } from '../../core/model/document';
import type { BridgePortId, GroupId, LinkId, PortId, SwitchId } from '../../core/model/ids';
import { nameOf } from '../../core/model/names';
import { AS_IS, closingOf } from './closed';
import type { Point, Skeleton } from './drawn';

/** What no identifier holds: so boxes of groups and sheaves are told from switches and links. */
const SIGN = '\n';

/** The box that stands for a group. */
export const boxOfGroup = (group: GroupId): SwitchId => `${SIGN}${group}` as SwitchId;
/** The group that a box stands for; null for a switch's own. */
export const groupOfBox = (box: SwitchId): GroupId | null => (box.startsWith(SIGN) ? (box.slice(1) as GroupId) : null);
/** Whether an end is one of a sheaf. */
export const isSheafEnd = (port: BridgePortId): boolean => port.startsWith(SIGN);

/** A skeleton in which some groups are folded. */
export interface FoldedSkeleton extends Skeleton {
  /** By box, the group that it stands for. */
  readonly groups: ReadonlyMap<SwitchId, Filled>;
  /** By line, the links that run in it. */
  readonly sheaves: ReadonlyMap<LinkId, readonly Link[]>;
  /** The place in the design of what is drawn here. */
  readonly opened: (point: Point) => Point;
}

const NO_GROUPS: FoldedSkeleton['groups'] = new Map();
const NO_SHEAVES: FoldedSkeleton['sheaves'] = new Map();

/** The skeleton with groups in the place of the switches that they stand for. */
export function foldSkeleton(whole: Skeleton, stands: ReadonlyMap<SwitchId, Filled>): FoldedSkeleton {
  if (stands.size === 0) return { ...whole, groups: NO_GROUPS, sheaves: NO_SHEAVES, opened: AS_IS.opened };
  const groups = new Map<SwitchId, Filled>();
  const byId = new Map(whole.switches.map((sw) => [sw.id, sw]));
  const boxFor = (id: SwitchId): SwitchId => {
    const filled = stands.get(id);
    return filled ? boxOfGroup(filled.group.id) : id;
  };
  const switches = whole.switches.flatMap((sw): Skeleton['switches'][0][] => {
    const filled = stands.get(sw.id);
    if (!filled) return [sw];
    const box = boxFor(sw.id);
    if (groups.has(box)) return [];
    groups.set(box, filled);
    const inside = filled.switches.flatMap((id) => byId.get(id) ?? []);
    return [
      {
        id: box,
        name: nameOf(filled.group),
        tier: TIERS.find((tier) => inside.some((each) => each.tier === tier)) ?? 'access',
        position: middleOf(inside.map(({ position }) => position)),
        inside: inside.length,
      },
    ];
  });
  const sheaves = new Map<LinkId, Link[]>();
  const links: Link[] = [];
  const between = new Map<LinkId, Link>();
  for (const link of whole.links) {
    const [a, b] = [boxFor(link.a.switch), boxFor(link.b.switch)];
    const [foldedA, foldedB] = [groups.has(a), groups.has(b)];
    if (!foldedA && !foldedB) links.push(link);
    else if (a !== b) {
      const [from, to] = a < b ? [a, b] : [b, a];
      const id = `${SIGN}${from}${SIGN}${to}` as LinkId;
      sheaves.set(id, [...(sheaves.get(id) ?? []), link]);
      const known = between.get(id);
      if (!known || (link.up && !known.up))
        between.set(id, {
          id,
          a: { switch: from, port: `${SIGN}${to}` as PortId },
          b: { switch: to, port: `${SIGN}${from}` as PortId },
          up: link.up,
        });
    }
  }
  const { closed, opened } = closingOf(switches.flatMap(({ position }) => position ?? []));
  return {
    switches: switches.map((sw) => (sw.position ? { ...sw, position: closed(sw.position) } : sw)),
    links: [...links, ...between.values()],
    hosts: whole.hosts,
    groups,
    sheaves,
    opened,
  };
}

const TIERS = ['core', 'distribution', 'access'] as const;

/** The middle of places; none where one of them is not known. */
function middleOf(places: readonly (Point | undefined)[]): Point | undefined {
  const known = places.filter((place) => place !== undefined);
  if (known.length === 0 || known.length < places.length) return undefined;
  const sum = known.reduce((a, b) => ({ x: a.x + b.x, y: a.y + b.y }));
  return { x: Math.round(sum.x / known.length), y: Math.round(sum.y / known.length) };
}
