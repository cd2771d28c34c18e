/** The rows of the drawer's tables, as plain data. */
import { treeName, type LinkId, type BridgePortId, type SwitchId, type TreeId } from '../../../core/model/ids';
import { type Design, carriageText } from '../../../core/model/document';
import { switchName } from '../../../core/tree/explain/phrases';
import { costsIn, roleOf, stateIn, treeOf, type Solution } from '../../../core/tree/settled';
import type { Moved } from '../../state/moved';
import { speedText } from '../../ui/words/units';

export interface PortRow {
  readonly id: string;
  readonly tree: string;
  readonly switch: string;
  readonly port: string;
  readonly to: string;
  readonly role: string;
  readonly state: string;
  readonly cost: number;
  readonly rootPathCost: number;
  /** In a CIST with regions what is added inside of the region; else 0. */
  readonly internal: number;
  readonly designatedBridge: string;
  readonly designatedPort: string;
  readonly switchId: SwitchId;
  readonly portId: BridgePortId;
}

/** The switch of a row about an end. */
export const switchesOfEnd = ({ switchId }: { readonly switchId: SwitchId }): readonly SwitchId[] => [switchId];

/** One row a port and shown tree. */
export function portRows(
  { network, trees }: Solution,
  shown: readonly TreeId[],
  farEnd: (sw: SwitchId, port: BridgePortId) => string,
): PortRow[] {
  return shown.flatMap((treeId) => {
    const tree = treeOf({ network, trees }, treeId);
    if (!tree) return [];
    return network.ports.flatMap((port, p): PortRow[] => {
      const role = roleOf(tree, p);
      if (!role) return [];
      const sw = network.switches[network.owner[p]!]!;
      const designated = tree.designated[p]!;
      return [
        {
          id: `${treeId} ${p}`,
          tree: treeName(treeId),
          switch: switchName(sw),
          port: port.id,
          to: farEnd(sw.id, port.id),
          role,
          state: stateIn(tree, p),
          cost: tree.cost[p]!,
          rootPathCost: tree.rootPathCost[network.owner[p]!]!,
          internal: costsIn(tree, network.owner[p]!)[1] ?? 0,
          designatedBridge: designated < 0 ? '' : switchName(network.switches[network.owner[designated]!]!),
          designatedPort: designated < 0 ? '' : network.ports[designated]!.id,
          switchId: sw.id,
          portId: port.id,
        },
      ];
    });
  });
}

export interface MovedRow {
  readonly id: string;
  readonly tree: string;
  readonly switch: string;
  readonly port: string;
  readonly to: string;
  readonly before: string;
  readonly after: string;
  readonly switchId: SwitchId;
  readonly portId: BridgePortId;
  readonly treeId: TreeId;
}

/** One row an end that the last change moved. */
export function movedRows(
  moved: Moved | null,
  design: Design,
  farEnd: (sw: SwitchId, port: BridgePortId) => string,
): MovedRow[] {
  const names = new Map(design.switches.map((sw) => [sw.id, switchName(sw)]));
  return (moved?.ends ?? []).map((end, i) => ({
    id: String(i),
    tree: treeName(end.tree),
    switch: names.get(end.switch) ?? end.switch,
    port: end.port,
    to: farEnd(end.switch, end.port),
    before: end.before ?? 'not in the tree',
    after: end.after ?? 'not in the tree',
    switchId: end.switch,
    portId: end.port,
    treeId: end.tree,
  }));
}

export interface CableRow {
  readonly id: LinkId;
  readonly a: string;
  readonly b: string;
  readonly cable: string;
  readonly speed: string;
  readonly carriesA: string;
  readonly carriesB: string;
}

/** One row a link. */
export function cableRows(design: Design): CableRow[] {
  const switches = new Map(
    design.switches.map((sw) => [
      sw.id,
      { name: switchName(sw), up: sw.up, ports: new Map(sw.ports.map((port) => [port.id, port])) },
    ]),
  );
  return design.links.map(({ id, a, b, up }) => {
    const [swA, swB] = [switches.get(a.switch), switches.get(b.switch)];
    const [portA, portB] = [swA?.ports.get(a.port), swB?.ports.get(b.port)];
    const speeds = [...new Set([portA, portB].map((port) => (port ? speedText(port.speed) : '?')))];
    return {
      id,
      a: `${swA?.name} port ${a.port}`,
      b: `${swB?.name} port ${b.port}`,
      cable: !up ? 'cut' : !swA?.up || !swB?.up ? 'no power' : !portA?.up || !portB?.up ? 'a port is down' : 'up',
      speed: speeds.join(' against '),
      carriesA: portA ? carriageText(portA.vlans) : '',
      carriesB: portB ? carriageText(portB.vlans) : '',
    };
  });
}
