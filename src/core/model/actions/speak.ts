import { z } from '../../base/zod';
import { DIALECTS, traitsOf } from '../dialect';
import type { RegionId } from '../ids';
import { action, unless } from './kind';
import { aboutSwitch, switchFaults, switchFields } from './switchFields';
import { firstFault } from './treeFields';

/** Another dialect, or another MST configuration: the bridge's protocol starts over, its ports keep their signal. */
export const speak = action(
  'speak',
  {
    ...switchFields,
    dialect: z.enum(DIALECTS),
    region: z
      .string()
      .transform((id) => id as RegionId)
      .optional(),
  },
  {
    faults: (action, topology) =>
      firstFault(
        switchFaults(action, topology),
        action.region === undefined ? [] : unless(topology.regions, action.region, 'region', 'a region'),
      ),
    happens: ({ switch: sw, dialect, region = null }) => ({
      changes: [{ do: 'set-switch', switch: sw, dialect, region }],
    }),
    text({ switch: sw, dialect, region: id }, names, { regions }) {
      const region = regions.find((each) => each.id === id);
      const of = region ? `, region ${region.name || region.id}` : '';
      return `${names.switch(sw)} changes to ${traitsOf(dialect).name}${of}`;
    },
    turns: () => true,
    about: aboutSwitch,
  },
);
