/** The way that a tree's BPDU takes through switches that have no part in the tree where it comes in: hubs, and those that flood it where they forward. */
import { treeVlan, type TreeId } from '../../model/ids';
import { belongs, partAt, type TreePart } from '../../topology/trees';
import type { Network } from '../../topology/network';
import { passing } from '../passing';
import type { Solution } from '../settled';
import { portText, switchName } from './phrases';

/** A port of a bridge whose BPDUs get somewhere, and the ports by which they go in and out of such switches, in turn: none over a cable. */
export interface BpduWay {
  readonly from: number;
  readonly way: readonly number[];
}

/** Every port whose BPDUs in a tree come to port `to`, if it sends any; the shortest way each. */
export function bpduWays(solution: Solution, tree: TreeId, to: number): BpduWay[] {
  const { network } = solution;
  const { switches, ports, owner, firstPort, far, live, carried } = network;
  const vid = treeVlan(tree);
  let passes: Uint8Array | null = null;
  const partHere = (q: number): TreePart => partAt(switches[owner[q]!]!, ports[q]!, tree);
  const isIn = (q: number): boolean => belongs(switches[owner[q]!]!, carried[q]!, vid);
  const forwards = (q: number): boolean => vid !== null && (passes ??= passing(solution, vid))[q] === 1;
  const isOpen = (q: number, part: TreePart): boolean =>
    live[q] === 1 && partHere(q) === part && isIn(q) && (part === 'hub' || (part === 'relay' && forwards(q)));
  const found: BpduWay[] = [];
  const seen = new Set([to]);
  const open: { readonly at: number; readonly way: readonly number[] }[] = [{ at: to, way: [] }];
  for (const { at, way } of open) {
    const x = far[at]!;
    if (x < 0 || !live[at] || !live[x]) continue;
    const part = partHere(x);
    if (part === 'bridge' && isIn(x)) found.push({ from: x, way });
    if (!isOpen(x, part)) continue;
    const s = owner[x]!;
    // What comes back to a switch that has passed it on is not passed on again.
    if (way.some((q) => owner[q] === s && partHere(q) === part)) continue;
    for (let y = firstPort[s]!; y < firstPort[s + 1]!; y += 1) {
      if (y === x || seen.has(y) || !isOpen(y, part)) continue;
      seen.add(y);
      open.push({ at: y, way: [y, x, ...way] });
    }
  }
  return found;
}

/** The way from one port to another; null where BPDUs do not get there. */
export const bpduWay = (solution: Solution, tree: TreeId, from: number, to: number): readonly number[] | null =>
  bpduWays(solution, tree, to).find((each) => each.from === from)?.way ?? null;

/** `c (port 1 to port 2) and d (port 2 to port 1)`. */
export function wayPhrase(network: Network, way: readonly number[]): string {
  const through = way.flatMap((q, i) =>
    i % 2 === 0
      ? [
          `${switchName(network.switches[network.owner[q]!]!)} (${portText(network, q)} to ${portText(network, way[i + 1]!)})`,
        ]
      : [],
  );
  return through.length < 2 ? through.join() : `${through.slice(0, -1).join(', ')} and ${through.at(-1)!}`;
}
