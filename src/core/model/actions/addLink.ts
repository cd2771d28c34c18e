import { pluggedIn } from '../plugs';
import { action, among, unless } from './kind';
import { addDead, newLink, setUp } from './linkFields';

export const addLink = action(
  'add-link',
  { link: newLink },
  {
    faults({ link }, topology) {
      if (topology.links.some((each) => each.id === link.id))
        return [{ field: 'link.id', found: link.id, allowed: 'an id that no other link has' }];
      const taken = pluggedIn(topology);
      return (['a', 'b'] as const).flatMap((side) => {
        const end = link[side];
        const sw = topology.switches.find((each) => each.id === end.switch);
        if (!sw) return unless(topology.switches, end.switch, `link.${side}.switch`, 'a switch');
        const [field, found, ports] = [`link.${side}.port`, end.port, sw.ports.map(({ id }) => id)];
        if (!ports.includes(end.port)) return [{ field, found, allowed: `a port of ${end.switch}: ${among(ports)}` }];
        return taken(end.switch, end.port) ? [{ field, found, allowed: 'a port that nothing is plugged into' }] : [];
      });
    },
    arrivals: ({ link }) => [addDead(link)],
    happens: ({ link }) => ({ changes: [setUp(link.id, true)] }),
    text: ({ link }, names) => `A new cable joins ${names.end(link.a)} and ${names.end(link.b)}`,
    brings: ({ link }) => ({ switches: [], links: [link.id] }),
  },
);
