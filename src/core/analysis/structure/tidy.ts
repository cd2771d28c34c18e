/** Tidying: new places for a design's switches but those that are pinned to theirs. */
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import type { Level } from './blocks';
import { structuredPlaces, type Place } from './places';

/** New places by the structure of the network, all of them moved so that those that are pinned stand about where they would. */
export function tidiedPlaces(
  { switches, links }: Pick<Design, 'switches' | 'links'>,
  levelOf?: (id: SwitchId) => Level,
): Map<SwitchId, Place> {
  const places = structuredPlaces({ switches, links }, levelOf);
  const pinned = switches.filter((sw) => sw.pinned && sw.position);
  if (pinned.length === 0) return places;
  const by = { x: 0, y: 0 };
  for (const { id, position } of pinned) {
    const at = places.get(id)!;
    by.x += (position!.x - at.x) / pinned.length;
    by.y += (position!.y - at.y) / pinned.length;
    places.delete(id);
  }
  return new Map([...places].map(([id, { x, y }]) => [id, { x: Math.round(x + by.x), y: Math.round(y + by.y) }]));
}
