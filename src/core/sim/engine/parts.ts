/**
 * What of a run is run by itself. Per-VLAN trees do not hear each other, so each has a clock of its own: what a processor keeps
 * at hand of one tree is not pushed out by the others. Those that fare alike, however it goes, are run once and told as many.
 */
import { actionKind, isTurn } from '../../model/actions/actions';
import { isPerVlan, runsTrees, type Design } from '../../model/document';
import { treeVlan, type TreeId } from '../../model/ids';
import type { Scenario } from '../../model/scenario';
import { compileNetwork } from '../../topology/network';
import { mayBeShut } from '../../topology/shut';
import { untagged } from '../../topology/vlanCheck';

/** A tree of a run that one is told as: its place among all of them, and how much higher its VLAN is. */
export interface Told {
  readonly tree: number;
  readonly by: number;
}

export interface Part {
  /** The trees that are run. */
  readonly trees: readonly TreeId[];
  /** By tree that is run, all that it is told as: itself first, then those that fare alike. */
  readonly told: readonly (readonly Told[])[];
  /** Trees that are not run, since one that is run fares alike: the place of that one among those. */
  readonly alike: ReadonlyMap<TreeId, number>;
}

/** All trees on one clock. */
export const inOnePart = (trees: readonly TreeId[]): Part[] => [
  { trees, told: trees.map((_, tree) => [{ tree, by: 0 }]), alike: new Map() },
];

/** Parts as one: where a run is small, a clock for each costs more than it saves. */
export function onOneClock(parts: readonly Part[]): Part {
  let before = 0;
  const alike = new Map<TreeId, number>();
  for (const part of parts) {
    for (const [tree, place] of part.alike) alike.set(tree, before + place);
    before += part.trees.length;
  }
  return { trees: parts.flatMap(({ trees }) => trees), told: parts.flatMap(({ told }) => told), alike };
}

/**
 * The parts of a run; `design` has everything that the scenario brings along. One alone where a switch speaks a standard
 * dialect, whose tree per-VLAN bridges hear too, or comes to speak otherwise, or where one tree's BPDUs may shut a port of all.
 */
export function partsOf(design: Design, trees: readonly TreeId[], { actions }: Pick<Scenario, 'actions'>): Part[] {
  if (hearEachOther(design, actions)) return inOnePart(trees);
  const classes = alikeTrees(design, trees, actions);
  if (classes.length <= 1 || hangTogether(design)) return [partOf(trees, classes)];
  return classes.map((each) => partOf(trees, [each]));
}

/** Whether what is heard in one tree is heard in others, too: a standard bridge takes part, or comes to. */
const hearEachOther = (design: Design, actions: Scenario['actions']): boolean =>
  design.switches.some((sw) => runsTrees(sw) && !isPerVlan(sw)) || actions.some(isTurn);

/** Whether each tree fares as it would if it were the only one. */
export const areApart = (design: Design, { actions }: Pick<Scenario, 'actions'>): boolean =>
  !hearEachOther(design, actions) && !hangTogether(design);

/** Of each class the first is run. */
function partOf(trees: readonly TreeId[], classes: readonly (readonly number[])[]): Part {
  const vlan = (tree: number): number => treeVlan(trees[tree]!) ?? 0;
  return {
    trees: classes.map(([first]) => trees[first!]!),
    told: classes.map((all) => all.map((tree) => ({ tree, by: vlan(tree) - vlan(all[0]!) }))),
    alike: new Map(classes.flatMap((all, run) => all.slice(1).map((tree) => [trees[tree]!, run] as const))),
  };
}

/**
 * Which trees fare alike throughout a scenario: those with the same bridges, ports, costs and priorities, since hellos start at
 * the same moment in all trees of a switch. That of VLAN 1 is one of them: without standard bridges nobody else hears that it is
 * spoken otherwise.
 */
function alikeTrees(design: Design, trees: readonly TreeId[], actions: Scenario['actions']): number[][] {
  const named = new Set(
    actions.flatMap((action) => ('tree' in action && action.tree !== undefined ? [action.tree] : [])),
  );
  const { carried } = compileNetwork(design);
  const differ = mayDiffer(design) || actions.some((action) => actionKind(action).setsTrees?.(action));
  const classes = new Map<string, number[]>();
  for (const [i, tree] of trees.entries()) {
    const vid = treeVlan(tree);
    const alone = differ || vid === null || named.has(tree);
    const key = alone ? tree : keyOf(design, tree, carried.map((vlans) => (vlans.has(vid) ? 1 : 0)).join(''));
    const all = classes.get(key);
    if (all) all.push(i);
    else classes.set(key, [i]);
  }
  return [...classes.values()];
}

/** All that a tree's run hangs on and that may differ from tree to tree. */
function keyOf({ switches, bundles }: Design, tree: TreeId, carried: string): string {
  const set = [
    ...switches.map((sw) => sw.trees[tree]),
    ...switches.flatMap((sw) => sw.ports.map((port) => port.trees[tree])),
    ...bundles.map((bundle) => bundle.trees[tree]),
  ];
  return `${carried} ${JSON.stringify(set.map((each) => each ?? null))}`;
}

/** Whether a VLAN check may come to hold a port: not all untagged frames of trunks are of one VLAN. */
const mayDiffer = ({ switches, bundles }: Design): boolean =>
  switches.some((sw) => sw.vlanCheck) &&
  new Set([...switches.flatMap((sw) => sw.ports), ...bundles].map((port) => untagged(port.vlans))).size > 1;

/** Whether a guard may come to shut a port, for all trees, at what comes over a link. */
function hangTogether(design: Design): boolean {
  const { switches, links, bundles } = design;
  if (mayDiffer(design)) return true; // a BPDU of one VLAN holds a port in another
  const linked = new Set(links.flatMap(({ a, b }) => [a, b]).map((end) => `${end.switch} ${end.port}`));
  const isLinked = (sw: string, port: string): boolean => linked.has(`${sw} ${port}`);
  return switches.some(
    (sw) =>
      sw.ports.some((port) => isLinked(sw.id, port.id) && mayBeShut(port, sw)) ||
      bundles.some(
        (bundle) =>
          bundle.switch === sw.id && bundle.ports.some((port) => isLinked(sw.id, port)) && mayBeShut(bundle, sw),
      ),
  );
}
