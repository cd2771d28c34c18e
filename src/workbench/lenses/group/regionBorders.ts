/** Where two MSTP switches are cabled that are not in one region: what differs, to be written on the link. Pure. */
import { partsThatDiffer, type Region } from '../../../core/analysis/regions/regions';
import type { LinkId, SwitchId } from '../../../core/model/ids';
import type { Box, Line } from '../../map/geometry';
import { around, Occupied, type Rectangle } from '../../map/occupied';

/** Room around a text, and the width of a character against the height of a line. */
const RIM = 4;
const CHARACTER = 0.58;
/** Room for the hosts that are listed beside a box. */
const HOSTS = 40;
/** Where along a link it may stand. */
const ALONG = [0.5, 0.4, 0.6, 0.3, 0.7] as const;

export interface RegionBorder {
  readonly link: LinkId;
  readonly label: string;
  readonly at: Rectangle;
}

/** One for each link between two regions, where there is room beside boxes, names and one another. */
export function bordersOf(
  regions: readonly Region[],
  boxes: readonly Box[],
  lines: readonly Line[],
  endsOf: (link: LinkId) => readonly [SwitchId, SwitchId] | undefined,
  names: readonly Rectangle[],
  size: number,
): RegionBorder[] {
  const regionOf = new Map(regions.flatMap((region) => region.switches.map((id) => [id, region] as const)));
  const taken = new Occupied();
  for (const name of names) taken.take(name);
  for (const { centre, width, height, hostSide } of boxes) {
    const away = hostSide === 'top' ? -HOSTS / 2 : HOSTS / 2;
    taken.take(around({ x: centre.x, y: centre.y + away }, width, height + HOSTS));
  }
  const found: RegionBorder[] = [];
  for (const { link, from, to, loops } of lines) {
    const ends = endsOf(link);
    const [a, b] = (ends ?? []).map((id) => regionOf.get(id));
    if (loops || !a || !b || a === b) continue;
    const label = `≠ ${partsThatDiffer(a.map, b.map).join(', ')}`;
    const [width, height] = [label.length * size * CHARACTER + 2 * RIM, size + 2 * RIM];
    const at = ALONG.map((part) =>
      around({ x: from.x + part * (to.x - from.x), y: from.y + part * (to.y - from.y) }, width, height),
    ).find((place) => taken.free(place));
    if (!at) continue;
    taken.take(at);
    found.push({ link, label, at });
  }
  return found;
}
