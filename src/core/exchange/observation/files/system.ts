/** A Linux bridge, or a bridge of Open vSwitch, as an observed switch: by what its own tools print. */
import { z } from '../../../base/zod';
import { macAddress } from '../../../model/legal';
import { vlanSet, VlanSet } from '../../../model/vlanSet';
import { readKernel } from '../../readings/linux';
import { readOpenSwitch } from '../../readings/openSwitch';
import type { PortReading, SwitchReading } from '../../readings/reading';
import type { ObservedSwitch, ObservedTree } from '../observation';
import type { Told } from './outputs';

/** What else is known of an interface. */
interface Facts {
  readonly number: number;
  readonly mac: string | null;
  readonly up: boolean;
  readonly signal: boolean;
  readonly speed: number;
}

const linkSchema = z.array(
  z.object({
    ifindex: z.number().int().nonnegative(),
    ifname: z.string(),
    flags: z.array(z.string()).default([]),
    address: z.string().optional(),
    master: z.string().optional(),
    linkinfo: z
      .object({
        info_kind: z.string().optional(),
        info_data: z.record(z.string(), z.unknown()).optional(),
        info_slave_data: z.record(z.string(), z.unknown()).optional(),
      })
      .optional(),
  }),
);

/** Every bridge of the kernel; `name`: what the switch is called. */
export function kernelSwitches(name: string, told: Told): ObservedSwitch[] {
  const links = told('links');
  const all = links.flatMap(({ json }) => linkSchema.parse(json));
  const raw = links.flatMap(({ json }) => json as unknown[]);
  const vlans = told('bridgeVlans')[0]?.json ?? null;
  const bridges = all.filter(({ linkinfo }) => linkinfo?.info_kind === 'bridge');
  return bridges.map((bridge) => {
    const reading = readKernel(bridge.ifname, raw, vlans);
    const data = bridge.linkinfo!.info_data ?? {};
    const hundredths = (key: string): number => (typeof data[key] === 'number' ? data[key] / 100 : 0);
    const facts = new Map(
      all.map((link): [string, Facts] => {
        const own = Number(link.linkinfo?.info_slave_data?.no);
        return [
          link.ifname,
          {
            // The number of the bridge port; of a member, or what is none, that of the interface.
            number: Number.isInteger(own) && own > 0 ? own : link.ifindex,
            mac: macOf(link.address),
            up: link.flags.includes('UP'),
            signal: link.flags.includes('LOWER_UP'),
            speed: 0,
          },
        ];
      }),
    );
    const timers = {
      maxAge: hundredths('max_age'),
      hello: hundredths('hello_time'),
      forwardDelay: hundredths('forward_delay'),
    };
    return observed(bridges.length > 1 ? `${name} ${bridge.ifname}` : name, reading, facts, {
      speaks: data.stp_state === 1 ? 'stp' : null,
      timers,
      mac: macOf(bridge.address),
      hasVlans: true,
      missing: 'It does not tell of speeds or set costs in files alone.',
    });
  });
}

const tableSchema = z.object({ headings: z.array(z.string()), data: z.array(z.array(z.unknown())) });

/** The bridge of Open vSwitch that its trees are told of. */
export function openSwitches(name: string, told: Told): ObservedSwitch[] {
  const [ports] = told('switchPorts');
  const [interfaces] = told('switchInterfaces');
  if (!ports || !interfaces) return [];
  const trees = told('trees')[0]?.text ?? null;
  const bridge = /^---- (\S+) ----$/m.exec(trees ?? '')?.[1] ?? name;
  const reading = readOpenSwitch(bridge, {
    ...{ trees, lacp: told('lacp')[0]?.text ?? '' },
    ...{ ports: ports.json, interfaces: interfaces.json },
  });
  const { headings, data } = tableSchema.parse(interfaces.json);
  const at = (row: readonly unknown[], column: string): unknown => row[headings.indexOf(column)];
  const facts = new Map(
    data.map((row, i): [string, Facts] => {
      const [port, speed] = [at(row, 'ofport'), at(row, 'link_speed')];
      return [
        String(at(row, 'name')),
        {
          number: typeof port === 'number' && port > 0 ? port : 60_000 + i,
          mac: macOf(at(row, 'mac_in_use')),
          up: at(row, 'admin_state') !== 'down',
          signal: at(row, 'link_state') === 'up',
          speed: typeof speed === 'number' ? Math.round(speed / 1_000_000) : 0,
        },
      ];
    }),
  );
  const seconds = (key: string): number => Number(new RegExp(`${key}\\s+(\\d+)`).exec(trees ?? '')?.[1] ?? 0);
  return [
    observed(name, reading, facts, {
      speaks: trees === null ? null : RAPID.test(trees) ? 'rstp' : 'stp',
      timers: { maxAge: seconds('max-age'), hello: seconds('hello-time'), forwardDelay: seconds('forward-delay') },
      mac: reading.bridge?.id.mac ?? null,
      hasVlans: false,
      missing: 'It does not tell of set costs in files alone.',
    }),
  ];
}

/** `rstp/show` writes roles with a capital, `stp/show` without one. */
const RAPID = /^ +\S+ +(Root|Designated|Alternate|Backup|Disabled) /m;

const macOf = (text: unknown): string | null => {
  const read = typeof text === 'string' ? macAddress.safeParse(text) : null;
  return read?.success ? read.data : null;
};

interface Rest {
  readonly speaks: ObservedTree['speaks'];
  readonly timers: { readonly maxAge: number; readonly hello: number; readonly forwardDelay: number };
  readonly mac: string | null;
  /** Whether it has a list of the VLANs that are there; else ports that carry all of them tell of none. */
  readonly hasVlans: boolean;
  readonly missing: string;
}

function observed(
  name: string,
  { bridge, ports, bundles }: SwitchReading,
  facts: ReadonlyMap<string, Facts>,
  { speaks, timers, mac, hasVlans, missing: own }: Rest,
): ObservedSwitch {
  const none: Facts = { number: 0, mac: null, up: true, signal: true, speed: 0 };
  const members = new Set(bundles.flatMap((bundle) => bundle.members));
  const bridgePorts = new Map(ports.map((port) => [port.interface, port]));
  const interfaces = [...new Set([...bridgePorts.keys(), ...members])];
  // Two interfaces may not go by one number: those of the kernel's bridge ports come first.
  const numbers = new Map<string, number>();
  const taken = new Set<number>();
  for (const each of interfaces) {
    let number = facts.get(each)?.number ?? 0;
    while (number === 0 || taken.has(number)) number += 1000;
    taken.add(number);
    numbers.set(each, number);
  }
  const missing = [own];
  const known = ports.every(({ vlans }) => vlans !== null);
  const carried = ports.map(({ vlans }) => vlanSet(vlans ?? ''));
  if (!known) missing.push('It does not tell of VLANs.');
  return {
    ...{ source: name, name, mac: bridge?.id.mac ?? mac, chassis: null },
    vlans: known && hasVlans ? carried.reduce((sum, each) => sum.union(each), VlanSet.empty).format() : null,
    ports: interfaces
      .map((each) => {
        const { mac: own, up, signal, speed } = facts.get(each) ?? none;
        const port = bridgePorts.get(each);
        return {
          ...{ number: numbers.get(each)!, interface: each, alias: '', speed, mac: own, up, signal, edge: null },
          vlans: port && port.vlans !== null ? { carried: port.vlans, untagged: port.untagged } : null,
        };
      })
      .sort((a, b) => a.number - b.number),
    bundles: bundles.map((bundle) => ({
      number: numbers.get(bundle.interface) ?? 0,
      interface: bundle.interface,
      members: bundle.members.map((member) => ({
        port: numbers.get(member) ?? 0,
        active: bundle.active.includes(member),
        lacp: null,
      })),
    })),
    trees: bridge
      ? [
          {
            ...{ tree: 'cst', speaks, bridge: bridge.id, root: bridge.root, rootPathCost: bridge.rootPathCost },
            rootPort: bridge.rootPort === null ? null : (numbers.get(bridge.rootPort) ?? null),
            ...timers,
            set: null,
            ...{ topologyChanges: 0, sinceTopologyChange: 0 },
            ports: ports.map((port) => treePort(port, numbers.get(port.interface)!)),
          },
        ]
      : [],
    mst: null,
    neighbours: [],
    tellsNeighbours: false,
    missing,
  };
}

const treePort = (port: PortReading, number: number): ObservedTree['ports'][number] => ({
  port: number,
  state: port.state === 'moving' ? 'learning' : port.state,
  role: port.role === null || port.role === 'master' ? 'disabled' : port.role,
  cost: port.cost ?? 0,
  priority: port.priority ?? 128,
  ...{ designatedRoot: null, designatedBridge: null, designatedPort: null, forwards: null },
});
