/** Lists of hosts under or above the boxes of their switches: as long as there is room. Pure; pixels of the screen. */
import type { SwitchId } from '../../core/model/ids';
import type { Box, Skeleton } from './drawn';
import { around, Occupied, type Rectangle } from './occupied';

export const HOST_ROW = 16;
/** Before a list's first row; from the left edge of its box; the widest row. */
const HANG = { down: 5, left: 14, widest: 190 } as const;
const CHARACTER = 6.4;
/** Below this scale no list has more rows than this: the whole map matters more. */
export const NEAR = 0.75;
export const AFAR = 2;

/** The rectangle of a box's list of hosts; null where it has none. */
export function hostsRectangle({ centre, width, height, hosts, hostSide }: Box): Rectangle | null {
  if (hosts.rows === 0) return null;
  const tall = HANG.down + hosts.rows * HOST_ROW;
  return {
    x: centre.x - width / 2 + HANG.left,
    y: hostSide === 'bottom' ? centre.y + height / 2 : centre.y - height / 2 - tall,
    width: hosts.width,
    height: tall,
  };
}

/** The boxes with the rows that their lists of hosts have room for. */
export function withHosts(boxes: readonly Box[], { hosts }: Pick<Skeleton, 'hosts'>, scale: number): Box[] {
  const names = new Map<SwitchId, string[]>();
  for (const host of hosts)
    for (const id of new Set(host.attach.map((at) => at.switch)))
      names.set(id, [
        ...(names.get(id) ?? []),
        `${host.attach.map((at) => at.port).join('+')} ${host.name ?? host.id} ${host.vlan}`,
      ]);
  const taken = new Occupied();
  for (const box of boxes) taken.take(around(box.centre, box.width, box.height));
  return boxes.map((box) => {
    const own = names.get(box.id);
    if (!own) return box;
    const width = Math.min(HANG.widest, Math.max(...own.map((name) => name.length)) * CHARACTER + 14);
    for (let rows = scale < NEAR ? Math.min(AFAR, own.length) : own.length; rows > 0; rows -= 1) {
      const tried = { ...box, hosts: { rows, width } };
      const rectangle = hostsRectangle(tried)!;
      // Its own box touches it.
      if (!taken.free({ ...rectangle, y: rectangle.y + (box.hostSide === 'bottom' ? 1 : -1) })) continue;
      taken.take(rectangle);
      return tried;
    }
    return box;
  });
}
