import { z } from '../../base/zod';
import { nameOf } from '../names';
import { switchSchema } from '../switch';
import { action } from './kind';
import { addDead, newLink, setUp } from './linkFields';
import { power } from './switchFields';

/** A switch that is not in the design, and the cables that come with it. */
export const addSwitch = action(
  'add-switch',
  { switch: switchSchema, links: z.array(newLink).default([]) },
  {
    faults: ({ switch: sw }, { switches }) =>
      switches.some((each) => each.id === sw.id)
        ? [{ field: 'switch.id', found: sw.id, allowed: 'an id that no other switch has' }]
        : [],
    arrivals: ({ switch: sw, links }) => [{ do: 'add-switch', switch: { ...sw, up: false } }, ...links.map(addDead)],
    happens: ({ switch: sw, links }) => ({ changes: [power(sw.id, true), ...links.map(({ id }) => setUp(id, true))] }),
    text({ switch: sw, links }) {
      const cables = links.length > 0 ? ` with ${links.length} ${links.length === 1 ? 'cable' : 'cables'}` : '';
      return `A new switch, ${nameOf(sw)}, is plugged in${cables}`;
    },
    brings: ({ switch: sw, links }) => ({ switches: [sw], links: links.map(({ id }) => id) }),
  },
);
