/** Sharing: trees spread over uplinks that would otherwise idle, by roots or by costs, each way tried in the solver. */
import type { Command } from '../../edit/commands';
import { methodOf } from '../../model/costMethod';
import { sentencesOf } from '../../edit/describe';
import { editAll } from '../../edit/edit';
import { CIST, CST, treesName, type LinkId, type TreeId } from '../../model/ids';
import { MAX_COST } from '../../model/legal';
import type { Tier } from '../../model/document';
import { fail, ok, type Result } from '../../base/result';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import { bridgePortOf, compileNetwork, deadReason, type Network } from '../../topology/network';
import { label, switchName } from '../../tree/explain/phrases';
import { treeOf, type SettledTree, type Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { middlesOf, preferInTurn, type Leads } from './middles';
import { linkLoads, type LinkLoad, type Loads } from './load';
import { rounded } from '../steering/margin';
import { candidatePaths, type CandidatePath } from '../steering/paths';
import { place } from '../roots/placing';
import type { Progress } from '../steering/steer';
import { settingCommands, type Setting } from '../steering/whatIf';

/** A way to share, tried in the solver. */
export interface SharingProposal {
  readonly how: 'roots' | 'costs';
  readonly commands: readonly Command[];
  readonly sentence: string;
  readonly before: Loads;
  readonly after: Loads;
  /** The largest share among the uplinks, before and after. */
  readonly uplinks: readonly [number, number];
  readonly moved: readonly MovedEnd[];
}

/** The links that lead from a switch to one of a stronger tier: what people call uplinks. */
export function uplinksOf({ design, macOperational: light, portIndexOf }: Network): LinkId[] {
  const tiers = new Map(design.switches.map((sw) => [sw.id, STRENGTH[sw.tier]]));
  return design.links.flatMap(({ id, a, b }) =>
    light[portIndexOf(a.switch, a.port)] && tiers.get(a.switch) !== tiers.get(b.switch) ? [id] : [],
  );
}

/** Why links that the trees see as one, or none, cannot be shared. */
const tooFew = (links: number): string =>
  links === 0
    ? 'There is no link to share: cable the switches, or select links.'
    : links === 1
      ? 'Sharing needs two links or more; this is one.'
      : `These ${links} links are one bundle, which every tree sees as one link: it shares by its hash, not by trees.`;

const STRENGTH: Readonly<Record<Tier, number>> = { core: 2, distribution: 1, access: 0 };

/** Ways to spread some trees over some links, the best first: none of them loads any link more than the most loaded one was; the error says why there is none. */
export function shareTrees(
  before: Solution,
  trees: readonly TreeId[],
  uplinks: readonly LinkId[],
  progress: Progress = () => true,
): Result<SharingProposal[], string> {
  const { network } = before;
  const present = trees.flatMap((id) => treeOf(before, id) ?? []);
  if (before.trees.length === 1 && before.trees.every((tree) => tree.id === CST || tree.id === CIST))
    return fail(
      'One tree carries every VLAN here, so all of them take the same links. Sharing needs a tree for each VLAN, or MST instances.',
    );
  if (present.length < 2) return fail('Sharing needs two trees or more: the frames of one tree take one way.');
  const ends: Uplink[] = [];
  for (const id of uplinks) {
    const l = network.design.links.findIndex((link) => link.id === id);
    const link = network.design.links[l];
    if (!link) continue;
    const [a, b] = [
      bridgePortOf(network, network.portIndexOf(link.a.switch, link.a.port)),
      bridgePortOf(network, network.portIndexOf(link.b.switch, link.b.port)),
    ];
    if (ends.some((end) => end.a === a || end.b === a)) continue; // another member of the same bundle
    if (deadReason(network, a) !== null)
      return fail(`${label(network, a)} has no signal: nothing can be shared over its link.`);
    ends.push({ link: l, a, b });
  }
  if (ends.length < 2) return fail(tooFew(uplinks.length));

  const loads = linkLoads(before);
  const groups = groupsOf(network, ends);
  const tops = topsOf(network, ends);
  if (groups.length === 0 && tops.length < 2)
    return fail(
      'These links neither leave one switch nor lead to different strong switches: there is nothing to choose between.',
    );
  const middles = middlesOf(leadsOf(network, ends), tops);
  const weights = weightsOf(present, loads);
  const found = new Map<string, SharingProposal>();
  let done = 0;
  const steps = ORDERS.length * (groups.length + 1);
  const go = (): boolean => progress((done += 1) / steps);
  for (const order of ORDERS) {
    const spreads: Spread[] =
      tops.length < 2 ? [] : waysByRoots(before, order(present, weights, tops.length), tops, middles);
    const costs: Command[] = [];
    for (const group of groups)
      if (go()) costs.push(...byCosts(network, present, order(present, weights, group.ports.length), group));
    for (const spread of [...spreads, { how: 'costs' as const, commands: costs, sentence: null }]) {
      const proposal = spread.commands.length === 0 ? null : tried(before, loads, spread, ends);
      if (proposal) found.set(JSON.stringify(proposal.commands), proposal);
    }
    if (!go()) break;
  }
  const best = [...found.values()].sort(
    (x, y) =>
      (x.after.peak?.share ?? 0) - (y.after.peak?.share ?? 0) ||
      x.after.idle.length - y.after.idle.length ||
      x.uplinks[1] - y.uplinks[1] ||
      x.commands.length - y.commands.length,
  );
  return best.length > 0
    ? ok(best)
    : fail(
        'Every way that was tried loads some link more than the most loaded one is now, or uses these links no better.',
      );
}

interface Spread {
  readonly how: SharingProposal['how'];
  /** Null: what the commands say. */
  readonly sentence: string | null;
  readonly commands: readonly Command[];
}

interface Uplink {
  readonly link: number;
  readonly a: number;
  readonly b: number;
}

/** The uplinks of a switch that two or more of them leave. */
interface Group {
  readonly ports: readonly number[];
}

/** The switches with a choice: of the two ends of an uplink the weaker tier, both ends where tiers are alike. */
function groupsOf({ owner, switches }: Network, uplinks: readonly Uplink[]): Group[] {
  const ports = new Map<number, number[]>();
  for (const { a, b } of uplinks) {
    const [ta, tb] = [a, b].map((p) => STRENGTH[switches[owner[p]!]!.tier]) as [number, number];
    for (const p of ta < tb ? [a] : tb < ta ? [b] : [a, b]) ports.set(owner[p]!, [...(ports.get(owner[p]!) ?? []), p]);
  }
  return [...ports].flatMap(([, own]) => (own.length > 1 ? [{ ports: own }] : []));
}

/** The strongest switches that the uplinks lead to. */
function topsOf({ owner, switches }: Network, uplinks: readonly Uplink[]): number[] {
  const ends = [...new Set(uplinks.flatMap(({ a, b }) => [owner[a]!, owner[b]!]))];
  const strongest = Math.max(...ends.map((s) => STRENGTH[switches[s]!.tier]));
  return strongest === 0 ? [] : ends.filter((s) => STRENGTH[switches[s]!.tier] === strongest).sort((s, t) => s - t);
}

/** What each tree weighs: its load on all links together, and something for trees without. */
function weightsOf(trees: readonly SettledTree[], { links }: Loads): Map<TreeId, number> {
  return new Map(trees.map(({ id }) => [id, links.reduce((sum, each) => sum + (each.byTree.get(id) ?? 0), 0.001)]));
}

/** Deals trees to so many places; gives the place of each. */
type Order = (
  trees: readonly SettledTree[],
  weights: ReadonlyMap<TreeId, number>,
  places: number,
) => ReadonlyMap<TreeId, number>;

/** By load, the heaviest first to the place with the least; and in turn, which is easier to remember. */
const ORDERS: readonly Order[] = [
  (trees, weights, places) => {
    const sums = Array.from({ length: places }, () => 0);
    const dealt = new Map<TreeId, number>();
    for (const { id } of [...trees].sort((x, y) => weights.get(y.id)! - weights.get(x.id)!)) {
      const place = sums.indexOf(Math.min(...sums));
      dealt.set(id, place);
      sums[place]! += weights.get(id)!;
    }
    return dealt;
  },
  (trees, _, places) => new Map(trees.map(({ id }, i) => [id, i % places])),
  (trees, _, places) => new Map(trees.map(({ id }, i) => [id, (i + 1) % places])),
];

/** Which way each uplink leads, from the weaker tier to the stronger. */
const leadsOf = ({ owner, switches }: Network, uplinks: readonly Uplink[]): Leads[] =>
  uplinks.flatMap(({ a, b }) => {
    const [s, t] = [owner[a]!, owner[b]!];
    const [strengthA, strengthB] = [s, t].map((each) => STRENGTH[switches[each]!.tier]) as [number, number];
    if (strengthA === strengthB) return [];
    return [strengthA < strengthB ? { from: s, to: t } : { from: t, to: s }];
  });

/** By roots alone; and with the switches between taking turns as well, where that is something else. */
function waysByRoots(
  before: Solution,
  dealt: ReadonlyMap<TreeId, number>,
  tops: readonly number[],
  middles: readonly (readonly number[])[],
): Spread[] {
  const roots = byRoots(before, dealt, tops);
  const turns = preferInTurn(before.network, middles, dealt);
  if (turns.length === 0) return [roots];
  const sets = middles.map((set) => set.map((s) => switchName(before.network.switches[s]!)).join(' and '));
  const below = sets.length > 3 ? `${sets.slice(0, 3).join('; ')}; and ${sets.length - 3} more` : sets.join('; ');
  const sentence = `${roots.sentence}; preferred below in turn: ${below}`;
  return [roots, { how: 'roots', commands: [...roots.commands, ...turns], sentence }];
}

/** Each tree's root where its place is, the next strong switch its standby. */
function byRoots({ network }: Solution, dealt: ReadonlyMap<TreeId, number>, tops: readonly number[]): Spread {
  const crowned = [...dealt].flatMap(([tree, at]): Command[] => {
    const root = place(network, tree, tops[at]!, 'root');
    return root.done ? [...root.commands] : [];
  });
  const edited = editAll(network.design, crowned);
  const there = edited.ok ? compileNetwork(edited.value.design) : network;
  const spread = [...dealt].flatMap(([tree, at]): Command[] => {
    const standby = place(there, tree, tops[(at + 1) % tops.length]!, 'standby');
    return standby.done ? [...standby.commands] : [];
  });
  const commands = [...crowned, ...spread];
  const named = tops.flatMap((s, at): string[] => {
    const trees = [...dealt].flatMap(([id, to]) => (to === at ? [id] : []));
    return trees.length === 0
      ? []
      : [
          `${switchName(network.switches[s]!)} root of ${treesName(trees)}, ${switchName(network.switches[tops[(at + 1) % tops.length]!]!)} its standby`,
        ];
  });
  return { how: 'roots', commands, sentence: named.join('; ') };
}

/** Costs that make the dealt port of a switch its root port, tree by tree. */
const byCosts = (
  network: Network,
  trees: readonly SettledTree[],
  dealt: ReadonlyMap<TreeId, number>,
  { ports }: Group,
): Command[] =>
  trees.flatMap((tree) =>
    settingCommands(network, [tree.id], rootPortBy(network, tree, ports[dealt.get(tree.id)!]!) ?? []),
  );

/**
 * Costs with which a port becomes root port of its switch: itself made cheaper than every other way, else those before it
 * dearer; null where no way leads through it. No neighbour's way passes the switch, so the ways' sums tell without solving.
 */
function rootPortBy(network: Network, tree: SettledTree, port: number): Setting[] | null {
  const s = network.owner[port]!;
  const candidates = candidatePaths(network, tree, s);
  // Costs outside and inside of a region do not add up.
  if (
    new Set(candidates.map((way) => way.hops[0]!.inside)).size > 1 ||
    (candidates[0]?.hops[0]?.inside && new Set(candidates.map((way) => way.total)).size > 1)
  )
    return null;
  const sumOf = (way: CandidatePath): number => (way.hops[0]!.inside ? way.internal! : way.total);
  const ways = candidates.map((way) => ({
    port: network.portIndexOf(way.hops[0]!.switch, way.hops[0]!.port),
    total: sumOf(way),
  }));
  const own = ways.find((way) => way.port === port);
  if (!own) return null;
  if (tree.rootPort[s] === port) return [];
  const rivals = ways.filter((way) => way.port !== port && way.total <= own.total);
  const cheaper = tree.cost[port]! - (own.total - Math.min(...ways.map((way) => way.total))) - 1;
  if (cheaper >= 1) return [{ of: 'cost', port, value: rounded(cheaper, 1, tree.cost[port]!)[0] ?? cheaper }];
  const most = MAX_COST[methodOf(network.design, network.switches[s]!)];
  const dearer = rivals.map((rival): Setting => {
    const value = tree.cost[rival.port]! + own.total - rival.total + 1;
    return { of: 'cost', port: rival.port, value: rounded(value, most, most)[0] ?? value };
  });
  return dearer.every((setting) => setting.value <= most) ? dearer : null;
}

/** Solves the design with the commands; null where some link then has more than the most loaded one had, or nothing is better. */
function tried(
  before: Solution,
  loads: Loads,
  { how, commands, sentence }: Spread,
  uplinks: readonly Uplink[],
): SharingProposal | null {
  const edited = editAll(before.network.design, commands);
  if (!edited.ok) return null;
  const solution = solve(edited.value.design);
  const after = linkLoads(solution);
  const most = (of: Loads): number => Math.max(...uplinks.map(({ link }) => of.links[link]!.share));
  const idle = (of: Loads): number =>
    uplinks.filter(({ link }) => (of.links[link] as LinkLoad).state === 'idle').length;
  const worse = (after.peak?.share ?? 0) > (loads.peak?.share ?? 0) + 1e-9;
  const better =
    idle(after) < idle(loads) ||
    most(after) < most(loads) - 1e-9 ||
    (after.peak?.share ?? 0) < (loads.peak?.share ?? 0) - 1e-9;
  if (worse || !better) return null;
  return {
    how,
    commands,
    sentence: sentence ?? sentencesOf(before.network.design, commands).join('; '),
    before: loads,
    after,
    uplinks: [most(loads), most(after)],
    moved: movedEnds(before, solution),
  };
}
