/** Laying VLANs onto few instances: from the loads and the switches that can be roots, each way tried in the solver before it is proposed. */
import { isMultiple, runsTrees } from '../../model/document';
import type { Command } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import { CIST, instanceTree, treeName, type TreeId } from '../../model/ids';
import type { Design, RegionSettings } from '../../model/document';
import { VlanSet } from '../../model/vlanSet';
import { fail, ok, type Result } from '../../base/result';
import { compileNetwork } from '../../topology/network';
import { switchName } from '../../tree/explain/phrases';
import type { Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { asInstances, asOneTree, asPerVlan, freshRegion, joining, keepingTrees, mainRegion } from './asDialect';
import { controlOf, type ControlCost } from '../sharing/controlPlane';
import { keepingUnlisted } from './mapping';
import { linkLoads, loadOf, vlanShares, type Loads } from '../sharing/load';
import { place } from '../roots/placing';
import type { Progress } from '../steering/steer';

type Cost = Omit<ControlCost, 'dialect' | 'spoken'>;

/** A mapping that was tried in the solver, with what it brings. */
export interface GroupingProposal {
  /** By the loads of links; odd and even VLANs, or every other one; the trees kept that there are. */
  readonly how: 'load' | 'parity' | 'turn' | 'keep';
  readonly instances: RegionSettings['instances'];
  readonly commands: readonly Command[];
  readonly sentence: string;
  readonly loads: readonly [before: Loads, after: Loads];
  readonly cost: readonly [before: Cost, after: Cost];
}

/** How VLANs are dealt to instances, or to roots. */
export type DealRule = 'load' | 'parity' | 'turn' | 'ranges';

/** Most switches that are tried as roots. */
const MOST_ROOTS = 4;
/** A peak that is lower by less is none. */
const TOLERANCE = 0.02;
/** Rounds in which VLANs are moved to a better instance. */
const ROUNDS = 6;

/** VLANs by place: the heaviest first to the place with the least load; odd and even ones; in turn; the lower and the upper ones. */
export function dealVlans(design: Design, vids: readonly number[], places: number, rule: DealRule): number[][] {
  const dealt: number[][] = Array.from({ length: places }, () => []);
  const sums = dealt.map(() => 0);
  const inOrder = rule === 'load' ? [...vids].sort((a, b) => loadOf(design, b) - loadOf(design, a) || a - b) : vids;
  inOrder.forEach((vid, i) => {
    const at = {
      turn: () => i % places,
      parity: () => ((vid + 1) % 2) % places,
      ranges: () => Math.floor((i * places) / vids.length),
      load: () => sums.indexOf(Math.min(...sums)),
    }[rule]();
    dealt[at]!.push(vid);
    sums[at]! += loadOf(design, vid) || 0.001;
  });
  return dealt;
}

/** The instances that have these VLANs, from 1 on. */
export const instancesFor = (dealt: readonly (readonly number[])[]): RegionSettings['instances'] =>
  dealt.map((vids, i) => ({ id: i + 1, vlans: VlanSet.of(vids.map((vid) => [vid, vid])).format() }));

/** Ways to group the listed VLANs, the best first; the error says why there is none. */
export function proposeGroupings(
  before: Solution,
  progress: Progress = () => true,
): Result<GroupingProposal[], string> {
  const { design } = before.network;
  const vids = design.vlans.map((vlan) => vlan.id).filter((vid) => vid !== 1);
  if (vids.length === 0)
    return fail(
      'The design lists no VLAN besides VLAN 1: there is nothing to group. VLANs are listed in the Cable view.',
    );
  const members = membersOf(design);
  if (members.length === 0) return fail('No switch here runs spanning tree.');
  const roots = strongest(design, members);
  const loads = linkLoads(before);
  const cost = controlOf(before);
  const tried: GroupingProposal[] = [];
  const take = (
    how: GroupingProposal['how'],
    instances: RegionSettings['instances'],
    rooted: readonly number[],
    commands: readonly Command[] | null,
  ): void => {
    const all = commands ?? groupingCommands(design, members, instances, rooted);
    if (tried.some((other) => JSON.stringify(other.commands) === JSON.stringify(all))) return;
    const edited = editAll(design, all);
    const solved = edited.ok ? solve(edited.value.design) : null;
    if (!solved || all.length === 0) return;
    tried.push({
      how,
      instances,
      commands: all,
      sentence: mappingText(design, instances, rooted),
      loads: [loads, linkLoads(solved)],
      cost: [cost, controlOf(solved)],
    });
  };

  const shares = roots.map((root, i) => {
    progress(i / (roots.length + 2));
    return sharesUnder(design, members, root, vids);
  });
  for (let k = 1; k <= roots.length; k += 1) {
    if (!progress((roots.length + (k - 1) / roots.length) / (roots.length + 2))) break;
    // A root that no VLAN is better under needs no instance.
    const dealt = spread(design, vids, shares.slice(0, k))
      .map((own, i) => ({ own, root: roots[i]! }))
      .filter(({ own }) => own.length > 0);
    take(
      'load',
      instancesFor(dealt.map(({ own }) => own)),
      dealt.map(({ root }) => root),
      null,
    );
  }
  const rule = vids.some((vid) => vid % 2 === 0) && vids.some((vid) => vid % 2 === 1) ? 'parity' : 'turn';
  if (roots.length > 1 && vids.length > 1)
    take(rule, instancesFor(dealVlans(design, vids, 2, rule)), roots.slice(0, 2), null);
  if (design.switches.every((sw) => !isMultiple(sw))) {
    const keeping = keepingTrees(design);
    if (keeping.instances.length > 1 && keeping.instances.length <= 64)
      take('keep', keeping.instances, [], keeping.commands);
  }
  const ranked = inRank(tried);
  return ranked.length > 0
    ? ok(
        ranked.map((each, i) => ({
          ...each,
          sentence:
            i === 0
              ? `${count(each.instances.length)} ${each.instances.length === 1 ? 'suffices' : 'suffice'}: ${each.sentence}`
              : `${LEADS[each.how]}${each.sentence}`,
        })),
      )
    : fail('It is grouped so already, and nothing that was tried does better.');
}

const LEADS: Readonly<Record<GroupingProposal['how'], string>> = {
  load: '',
  parity: 'Odd and even: ',
  turn: 'Every other one: ',
  keep: 'The trees as they are: ',
};
const count = (n: number): string =>
  n === 1 ? 'One instance' : `${['No', 'One', 'Two', 'Three', 'Four'][n] ?? n} instances`;

/** The lowest peak first; among those as low as makes no difference, fewer idle links, then fewer instances. */
function inRank(tried: readonly GroupingProposal[]): GroupingProposal[] {
  const peak = (each: GroupingProposal): number => each.loads[1].peak?.share ?? 0;
  const least = Math.min(...tried.map(peak));
  const tier = (each: GroupingProposal): number => Number(peak(each) > least * (1 + TOLERANCE) + 1e-9);
  return [...tried].sort(
    (a, b) =>
      tier(a) - tier(b) ||
      (tier(a) === 0
        ? a.loads[1].idle.length - b.loads[1].idle.length || a.instances.length - b.instances.length
        : 0) ||
      peak(a) - peak(b) ||
      a.instances.length - b.instances.length,
  );
}

/** Those that speak MSTP, where some do; else all that run spanning tree. */
function membersOf(design: Design): number[] {
  const runs = design.switches.flatMap((sw, s) => (sw.up && runsTrees(sw) ? [s] : []));
  const multiple = runs.filter((s) => isMultiple(design.switches[s]!));
  return multiple.length > 0 ? multiple : runs;
}

/** The switches of the strongest tier, with those below where that is one alone; those with most cables first. */
function strongest(design: Design, members: readonly number[]): number[] {
  const links = (s: number): number =>
    design.links.filter((link) => link.up && [link.a.switch, link.b.switch].includes(design.switches[s]!.id)).length;
  const tiers = (['core', 'distribution', 'access'] as const).map((tier) =>
    members.filter((s) => design.switches[s]!.tier === tier).sort((a, b) => links(b) - links(a) || a - b),
  );
  const found: number[] = [];
  for (const tier of tiers) if (found.length < 2) found.push(...tier);
  return found.slice(0, MOST_ROOTS);
}

/** The region settings, who has them, and root and standby of the CIST and of each instance. */
export function groupingCommands(
  design: Design,
  members: readonly number[],
  instances: RegionSettings['instances'],
  roots: readonly number[],
): Command[] {
  const main = mainRegion(design);
  const region = main ?? freshRegion(design, instances);
  const ids = members.map((s) => design.switches[s]!.id);
  const map = keepingUnlisted(design, main?.instances ?? [], instances);
  const settings: Command[] = main
    ? JSON.stringify(main.instances) === JSON.stringify(map)
      ? []
      : [{ do: 'set-region', region: main.id, instances: map }]
    : [{ do: 'add-region', region }];
  const commands: Command[] = [...settings, ...joining(design, region.id, ids)];
  const trees: [TreeId, number][] = [
    [CIST, 0],
    ...instances.map(({ id }, i): [TreeId, number] => [instanceTree(id), i]),
  ];
  for (const as of ['root', 'standby'] as const) {
    const edited = editAll(design, commands);
    if (!edited.ok) return [];
    const network = compileNetwork(edited.value.design);
    for (const [tree, i] of trees) {
      const at = roots[(as === 'root' ? i : i + 1) % Math.max(1, roots.length)];
      if (at === undefined || (as === 'standby' && roots.length < 2)) continue;
      const placed = place(network, tree, network.switchIndex.get(design.switches[at]!.id)!, as);
      if (placed.done) commands.push(...placed.commands);
    }
  }
  return commands;
}

/** By VLAN, the share of each link's speed that its load takes where one switch is root of the instance that it is in. */
function sharesUnder(
  design: Design,
  members: readonly number[],
  root: number,
  vids: readonly number[],
): ReadonlyMap<number, number>[] {
  const all: RegionSettings['instances'] = [{ id: 1, vlans: VlanSet.of(vids.map((vid) => [vid, vid])).format() }];
  const edited = editAll(design, groupingCommands(design, members, all, [root]));
  const solved = edited.ok ? solve(edited.value.design) : null;
  if (!solved) return vids.map(() => new Map());
  const { network } = solved;
  const speed = design.links.map(({ a, b }) =>
    Math.min(
      network.ports[network.portIndexOf(a.switch, a.port)]!.speed,
      network.ports[network.portIndexOf(b.switch, b.port)]!.speed,
    ),
  );
  return vids.map(
    (vid) => new Map([...vlanShares(solved, vid)].map(([l, share]) => [l, (share * loadOf(design, vid)) / speed[l]!])),
  );
}

/** VLANs by root: each where the most loaded link has the least, the heaviest first; then moved as long as that helps. */
function spread(
  design: Design,
  vids: readonly number[],
  shares: readonly (readonly ReadonlyMap<number, number>[])[],
): number[][] {
  const load = design.links.map(() => 0);
  const put = (v: number, root: number, sign: 1 | -1): void =>
    shares[root]![v]!.forEach((share, l) => (load[l]! += sign * share));
  /** The peak, and the sum of squares, with a VLAN laid under a root. */
  const score = (v: number, root: number): [number, number] => {
    put(v, root, 1);
    const found: [number, number] = [Math.max(0, ...load), load.reduce((sum, each) => sum + each * each, 0)];
    put(v, root, -1);
    return found;
  };
  const best = (v: number): number => {
    const scores = shares.map((_, root) => score(v, root));
    return scores.reduce(
      (now, each, root) =>
        each[0] < scores[now]![0] - 1e-9 || (each[0] < scores[now]![0] + 1e-9 && each[1] < scores[now]![1] - 1e-12)
          ? root
          : now,
      0,
    );
  };
  const order = [...vids.keys()].sort(
    (a, b) => loadOf(design, vids[b]!) - loadOf(design, vids[a]!) || vids[a]! - vids[b]!,
  );
  const at = vids.map(() => -1);
  for (let round = 0, moved = true; round < ROUNDS && moved; round += 1) {
    moved = false;
    for (const v of order) {
      if (at[v]! >= 0) put(v, at[v]!, -1);
      const to = best(v);
      put(v, to, 1);
      moved ||= to !== at[v];
      at[v] = to;
    }
  }
  return shares.map((_, root) => vids.filter((_vid, v) => at[v] === root));
}

/** `VLANs 15,35 with root ridge-a, VLANs 25,45 with root ridge-b`. */
function mappingText(design: Design, instances: RegionSettings['instances'], roots: readonly number[]): string {
  const parts = instances.map(({ id, vlans }, i) => {
    const root = roots[i % Math.max(1, roots.length)];
    const what = vlans === '' ? treeName(instanceTree(id)) : `${/^\d+$/.test(vlans) ? 'VLAN' : 'VLANs'} ${vlans}`;
    return `${what}${root === undefined ? ` in instance ${id}` : ` with root ${switchName(design.switches[root]!)}`}`;
  });
  return parts.join(', ') || 'every VLAN in the IST';
}

/** What grouping gains: one tree for all, the instances, one tree a VLAN. */
export interface GainRow {
  readonly kind: 'one' | 'instances' | 'vlans';
  /** Every tree of the network then. */
  readonly trees: readonly TreeId[];
  readonly cost: Cost;
  readonly loads: Loads;
}

/**
 * The figures of a design's instances beside those of one tree and of one tree a VLAN. With commands the instances are those
 * that they make; else, where no switch speaks MSTP, those that keep the trees that there are.
 */
export function groupingGain(design: Design, commands: readonly Command[] = []): GainRow[] {
  const edited = editAll(design, commands);
  const grouped = edited.ok ? edited.value.design : design;
  const multiple = grouped.switches.some((sw) => sw.up && isMultiple(sw));
  const designs = {
    one: asOneTree(design, 'rstp'),
    instances: multiple ? grouped : asInstances(design),
    vlans: asPerVlan(design, 'per-vlan-rstp'),
  };
  return (['one', 'instances', 'vlans'] as const).map((kind): GainRow => {
    const solution = solve(designs[kind]);
    return {
      kind,
      trees: solution.trees.map((tree) => tree.id),
      cost: controlOf(solution),
      loads: linkLoads(solution),
    };
  });
}
