/** What the kernel says of a bridge: `ip -j -d link show` and `bridge -j vlan show` of iproute2. */
import { z } from '../../base/zod';
import { VlanSet } from '../../model/vlanSet';
import type { BridgeId } from '../../topology/bridgeId';
import type { Role } from '../../tree/settled';
import type { BridgeReading, BundleReading, PortReading, ReadState, SwitchReading } from './reading';

const count = z.number().int().nonnegative();
const bridgeFacts = z.object({
  stp_state: count,
  bridge_id: z.string(),
  root_port: count,
  root_path_cost: count,
});
const portFacts = z.object({
  state: z.string(),
  priority: count,
  cost: count,
  id: z.string(),
  no: z.string(),
  designated_port: count,
  /** Of the designated bridge, and of the root that it knows. */
  bridge_id: z.string(),
  root_id: z.string(),
});
const memberFacts = z.object({
  mii_status: z.string(),
  ad_aggregator_id: count.optional(),
  ad_actor_oper_port_state: count.optional(),
});
const bondFacts = z.object({
  mode: z.string(),
  min_links: count.optional(),
  ad_info: z.object({ aggregator: count }).optional(),
});
const linksSchema = z.array(
  z.object({
    ifname: z.string(),
    master: z.string().optional(),
    linkinfo: z
      .object({
        info_kind: z.string().optional(),
        info_data: z.unknown().optional(),
        info_slave_kind: z.string().optional(),
        info_slave_data: z.unknown().optional(),
      })
      .optional(),
  }),
);
const vlansSchema = z.array(
  z.object({
    ifname: z.string(),
    vlans: z.array(z.object({ vlan: count, vlanEnd: count.optional(), flags: z.array(z.string()).optional() })),
  }),
);

/** Reads a bridge by its name; `vlans`: null where the kernel's bridge does not tell VLANs apart; what it cannot read it throws on, by Zod. */
export function readKernel(bridge: string, links: unknown, vlans: unknown): SwitchReading {
  const all = linksSchema.parse(links);
  const own = bridgeFacts.parse(all.find(({ ifname }) => ifname === bridge)?.linkinfo?.info_data);
  const carried = vlans === null ? null : new Map(vlansSchema.parse(vlans).map((each) => [each.ifname, each.vlans]));
  const members = all.filter(({ master, linkinfo }) => master === bridge && linkinfo?.info_slave_kind === 'bridge');
  return {
    bridge: own.stp_state === 0 ? null : bridgeOf(own, members),
    ports: members.map(({ ifname, linkinfo }): PortReading => {
      const port = portFacts.parse(linkinfo!.info_slave_data);
      const entries = carried?.get(ifname) ?? [];
      return {
        interface: ifname,
        state: STATES[port.state] ?? 'moving',
        role: own.stp_state === 0 ? null : roleOf(port, own),
        cost: port.cost,
        priority: port.priority * 4,
        vlans: carried && VlanSet.of(entries.map(({ vlan, vlanEnd = vlan }) => [vlan, vlanEnd] as const)).format(),
        untagged: entries.find(({ flags }) => flags?.includes('PVID'))?.vlan ?? null,
      };
    }),
    bundles: all.flatMap((link) => (link.linkinfo?.info_kind === 'bond' ? [bundleOf(link, all)] : [])),
  };
}

const STATES: Readonly<Record<string, ReadState>> = {
  forwarding: 'forwarding',
  blocking: 'discarding',
  listening: 'moving',
  learning: 'moving',
  disabled: 'disabled',
};

/** `8000.2:0:0:0:0:1`, with digits left out. */
function idOf(text: string): BridgeId {
  const [priority = '', mac = ''] = text.split('.');
  return {
    priority: Number.parseInt(priority, 16),
    mac: mac
      .split(':')
      .map((octet) => octet.padStart(2, '0'))
      .join(':'),
  };
}

type Links = z.output<typeof linksSchema>;

function bridgeOf(own: z.output<typeof bridgeFacts>, members: Links): BridgeReading {
  const ports = members.map(({ ifname, linkinfo }) => ({ ifname, ...portFacts.parse(linkinfo!.info_slave_data) }));
  const at = ports.find(({ no }) => Number(no) === own.root_port);
  return {
    id: idOf(own.bridge_id),
    // Of the bridge itself iproute2 prints its own identifier in that place.
    root: idOf(at?.root_id ?? own.bridge_id),
    rootPathCost: own.root_path_cost,
    rootPort: at?.ifname ?? null,
  };
}

/** The kernel tells who is designated, not roles: they follow (802.1D-1998 8.5.5). */
function roleOf(port: z.output<typeof portFacts>, own: z.output<typeof bridgeFacts>): Role {
  if (port.state === 'disabled') return 'disabled';
  if (Number(port.no) === own.root_port) return 'root';
  if (port.bridge_id !== own.bridge_id) return 'alternate';
  return Number(port.id) === port.designated_port ? 'designated' : 'backup';
}

/** LACP: collecting and distributing (802.1AX-2020 6.4.2.3). */
const CARRIES = 0x30;

function bundleOf({ ifname, linkinfo }: Links[number], all: Links): BundleReading {
  const bond = bondFacts.parse(linkinfo!.info_data);
  const members = all
    .filter(({ master }) => master === ifname)
    .map((each) => ({ name: each.ifname, facts: memberFacts.parse(each.linkinfo!.info_slave_data) }));
  const lit = members.filter(({ facts }) => facts.mii_status === 'UP');
  const active =
    bond.mode !== '802.3ad'
      ? lit.length >= (bond.min_links ?? 0)
        ? lit
        : []
      : lit.filter(
          ({ facts }) =>
            facts.ad_aggregator_id === bond.ad_info?.aggregator &&
            ((facts.ad_actor_oper_port_state ?? 0) & CARRIES) === CARRIES,
        );
  const names = (of: typeof members): string[] => of.map(({ name }) => name).sort();
  return { interface: ifname, members: names(members), active: names(active) };
}
