/**
 * The settled state found the slow way, as an oracle for the solver: every bridge starts as its own root and, knowing
 * only what its ports have heard, tells each segment what it has until nothing changes (802.1Q-2018 13.9 to 13.12).
 */
import { methodOf } from '../model/costMethod';
import type { TreeId } from '../model/ids';
import { bridgeId, portIdentifier, portIdentifierValue, setPathCost } from '../topology/bridgeId';

import { pathCostOf } from '../topology/pathCost';
import type { Segments } from '../topology/segments';
import { CODE, type Solution } from '../tree/settled';

/** root, cost, bridge, port, receiving port: strings of fixed width and numbers, compared in order. */
type Vector = readonly [root: string, cost: number, bridge: string, port: number, receiving: number];

const less = (a: Vector, b: Vector): boolean => {
  for (let i = 0; i < a.length; i += 1) if (a[i] !== b[i]) return a[i]! < b[i]!;
  return false;
};

/** Root, root path cost (-1 for switches outside), root port and role codes, by the network's indices. */
export function exchangeVectors({ network }: Pick<Solution, 'network'>, tree: TreeId, segments: Segments) {
  const { switches, ports, owner, design } = network;
  const name = switches.map((sw) => `${String(bridgeId(sw, tree).priority).padStart(6, '0')}.${sw.mac}`);
  const key = ports.map((port, p) => portIdentifierValue(portIdentifier(port, tree, switches[owner[p]!]!.dialect)));
  const cost = ports.map(
    (port, p) =>
      setPathCost(port, tree, switches[owner[p]!]!.dialect) ??
      pathCostOf(port.speed, methodOf(design, switches[owner[p]!]!)),
  );
  const bridges = switches.map((_, s) => s).filter((s) => segments.parts[s] === 'bridge');
  const live = ports.map((_, p) => p).filter((p) => segments.of[p]! >= 0);

  let best = new Map(bridges.map((s) => [s, { vector: [name[s]!, 0, name[s]!, 0, 0] as Vector, through: -1 }]));
  const offer = (p: number): Vector => [
    best.get(owner[p]!)!.vector[0],
    best.get(owner[p]!)!.vector[1],
    name[owner[p]!]!,
    key[p]!,
    0,
  ];
  const winner = (p: number): number =>
    live.filter((q) => segments.of[q] === segments.of[p]).reduce((w, q) => (less(offer(q), offer(w)) ? q : w), p);

  for (let round = 0; round <= 2 * switches.length + 2; round += 1) {
    const next = new Map(bridges.map((s) => [s, { vector: [name[s]!, 0, name[s]!, 0, 0] as Vector, through: -1 }]));
    for (const p of live) {
      const w = winner(p);
      if (owner[w] === owner[p]) continue;
      const [root, rootCost, bridge, port] = offer(w);
      const heard: Vector = [root, rootCost + cost[p]!, bridge, port, key[p]!];
      if (less(heard, next.get(owner[p]!)!.vector)) next.set(owner[p]!, { vector: heard, through: p });
    }
    best = next;
  }

  const role = ports.map((_, p) => {
    if (!segments.member[p]) return CODE.absent;
    if (segments.of[p]! < 0) return CODE.disabled;
    const w = winner(p);
    if (w === p) return CODE.designated;
    if (best.get(owner[p]!)!.through === p) return CODE.root;
    return owner[w] === owner[p] ? CODE.backup : CODE.alternate;
  });
  const of = <T>(pick: (state: { vector: Vector; through: number }) => T, none: T) =>
    switches.map((_, s) => (best.has(s) ? pick(best.get(s)!) : none));
  return {
    root: of(({ vector }) => name.indexOf(vector[0]), -1),
    rootPathCost: of(({ vector }) => vector[1], -1),
    rootPort: of(({ through }) => through, -1),
    role,
  };
}
