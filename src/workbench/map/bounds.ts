/** What the whole map takes, whatever its scale. Pure. */
import type { SwitchId } from '../../core/model/ids';
import { FIGURE, GROUP, groupHeight, NAME_HEIGHT, NAME_WIDTH, RIM, rowsOf } from './boxes';
import { AFAR, HOST_ROW } from './hosts';
import type { MapDensity, Point, Skeleton } from './drawn';

/** What a map shows when all of it is in view: the middles of its switches, in map units, and the room around them for boxes and hosts, in pixels. */
export interface Bounds {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Around boxes of full size, and around the small ones of a map seen from afar. */
  readonly rims: { readonly near: Rim; readonly afar: Rim };
}

export interface Rim {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

const NO_RIM: Rim = { left: 0, right: 0, top: 0, bottom: 0 };

/** Bounds with more room around them. */
export const widened = (bounds: Bounds, by: Rim): Bounds => ({
  ...bounds,
  rims: { near: sum(bounds.rims.near, by), afar: sum(bounds.rims.afar, by) },
});

const sum = (a: Rim, b: Rim): Rim => ({
  left: a.left + b.left,
  right: a.right + b.right,
  top: a.top + b.top,
  bottom: a.bottom + b.bottom,
});

/** Half of a small box, pixels. */
const SMALL = { width: 50, height: 24 } as const;

/** From the middle of a box with a list of hosts to the list's right end. */
const HOSTS_REACH = 100;

/** The bounds of a map, whatever its scale. */
export function boundsOf(design: Skeleton, places: ReadonlyMap<SwitchId, Point>, { strands }: MapDensity): Bounds {
  const all = design.switches.flatMap((sw) => places.get(sw.id) ?? []);
  if (all.length === 0) return { x: 0, y: 0, width: 0, height: 0, rims: { near: NO_RIM, afar: NO_RIM } };
  const [xs, ys] = [all.map((p) => p.x), all.map((p) => p.y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(...xs) - x, Math.max(...ys) - y];
  const hosts = new Map<SwitchId, number>();
  for (const host of design.hosts)
    for (const id of new Set(host.attach.map((at) => at.switch))) hosts.set(id, (hosts.get(id) ?? 0) + 1);
  const loops = design.links.some((link) => link.a.switch === link.b.switch);
  const half = {
    width:
      Math.min(
        NAME_WIDTH.most,
        Math.max(...design.switches.map((sw) => sw.name.length * NAME_WIDTH.perCharacter + NAME_WIDTH.rim)),
      ) / 2,
    height: (NAME_HEIGHT.roomy + 2 * RIM.labels + rowsOf(strands) * FIGURE.height) / 2,
  };
  // Folded groups have the same size near and far.
  const grouped = design.switches.some((sw) => sw.inside !== undefined);
  const least = grouped ? { width: GROUP.width / 2, height: groupHeight(strands) / 2 } : { width: 0, height: 0 };
  const listed = (id: SwitchId): number => Math.min(AFAR, hosts.get(id) ?? 0) * HOST_ROW + 8;
  // A list hangs from the side with fewer cables; which one that is depends on the scale, so both count at the edge of the map.
  const edge = (top: boolean): number =>
    Math.max(
      0,
      ...design.switches.flatMap((sw) => {
        if (!hosts.has(sw.id)) return [];
        const place = places.get(sw.id);
        const near = place && (top ? place.y - y : y + height - place.y) < height * 0.12 + 1;
        const own = design.links.filter((link) => link.a.switch === sw.id || link.b.switch === sw.id);
        const above = own.filter(
          (link) => (places.get(link.a.switch === sw.id ? link.b.switch : link.a.switch)?.y ?? 0) < (place?.y ?? 0),
        ).length;
        const hangsAbove = above < own.length - above;
        return near && hangsAbove === top ? [listed(sw.id)] : [];
      }),
    );
  const [above, below] = [Math.max(edge(true), loops ? 70 : 0), edge(false)];
  const rimOf = (box: { readonly width: number; readonly height: number }): Rim => ({
    left: Math.max(box.width, least.width) + 4,
    right: Math.max(box.width, least.width, hosts.size > 0 ? HOSTS_REACH : 0) + 4,
    top: Math.max(box.height, least.height) + 4 + above,
    bottom: Math.max(box.height, least.height) + 4 + below,
  });
  return { x, y, width, height, rims: { near: rimOf(half), afar: rimOf(SMALL) } };
}
