/**
 * Block here instead: sets of changes that make ends of links block, or links carry a tree's frames. Every set is
 * tried in the solver before it is proposed, in every tree that is wished for.
 */
import type { Command } from '../../edit/commands';
import { sentencesOf } from '../../edit/describe';
import { editAll } from '../../edit/edit';
import { treesName, type SwitchId, type TreeId } from '../../model/ids';
import { fail, ok, type Result } from '../../base/result';
import { portIdentifier, setBridgePriority } from '../../topology/bridgeId';
import { movedEnds, type MovedEnd } from '../../tree/moved';
import type { Network } from '../../topology/network';
import type { SettledTree, Solution } from '../../tree/settled';
import { solve, solveTrees } from '../../tree/solve';
import { alikeTrees } from '../shapes';
import { builtSettings } from './steerBuild';
import { candidatesFor } from './steerCandidates';
import { settingCommands, solveWith, withSettings, type Setting } from './whatIf';
import { isMet, targetOf, whyNever, type Target, type Wish } from './wishes';

/** A way to get there, tried in the solver. */
export interface Proposal {
  readonly commands: readonly Command[];
  readonly sentence: string;
  /** How many settings it takes, each counted once for the trees in which it is the same. */
  readonly settings: number;
  /** Ends elsewhere that take another role, in the wished trees and in any other. */
  readonly others: readonly MovedEnd[];
  /** Whether other trees than the wished ones move. */
  readonly spills: boolean;
  /** Access switches that become the root of a tree. */
  readonly weakRoots: readonly SwitchId[];
  /** Access switches that come to stand between others and the root. */
  readonly weakWays: readonly SwitchId[];
}

/** Most proposals, the best first. */
const MOST = 6;
/** Partly good sets that are followed on where several wishes come together. */
const WIDTH = 3;

/** Told how far the search is, 0 to 1; false stops it, and what is found so far is given. */
export type Progress = (share: number) => boolean;

/** Searches costs, port priorities and bridge priorities near the links, for all wishes at once; the error says why it cannot be done. */
export function steer(
  before: Solution,
  wishes: readonly Wish[],
  trees: readonly TreeId[],
  progress: Progress = () => true,
): Result<Proposal[], string> {
  const { network } = before;
  const targets: Target[] = [];
  for (const wish of wishes) {
    const target = targetOf(network, wish);
    if (!target.ok) return target;
    targets.push(target.value);
  }
  const [first] = targets;
  const present = trees.flatMap((id) => before.trees.find((tree) => tree.id === id) ?? []);
  if (!first) return fail('Nothing is wished for yet.');
  if (present.length === 0) return fail('No tree is shown.');
  for (const tree of present) {
    const why = whyNever(network, tree, targets);
    if (why) return fail(why);
  }
  const met = (tree: SettledTree): boolean => targets.every((target) => isMet(tree, target));
  if (present.every(met)) {
    const what =
      targets.length > 1 ? 'All of this is so' : first.wants === 'block' ? 'It blocks there' : 'It carries the frames';
    return fail(`${what} already in ${treesName(trees)}.`);
  }

  // Trees of one shape move alike: one search each. What does it in one shape is also tried in all.
  const shapes = alikeTrees(present.filter((tree) => !met(tree)));
  const parts = shapes.map((shape, i) => ({
    trees: shape.map((tree) => tree.id),
    sets: settingsFor(network, shape[0]!, targets, (share) => progress((i + share) / shapes.length)),
  }));
  const tries = [
    ...parts.flatMap(({ sets }) => sets.map((set) => [{ trees, set }])),
    ...(parts.length > 1 ? together(parts) : []),
  ];
  const proposals = tries.flatMap((each) => proposalOf(before, trees, each, met, targets) ?? []);
  const found = firstOfEach(proposals, ({ commands }) => JSON.stringify(commands)).sort(inRank);
  return found.length > 0
    ? ok(found.slice(0, MOST))
    : fail(
        `No set of costs and priorities that was tried does ${targets.length > 1 ? 'all of it' : 'it'} in ${treesName(trees)}.`,
      );
}

/** The better proposal first: no access switch as root, few settings, other trees left alone, no access switch nearer to the root, few other ports changed. */
const inRank = (x: Proposal, y: Proposal): number =>
  x.weakRoots.length - y.weakRoots.length ||
  x.settings - y.settings ||
  Number(x.spills) - Number(y.spills) ||
  x.weakWays.length - y.weakWays.length ||
  x.others.length - y.others.length ||
  x.sentence.localeCompare(y.sentence);

interface State {
  readonly settings: readonly Setting[];
  readonly network: Network;
  readonly tree: SettledTree;
}

/** Sets of settings that fulfil every wish in one tree: one wish after the other, the best few sets followed on. */
function settingsFor(
  network: Network,
  tree: SettledTree,
  targets: readonly Target[],
  progress: Progress,
): (readonly Setting[])[] {
  const missed = (at: SettledTree): number => targets.filter((target) => !isMet(at, target)).length;
  let states: State[] = [{ settings: [], network, tree }];
  const rounds = targets.length === 1 ? 1 : targets.length + 1;
  for (let round = 0; round < rounds; round += 1) {
    const next: (State & { readonly missed: number })[] = [];
    for (const [i, state] of states.entries()) {
      const done = (round + i / states.length) / rounds;
      const reached = reach(state, targets, missed, (share) => progress(done + share / states.length / rounds));
      next.push(...reached.found.map((found) => ({ ...found, missed: missed(found.tree) })));
      if (reached.stopped) break;
    }
    const full = next.filter((state) => state.missed === 0);
    if (full.length > 0)
      return firstOfEach(
        full.map(({ settings }) => pruned(network, tree, settings, (at) => missed(at) === 0)),
        (set) => wayOf(network, tree, set),
      );
    const moves = (at: SettledTree): number => at.role.reduce((sum, code, p) => sum + Number(code !== tree.role[p]), 0);
    states = next
      .map((state) => ({ state, by: [state.missed, state.settings.length, moves(state.tree)] }))
      .sort((x, y) => x.by[0]! - y.by[0]! || x.by[1]! - y.by[1]! || x.by[2]! - y.by[2]!)
      .slice(0, WIDTH)
      .map(({ state }) => state);
    if (states.length === 0) break;
  }
  const built = builtSettings(network, tree, targets).filter((set) => missed(solveWith(network, tree.id, set)) === 0);
  return built.map((set) => pruned(network, tree, set, (at) => missed(at) === 0));
}

/** Settings more that make the first missed wish come true: for each thing to set and way to move it, the nearest value that does. */
function reach(
  { settings, network, tree }: State,
  targets: readonly Target[],
  missed: (tree: SettledTree) => number,
  progress: Progress,
): { readonly found: State[]; readonly stopped: boolean } {
  const target = targets.find((each) => !isMet(tree, each));
  if (!target) return { found: [], stopped: false };
  const found = new Map<string, State>();
  const candidates = candidatesFor(network, tree, target);
  for (const [i, candidate] of candidates.entries()) {
    if (!progress(i / candidates.length)) return { found: [...found.values()], stopped: true };
    for (const set of candidate()) {
      const key = wayOf(network, tree, set);
      const old = found.get(key);
      if (old && missed(old.tree) === 0) continue;
      const there = solveWith(network, tree.id, set);
      if (!isMet(there, target) || (old && missed(old.tree) <= missed(there))) continue;
      const all = merged(settings, set);
      const own = withSettings(network, tree.id, all);
      found.set(key, { settings: all, network: own, tree: solveTrees(own, [tree.id])[0]! });
    }
  }
  return { found: [...found.values()], stopped: false };
}

/** What a setting sets, without its value. */
const placeOf = (setting: Setting): string =>
  `${setting.of} ${setting.of === 'bridgePriority' ? setting.switch : setting.port}`;

/** What a set of settings sets, and which way it moves each. */
const wayOf = (network: Network, tree: SettledTree, set: readonly Setting[]): string =>
  JSON.stringify(set.map((setting) => [placeOf(setting), setting.value > valueNow(network, tree, setting)]));

const firstOfEach = <T>(all: readonly T[], keyOf: (each: T) => string): T[] =>
  [...new Map([...all].reverse().map((each) => [keyOf(each), each])).values()].reverse();

/** Later settings in the place of earlier ones of the same thing. */
const merged = (settings: readonly Setting[], more: readonly Setting[]): Setting[] => [
  ...new Map([...settings, ...more].map((setting) => [placeOf(setting), setting])).values(),
];

/** Without the settings that it does not take: larger parts are left out first. */
function pruned(
  network: Network,
  tree: SettledTree,
  settings: readonly Setting[],
  good: (tree: SettledTree) => boolean,
): readonly Setting[] {
  let kept = settings;
  for (let size = Math.ceil(kept.length / 2); kept.length > 1; size = Math.ceil(size / 2)) {
    for (let at = 0; at < kept.length;) {
      const without = [...kept.slice(0, at), ...kept.slice(at + size)];
      if (without.length > 0 && good(solveWith(network, tree.id, without))) kept = without;
      else at += size;
    }
    if (size === 1) break;
  }
  return kept;
}

/** What a setting is at present. */
function valueNow(network: Network, tree: SettledTree, setting: Setting): number {
  if (setting.of === 'bridgePriority') return setBridgePriority(network.switches[setting.switch]!, tree.id);
  if (setting.of === 'cost') return tree.cost[setting.port]!;
  return portIdentifier(network.ports[setting.port]!, tree.id, network.switches[network.owner[setting.port]!]!.dialect)
    .priority;
}

/** Settings for some trees. */
interface Part {
  readonly trees: readonly TreeId[];
  readonly set: readonly Setting[];
}

/** Each shape with settings of its own: the best of all, then the next best of each. */
function together(
  parts: readonly { readonly trees: readonly TreeId[]; readonly sets: readonly (readonly Setting[])[] }[],
): Part[][] {
  if (parts.some(({ sets }) => sets.length === 0)) return [];
  const most = Math.min(MOST, Math.max(...parts.map(({ sets }) => sets.length)));
  return Array.from({ length: most }, (_, k) =>
    parts.map(({ trees, sets }) => ({ trees, set: sets[Math.min(k, sets.length - 1)]! })),
  );
}

/** Solves the whole design with the settings; null where some wished tree does not come out as wished. */
function proposalOf(
  before: Solution,
  trees: readonly TreeId[],
  parts: readonly Part[],
  met: (tree: SettledTree) => boolean,
  targets: readonly Target[],
): Proposal | null {
  const { network } = before;
  const commands = parts.flatMap((part) => settingCommands(network, part.trees, part.set));
  const edited = editAll(network.design, commands);
  const after = edited.ok ? solve(edited.value.design) : null;
  if (!after || !trees.every((id) => after.trees.some((tree) => tree.id === id && met(tree)))) return null;
  const pointed = new Set(targets.flatMap(({ a, b }) => [a, b]));
  const others = movedEnds(before, after).filter((end) => !(trees.includes(end.tree) && pointed.has(end.index)));
  return {
    commands,
    sentence: sentencesOf(network.design, commands).join('; '),
    settings: parts.reduce((sum, { set }) => sum + set.length, 0),
    others,
    spills: others.some((end) => !trees.includes(end.tree)),
    ...newlyStrained(before, after),
  };
}

/** Access switches that are a root, or stand between others and it, in trees in which they did not before. */
function newlyStrained(before: Solution, after: Solution): Pick<Proposal, 'weakRoots' | 'weakWays'> {
  const { switches } = after.network;
  const was = new Map(
    before.trees.map((tree) => [tree.id, { roots: new Set(tree.root), ways: transits(before.network, tree) }]),
  );
  const [roots, ways] = [new Set<number>(), new Set<number>()];
  for (const tree of after.trees) {
    const old = was.get(tree.id);
    for (const s of tree.root) if (s >= 0 && !old?.roots.has(s)) roots.add(s);
    for (const s of transits(after.network, tree)) if (!old?.ways.has(s) && !roots.has(s)) ways.add(s);
  }
  const access = (found: Set<number>): SwitchId[] =>
    [...found].flatMap((s) => (switches[s]!.tier === 'access' ? [switches[s]!.id] : []));
  return { weakRoots: access(roots), weakWays: access(ways) };
}

/** Switches through which others reach the root. */
function transits({ owner }: Network, tree: SettledTree): Set<number> {
  return new Set(
    Array.from(tree.rootPort, (p) => (p < 0 || tree.designated[p]! < 0 ? -1 : owner[tree.designated[p]!]!)).filter(
      (s) => s >= 0,
    ),
  );
}
