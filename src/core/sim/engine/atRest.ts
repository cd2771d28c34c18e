/** Beginning at rest: entities that have just begun are put where the solver says that they come to, instead of being run from power on. */
import type { TreeId } from '../../model/ids';
import type { Heard } from '../../modes/entity';
import type { Network } from '../../topology/network';
import type { SettledTree } from '../../tree/settled';
import { solveTrees } from '../../tree/solve';
import { delayOf } from './delays';
import { letsThrough, type Spoken } from './places';
import type { Running } from './running';

/** What there is to begin with. */
export interface Started {
  readonly network: Network;
  readonly spoken: Spoken;
  readonly trees: readonly TreeId[];
  /** By tree, then by switch; null where nothing runs, or a tree is run as another. */
  readonly running: readonly (readonly (Running | null)[])[];
}

/**
 * Brings all entities to rest; false where some cannot begin so, or would not rest as the solver says: a classic bridge, one
 * of a region, a port that throws away what it hears, a segment of more than two bridges, or information that is too old.
 * Some may then have moved: the network is to be booted anew. Tree after tree: whoever asks may stop between them.
 */
export function* bringToRest(started: Started): Generator<void, boolean> {
  const { network, trees, running } = started;
  if (network.oneWayPeers.size > 0) return false;
  if (running.some((all) => all.some((each) => each !== null && each.entity.beginning === null))) return false;
  const run = trees.flatMap((_, tree) => (running[tree]!.some((each) => each !== null) ? [tree] : []));
  const settled = solveTrees(
    network,
    run.map((tree) => trees[tree]!),
  );
  for (const [i, tree] of run.entries()) {
    yield;
    if (!treeToRest(started, tree, settled[i]!)) return false;
  }
  return true;
}

function treeToRest({ network, spoken, trees, running }: Started, tree: number, settled: SettledTree): boolean {
  const { far, owner, live } = network;
  const places = spoken.places[tree]!;
  const all = running[tree]!;
  const entityAt = (port: number): Running => all[owner[port]!]!;
  const offerAt = (port: number) => entityAt(port).entity.beginning!.offer(places[port]!);
  if (settled.disputed.includes(1)) return false;
  // From the root outward: each takes the way of one that is nearer.
  const outward = all.flatMap((each) => (each ? [each] : []));
  outward.sort((a, b) => settled.rootPathCost[a.switch]! - settled.rootPathCost[b.switch]!);
  for (const { entity, switch: s } of outward) {
    const up = settled.rootPort[s]!;
    if (up < 0) continue;
    if (far[up]! < 0 || places[far[up]!]! < 0) return false;
    entity.beginning!.leadTo(places[up]!, offerAt(far[up]!));
  }
  const heardAt = (port: number): Heard | null => {
    if (!live[port]) return { kind: 'off' };
    const there = far[port]!;
    if (there < 0) return { kind: 'nobody' };
    if (places[there]! >= 0) {
      const last = entityAt(there).entity.beginning!.lastHello(places[there]!);
      return { kind: 'bridge', offer: offerAt(there), last: last + delayOf(network, network.link[port]!) };
    }
    return letsThrough(network, trees[tree]!, there) === 'never' ? { kind: 'nobody' } : null;
  };
  const heard = outward.map(({ ports }) => ports.map(heardAt));
  if (heard.some((each) => each.includes(null))) return false;
  if (!outward.every(({ entity }, i) => entity.beginning!.rest(heard[i] as Heard[]))) return false;
  for (const [i, { entity, ports }] of outward.entries())
    for (const [local, port] of ports.entries()) {
      const there = far[port]!;
      const said = heard[i]![local]!.kind === 'bridge' ? entityAt(there).entity.beginning!.said(places[there]!) : null;
      if (said) entity.beginning!.knew(local, said);
    }
  return true;
}
