/** Findings about roots and their standbys: accidents of MAC, weak or far ones, no sharing. Trees that are alike are told together. */
import { treeInstance, treesName, type TreeId } from '../../model/ids';
import { explainRoot, islandRoots } from '../../tree/explain/election';
import { switchName } from '../../tree/explain/phrases';
import type { Network } from '../../topology/network';
import { CODE, type SettledTree, type Solution } from '../../tree/settled';
import { byChance } from '../roots/chance';
import { placeAll, yieldTo } from '../roots/placing';
import type { Finding, Remedy } from './finding';

/** What each rule says of a switch and the trees where it holds, and why it matters; in the order in which they are told. */
const RULES = {
  'root-by-mac': [
    (name, where) => `${name} is root of ${where} only by its MAC address`,
    'Nobody chose it, and a new switch with a lower MAC would take over.',
  ],
  'instance-without-root': [
    (name, where) => `No switch is placed as root of ${where}: ${name} is root only by its MAC address`,
    'The instance was made to take a way of its own, and chance decides which.',
  ],
  'root-on-access': [
    (name, where) => `${name}, an access switch, is root of ${where}`,
    'Traffic between the strong switches is drawn through it.',
  ],
  'one-root-for-all': [
    (name, where) => `${name} is root of every tree (${where}), though it is not the only core switch`,
    'All trees take the same ways, and the uplinks to the other core switches stand idle.',
  ],
  'standby-by-mac': [
    (name, where) => `${name} stands by for the root of ${where} only by its MAC address`,
    'Nobody chose it: if the root dies, chance decides who takes over.',
  ],
  'standby-on-access': [
    (name, where) => `${name}, an access switch, stands by for the root of ${where}`,
    'If the root dies, traffic between the strong switches is drawn through it.',
  ],
  'standby-far': [
    (name, where) => `${name} stands by for the root of ${where} from more than one hop away`,
    'If the root dies the tree turns round to a far corner, though a strong switch sits right beside the root.',
  ],
  'beyond-max-age': [
    (name, where) => `${name} hears of the root of ${where} only what is too old by the root's max age`,
    'Each bridge on the way adds to the message age: a second, or its own increment where it runs classic STP. What is too old does not count: from there on another root rules. Where a classic bridge hears it and it dies before the next hello, the two take turns and it never rests.',
  ],
  'beyond-max-hops': [
    (name, where) => `${name} throws away what it hears of the regional root in ${where}: no hop is left`,
    'Each bridge inside of a region takes one hop off. From here on another root rules, and the link between the two is blocked.',
  ],
} as const satisfies Record<string, readonly [text: (name: string, where: string) => string, why: string]>;
type Rule = keyof typeof RULES;

/** Findings on the largest island of each tree, and on switches too far from their root. */
export function rootFindings({ network, trees }: Solution): Finding[] {
  const found = new Map<Rule, Map<number, TreeId[]>>();
  const roots = new Map<number, TreeId[]>();
  const add = (to: Map<number, TreeId[]>, s: number, tree: TreeId) => to.set(s, [...(to.get(s) ?? []), tree]);
  for (const tree of trees) {
    for (const [rule, s] of troubles(network, tree)) {
      const groups = found.get(rule) ?? new Map<number, TreeId[]>();
      found.set(rule, groups);
      add(groups, s, tree.id);
    }
    const [root] = islandRoots(network, tree);
    if (root !== undefined) add(roots, root, tree.id);
  }
  const [only] = roots;
  const cores = network.switches.filter((sw) => sw.tier === 'core' && sw.up);
  if (only && roots.size === 1 && only[1].length > 1 && cores.length > 1 && cores.includes(network.switches[only[0]]!))
    found.set('one-root-for-all', roots);

  return (Object.keys(RULES) as Rule[]).flatMap((rule) =>
    [...(found.get(rule) ?? [])].map(([s, ids]): Finding => {
      const sw = network.switches[s]!;
      const [text, why] = RULES[rule];
      const remedies = chosenRemedies(network, rule, s, ids);
      return { rule, text: text(switchName(sw), treesName(ids)), why, at: { switch: sw.id, trees: ids }, remedies };
    }),
  );
}

const CHANCE: Partial<Record<Rule, 'root' | 'standby'>> = {
  'root-by-mac': 'root',
  'instance-without-root': 'root',
  'standby-by-mac': 'standby',
};

/** What chance chose is chosen by priority. */
function chosenRemedies(network: Network, rule: Rule, s: number, trees: readonly TreeId[]): Remedy[] {
  const as = CHANCE[rule];
  const sw = network.switches[s]!;
  if (!as) return [];
  const placings = placeAll(network, trees, [sw.id], as);
  const commands = placings.flatMap((placing) => {
    if (placing.done && placing.commands.length > 0) return placing.commands;
    const yields = yieldTo(network, placing.tree, s);
    return yields.length === 0 && !placing.done ? (placing.instead?.commands ?? []) : yields;
  });
  return commands.length > 0 ? [{ label: `choose ${switchName(sw)} by priority`, commands }] : [];
}

/** What is wrong with one tree: the rule, and the switch that it is about. */
function troubles(network: Network, tree: SettledTree): (readonly [Rule, number])[] {
  const far = distances(network, tree);
  const found = tooFar(network, tree);
  // An instance has a root in each of its regions; of any other tree the largest island counts.
  const roots = islandRoots(network, tree);
  const many = (root: number): boolean => tree.root.filter((each) => each === root).length > 1;
  return [
    ...found,
    ...((treeInstance(tree.id) ?? 0) > 0 ? roots.filter(many) : roots.slice(0, 1)).flatMap((root) =>
      rootTroubles(network, tree, root, far),
    ),
  ];
}

/** What is wrong with the root of one island, or with its standby. */
function rootTroubles(
  network: Network,
  tree: SettledTree,
  root: number,
  far: readonly number[],
): (readonly [Rule, number])[] {
  const found: (readonly [Rule, number])[] = [];
  const strong = (s: number): boolean => network.switches[s]!.tier !== 'access';
  if (!strong(root) && network.switches.some((sw) => sw.tier !== 'access')) found.push(['root-on-access', root]);
  const election = explainRoot(network, tree, root);
  const chance = byChance(election);
  if (chance.root)
    return [...found, [(treeInstance(tree.id) ?? 0) > 0 ? 'instance-without-root' : 'root-by-mac', root]];
  // The second in line of a root that was chosen.
  const [, second] = election?.ranking ?? [];
  if (!second) return found;
  const s = second.switchIndex;
  const others = election!.ranking
    .slice(1)
    .map((each) => each.switchIndex)
    .filter(strong);
  if (chance.standby) found.push(['standby-by-mac', s]);
  else if (!strong(s) && others.length > 0) found.push(['standby-on-access', s]);
  else if (far[s]! > 1 && others.some((other) => far[other] === 1)) found.push(['standby-far', s]);
  return found;
}

/** How many hops each switch is from its root, or the regional root; 0 at roots and outside the tree. */
function distances(network: Network, tree: SettledTree): number[] {
  const found = network.switches.map(() => 0);
  const near = network.switches
    .map((_, s) => s)
    .sort(
      (a, b) =>
        tree.rootPathCost[a]! - tree.rootPathCost[b]! || (tree.regional?.cost[a] ?? 0) - (tree.regional?.cost[b] ?? 0),
    );
  for (const s of near) {
    const p = tree.rootPort[s]!;
    if (p >= 0)
      found[s] = tree.regional && !tree.regional.inside[p] ? 0 : found[network.owner[tree.designated[p]!]!]! + 1;
  }
  return found;
}

/** Switches that the messages of a better root reach too old, or inside of a region with no hop left (802.1Q-2018 13.29). */
function tooFar(network: Network, tree: SettledTree): (readonly [Rule, number])[] {
  const { switches, owner, far, live } = network;
  const inside = (p: number): boolean => tree.regional?.inside[p] === 1;
  /** Designated at both ends of a link over which each hears the other. */
  const thrown = (p: number): boolean => {
    const q = far[p]!;
    const both = q >= 0 && live[p] === 1 && tree.role[p] === CODE.designated && tree.role[q] === CODE.designated;
    return (
      both &&
      tree.designated[p] === p &&
      tree.designated[q] === q &&
      !network.oneWayPeers.has(p) &&
      !network.oneWayPeers.has(q)
    );
  };
  const better = (p: number): boolean => {
    const [own, other] = [tree.root[owner[p]!]!, tree.root[owner[far[p]!]!]!];
    return own >= 0 && other >= 0 && own !== other && tree.rank[other]! < tree.rank[own]!;
  };
  /** Roots that rule only where a better one's messages have grown too old; switches that no hop is left for. */
  const [beyond, spent] = [new Set<number>(), new Set<number>()];
  for (let p = 0; p < owner.length; p += 1) {
    if (!thrown(p)) continue;
    if (!inside(p)) {
      if (better(p)) beyond.add(tree.root[owner[p]!]!);
    } else if (tree.disputed[far[p]!]) spent.add(owner[p]!);
  }
  if (beyond.size === 0 && spent.size === 0) return [];
  return switches.flatMap((_, s): (readonly [Rule, number])[] => {
    if (beyond.has(tree.root[s]!)) return [['beyond-max-age', s]];
    return spent.has(s) ? [['beyond-max-hops', s]] : [];
  });
}
