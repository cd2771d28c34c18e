/**
 * Ports that guards have shut: who is, and the design that is left of it. A BPDU guard acts where a BPDU comes in, and bridges
 * all speak when they begin, so each that has another bridge in its LAN acts in the end.
 */
import { SHUT_BY, hasBpduGuard } from '../model/guard';
import { runsTrees, type Design } from '../model/document';
import { treeInstance, treeVlan, type BridgePortId, type SwitchId, type TreeId } from '../model/ids';
import type { VlanSet } from '../model/vlanSet';
import type { Bridge, BridgePort } from './bridges';
import { belongs, partOf, treesOf } from './trees';

/** A bridge port with the code of what shut it (`SHUT_BY`). */
export interface ShutPort {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly by: number;
}

/** The design with the ports that are shut set down: a bundle takes its members along. */
export function withShut(design: Design, shut: readonly ShutPort[]): Design {
  if (shut.length === 0) return design;
  const down = new Map<SwitchId, Set<BridgePortId>>();
  for (const { switch: sw, port } of shut) {
    const bundle = design.bundles.find(({ switch: of, id }) => of === sw && (id as BridgePortId) === port);
    down.set(sw, new Set([...(down.get(sw) ?? []), ...(bundle?.ports ?? [port])]));
  }
  return {
    ...design,
    switches: design.switches.map((sw) => {
      const own = down.get(sw.id);
      return own ? { ...sw, ports: sw.ports.map((each) => (own.has(each.id) ? { ...each, up: false } : each)) } : sw;
    }),
  };
}

/** What of a compiled network says who hears whom. */
interface Cabled {
  readonly design: Design;
  readonly switches: readonly Bridge[];
  readonly ports: readonly BridgePort[];
  readonly owner: Int32Array;
  readonly firstPort: Int32Array;
  readonly far: Int32Array;
  readonly live: Uint8Array;
  readonly carried: readonly VlanSet[];
}

/** Whether a BPDU that comes in shuts a bridge port: one that is discarded does not. */
export function isGuarded(
  { switches, ports, owner }: Pick<Cabled, 'switches' | 'ports' | 'owner'>,
  p: number,
): boolean {
  const sw = switches[owner[p]!]!;
  return runsTrees(sw) && ports[p]!.bpduRx && hasBpduGuard(ports[p]!, sw);
}

/** The ports that BPDU guards will shut. */
export function guardsActing(network: Cabled): ShutPort[] {
  const { design, switches, ports, owner, far, live } = network;
  let trees: readonly TreeId[] | null = null;
  return ports.flatMap((port, p): ShutPort[] => {
    if (!live[p] || far[p]! < 0 || !isGuarded(network, p)) return [];
    trees ??= treesOf(design).filter((tree) => !treeInstance(tree)); // bridges of a region tell of instances in the CIST's BPDUs
    return trees.some((tree) => hearsBridge(network, tree, p))
      ? [{ switch: switches[owner[p]!]!.id, port: port.id, by: SHUT_BY.bpduGuard }]
      : [];
  });
}

/** Whether a port hears a bridge in a tree, through whatever floods the tree's BPDUs. */
function hearsBridge(
  { switches, ports, owner, firstPort, far, live, carried }: Cabled,
  tree: TreeId,
  p: number,
): boolean {
  const isIn = (q: number): boolean => belongs(switches[owner[q]!]!, carried[q]!, treeVlan(tree));
  const isBridge = (q: number): boolean => partOf(switches[owner[q]!]!, tree) === 'bridge';
  if (!isBridge(p) || !isIn(p)) return false;
  const flooded = new Set<number>();
  const ways = [p];
  for (let from = ways.pop(); from !== undefined; from = ways.pop()) {
    const there = far[from]!;
    if (there < 0 || !live[from] || !isIn(there)) continue;
    if (isBridge(there)) {
      if (ports[there]!.bpduTx) return true;
      continue;
    }
    const s = owner[there]!;
    if (flooded.has(s)) continue;
    flooded.add(s);
    for (let q = firstPort[s]!; q < firstPort[s + 1]!; q += 1) if (q !== there && isIn(q)) ways.push(q);
  }
  return false;
}
