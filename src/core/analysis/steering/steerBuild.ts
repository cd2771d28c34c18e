/**
 * Wishes built up rather than searched for: a tree that holds every link that should carry and none that should block,
 * near to the present one, laid by costs. It takes more settings than needed; the caller drops those that change nothing.
 */
import { methodOf } from '../../model/costMethod';
import { BRIDGE_PRIORITY, MAX_COST } from '../../model/legal';
import { setBridgePriority } from '../../topology/bridgeId';
import type { Network } from '../../topology/network';
import { CODE, type SettledTree, forwards } from '../../tree/settled';
import { leadsOut } from './paths';
import type { Setting } from './whatIf';
import type { Target } from './wishes';

/** One set of settings for each root that might do: the present one, switches of the core, the ends of the links. */
export function builtSettings(network: Network, tree: SettledTree, targets: readonly Target[]): (readonly Setting[])[] {
  const { owner, switches } = network;
  const ends = targets.flatMap(({ a, b }) => [owner[b]!, owner[a]!]);
  const now = tree.root[ends[0]!]!;
  const core = switches.flatMap((sw, s) => (sw.tier === 'core' && tree.root[s] === now ? [s] : []));
  const likeNow = spanningCables(network, tree, targets, () => 0);
  // Where that hangs the near end's switch beneath the one that should block, the latter has to hang at the rim.
  const blocking = new Set(targets.flatMap(({ wants, a }) => (wants === 'block' ? [owner[a]!] : [])));
  const atRim = spanningCables(network, tree, targets, (p) =>
    blocking.has(owner[p]!) || blocking.has(owner[network.far[p]!]!) ? RIM : 0,
  );
  return [...new Set([now, ...core, ...ends])].flatMap((root) => {
    const costs = laid(network, tree, likeNow, root, targets) ?? laid(network, tree, atRim, root, targets);
    if (!costs) return [];
    return [[...(root === now ? [] : crown(network, tree, root)), ...costs]];
  });
}

/** The best priority for a switch, and the worst for those of its island that would stay ahead of it by their address. */
function crown({ switches }: Network, tree: SettledTree, root: number): Setting[] {
  const at = (s: number): number => setBridgePriority(switches[s]!, tree.id);
  const ahead = switches.flatMap((sw, s) =>
    s !== root && tree.root[s] === tree.root[root] && at(s) === BRIDGE_PRIORITY.min && sw.mac < switches[root]!.mac
      ? [s]
      : [],
  );
  return [
    { of: 'bridgePriority', switch: root, value: BRIDGE_PRIORITY.min },
    ...ahead.map((s): Setting => ({ of: 'bridgePriority', switch: s, value: BRIDGE_PRIORITY.max })),
  ];
}

/** Dearer than any cable. */
const RIM = 1e12;

/** Ports, one for each cable of a spanning tree: links wished to carry first, then those that carry now, then the cheapest; `more` makes some dearer. */
function spanningCables(
  { far, live, owner, switches }: Network,
  tree: SettledTree,
  targets: readonly Target[],
  more: (p: number) => number,
): Set<number> {
  const wish = new Map(
    targets.flatMap(
      ({ a, b, wants }) =>
        [
          [a, wants],
          [b, wants],
        ] as const,
    ),
  );
  const carries = (p: number): boolean => [p, far[p]!].every((q) => forwards(tree, q));
  const weight = (p: number): number =>
    wish.get(p) === 'carry' ? -2 : carries(p) ? -1 : tree.cost[p]! + tree.cost[far[p]!]!;
  const usable = Array.from(far.keys()).filter(
    (p) =>
      far[p]! > p &&
      live[p] &&
      tree.role[p] !== CODE.absent &&
      tree.role[far[p]!] !== CODE.absent &&
      !leadsOut(tree, p) &&
      wish.get(p) !== 'block',
  );
  const lead = Array.from(switches.keys());
  const leadOf = (s: number): number => (lead[s] === s ? s : (lead[s] = leadOf(lead[s]!)));
  const taken = new Set<number>();
  for (const p of usable.sort((x, y) => weight(x) + more(x) - weight(y) - more(y))) {
    const [s, t] = [leadOf(owner[p]!), leadOf(owner[far[p]!]!)];
    if (s === t) continue;
    lead[s] = t;
    taken.add(p).add(far[p]!);
  }
  return taken;
}

/** Costs that make these cables the tree of a root: ones along them, every other way as dear as it goes; null where a wish to block stands against it. */
function laid(
  network: Network,
  tree: SettledTree,
  cables: ReadonlySet<number>,
  root: number,
  targets: readonly Target[],
): Setting[] | null {
  const { design, far, firstPort, owner, switches } = network;
  const entry = new Map<number, number>([[root, -1]]); // the root port of each switch, in the order of distance
  for (const s of entry.keys()) {
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
      if (cables.has(p) && !entry.has(owner[far[p]!]!)) entry.set(owner[far[p]!]!, far[p]!);
  }
  const own = new Map([...entry.keys()].map((s) => [s, 1]));
  const distances = (): Map<number, number> => {
    const found = new Map<number, number>();
    for (const [s, p] of entry) found.set(s, p < 0 ? 0 : found.get(owner[far[p]!]!)! + own.get(s)!);
    return found;
  };
  // A blocking end's switch has to be farther away than the other end's.
  for (let round = 0; ; round += 1) {
    const at = distances();
    const near = targets.filter(
      ({ wants, a, b }) => wants === 'block' && (at.get(owner[a]!) ?? 0) <= (at.get(owner[b]!) ?? 0),
    );
    if (near.length === 0) break;
    if (round > targets.length || near.some(({ a }) => owner[a] === root)) return null;
    for (const { a, b } of near) own.set(owner[a]!, own.get(owner[a]!)! + at.get(owner[b]!)! - at.get(owner[a]!)! + 1);
  }
  return [...entry].flatMap(([s, entered]) => {
    const found: Setting[] = [];
    const most = MAX_COST[methodOf(design, switches[s]!)];
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      if (s !== root && far[p]! >= 0 && tree.role[p] !== CODE.absent)
        found.push({ of: 'cost', port: p, value: p === entered ? Math.min(most, own.get(s)!) : most });
    }
    return found;
  });
}
