import { z } from '../../base/zod';
import { PORT_DIALECTS } from '../dialect';
import { bridgePortFields } from '../port';
import { nodeOf, valueText } from '../field';
import { action, among, ids } from './kind';
import { aboutSwitch, switchFaults, switchFields } from './switchFields';

/** Ports or bundles of a switch speak otherwise than it does, or again as it does: its protocol starts over, its ports keep their signal. */
export const portSpeaks = action(
  'port-speaks',
  { ...switchFields, ports: z.array(ids.bridgePort).min(1), speaks: z.enum(PORT_DIALECTS).nullable() },
  {
    faults(action, topology) {
      const faults = switchFaults(action, topology);
      if (faults.length > 0) return faults;
      const sw = topology.switches.find(({ id }) => id === action.switch)!;
      const own = topology.bundles.filter((bundle) => bundle.switch === sw.id);
      const known = [...sw.ports, ...own].map(({ id }) => id as string);
      const wrong = action.ports.find((port) => !known.includes(port));
      if (wrong === undefined) return [];
      return [{ field: 'ports', found: wrong, allowed: `a port of ${sw.id}: ${among(known)}` }];
    },
    happens: ({ switch: sw, ports, speaks }) => ({
      changes: ports.map((port) => ({ do: 'set-port', switch: sw, port, speaks })),
    }),
    text: ({ switch: sw, ports, speaks }, names) =>
      `${names.switch(sw)} ${ports.length === 1 ? 'port' : 'ports'} ${ports.join(', ')}: ${valueText(nodeOf(bridgePortFields.speaks), speaks ?? undefined, names)}`,
    turns: () => true,
    about: aboutSwitch,
  },
);
