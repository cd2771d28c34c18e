/** The way that a tree's BPDU takes through switches that have no part in the tree where it comes in: hubs, and those that flood it where they forward. */
import { treeVlan, type TreeId } from '../../model/ids';
import { belongs, partAt, type TreePart } from '../../topology/trees';
import type { Network } from '../../topology/network';
import { passing } from '../passing';
import type { Solution } from '../settled';
import { portText, switchName } from './phrases';

/**
 * The ports by which it goes in and out of such switches, in turn, from the port that sends it to one that takes it in: none where
 * a cable leads there. Null where it does not get there.
 */
export function bpduWay(solution: Solution, tree: TreeId, from: number, to: number): number[] | null {
  const { network } = solution;
  const { switches, ports, owner, firstPort, far, live, carried } = network;
  const vid = treeVlan(tree);
  const passes = vid === null ? null : passing(solution, vid);
  const partHere = (q: number): TreePart => partAt(switches[owner[q]!]!, ports[q]!, tree);
  const isOpen = (q: number, part: TreePart): boolean =>
    live[q] === 1 &&
    partHere(q) === part &&
    belongs(switches[owner[q]!]!, carried[q]!, vid) &&
    (part === 'hub' || (part === 'relay' && passes?.[q] === 1));
  /** By port that it leaves a switch by, the one that it came in by. */
  const cameBy = new Map<number, number>([[from, -1]]);
  /** By port that it comes in by, the one at the other end. */
  const sentBy = new Map<number, number>();
  for (const out of cameBy.keys()) {
    const q = far[out]!;
    if (q < 0 || sentBy.has(q)) continue;
    sentBy.set(q, out);
    if (q === to) return wayBy(cameBy, out, sentBy);
    const part = partHere(q);
    if (!isOpen(q, part)) continue;
    const s = owner[q]!;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
      if (p !== q && !cameBy.has(p) && isOpen(p, part)) cameBy.set(p, q);
  }
  return null;
}

function wayBy(cameBy: ReadonlyMap<number, number>, last: number, sentBy: ReadonlyMap<number, number>): number[] {
  const way: number[] = [];
  for (let out = last, q = cameBy.get(out)!; q >= 0; q = cameBy.get(out)!) {
    way.unshift(q, out);
    out = sentBy.get(q)!;
  }
  return way;
}

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
