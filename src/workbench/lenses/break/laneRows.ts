/** The clock's lanes: a port that changed in trees that fare alike, or a pair of hosts, cut off or not. */
import equal from 'fast-deep-equal';
import type { MemberState } from '../../../core/modes/lacp/state';
import type { BridgePortId, SwitchId, TreeId } from '../../../core/model/ids';
import { treesName } from '../../../core/model/ids';
import type { Micros } from '../../../core/modes/entity';
import { SECOND } from '../../../core/modes/entity';
import type { Player, Stretch } from '../../../core/sim/trace/trace';
import type { HostPair, OutageCause } from '../../../core/sim/traffic/reach';

export interface PortLane {
  readonly kind: 'port';
  readonly id: string;
  readonly label: string;
  readonly trees: string;
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly treeIds: readonly TreeId[];
  /** The colour's place among all trees: the first of the lane. */
  readonly treeIndex: number;
  readonly stretches: readonly Stretch[];
}

export interface PairLane {
  readonly kind: 'pair';
  readonly id: string;
  readonly label: string;
  readonly trees: string;
  readonly cuts: readonly { readonly from: Micros; readonly to: Micros; readonly cause: OutageCause }[];
}

export interface MemberLane {
  readonly kind: 'member';
  readonly id: string;
  readonly label: string;
  readonly trees: string;
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  readonly stays: readonly { readonly from: Micros; readonly to: Micros; readonly state: MemberState }[];
}

export type Lane = PortLane | MemberLane | PairLane;

export interface LaneFilter {
  /** Null: all. */
  readonly trees: readonly TreeId[] | null;
  readonly text: string;
  readonly show: 'all' | 'ports' | 'pairs';
}

/** Members of bundles that changed, ports switch by switch, then pairs of hosts; trees in which a port does the same share a lane. */
export function lanesOf(player: Player, filter: LaneFilter): Lane[] {
  const { trace, network } = player;
  const has = (...words: readonly string[]): boolean =>
    words.some((word) => word.toLowerCase().includes(filter.text.trim().toLowerCase()));
  const hostName = new Map(trace.design.hosts.map((host) => [host.id, host.name ?? host.id]));
  const cutsOf = new Map<string, PairLane['cuts'][number][]>();
  for (const outage of trace.outages) {
    const cuts = cutsOf.get(keyOf(outage)) ?? [];
    cuts.push({
      from: Math.round(outage.start * SECOND),
      to: outage.end === null ? trace.until : Math.round(outage.end * SECOND),
      cause: outage.cause,
    });
    cutsOf.set(keyOf(outage), cuts);
  }
  // Those that were cut off first; among pairs alone the others follow.
  const pairs = [...trace.pairs]
    .filter((pair) => filter.show === 'pairs' || cutsOf.has(keyOf(pair)))
    .sort((a, b) => Number(cutsOf.has(keyOf(b))) - Number(cutsOf.has(keyOf(a))));
  const directed = pairs.flatMap((pair): Directed[] => {
    const names = [hostName.get(pair.from) ?? pair.from, hostName.get(pair.to) ?? pair.to] as const;
    return has(...names) ? [{ pair, names, cuts: cutsOf.get(keyOf(pair)) ?? [] }] : [];
  });
  const ports = new Map<
    string,
    { readonly port: number; readonly trees: number[]; readonly stretches: readonly Stretch[] }
  >();
  for (const { tree, port, stretches } of player.lanes()) {
    if (filter.trees && !filter.trees.includes(trace.trees[tree]!)) continue;
    const sw = network.switches[network.owner[port]!]!;
    if (!has(`${sw.name ?? sw.id} ${network.ports[port]!.id}`, sw.id)) continue;
    const key = `${port} ${stretches.map(({ from, state, role }) => `${from}${state}${role}`).join()}`;
    const known = ports.get(key);
    if (known) known.trees.push(tree);
    else ports.set(key, { port, trees: [tree], stretches });
  }
  const portLanes = [...ports].map(([key, { port, trees, stretches }]): PortLane & { readonly at: number } => {
    const sw = network.switches[network.owner[port]!]!;
    const ids = trees.map((tree) => trace.trees[tree]!);
    return {
      kind: 'port',
      id: key,
      at: port,
      label: `${sw.name ?? sw.id} ${network.ports[port]!.id}`,
      trees: ids.length === trace.trees.length ? '' : treesName(ids).replace(/^VLANs? /, ''),
      switch: sw.id,
      port: network.ports[port]!.id,
      treeIds: ids,
      treeIndex: trees[0]!,
      stretches,
    };
  });
  const lanesOfPorts =
    filter.show === 'pairs' ? [] : portLanes.sort((a, b) => a.at - b.at || a.treeIndex - b.treeIndex);
  return [
    ...(filter.show === 'pairs' ? [] : memberLanes(player, has)),
    ...lanesOfPorts,
    ...(filter.show === 'ports' ? [] : pairLanes(directed)),
  ];
}

/** A lane for each member of a bundle that came to stand otherwise. */
function memberLanes(
  { trace, network: { bundles } }: Player,
  has: (...words: readonly string[]) => boolean,
): MemberLane[] {
  return bundles.members.flatMap((member): MemberLane[] => {
    const { ownerName, name, owner } = bundles.ends[member.end]!;
    const marks = trace.members.filter((mark) => mark.member === member.index);
    const turns = marks.filter((mark, i) => mark.state !== marks[i - 1]?.state);
    if (turns.length < 2 || !has(`${ownerName} ${name} ${member.id}`)) return [];
    const label = owner.kind === 'host' ? `${ownerName} card ${member.id}` : `${ownerName} ${name}`;
    return [
      {
        kind: 'member',
        id: `member ${member.index}`,
        label,
        trees: owner.kind === 'host' ? '' : `port ${member.id}`,
        switch: member.at.switch,
        port: member.at.port,
        stays: turns.map(({ t, state }, i) => ({ from: i === 0 ? 0 : t, to: turns[i + 1]?.t ?? trace.until, state })),
      },
    ];
  });
}

/** A pair of hosts in one direction, with the times at which it was cut off. */
interface Directed {
  readonly pair: HostPair;
  readonly names: readonly [from: string, to: string];
  readonly cuts: PairLane['cuts'];
}

const keyOf = ({ from, to, vlan }: HostPair): string => `${from}\n${to}\n${vlan}`;

/** Pairs that are cut off alike in both directions share a lane. */
function pairLanes(all: readonly Directed[]): PairLane[] {
  const byPair = new Map(all.map((each) => [keyOf(each.pair), each]));
  return all.flatMap(({ pair, names, cuts }): PairLane[] => {
    const back = byPair.get(keyOf({ ...pair, from: pair.to, to: pair.from }));
    const alike = back !== undefined && equal(back.cuts, cuts);
    if (alike && pair.from > pair.to) return [];
    return [
      { kind: 'pair', id: keyOf(pair), label: names.join(alike ? ' and ' : ' to '), trees: String(pair.vlan), cuts },
    ];
  });
}
