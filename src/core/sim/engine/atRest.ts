/** Beginning at rest: entities that have just begun are put where the solver says that they come to, instead of being run from power on. */
import type { TreeId } from '../../model/ids';
import { SECOND, type Heard, type Micros } from '../../modes/entity';
import type { Network } from '../../topology/network';
import type { SettledTree } from '../../tree/settled';
import { solveTrees } from '../../tree/solve';
import type { Aggregation } from './aggregation';
import { delayOf } from './delays';
import { letsThrough, type Spoken } from './places';
import type { Guards } from './guards';
import type { Running } from './running';

/** Bundles that have moved no member for so long have negotiated; all have come to that by then. */
const NEGOTIATED: Micros = 4 * SECOND;
const BUNDLED_BY: Micros = 120 * SECOND;
/** Switches that are begun at once. */
const SOME = 20;

/** A network whose bundles have begun, and no entity as yet. */
export interface Begun {
  /** As its bundles are now. */
  readonly network: Network;
  readonly spoken: Spoken;
  readonly trees: readonly TreeId[];
  /** By tree, then by switch; null where nothing runs, or a tree is run as another. */
  readonly running: readonly (readonly (Running | null)[])[];
  readonly aggregation: Aggregation;
  readonly now: Micros;
  readonly lastChange: Micros;
  readonly guards: Guards;
  runTo(until: Micros): boolean;
  /** Begins the entities of a switch. */
  start(s: number): void;
  /** The entities of a tree rest: goes on from there. */
  goOn(tree: number): void;
}

/**
 * Lets bundles negotiate, then puts all entities where they come to rest. False where some cannot begin so, or would not
 * rest as the solver says: a classic bridge, one of a region, a port that speaks otherwise than its switch, or throws away
 * what it hears, a segment of more than two bridges, or information that is too old. Some may then have moved: another network
 * is to be booted. Step by step: whoever asks may stop between them.
 */
export function* bringToRest(begun: Begun): Generator<void, boolean> {
  while (!begun.aggregation.resting || begun.now - begun.lastChange < NEGOTIATED) {
    if (begun.now >= BUNDLED_BY) return false;
    begun.runTo(begun.now + SECOND);
    yield;
  }
  begun.guards.actAtRest();
  const { network, trees, running } = begun;
  if (network.oneWayPeers.size > 0 || filters(network) || speaksOtherwise(network)) return false;
  for (const [s, sw] of network.switches.entries()) {
    if (sw.up) begun.start(s);
    if (s % SOME === 0) yield;
  }
  if (running.some((all) => all.some((each) => each !== null && each.entity.beginning === null))) return false;
  const run = trees.flatMap((_, tree) => (running[tree]!.some((each) => each !== null) ? [tree] : []));
  const settled = solveTrees(
    network,
    run.map((tree) => trees[tree]!),
  );
  for (const [i, tree] of run.entries()) {
    yield;
    if (!treeToRest(begun, tree, settled[i]!)) return false;
  }
  for (const tree of run) {
    yield;
    begun.goOn(tree);
  }
  begun.guards.probe();
  return true;
}

/** A port that speaks otherwise than its switch. */
const speaksOtherwise = ({ ports }: Network): boolean => ports.some(({ speaks }) => speaks !== undefined);

/** Who takes nothing in, or says nothing, does not come to rest as others do. */
const filters = ({ ports, far }: Network): boolean =>
  ports.some((port, p) => far[p]! >= 0 && !(port.bpduRx && port.bpduTx));

function treeToRest({ network, spoken, trees, running }: Begun, tree: number, settled: SettledTree): boolean {
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
