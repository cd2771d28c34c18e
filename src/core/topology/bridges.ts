/** Bridges as trees see them: a switch each, or several switches that act as one. The seam for stacks and pairs of switches. */
import type { Port, Switch } from '../model/document';
import type { BridgePortId, SwitchId } from '../model/ids';

/** What takes part in trees: a port, or a bundle in the place of its members. */
export type BridgePort = Omit<Port, 'id'> & { readonly id: BridgePortId };

/** A bridge with all its bridge ports: of each of its switches its own ports, then its bundles. */
export type Bridge = Omit<Switch, 'ports'> & { readonly ports: readonly BridgePort[] };

/** Switches that act as one bridge, the first with the settings of all. */
export type ActingAsOne = readonly (readonly SwitchId[])[];

export interface Bridges {
  readonly bridges: readonly Bridge[];
  /** Length bridges + 1: the ports of bridge `s` are `firstPort[s]` up to `firstPort[s + 1]`. */
  readonly firstPort: Int32Array;
  /** The bridge that a switch is, or is part of. */
  readonly switchIndex: ReadonlyMap<SwitchId, number>;
  /** The port of a switch; -1 where there is none. */
  readonly portIndexOf: (sw: SwitchId, port: BridgePortId) => number;
}

/** Groups switches into bridges, in the order in which their first ones stand. */
export function groupBridges(switches: readonly Bridge[], asOne: ActingAsOne): Bridges {
  const leads = new Map(asOne.flatMap(([lead, ...others]) => others.map((id) => [id, lead!] as const)));
  const groups = asOne.length === 0 ? switches.map((sw) => [sw]) : grouped(switches, leads);
  const firstPort = new Int32Array(groups.length + 1);
  const switchIndex = new Map<SwitchId, number>();
  const index = new Map<SwitchId, Map<BridgePortId, number>>();
  groups.forEach((group, s) => {
    let next = firstPort[s]!;
    for (const sw of group) {
      switchIndex.set(sw.id, s);
      index.set(sw.id, new Map(sw.ports.map((port, i) => [port.id, next + i])));
      next += sw.ports.length;
    }
    firstPort[s + 1] = next;
  });
  return {
    bridges: asOne.length === 0 ? switches : groups.map(asBridge),
    firstPort,
    switchIndex,
    portIndexOf: (sw, port) => index.get(sw)?.get(port) ?? -1,
  };
}

function grouped(switches: readonly Bridge[], leads: ReadonlyMap<SwitchId, SwitchId>): Bridge[][] {
  const groups = new Map<SwitchId, Bridge[]>();
  for (const sw of switches) if (!leads.has(sw.id)) groups.set(sw.id, [sw]);
  for (const sw of switches) groups.get(leads.get(sw.id) ?? sw.id)?.push(...(leads.has(sw.id) ? [sw] : []));
  return [...groups.values()];
}

/** A bridge runs as long as one of its switches has power; the ports of one that has none are down. */
function asBridge(group: readonly Bridge[]): Bridge {
  const [lead, ...others] = group;
  if (!lead || others.length === 0) return lead!;
  const ports = group.flatMap((sw) => (sw.up ? sw.ports : sw.ports.map((port) => ({ ...port, up: false }))));
  return { ...lead, up: group.some((sw) => sw.up), ports };
}
