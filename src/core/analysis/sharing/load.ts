/** How much each link carries in the busy hour: the VLANs' loads laid along the ways that their frames take, those of a bundle spread over its active members. */
import { oncePer } from '../../base/cache';
import type { LinkId, TreeId } from '../../model/ids';
import type { Design, Link } from '../../model/document';
import { crossing, peerCables, type Side } from './peerLoad';
import { halvesOf } from '../../topology/acting';
import { bridgePortOf, type Network } from '../../topology/network';
import { passing, treeForVlan } from '../../tree/passing';
import type { SettledTree, Solution } from '../../tree/settled';

/** One link. Loads in Mbit/s, both directions together. */
export interface LinkLoad {
  readonly link: LinkId;
  /** Of the slower end, Mbit/s. */
  readonly speed: number;
  readonly byTree: ReadonlyMap<TreeId, number>;
  readonly total: number;
  /** The total as a share of the speed: 1 is full. */
  readonly share: number;
  /** `idle`: it has signal, yet no VLAN's frames pass it. */
  readonly state: 'carries' | 'idle' | 'down';
}

export interface Loads {
  /** In the order of the document. */
  readonly links: readonly LinkLoad[];
  /** The most loaded link by its share; null where nothing is loaded. */
  readonly peak: LinkLoad | null;
  readonly idle: readonly LinkId[];
  /** True where no VLAN has a load: each then counts as 1 Mbit/s. */
  readonly assumed: boolean;
  /** VLANs without a load, where others have one. */
  readonly unset: readonly number[];
}

/**
 * The load of every link. A VLAN's load is spread evenly over the pairs of its hosts; where fewer than two are known, it
 * goes between its switches and the root: those of its host, else the access switches that carry it.
 */
export function linkLoads(solution: Solution): Loads {
  const { network } = solution;
  const { design, ports } = network;
  const bridges = network.acting ?? network;
  const declared = new Map(design.vlans.map((vlan) => [vlan.id, vlan.load]));
  const assumed = [...declared.values()].every((load) => !load);
  const vids = [...new Set([1, ...declared.keys()])].sort((a, b) => a - b);
  const byTree = design.links.map(() => new Map<TreeId, number>());
  const used = design.links.map(() => false);
  const ends = design.links.map((_, l) => endsOf(network, l));
  const bridgeEnds = ends.map((both) => both.map((p) => bridgePortOf(network, p)));
  for (const vid of vids) {
    const passes = passing(solution, vid);
    bridgeEnds.forEach(([a, b], l) => (used[l] ||= passes[a!] === 1 && passes[b!] === 1));
    const load = loadOf(design, vid);
    const tree = load === 0 ? null : treeForVlan(solution, vid);
    if (!tree) continue;
    const { at, share } = sharesIn(bridges, tree, vid, passes);
    for (let i = 0; i < at.length; i += 1) {
      const own = byTree[at[i]!]!;
      if (share[i]! > 0) own.set(tree.id, (own.get(tree.id) ?? 0) + share[i]! * load);
    }
  }
  const links = design.links.map((link, l): LinkLoad => {
    const [a, b] = ends[l]!;
    const speed = Math.min(ports[a]!.speed, ports[b]!.speed);
    const total = [...byTree[l]!.values()].reduce((sum, each) => sum + each, 0);
    return {
      link: link.id,
      speed,
      byTree: byTree[l]!,
      total,
      share: total / speed,
      state: !network.macOperational[a] || !network.macOperational[b] ? 'down' : used[l] ? 'carries' : 'idle',
    };
  });
  const peak = links.reduce<LinkLoad | null>((most, each) => (each.share > (most?.share ?? 0) ? each : most), null);
  return {
    links,
    peak,
    idle: links.flatMap((each) => (each.state === 'idle' ? [each.link] : [])),
    assumed,
    unset: assumed ? [] : [...declared].flatMap(([vid, load]) => (load === undefined ? [vid] : [])),
  };
}

/** What a VLAN's hosts send in the busy hour, Mbit/s: 1 for each listed VLAN where none has a load. */
export function loadOf({ vlans }: Design, vid: number): number {
  const own = vlans.find((vlan) => vlan.id === vid);
  return own && vlans.every((vlan) => !vlan.load) ? 1 : (own?.load ?? 0);
}

/** The share of a VLAN's load that each link has, by link index. */
export function vlanShares(solution: Solution, vid: number): ReadonlyMap<number, number> {
  const tree = treeForVlan(solution, vid);
  const network = solution.network.acting ?? solution.network;
  if (!tree) return new Map<number, number>();
  const { at, share } = sharesIn(network, tree, vid, passing(solution, vid));
  return new Map(Array.from(at, (l, i) => [l, share[i]!] as const));
}

/** Where frames pass at the ports of a network's bridges: by either half of a bundle of a pair, and not by its peer link, which is inside. */
const wholes = (bridges: Network, passes: Uint8Array): Uint8Array =>
  bridges.pairs.length === 0
    ? passes
    : passes.map((_, p) => Number(bridges.live[p] === 1 && halvesOf(bridges, p).some((half) => passes[half])));

function endsOf({ design, portIndexOf }: Network, l: number): [number, number] {
  const { a, b } = design.links[l] as Link;
  return [portIndexOf(a.switch, a.port), portIndexOf(b.switch, b.port)];
}

/** The same, made once for what passes as long as the tree, the hosts and the tiers of the switches are the same. */
function sharesIn(network: Network, tree: SettledTree, vid: number, passes: Uint8Array): Shares {
  const kept = keptFor(passes);
  const [{ hosts }, tiers] = [network.design, tiersOf(network.switches)];
  if (network.pairs.length > 0) return packed(sharesOf(network, tree, vid, wholes(network, passes)));
  if (kept.tree === tree && kept.hosts === hosts && kept.tiers === tiers) return kept.shares;
  const shares = packed(sharesOf(network, tree, vid, passes));
  Object.assign(kept, { tree, hosts, tiers, shares });
  return shares;
}

/** Links by index, and the share that each has. */
interface Shares {
  readonly at: Int32Array;
  readonly share: Float64Array;
}
const packed = (shares: ReadonlyMap<number, number>): Shares => ({
  at: Int32Array.from(shares.keys()),
  share: Float64Array.from(shares.values()),
});
interface KeptShares {
  tree: SettledTree | null;
  hosts: Design['hosts'];
  tiers: string;
  shares: Shares;
}
const keptFor = oncePer((_: Uint8Array): KeptShares => ({
  tree: null,
  hosts: [],
  tiers: '',
  shares: packed(new Map()),
}));
const tiersOf = oncePer((switches: Network['switches']): string => switches.map(({ tier }) => tier).join());

/** The share of a VLAN's load on each link, by link index. */
function sharesOf(network: Network, tree: SettledTree, vid: number, passes: Uint8Array): Map<number, number> {
  const hosts = hostsAt(network, vid);
  const total = hosts.reduce((sum, count) => sum + count, 0);
  const between = total >= 2;
  const weight = between ? hosts : total === 1 ? hosts : edgesAt(network, passes);
  const shares = new Map<number, number>();
  const all = between ? (total * (total - 1)) / 2 : weight.reduce((sum, each) => sum + each, 0);
  const below = Float64Array.from(weight);
  for (const island of islandsOf(network, tree, passes)) {
    const { order, up, root } = island;
    const here = order.reduce((sum, s) => sum + weight[s]!, 0);
    // Away from the start of each island inwards: what lies below a link is known when it is reached.
    for (let i = order.length - 1; i >= 0; i -= 1) {
      const s = order[i]!;
      const p = up[s]!;
      if (p < 0) continue;
      const under = below[s]!;
      below[network.owner[network.far[p]!]!]! += under;
      const share = between ? (under * (here - under)) / all : root ? under / all : 0;
      if (all === 0) continue;
      const aggregationPorts = aggregationPortsBetween(network, p);
      for (const aggregationPort of aggregationPorts)
        shares.set(network.cable[aggregationPort]!, share / aggregationPorts.length);
    }
    for (const pair of network.pairs) {
      if (pair.state !== 'together' || !order.includes(pair.first) || all === 0) continue;
      const sides = sidesOf(network, island, below, pair.first);
      if (between) sides.push(...hostSides(network, vid, pair.first));
      const upward = up[pair.first]!;
      if (upward >= 0) sides.push({ weight: between ? here - below[pair.first]! : 1, ports: [upward] });
      const last = sides.length - 1;
      const meets = (i: number, j: number): boolean => between || (upward >= 0 && (i === last || j === last));
      const cables = peerCables(network, pair);
      const share = crossing(network, pair, sides, meets) / all;
      for (const p of cables) shares.set(network.cable[p]!, share / cables.length);
    }
  }
  return shares;
}

/** What lies behind each port of a bridge that leads away from the start of its island. */
const sidesOf = ({ far, owner }: Network, { order, up }: Island, below: Float64Array, s: number): Side[] =>
  order.flatMap((child) => {
    const p = up[child]!;
    return p >= 0 && owner[far[p]!] === s ? [{ weight: below[child]!, ports: [far[p]!] }] : [];
  });

/** The hosts of a VLAN at a bridge, each by its cards. */
const hostSides = ({ design, serves, owner, portIndexOf }: Network, vid: number, s: number): Side[] =>
  design.hosts.flatMap((host) => {
    const cards = host.attach.map((at) => serves[portIndexOf(at.switch, at.port)]!);
    return host.vlan === vid && owner[cards[0]!] === s ? [{ weight: 1, ports: cards.filter((p) => p >= 0) }] : [];
  });

/** The aggregationPorts whose cables carry what passes a bridge port: where it is a bundle, or faces one, those of the active members. */
function aggregationPortsBetween({ aggregates, far, plug, serves, transmitPort }: Network, p: number): number[] {
  if (!aggregates.has(p) && !aggregates.has(far[p]!)) {
    const own = transmitPort[p]!;
    return plug[own]! >= 0 && serves[plug[own]!] === far[p] ? [own] : [];
  }
  const socketsAt = (port: number): number[] => {
    const bundle = aggregates.get(port);
    return bundle ? bundle.active.map((place) => bundle.aggregationPorts[place]!) : [transmitPort[port]!];
  };
  return socketsAt(p).filter(
    (aggregationPort) => plug[aggregationPort]! >= 0 && serves[plug[aggregationPort]!] === far[p],
  );
}

/** How many hosts of a VLAN each switch has; a host with several cards counts where its first live one is. */
function hostsAt({ design, switches, switchIndex, portIndexOf, ports }: Network, vid: number): number[] {
  const count = switches.map(() => 0);
  for (const host of design.hosts) {
    if (host.vlan !== vid) continue;
    const at = host.attach.find(
      (end) => ports[portIndexOf(end.switch, end.port)]?.up && switches[switchIndex.get(end.switch) ?? -1]?.up,
    );
    if (at) count[switchIndex.get(at.switch)!]! += 1;
  }
  return count;
}

/** One for each access switch that has the VLAN's frames; for every switch that has, where none is an access switch. */
function edgesAt({ switches, owner }: Network, passes: Uint8Array): number[] {
  const reached = new Uint8Array(switches.length);
  for (let p = 0; p < passes.length; p += 1) if (passes[p]) reached[owner[p]!] = 1;
  const access = switches.map((sw, s) => (sw.tier === 'access' ? reached[s]! : 0));
  return access.some(Boolean) ? access : Array.from(reached);
}

interface Island {
  /** Its switches, nearer ones first. */
  readonly order: readonly number[];
  /** The port of each switch toward the first one, -1 at the first. */
  readonly up: Int32Array;
  /** Whether the first one is the root of a tree. */
  readonly root: boolean;
}

/** The switches that a VLAN's frames join, from each root outwards; a loop that nothing blocks is followed one way. */
function islandsOf({ switches, firstPort, far, owner }: Network, tree: SettledTree, passes: Uint8Array): Island[] {
  const seen = new Uint8Array(switches.length);
  const up = new Int32Array(switches.length).fill(-1);
  const roots = switches.flatMap((_, s) => (tree.root[s] === s ? [s] : []));
  return [...roots, ...switches.keys()].flatMap((start): Island[] => {
    if (seen[start]) return [];
    seen[start] = 1;
    const order = [start];
    for (const s of order) {
      for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
        const q = far[p]!;
        if (q < 0 || !passes[p] || !passes[q] || seen[owner[q]!]) continue;
        seen[owner[q]!] = 1;
        up[owner[q]!] = q;
        order.push(owner[q]!);
      }
    }
    return [{ order, up, root: tree.root[start] === start }];
  });
}
