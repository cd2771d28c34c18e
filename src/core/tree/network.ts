/**
 * A design compiled into indices: what every tree shares, in flat arrays, so that a solve touches no strings.
 * Switch and port indices follow document order; every tie that the standards leave open is settled by identifier,
 * never by that order, so the order of a file does not matter.
 */
import type { PortId, SwitchId } from '../design/ids';
import type { Design, Port, Switch } from '../design/schema';
import type { VlanSet } from '../design/vlanSet';
import { carried } from './trees';

/** Why a port has no signal, or null where it has. */
export type DeadReason = 'no-cable' | 'switch-off' | 'port-down' | 'link-cut' | 'far-end-down' | 'far-switch-off';

export interface Network {
  readonly design: Design;
  readonly switches: readonly Switch[];
  readonly ports: readonly Port[];
  readonly switchIndex: ReadonlyMap<SwitchId, number>;
  /** Length switches + 1: the ports of switch `s` are `firstPort[s]` up to `firstPort[s + 1]`. */
  readonly firstPort: Int32Array;
  /** The switch of each port. */
  readonly owner: Int32Array;
  /** The port at the other end of the cable, or -1 (nothing, or a host). */
  readonly far: Int32Array;
  /** The index of the link in each port, or -1. */
  readonly link: Int32Array;
  /** 1 where the port has signal. */
  readonly live: Uint8Array;
  /** The VLANs that each port carries. */
  readonly carried: readonly VlanSet[];
  /** Rank of each port by (switch id, port id): the last resort where port identifiers collide. */
  readonly order: Int32Array;
  readonly portIndexOf: (sw: SwitchId, port: PortId) => number;
}

/** Compiles a checked design. */
export function compileNetwork(design: Design): Network {
  const { switches } = design;
  const firstPort = new Int32Array(switches.length + 1);
  switches.forEach((sw, s) => (firstPort[s + 1] = firstPort[s]! + sw.ports.length));
  const ports = switches.flatMap((sw) => sw.ports);
  const owner = new Int32Array(ports.length);
  const index = new Map<SwitchId, Map<PortId, number>>();
  const switchIndex = new Map<SwitchId, number>();
  switches.forEach((sw, s) => {
    switchIndex.set(sw.id, s);
    index.set(sw.id, new Map(sw.ports.map((port, i) => [port.id, firstPort[s]! + i])));
    owner.fill(s, firstPort[s], firstPort[s + 1]);
  });
  const portIndexOf = (sw: SwitchId, port: PortId): number => index.get(sw)?.get(port) ?? -1;

  const ready = (p: number): boolean => ports[p]!.up && switches[owner[p]!]!.up;
  const far = new Int32Array(ports.length).fill(-1);
  const link = new Int32Array(ports.length).fill(-1);
  const live = new Uint8Array(ports.length);
  design.links.forEach((cable, l) => {
    const a = portIndexOf(cable.a.switch, cable.a.port);
    const b = portIndexOf(cable.b.switch, cable.b.port);
    far[a] = b;
    far[b] = a;
    link[a] = link[b] = l;
    live[a] = live[b] = cable.up && ready(a) && ready(b) ? 1 : 0;
  });
  for (const host of design.hosts) {
    for (const at of host.attach) {
      const p = portIndexOf(at.switch, at.port);
      live[p] = ready(p) ? 1 : 0;
    }
  }
  return {
    design, switches, ports, switchIndex, firstPort, owner, far, link, live, portIndexOf,
    carried: ports.map((port) => carried(port.vlans)),
    order: portOrder(switches, firstPort),
  };
}

function portOrder(switches: readonly Switch[], firstPort: Int32Array): Int32Array {
  const byId = <T extends { readonly id: string }>(items: readonly T[]): number[] =>
    Array.from(items.keys()).sort((i, j) => (items[i]!.id < items[j]!.id ? -1 : 1));
  const order = new Int32Array(firstPort[switches.length]!);
  let rank = 0;
  for (const s of byId(switches)) for (const i of byId(switches[s]!.ports)) order[firstPort[s]! + i] = rank++;
  return order;
}

/** Why a port is without signal; null where it has signal. */
export function deadReason(network: Network, p: number): DeadReason | null {
  if (network.live[p]) return null;
  if (!network.switches[network.owner[p]!]!.up) return 'switch-off';
  if (!network.ports[p]!.up) return 'port-down';
  const l = network.link[p]!;
  if (l < 0) return 'no-cable';
  if (!network.design.links[l]!.up) return 'link-cut';
  return network.switches[network.owner[network.far[p]!]!]!.up ? 'far-end-down' : 'far-switch-off';
}
