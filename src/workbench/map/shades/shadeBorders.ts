/** What is written on links between two shades: what differs there, or what becomes of trees. Pure. */
import type { LinkId } from '../../../core/model/ids';
import type { Box, Line } from '../geometry';
import { around, Occupied, type Rectangle } from '../occupied';

/** Room around a text, and the width of a character against the height of a line. */
const RIM = 4;
const CHARACTER = 0.58;
/** Room for the hosts that are listed beside a box. */
const HOSTS = 40;
/** Where along a link it may stand. */
const ALONG = [0.5, 0.4, 0.6, 0.3, 0.7] as const;

export interface ShadeBorder {
  readonly link: LinkId;
  readonly label: string;
  readonly at: Rectangle;
}

/** One for each link that `labelOf` has a label for, where there is room beside boxes, names and one another. */
export function bordersOf(
  boxes: readonly Box[],
  lines: readonly Line[],
  labelOf: (link: LinkId) => string | null,
  names: readonly Rectangle[],
  size: number,
): ShadeBorder[] {
  const taken = new Occupied();
  for (const name of names) taken.take(name);
  for (const { centre, width, height, hostSide } of boxes) {
    const away = hostSide === 'top' ? -HOSTS / 2 : HOSTS / 2;
    taken.take(around({ x: centre.x, y: centre.y + away }, width, height + HOSTS));
  }
  const found: ShadeBorder[] = [];
  for (const { link, from, to, loops } of lines) {
    const label = loops ? null : labelOf(link as LinkId);
    if (label === null) continue;
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
