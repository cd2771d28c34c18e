/**
 * A stranger's switch tried at every port that no switch is plugged into: with better identifiers than anybody's, in the mode
 * of the switch that it is plugged into. Where the roots go, who is cut off, and which guard stops it.
 */
import {
  isPerVlan,
  placedBeside,
  portSchema,
  runsTrees,
  switchSchema,
  type Design,
  type Link,
  type Switch,
} from '../../model/document';
import { FreshNames } from '../../edit/fresh';
import { treeVlan, type BridgePortId, type PortId, type SwitchId, type TreeId } from '../../model/ids';
import { isGuarded } from '../../topology/shut';
import { compileNetwork, type Network } from '../../topology/network';
import { treeOf, type Solution } from '../../tree/settled';
import { solveTrees } from '../../tree/solve';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import { partsIn } from '../parts';
import { protectionOf, type Lead } from './protection';

/** What keeps a stranger off; null where nothing does. */
export type StoppedBy = 'BPDU guard' | 'root guard' | null;

export interface Intrusion {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly lead: Lead;
  readonly stoppedBy: StoppedBy;
  /** Trees of which the stranger becomes root for others. */
  readonly roots: readonly TreeId[];
  /** How many ports of the network have another role then. */
  readonly moved: number;
  /** Switches that no longer reach the root that a tree had. */
  readonly cutOff: readonly SwitchId[];
  /** BPDUs are discarded at the port: nobody notices the stranger, nor a loop behind it. */
  readonly unseen: boolean;
}

/** The network with a stranger plugged in. */
export interface Intruded {
  readonly design: Design;
  readonly solution: Solution;
  readonly stranger: SwitchId;
  readonly moved: readonly MovedEnd[];
}

type Plug = { readonly switch: SwitchId; readonly port: BridgePortId };

/** Plugs a stranger into ports, a cable each; whatever is plugged in there is taken out. Null where a port is not there. */
export function withStranger(
  design: Design,
  ...plugs: readonly [Plug, ...Plug[]]
): { readonly design: Design; readonly stranger: Switch; readonly links: readonly Link[] } | null {
  const found = plugs.flatMap((plug) => {
    const sw = design.switches.find(({ id }) => id === plug.switch);
    const port = sw?.ports.find(({ id }) => id === plug.port);
    return sw && port ? [{ sw, port }] : [];
  });
  const [first] = found;
  if (!first || found.length < plugs.length) return null;
  const beside = first.sw;
  const fresh = new FreshNames(design);
  const id = fresh.numbered('stranger');
  const ports = found.map(({ port: { speed, vlans } }, i) =>
    portSchema.parse({ id: String(i + 1), number: i + 1, speed, vlans }),
  );
  const { dialect, region, timers, pathCost } = beside;
  const stranger = switchSchema.parse({
    ...{ id, name: id, mac: '02:00:00:00:00:00', priority: 0, dialect, region, timers, pathCost, ports },
    ...placedBeside(beside),
  });
  const here = (end: { switch: SwitchId; port: PortId }): boolean =>
    plugs.some((plug) => end.switch === plug.switch && end.port === plug.port);
  const links = found.map(({ sw, port }, i): Link => ({
    id: fresh.linkId(),
    a: { switch: sw.id, port: port.id },
    b: { switch: id, port: ports[i]!.id },
    up: true,
  }));
  return {
    stranger,
    links,
    design: {
      ...design,
      switches: [...design.switches, stranger],
      hosts: design.hosts.flatMap((host) => {
        if (!host.attach.some(here)) return [host];
        const attach = host.attach.filter((end) => !here(end));
        return attach.length > 0 ? [{ ...host, attach }] : [];
      }),
      links: [...design.links, ...links],
    },
  };
}

/** What comes of a stranger at one port, in the trees of `before`; null where the port is not there. */
export function intrude(before: Solution, at: SwitchId, port: BridgePortId): Intruded | null {
  const placed = withStranger(before.network.design, { switch: at, port });
  if (!placed) return null;
  const { design, stranger } = placed;
  const network = compileNetwork(design);
  const ids = before.trees.map(({ id }) => id);
  const solution = { network, trees: solveTrees(network, ids) };
  return {
    design,
    solution,
    stranger: stranger.id,
    moved: movedEnds(before, solution).filter(
      (end) => end.switch !== stranger.id && !(end.switch === at && end.port === port),
    ),
  };
}

/** Tries every port in turn; `progress` is told how far it is, 0 to 1. Ports of a switch that are set alike fare alike. */
export function intrusionsOf(before: Solution, progress: (share: number) => void = () => undefined): Intrusion[] {
  const { network } = before;
  const known = new Map<string, Omit<Intrusion, 'switch' | 'port' | 'lead'>>();
  const open = protectionOf(before).filter(
    ({ lead, p }) =>
      (lead === 'edge' || lead === 'free') &&
      network.ports[p]!.up &&
      network.bundleOf[p]! < 0 &&
      !network.aggregates.has(p),
  );
  return open.map(({ switch: sw, port, lead, p }, i): Intrusion => {
    progress(i / open.length);
    const { id: _, number: __, ...set } = network.ports[p]!;
    const key = `${sw} ${JSON.stringify(set)}`;
    const found = known.get(key) ?? outcomeAt(before, sw, port, p);
    known.set(key, found);
    return { switch: sw, port, lead, ...found };
  });
}

function outcomeAt(
  before: Solution,
  sw: SwitchId,
  port: BridgePortId,
  p: number,
): Omit<Intrusion, 'switch' | 'port' | 'lead'> {
  const { network } = before;
  const nothing = { roots: [], moved: 0, cutOff: [], unseen: false };
  if (isGuarded(network, p)) return { ...nothing, stoppedBy: 'BPDU guard' };
  if (network.ports[p]!.rootGuard) return { ...nothing, stoppedBy: 'root guard' };
  const touched = { network, trees: before.trees.filter(({ id }) => mayTouch(network, p, id)) };
  const after = intrude(touched, sw, port);
  if (!after) return { ...nothing, stoppedBy: null };
  const { solution, moved, stranger } = after;
  const roots = touched.trees.filter(({ id }) => {
    const tree = treeOf(solution, id);
    const s = solution.network.switchIndex.get(stranger)!;
    return tree?.root.some((root, own) => root === s && own !== s);
  });
  return {
    stoppedBy: null,
    roots: roots.map(({ id }) => id),
    moved: moved.length,
    cutOff: cutOff(touched, solution),
    unseen: !network.ports[p]!.bpduRx,
  };
}

/** Whether what is plugged into a port may matter to a tree: where every bridge has a tree for each VLAN, to those of the VLANs that the port carries. */
function mayTouch({ switches, carried }: Network, p: number, tree: TreeId): boolean {
  const vid = treeVlan(tree);
  return vid === null || carried[p]!.has(vid) || !switches.every((sw) => isPerVlan(sw) || !runsTrees(sw));
}

/** Switches that hung together with a tree's root, and no longer do. */
function cutOff(before: Solution, after: Solution): SwitchId[] {
  const lost = new Set<SwitchId>();
  for (const tree of before.trees) {
    const later = treeOf(after, tree.id);
    if (!later) continue;
    const [was, is] = [partsIn(before.network, tree), partsIn(after.network, later)];
    for (const [s, sw] of before.network.switches.entries()) {
      const root = tree.root[s]!;
      if (root < 0 || was[s] !== was[root]) continue;
      const now = (t: number): number => is[after.network.switchIndex.get(before.network.switches[t]!.id)!]!;
      if (now(s) !== now(root)) lost.add(sw.id);
    }
  }
  return [...lost];
}
