/** What guards do under every single failure: root guards that cut somebody off who had another way, loop guards that never act. */
import type { BridgePortId, SwitchId, TreeId } from '../../model/ids';
import { CODE, type SettledTree, type Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { failed, failuresOf, type Failure } from '../failures/failure';
import { partsIn } from '../parts';
import { markToward } from './protection';

/** Root guard at a port keeps switches from a way that the failure leaves them. */
export interface Severed {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly failure: Failure;
  readonly trees: readonly TreeId[];
  /** Who would hang together with the rest if the guard were not there. */
  readonly cutOff: readonly SwitchId[];
}

export interface UnderFailures {
  readonly failures: number;
  readonly severed: readonly Severed[];
  /** Ports with loop guard that lead toward a root under no failure, and so can never act. */
  readonly idle: readonly { readonly switch: SwitchId; readonly port: BridgePortId }[];
}

/** Solves every failure; `progress` is told how far it is, 0 to 1. */
export function underFailures(before: Solution, progress: (share: number) => void = () => undefined): UnderFailures {
  const { network } = before;
  const failures = failuresOf(before, ['link', 'switch', 'member']);
  const held = new Set(heldPorts(before).flatMap(({ ports }) => [...ports]));
  const useful = new Uint8Array(network.ports.length);
  markToward(before.trees, useful);
  const severed = failures.flatMap((failure, i): Severed[] => {
    progress(i / failures.length);
    const after = solve(failed(network.design, failure));
    markToward(after.trees, useful);
    const newly = heldPorts(after).filter(({ ports }) => [...ports].some((p) => !held.has(p)));
    return newly.length === 0 ? [] : severedBy(after, failure, held);
  });
  return {
    failures: failures.length,
    severed,
    idle: network.ports.flatMap((port, p) =>
      port.loopGuard && network.far[p]! >= 0 && !useful[p]
        ? [{ switch: network.switches[network.owner[p]!]!.id, port: port.id }]
        : [],
    ),
  };
}

/** By tree, the ports that root guard holds. */
const heldPorts = ({
  network,
  trees,
}: Solution): { readonly tree: SettledTree; readonly ports: ReadonlySet<number> }[] =>
  trees.flatMap((tree) => {
    const ports = new Set<number>();
    network.ports.forEach((port, p) => port.rootGuard && tree.role[p] === CODE.alternate && ports.add(p));
    return ports.size > 0 ? [{ tree, ports }] : [];
  });

/** What root guards that did not hold before cut off: those who would be in another part without any. */
function severedBy(after: Solution, failure: Failure, before: ReadonlySet<number>): Severed[] {
  const { network } = after;
  const open = solve({
    ...network.design,
    switches: network.design.switches.map((sw) => ({
      ...sw,
      ports: sw.ports.map((port) => ({ ...port, rootGuard: false })),
    })),
    bundles: network.design.bundles.map((bundle) => ({ ...bundle, rootGuard: false })),
  });
  const found = new Map<number, { readonly trees: TreeId[]; readonly cutOff: Set<SwitchId> }>();
  for (const { tree, ports } of heldPorts(after)) {
    const free = open.trees.find(({ id }) => id === tree.id);
    if (!free) continue;
    const [is, might] = [partsIn(network, tree), partsIn(open.network, free)];
    const sizes = new Map<number, number>();
    for (const part of is) sizes.set(part, (sizes.get(part) ?? 0) + 1);
    for (const p of ports) {
      const far = network.far[p]!;
      if (before.has(p) || far < 0) continue;
      const [own, other] = [network.owner[p]!, network.owner[far]!];
      if (is[own] === is[other] || might[own] !== might[other]) continue;
      // The smaller side is who misses the other.
      const side = sizes.get(is[own]!)! <= sizes.get(is[other]!)! ? is[own] : is[other];
      const entry = found.get(p) ?? { trees: [], cutOff: new Set<SwitchId>() };
      entry.trees.push(tree.id);
      network.switches.forEach((sw, s) => sw.up && is[s] === side && entry.cutOff.add(sw.id));
      found.set(p, entry);
    }
  }
  return [...found].map(([p, { trees, cutOff }]) => ({
    switch: network.switches[network.owner[p]!]!.id,
    port: network.ports[p]!.id,
    failure,
    trees,
    cutOff: [...cutOff],
  }));
}
