/** What protects what: every bridge port with the guards that it has, those that it lacks, and those that harm. */
import { oncePer } from '../../base/cache';
import { isOpen } from '../../model/document';
import { hasBpduGuard, shutText } from '../../model/guard';
import type { BridgePortId, SwitchId } from '../../model/ids';
import { isShut, shutCode, type Network } from '../../topology/network';
import { label } from '../../tree/explain/phrases';
import { CODE, type SettledTree, type Solution } from '../../tree/settled';

/** Where a port leads: to hosts alone, or nowhere yet; toward roots in some tree; away from them in all. */
export type Lead = 'edge' | 'free' | 'toward the root' | 'away from the root';

/**
 * What comes of a port's guards: it is guarded; one is missing, so that whoever is plugged in there takes part in the trees, or
 * a dead fibre closes a loop; a guard takes away what
 * the network needs; a guard can never act; nothing is to be said.
 */
export type Verdict = 'guarded' | 'open' | 'harms' | 'idle' | 'plain';

export interface Protection {
  /** Index of the port. */
  readonly p: number;
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly lead: Lead;
  readonly bpduGuard: boolean;
  readonly verdict: Verdict;
  readonly why: string;
}

/** All bridge ports of switches that run spanning tree, in the order of the design. */
export const protectionOf = oncePer(judgeAll);

function judgeAll({ network, trees }: Solution): readonly Protection[] {
  const { switches, ports, owner, serves } = network;
  const toward = new Uint8Array(ports.length);
  markToward(trees, toward);
  return ports.flatMap((port, p): Protection[] => {
    const sw = switches[owner[p]!]!;
    if (isOpen(sw, network.ports[p]!) || (network.bundleOf[p]! >= 0 && serves[p] !== p)) return [];
    const lead: Lead =
      beyond(network, p) === null
        ? port.edge
          ? 'edge'
          : 'free'
        : toward[p]
          ? 'toward the root'
          : 'away from the root';
    const bpduGuard = hasBpduGuard(port, sw);
    const [verdict, why] = judged(network, p, lead, bpduGuard);
    return [{ p, switch: sw.id, port: port.id, lead, bpduGuard, verdict, why }];
  });
}

/** Sets 1 at the ports that lead toward a root in some tree, or would. */
export function markToward(trees: readonly SettledTree[], toward: Uint8Array): void {
  for (const { role } of trees) for (let p = 0; p < toward.length; p += 1) if (LEADS.has(role[p]!)) toward[p] = 1;
}

const LEADS: ReadonlySet<number> = new Set([CODE.root, CODE.alternate, CODE.backup, CODE.master]);

/** The port of another switch at the other end; null where only hosts are, or nothing. */
export function beyond({ plug, bundleOf, aggregates }: Network, p: number): number | null {
  const members = aggregates.get(p)?.aggregationPorts ?? [p];
  const there = members.map((m) => plug[m]!).find((q) => q >= 0);
  if (there === undefined) return null;
  return bundleOf[there]! >= 0 ? bundleOf[there]! : there;
}

function judged(network: Network, p: number, lead: Lead, bpduGuard: boolean): readonly [Verdict, string] {
  const { rootGuard, loopGuard, bpduRx } = network.ports[p]!;
  const far = beyond(network, p);
  if (far === null) return atEdge(network, p, lead, bpduGuard);
  const there = label(network, far);
  if (isShut(network, p)) {
    const { recovery } = network.switches[network.owner[p]!]!;
    const again = recovery === undefined ? '' : ` Every ${recovery} s it opens, and is shut again at once.`;
    return ['harms', `The port is ${shutText(shutCode(network, p))}: the way to ${there} is closed.${again}`];
  }
  if (bpduGuard && bpduRx) return ['harms', `BPDU guard will shut the way to ${there} at the first BPDU from there.`];
  if (!bpduRx) return ['harms', `BPDUs from ${there} are discarded: a loop over this port is not seen.`];
  if (rootGuard && lead === 'toward the root')
    return ['harms', `Root guard holds this way to the root: ${there} can never lead there.`];
  if (loopGuard && lead === 'away from the root')
    return ['idle', 'Loop guard waits: it acts only where the port has led toward a root.'];
  if (rootGuard) return ['guarded', `No way to the root ever leads through ${there}.`];
  if (loopGuard) return ['guarded', 'Discards should BPDUs stop coming, instead of closing a loop.'];
  if (lead === 'toward the root' && overConverter(network, p))
    return ['open', 'No loop guard: when the fibre behind the converter dies, the port forwards and may close a loop.'];
  return ['plain', ''];
}

/** Whether a media converter keeps a port's signal up whatever happens behind it. */
export const overConverter = ({ design, link }: Network, p: number): boolean =>
  link[p]! >= 0 && design.links[link[p]!]!.converter === true;

function atEdge(network: Network, p: number, lead: Lead, bpduGuard: boolean): readonly [Verdict, string] {
  const { rootGuard, bpduRx, bpduTx } = network.ports[p]!;
  const { recovery } = network.switches[network.owner[p]!]!;
  if (!bpduRx)
    return [
      'harms',
      `Every BPDU is discarded${bpduGuard ? ', so that BPDU guard never acts' : ''}: a loop behind it is not seen.`,
    ];
  if (bpduGuard)
    return [
      'guarded',
      `A BPDU shuts it${recovery === undefined ? ', until somebody opens it' : ` for ${recovery} s`}.`,
    ];
  if (rootGuard) return ['guarded', 'A switch that is plugged in takes part, but never leads to a root.'];
  if (!bpduTx) return ['open', 'No BPDU goes out: who is plugged in here does not hear the network.'];
  return [
    'open',
    lead === 'edge'
      ? 'A switch that is plugged in takes part, even as root.'
      : 'No edge port, and no guard: a switch that is plugged in takes part, even as root.',
  ];
}

/** How many ports of each lead have each verdict. */
export function protectionCounts(all: readonly Protection[]): ReadonlyMap<Lead, ReadonlyMap<Verdict, number>> {
  const counts = new Map<Lead, Map<Verdict, number>>();
  for (const { lead, verdict } of all) {
    const own = counts.get(lead) ?? new Map<Verdict, number>();
    counts.set(lead, own.set(verdict, (own.get(verdict) ?? 0) + 1));
  }
  return counts;
}
