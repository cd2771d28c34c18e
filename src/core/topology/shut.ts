/**
 * Ports that guards have shut: who is, and the design that is left of it. A BPDU guard acts where a BPDU comes in, and bridges
 * all speak when they begin, so each that has another bridge in its LAN acts in the end.
 */
import { oncePer } from '../base/cache';
import { SHUT_BY, hasBpduGuard, hasLoopProbe } from '../model/guard';
import { isOpen, runsTrees, type Design } from '../model/document';
import { treeInstance, treeVlan, type BridgePortId, type SwitchId, type TreeId } from '../model/ids';
import type { VlanSet } from '../model/vlanSet';
import type { Bridge, BridgePort } from './bridges';
import { asItStands } from './standing';
import { belongs, partAt, treesOf, type TreePart } from './trees';

/** A bridge port with the code of what shut it (`SHUT_BY`). */
export interface ShutPort {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly by: number;
}

/** The design as it stands with the ports that are shut set down: a bundle takes its members along. Those that are blocked keep their signal. */
export function withShut(given: Design, all: readonly ShutPort[]): Design {
  const design = asItStands(given);
  const shut = all.filter(({ by }) => by !== SHUT_BY.loopProbeBlocks);
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
  return !isOpen(sw, ports[p]!) && ports[p]!.bpduRx && hasBpduGuard(ports[p]!, sw);
}

/** The same of every port, 1 or 0. */
export const guardedPorts = oncePer((network: Pick<Cabled, 'switches' | 'ports' | 'owner'>) =>
  Uint8Array.from(network.ports, (_, p) => (isGuarded(network, p) ? 1 : 0)),
);

/** Whether a guard may come to shut a port or a bundle. */
export const mayBeShut = (
  port: Parameters<typeof hasBpduGuard>[0],
  sw: Parameters<typeof runsTrees>[0] & { readonly edgeBpduGuard: boolean; readonly edgeLoopProbe: boolean },
): boolean => (runsTrees(sw) && hasBpduGuard(port, sw)) || hasLoopProbe(port, sw);

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
  const partHere = (q: number): TreePart => partAt(switches[owner[q]!]!, ports[q]!, tree);
  const isBridge = (q: number): boolean => partHere(q) === 'bridge';
  if (!isBridge(p) || !isIn(p)) return false;
  const flooded = new Set<string>();
  const ways = [p];
  for (let from = ways.pop(); from !== undefined; from = ways.pop()) {
    const there = far[from]!;
    if (there < 0 || !live[from] || !isIn(there)) continue;
    if (isBridge(there)) {
      if (ports[there]!.bpduTx) return true;
      continue;
    }
    const [s, part] = [owner[there]!, partHere(there)];
    if (flooded.has(`${s} ${part}`)) continue;
    flooded.add(`${s} ${part}`);
    for (let q = firstPort[s]!; q < firstPort[s + 1]!; q += 1)
      if (q !== there && partHere(q) === part && isIn(q)) ways.push(q);
  }
  return false;
}

/** By which code a loop probe of a switch stops a port. */
export const probeCode = ({ probeAction }: Bridge): number =>
  probeAction === 'shut' ? SHUT_BY.loopProbe : SHUT_BY.loopProbeBlocks;

/** Whether a port sends test frames, and is stopped by one that comes back. */
export const probes = ({ switches, ports, owner }: Pick<Cabled, 'switches' | 'ports' | 'owner'>, p: number): boolean =>
  hasLoopProbe(ports[p]!, switches[owner[p]!]!);

/** The VLAN of a port's test frames: they are untagged. */
export const probeVlan = ({ vlans }: BridgePort): number => (vlans.mode === 'access' ? vlans.vlan : vlans.native);

/**
 * The port of its own switch at which a test frame that leaves by port `p` comes back and is told by a probe; -1 where it does not.
 * `passes` says where frames of its VLAN pass, `sendsOn` which switches send them on.
 */
export function probeReturn(
  network: Cabled,
  p: number,
  passes: (q: number) => boolean,
  sendsOn: (s: number) => boolean = () => true,
): number {
  const { owner, firstPort, far } = network;
  const left = new Set([p]);
  const ways = [p];
  for (let from = ways.pop(); from !== undefined; from = ways.pop()) {
    const there = far[from]!;
    if (there < 0 || !passes(from) || !passes(there)) continue;
    const s = owner[there]!;
    if (s === owner[p] && probes(network, there)) return there;
    if (!sendsOn(s)) continue;
    for (let q = firstPort[s + 1]! - 1; q >= firstPort[s]!; q -= 1)
      if (q !== there && !left.has(q)) {
        left.add(q);
        ways.push(q);
      }
  }
  return -1;
}

/**
 * The ports that loop probes will stop: those behind which switches without spanning tree close a loop that no BPDU tells of, on
 * one port, or between two that do not hear each other.
 */
export function probesActing(network: Cabled): ShutPort[] {
  const { switches, ports, owner, live, carried, far } = network;
  const stopped = new Set<number>();
  for (const [p, port] of ports.entries()) {
    if (!live[p] || far[p]! < 0 || stopped.has(p) || !probes(network, p)) continue;
    const vid = probeVlan(port);
    const floods = (s: number): boolean => !runsTrees(switches[s]!);
    const passes = (q: number): boolean =>
      live[q] === 1 && !stopped.has(q) && carried[q]!.has(vid) && (floods(owner[q]!) || owner[q] === owner[p]);
    const back = probeReturn(network, p, passes, floods);
    if (back >= 0 && (back === p || !hearEachOther(ports[p]!, ports[back]!))) stopped.add(back);
  }
  return [...stopped].map((p) => {
    const sw = switches[owner[p]!]!;
    return { switch: sw.id, port: ports[p]!.id, by: probeCode(sw) };
  });
}

const hearEachOther = (a: BridgePort, b: BridgePort): boolean => (a.bpduTx && b.bpduRx) || (b.bpduTx && a.bpduRx);
