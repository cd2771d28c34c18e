import type { LinkId, SwitchId } from '../ids';
import { action, ids, type ActionFault, type Topology } from './kind';
import { linkFaults, linkFields } from './linkFields';

/** The link must be there, and `from` at one of its ends. */
export function oneWayFaults(
  action: { readonly link: LinkId; readonly from?: SwitchId | undefined },
  topology: Topology,
): ActionFault[] {
  const gone = linkFaults(action, topology);
  const link = topology.links.find((each) => each.id === action.link);
  if (gone.length > 0 || action.from === undefined || !link) return gone;
  const ends = [link.a.switch, link.b.switch];
  if (ends.includes(action.from)) return [];
  return [{ field: 'from', found: action.from, allowed: `an end of the link: ${ends.join(' or ')}` }];
}

/** What the switch `from` sends over the link no longer arrives; without it, what the first end sends. */
export const oneWay = action(
  'one-way',
  { ...linkFields, from: ids.switch.optional() },
  {
    faults: oneWayFaults,
    happens: ({ link, from }) => ({ mute: { link, from, on: true } }),
    text: ({ link, from }, names) =>
      `The link ${names.link(link)} no longer carries what ${from ? names.switch(from) : 'its first end'} sends`,
  },
);
