import { z } from '../../base/zod';
import { MAX_ID, placedBeside } from '../common';
import { SPOKEN } from '../dialect';
import type { HostId, LinkId, PortId, SwitchId } from '../ids';
import { BRIDGE_PRIORITY, bridgePriority } from '../legal';
import { nameOf } from '../names';
import { switchSchema, type Switch } from '../switch';
import { action, ids, unless, type Topology } from './kind';

const shortened = (id: HostId): string => id.slice(0, MAX_ID - 8);
const bridgeOf = (host: HostId): SwitchId => `${shortened(host)}-bridge` as SwitchId;
const linkOf = (host: HostId): LinkId => `${shortened(host)}-inside` as LinkId;

/** The port that a host is plugged into with its one cable. */
const plugOf = ({ hosts, switches }: Topology, id: HostId) => {
  const host = hosts.find((each) => each.id === id);
  const [at, ...more] = host?.attach ?? [];
  const sw = switches.find((each) => each.id === at?.switch);
  const port = sw?.ports.find((each) => each.id === at?.port);
  return host && at && sw && port && more.length === 0 ? { host, at, sw, port } : null;
};

/** A bridge that is part of a host, as for machines inside of it, silent as yet: two ports, and frames pass through. */
function bridgeIn({ host, sw, port }: NonNullable<ReturnType<typeof plugOf>>, priority: number): Switch {
  return switchSchema.parse({
    id: bridgeOf(host.id),
    name: `bridge of ${nameOf(host)}`,
    mac: host.mac,
    priority,
    dialect: 'off',
    ports: [1, 2].map((number) => ({
      ...{ id: String(number), number, speed: port.speed, vlans: port.vlans, edge: number === 2 },
    })),
    ...placedBeside(sw),
  });
}

/**
 * A host begins to send BPDUs, as one with a bridge of its own does: the bridge is there from the beginning and passes frames
 * on; at the time it begins to speak. Its address is the host's.
 */
export const hostBpdus = action(
  'host-bpdus',
  {
    host: ids.host,
    dialect: z.enum(SPOKEN).default('rstp'),
    priority: bridgePriority.default(BRIDGE_PRIORITY.default),
  },
  {
    faults({ host }, topology) {
      const gone = unless(topology.hosts, host, 'host', 'a host');
      if (gone.length > 0) return gone;
      if (topology.switches.some(({ id }) => id === bridgeOf(host)))
        return [{ field: 'host', found: host, allowed: 'a host that does not send BPDUs as yet' }];
      return plugOf(topology, host) ? [] : [{ field: 'host', found: host, allowed: 'a host with one cable' }];
    },
    arrivals({ host: id, priority }, topology) {
      const plug = plugOf(topology, id);
      if (!plug) return [];
      const bridge = bridgeIn(plug, priority);
      const end = (port: string) => ({ switch: bridge.id, port: port as PortId });
      return [
        { do: 'add-switch', switch: bridge },
        { do: 'set-host', host: id, attach: [end('2')] },
        { do: 'add-link', link: { id: linkOf(id), a: plug.at, b: end('1'), up: true } },
      ];
    },
    happens: ({ host, dialect }) => ({ changes: [{ do: 'set-switch', switch: bridgeOf(host), dialect }] }),
    text: ({ host, priority }, names) => `The host ${names.host(host)} sends BPDUs, with bridge priority ${priority}`,
    turns: () => true,
    brings: ({ host, dialect }, { switches }) => ({
      switches: switches.flatMap((sw) => (sw.id === bridgeOf(host) ? { ...sw, dialect } : [])),
      links: [linkOf(host)],
    }),
  },
);
