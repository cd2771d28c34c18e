/** Bridges as trees see them: switches, each of their bundles a port in the place of its members. */
import type { Port, Switch } from '../model/document';
import type { BridgePortId, SwitchId } from '../model/ids';

/** What takes part in trees: a port, or a bundle in the place of its members. */
export type BridgePort = Omit<Port, 'id'> & { readonly id: BridgePortId };

/** A bridge with all its bridge ports: its own ports, then its bundles; of a pair that acts as one those of both switches. */
export type Bridge = Omit<Switch, 'ports'> & { readonly ports: readonly BridgePort[] };

export interface Places {
  /** Length bridges + 1: the ports of bridge `s` are `firstPort[s]` up to `firstPort[s + 1]`. */
  readonly firstPort: Int32Array;
  readonly switchIndex: ReadonlyMap<SwitchId, number>;
  /** The port of a switch; -1 where there is none. */
  readonly portIndexOf: (sw: SwitchId, port: BridgePortId) => number;
}

/** Where the ports of each switch stand. */
export function placesOf(switches: readonly Bridge[]): Places {
  const firstPort = new Int32Array(switches.length + 1);
  const switchIndex = new Map<SwitchId, number>();
  const index = new Map<SwitchId, Map<BridgePortId, number>>();
  switches.forEach((sw, s) => {
    const first = firstPort[s]!;
    switchIndex.set(sw.id, s);
    index.set(sw.id, new Map(sw.ports.map((port, i) => [port.id, first + i])));
    firstPort[s + 1] = first + sw.ports.length;
  });
  return { firstPort, switchIndex, portIndexOf: (sw, port) => index.get(sw)?.get(port) ?? -1 };
}
