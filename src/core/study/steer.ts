/**
 * Block here instead: sets of changes that make an end of a link block, or a link carry a tree's frames. Every set is
 * tried in the solver before it is proposed, in every tree that is wished for.
 */
import type { Command } from '../design/commands';
import { methodOf } from '../design/costMethod';
import { editAll } from '../design/edit';
import { treesName, type LinkId, type PortId, type SwitchId, type TreeId } from '../design/ids';
import { BRIDGE_PRIORITY, MAX_COST, PORT_PRIORITY } from '../design/legal';
import { describeCommands } from '../design/describe';
import { fail, ok, type Result } from '../result';
import { portIdentifier, setBridgePriority } from '../tree/bridgeId';
import { movedEnds, type MovedEnd } from '../tree/moved';
import { deadReason, type Network } from '../tree/network';
import { label, switchName } from '../tree/phrases';
import { CODE, type SettledTree, type Solution } from '../tree/settled';
import { solve } from '../tree/solve';
import { firstFlip } from './margin';
import { partsOf } from './parts';
import { settingCommands, solveWith, type Setting } from './whatIf';

/** What an engineer points at. */
export type Wish =
  | { readonly wants: 'block'; readonly switch: SwitchId; readonly port: PortId }
  | { readonly wants: 'carry'; readonly link: LinkId };

/** A way to get there, tried in the solver. */
export interface Proposal {
  readonly commands: readonly Command[];
  readonly sentence: string;
  /** How many settings it takes, each counted once for all its trees. */
  readonly settings: number;
  /** Ends elsewhere that take another role, in the wished trees and in any other. */
  readonly others: readonly MovedEnd[];
  /** Whether an access switch becomes root of a tree, or comes to stand by where none did. */
  readonly weakRoot: boolean;
}

/** Most proposals, the best first. */
const MOST = 6;
/** How many flips of one cost are followed in each direction. */
const FLIPS = 4;

/** Told how far the search is, 0 to 1; false stops it, and what is found so far is given. */
export type Progress = (share: number) => boolean;

/** Searches costs, port priorities and bridge priorities near the link; the error says why it cannot be done. */
export function steer(before: Solution, wish: Wish, trees: readonly TreeId[], progress: Progress = () => true): Result<Proposal[], string> {
  const { network } = before;
  const target = targetOf(network, wish);
  if (typeof target === 'string') return fail(target);
  const present = trees.flatMap((id) => before.trees.find((tree) => tree.id === id) ?? []);
  for (const tree of present) {
    const why = whyNot(network, tree, target, wish);
    if (why) return fail(why);
  }
  const [first] = present;
  if (!first) return fail('No tree is shown.');
  const met = (tree: SettledTree): boolean => isMet(tree, target, wish);
  if (present.every(met)) return fail(`${wish.wants === 'block' ? 'It blocks there' : 'It carries the frames'} already in ${treesName(trees)}.`);
  const open = present.find((tree) => !met(tree))!;

  const proposals = new Map<string, Proposal>();
  const candidates = candidatesFor(network, open, target);
  for (const [i, candidate] of candidates.entries()) {
    if (!progress(i / candidates.length)) break;
    for (const settings of candidate()) {
      // One value for each set of things to set and ways to move them: the nearest that does it.
      const key = JSON.stringify(settings.map((setting) => [setting.of, setting.of === 'bridgePriority' ? setting.switch : setting.port, setting.value > valueNow(network, open, setting)]));
      if (proposals.has(key) || !met(solveWith(network, open.id, settings))) continue;
      const commands = settingCommands(network, trees, settings);
      const proposal = proposalOf(before, trees, settings, commands, met, target);
      if (proposal) proposals.set(key, proposal);
    }
  }
  const found = [...proposals.values()].sort((a, b) => Number(a.weakRoot) - Number(b.weakRoot) || a.settings - b.settings || a.others.length - b.others.length || a.sentence.localeCompare(b.sentence));
  return found.length > 0 ? ok(found.slice(0, MOST)) : fail(`No change of one or two settings near this link does it in ${treesName(trees)}.`);
}

/** The two ends of the link: `a` is the end that was pointed at. */
interface Target {
  readonly a: number;
  readonly b: number;
}

function targetOf(network: Network, wish: Wish): Target | string {
  const link = wish.wants === 'carry' ? network.design.links.find((each) => each.id === wish.link) : undefined;
  const a = wish.wants === 'carry' ? (link ? network.portIndexOf(link.a.switch, link.a.port) : -1) : network.portIndexOf(wish.switch, wish.port);
  if (a < 0) return 'There is no such end.';
  const b = network.far[a]!;
  if (b < 0) return `${label(network, a)} has no cable to another switch.`;
  if (deadReason(network, a) !== null) return `${label(network, a)} has no signal: nothing can be steered there.`;
  return { a, b };
}

const forwards = (tree: SettledTree, p: number): boolean => tree.role[p] === CODE.root || tree.role[p] === CODE.designated;
const blocks = (tree: SettledTree, p: number): boolean => tree.role[p] === CODE.alternate || tree.role[p] === CODE.backup;
const isMet = (tree: SettledTree, { a, b }: Target, { wants }: Wish): boolean => (wants === 'block' ? blocks(tree, a) && forwards(tree, b) : forwards(tree, a) && forwards(tree, b));

/** Why a wish can never come true in a tree; null where it may. */
function whyNot(network: Network, tree: SettledTree, { a, b }: Target, wish: Wish): string | null {
  const missing = [a, b].find((p) => tree.role[p] === CODE.absent);
  if (missing !== undefined) return `${label(network, missing)} does not carry ${treesName([tree.id])}.`;
  if (wish.wants === 'block' && !joinedOtherwise(network, tree, a, b)) {
    return `Blocking ${label(network, a)} would cut ${switchName(network.switches[network.owner[a]!]!)} from ${switchName(network.switches[network.owner[b]!]!)} in ${treesName([tree.id])}: no other way joins them.`;
  }
  return null;
}

/** Whether the switches of a link are joined by other links of the tree. */
function joinedOtherwise(network: Network, tree: SettledTree, a: number, b: number): boolean {
  const part = partsOf(network, (p) => p !== a && p !== b && tree.role[p] !== CODE.absent);
  return part[network.owner[a]!] === part[network.owner[b]!];
}

/** What a setting is at present. */
function valueNow(network: Network, tree: SettledTree, setting: Setting): number {
  if (setting.of === 'bridgePriority') return setBridgePriority(network.switches[setting.switch]!, tree.id);
  if (setting.of === 'cost') return tree.cost[setting.port]!;
  return portIdentifier(network.ports[setting.port]!, tree.id, network.switches[network.owner[setting.port]!]!.dialect).priority;
}

type Candidate = () => Iterable<readonly Setting[]>;

/** Sets of settings worth trying, cheap ones first: one cost, one port priority, one bridge priority, the costs of a switch's ways together. */
function candidatesFor(network: Network, tree: SettledTree, { a, b }: Target): Candidate[] {
  const ends = [network.owner[a]!, network.owner[b]!];
  const near = new Set<number>([a, b]);
  for (const s of ends) {
    for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) if (tree.designated[p]! >= 0) near.add(p);
    for (let at = s; tree.rootPort[at]! >= 0; at = network.owner[tree.designated[tree.rootPort[at]!]!]!) near.add(tree.rootPort[at]!);
  }
  const ports = [...near];
  const maxCost = (p: number): number => MAX_COST[methodOf(network.design, network.switches[network.owner[p]!]!)];
  const priorities = [PORT_PRIORITY.default - PORT_PRIORITY.step, PORT_PRIORITY.default + PORT_PRIORITY.step, PORT_PRIORITY.min, PORT_PRIORITY.max];
  const strong = network.switches.flatMap((sw, s) => (tree.root[s]! >= 0 && (sw.tier !== 'access' || ends.includes(s)) ? [s] : []));
  return [
    ...ports.map((port): Candidate => () => flipsOf(network, tree, port, maxCost(port)).map((value) => [{ of: 'cost', port, value }])),
    ...ports.flatMap((port): Candidate[] => [() => priorities.map((value) => [{ of: 'portPriority', port, value }])]),
    ...strong.map((s): Candidate => () => bridgeValues(network, tree, s).map((value) => [{ of: 'bridgePriority', switch: s, value }])),
    ...ends.map((s): Candidate => () => raisedTogether(network, tree, s, [a, b])),
    ...ports.map((port): Candidate => () => pairs(network, tree, port, ports, maxCost)),
  ];
}

/** The costs of a port at which the tree changes, nearest first, on both sides; made round where that does no harm. */
function flipsOf(network: Network, tree: SettledTree, port: number, most: number): number[] {
  const found: number[] = [];
  for (const end of [most, 1]) {
    let now = tree.cost[port]!;
    let here = tree;
    for (let i = 0; i < FLIPS; i += 1) {
      const roles = here.role;
      const flip = firstFlip(now, end, (value) => solveWith(network, tree.id, [{ of: 'cost', port, value }]).role.every((code, q) => code === roles[q]));
      if (flip === null) break;
      found.push(...rounded(flip, end, most), flip);
      now = flip;
      here = solveWith(network, tree.id, [{ of: 'cost', port, value: flip }]);
    }
  }
  return found;
}

/** A cost that people would rather type, a little farther the same way: 25 000 for 22 001. */
function rounded(value: number, end: number, most: number): number[] {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(value)) - 1) * 5;
  const round = end > value ? Math.ceil(value / unit) * unit : Math.floor(value / unit) * unit;
  return round >= 1 && round <= most && round !== value ? [round] : [];
}

/** Bridge priorities other than the present one, the nearest first. */
function bridgeValues(network: Network, tree: SettledTree, s: number): number[] {
  const now = setBridgePriority(network.switches[s]!, tree.id);
  const { min, max, step } = BRIDGE_PRIORITY;
  return Array.from({ length: (max - min) / step + 1 }, (_, i) => min + i * step).filter((value) => value !== now).sort((x, y) => Math.abs(x - now) - Math.abs(y - now));
}

/** All ways of a switch to the root made dearer by the same amount, but for the link itself. */
function raisedTogether(network: Network, tree: SettledTree, s: number, link: readonly number[]): (readonly Setting[])[] {
  const ways: number[] = [];
  for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) {
    if (!link.includes(p) && tree.designated[p]! >= 0 && network.owner[tree.designated[p]!] !== s) ways.push(p);
  }
  if (ways.length < 2 || ways.length > 4) return [];
  return [2, 5, 20].map((times) => ways.map((port): Setting => ({ of: 'cost', port, value: Math.min(MAX_COST[methodOf(network.design, network.switches[s]!)], tree.cost[port]! * times) })));
}

/** A port made much dearer or cheaper together with one other. */
function pairs(network: Network, tree: SettledTree, port: number, ports: readonly number[], maxCost: (p: number) => number): (readonly Setting[])[] {
  const moves = (p: number): Setting[] => [10, 0.1].map((times): Setting => ({ of: 'cost', port: p, value: Math.max(1, Math.min(maxCost(p), Math.round(tree.cost[p]! * times))) }));
  return ports.filter((other) => other > port).flatMap((other) => moves(port).flatMap((x) => moves(other).map((y) => [x, y])));
}

/** Solves the whole design with the commands; null where some wished tree does not come out as wished. */
function proposalOf(before: Solution, trees: readonly TreeId[], settings: readonly Setting[], commands: readonly Command[], met: (tree: SettledTree) => boolean, { a, b }: Target): Proposal | null {
  const edited = editAll(before.network.design, commands);
  const after = edited.ok ? solve(edited.value.design) : null;
  if (!after?.ok || !trees.every((id) => after.value.trees.some((tree) => tree.id === id && met(tree)))) return null;
  const { network } = before;
  const others = movedEnds(before, after.value).filter((end) => !(trees.includes(end.tree) && (end.index === a || end.index === b)));
  const weak = (solution: Solution): number => solution.trees.filter((tree) => [...new Set(tree.root)].some((root) => root >= 0 && network.switches[root]!.tier === 'access')).length;
  return { commands, sentence: describeCommands(network.design, commands), settings: settings.length, others, weakRoot: weak(after.value) > weak(before) };
}
