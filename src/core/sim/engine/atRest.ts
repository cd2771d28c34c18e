/** Beginning at rest: entities that have just begun are put where the solver says that they come to, instead of being run from power on. */
import type { TreeId } from '../../model/ids';
import { SECOND, type Heard, type Micros } from '../../modes/entity';
import type { Network } from '../../topology/network';
import { ownCheckedPorts } from '../../topology/ownCheck';
import { rootCheckedPorts } from '../../topology/rootCheck';
import { wrongVlans } from '../../topology/vlanCheck';
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
 * rest as the solver says: a classic bridge, a region whose root is outside of it, a port that speaks otherwise than its switch, or throws away
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
  if (
    network.oneWayPeers.size > 0 ||
    wrongVlans(network).size > 0 ||
    rootCheckedPorts(network).size > 0 ||
    ownCheckedPorts(network) !== null ||
    filters(network) ||
    speaksOtherwise(network)
  )
    return false;
  for (const [s, sw] of network.switches.entries()) {
    if (sw.up) begun.start(s);
    if (s % SOME === 0) yield;
  }
  if (running.some((all) => all.some((each) => each !== null && each.entity.beginning === null))) return false;
  const groups = trees.flatMap((_, tree): number[][] => {
    const [first] = running[tree]!.flatMap((each) => (each ? [each] : []));
    return first && first.trees[0] === tree ? [treesTogether(running[tree]!)] : [];
  });
  const settled = new Map(
    solveTrees(
      network,
      groups.flat().map((tree) => trees[tree]!),
    ).map((each) => [trees.indexOf(each.id), each] as const),
  );
  for (const group of groups) {
    yield;
    if (!groupToRest(begun, group, settled)) return false;
  }
  for (const [tree] of groups) {
    yield;
    begun.goOn(tree!);
  }
  begun.guards.probe();
  return true;
}

/** A port that speaks otherwise than its switch. */
const speaksOtherwise = ({ ports }: Network): boolean => ports.some(({ speaks }) => speaks !== undefined);

/** Who takes nothing in, or says nothing, does not come to rest as others do. */
const filters = ({ ports, far }: Network): boolean =>
  ports.some((port, p) => far[p]! >= 0 && !(port.bpduRx && port.bpduTx));

/** The trees of the entities that run one: itself, and with it the instances of their regions. */
const treesTogether = (all: readonly (Running | null)[]): number[] => [
  ...new Set(all.flatMap((running) => running?.trees ?? [])),
];

/** Puts the entities of a tree where they come to rest; `group`: that tree, and the instances that they run with it. */
function groupToRest(
  { network, spoken, trees, running }: Begun,
  group: readonly number[],
  settled: ReadonlyMap<number, SettledTree>,
): boolean {
  const { far, owner, live } = network;
  const [common] = group as [number];
  const places = spoken.places[common]!;
  const all = running[common]!;
  const entityAt = (port: number): Running => all[owner[port]!]!;
  const offerAt = (port: number, own: number) => entityAt(port).entity.beginning!.offer(places[port]!, own);
  // From the root outward: each takes the way of one that is nearer. The CIST first: instances have its times.
  for (const tree of group) {
    const { disputed, rootPort } = settled.get(tree)!;
    if (disputed.includes(1)) return false;
    for (const s of outward(network, rootPort)) {
      const [up, its] = [rootPort[s]!, running[tree]![s]];
      if (up < 0 || !its) continue;
      const there = far[up]!;
      const own = there < 0 || places[there]! < 0 ? -1 : entityAt(there).trees.indexOf(tree);
      if (own < 0) return false;
      its.entity.beginning!.leadTo(places[up]!, offerAt(there, own), its.trees.indexOf(tree));
    }
  }
  const begun = all.flatMap((each) => (each ? [each] : []));
  const heardAt = (port: number, own: readonly number[]): Heard | null => {
    if (!live[port]) return { kind: 'off' };
    const there = far[port]!;
    if (there < 0) return { kind: 'nobody' };
    if (places[there]! >= 0) {
      const { trees: its, entity } = entityAt(there);
      const last = entity.beginning!.lastHello(places[there]!) + delayOf(network, network.link[port]!);
      const [, ...instances] = own.map((tree) => {
        const at = its.indexOf(tree);
        return at < 0 ? null : offerAt(there, at);
      });
      return { kind: 'bridge', offers: [offerAt(there, 0), ...instances], last };
    }
    return letsThrough(network, trees[common]!, there) === 'never' ? { kind: 'nobody' } : null;
  };
  const heard = begun.map(({ ports, trees: own }) => ports.map((port) => heardAt(port, own)));
  if (heard.some((each) => each.includes(null))) return false;
  if (!begun.every(({ entity }, i) => entity.beginning!.rest(heard[i] as Heard[]))) return false;
  for (const [i, { entity, ports }] of begun.entries())
    for (const [local, port] of ports.entries()) {
      const there = far[port]!;
      const said = heard[i]![local]!.kind === 'bridge' ? entityAt(there).entity.beginning!.said(places[there]!) : null;
      if (said) entity.beginning!.knew(local, said);
    }
  return true;
}

/** Switches so that each comes after the one that its root port leads to. */
function outward({ far, owner, switches }: Network, rootPort: SettledTree['rootPort']): Iterable<number> {
  const found = new Set<number>();
  for (const start of switches.keys()) {
    const way: number[] = [];
    for (let s = start; s >= 0 && !found.has(s) && way.length <= switches.length;) {
      way.push(s);
      const up = rootPort[s]!;
      s = up < 0 || far[up]! < 0 ? -1 : owner[far[up]!]!;
    }
    for (const s of way.reverse()) found.add(s);
  }
  return found;
}
