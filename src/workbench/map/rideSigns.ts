/** Which cables BPDUs ride along, and which way. Pure. */
import type { Link } from '../../core/model/document';
import type { LinkId } from '../../core/model/ids';
import { isSelected, type Selection } from '../state/selection';
import type { Ride } from '../state/workbench';

export interface RideSign {
  readonly link: LinkId;
  /** From the link's first end to its second one. */
  readonly forward: boolean;
  /** Whether some of them come back to their sender. */
  readonly returns: boolean;
}

/** Of all rides, or of those that come in at the ports that are selected; each direction of a cable once. */
export function ridesBy(rides: readonly Ride[], selection: Selection | null, links: readonly Link[]): RideSign[] {
  const chosen = rides.filter(({ switch: sw, port }) => isSelected(selection, { kind: 'port', switch: sw, port }));
  const byId = new Map(links.map((link) => [link.id, link]));
  const found = new Map<string, RideSign>();
  for (const { ride, returns } of chosen.length > 0 ? chosen : rides)
    for (const { link, from } of ride) {
      const forward = byId.get(link)?.a.switch === from;
      const key = `${link} ${forward}`;
      found.set(key, { link, forward, returns: returns || (found.get(key)?.returns ?? false) });
    }
  return [...found.values()];
}
