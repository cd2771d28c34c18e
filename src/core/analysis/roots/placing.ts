/**
 * Placing roots: the bridge priority that makes a switch the root of a tree, its standby, or never the root.
 * Elections compare priority, system ID extension and MAC address (802.1Q-2018 13.26.2 and 13.26.3).
 */
import type { Bridge } from '../../topology/bridges';
import { CST, treeInstance, treeName, treesName, type SwitchId, type TreeId } from '../../model/ids';
import { BRIDGE_PRIORITY } from '../../model/legal';
import type { Command } from '../../edit/commands';
import {
  bridgeId,
  bridgeIdText,
  compareBridgeIds,
  setBridgePriority,
  settingKey,
  type BridgeId,
} from '../../topology/bridgeId';
import { bridgeOf, isOne } from '../../topology/acting';
import type { Network } from '../../topology/network';
import { switchName } from '../../tree/explain/phrases';
import { hasInstance, regionsOf, sameRegion } from '../../topology/region';
import { partOf } from '../../topology/trees';
import type { Remedy } from '../findings/finding';

/** What a switch should be to a tree. */
export type Placement = 'root' | 'standby' | 'never';

/** How a switch gets its place in one tree, or why it cannot. */
export type Placing =
  | {
      readonly done: true;
      readonly tree: TreeId;
      readonly priority: number;
      /** Empty where the switch has its place already. */
      readonly commands: readonly Command[];
      /** The rivals that it had to get past, the best first. */
      readonly past: readonly string[];
      readonly sentence: string;
    }
  | {
      readonly done: false;
      readonly tree: TreeId;
      readonly sentence: string;
      /** What to change besides, so that it can; null where nothing would help. */
      readonly instead: Remedy | null;
    };

const { min, max, step } = BRIDGE_PRIORITY;
/** Every legal priority, the best first. */
const LEGAL: readonly number[] = Array.from({ length: (max - min) / step + 1 }, (_, i) => min + i * step);

interface Rival {
  readonly sw: Bridge;
  readonly id: BridgeId;
}

/** Places switch index `s` in a tree. Rivals are all bridges of the tree, whether cables reach them now or not. */
export function place(network: Network, tree: TreeId, s: number, as: Placement): Placing {
  const placing = placeBridge(network.acting ?? network, tree, bridgeOf(network, s), as);
  if (network.pairs.length === 0 || !placing.done) return placing;
  return { ...placing, commands: forBoth(network, placing.commands) };
}

/** What is set at the primary of a pair goes for its secondary too: it is what the pair goes by once the primary is lost. */
function forBoth({ pairs, switches }: Network, commands: readonly Command[]): Command[] {
  return commands.flatMap((command): Command[] => {
    if (command.do !== 'set-bridge-priority') return [command];
    const pair = pairs.find((each) => isOne(each) && switches[each.first]!.id === command.switch);
    return pair ? [command, { ...command, switch: switches[pair.first + 1]!.id }] : [command];
  });
}

function placeBridge(network: Network, tree: TreeId, s: number, as: Placement): Placing {
  const sw = network.switches[s]!;
  const name = switchName(sw);
  const regionOf = regionsOf(network.design);
  // An instance is elected for in each region by itself; the CIST by all bridges.
  const own = (treeInstance(tree) ?? 0) > 0 ? regionOf(sw) : null;
  if (own && !hasInstance(own, treeInstance(tree)!))
    return { done: false, tree, sentence: `${name}'s region has no ${treeName(tree)}.`, instead: null };
  if (partOf(sw, tree) !== 'bridge') {
    return {
      done: false,
      tree,
      sentence: `${name} takes no part in ${treeName(tree)}: it ${sw.up ? 'runs no spanning tree for it' : 'has no power'}.`,
      instead: null,
    };
  }
  const rivals = network.switches
    .filter(
      (other) => other !== sw && partOf(other, tree) === 'bridge' && (own === null || sameRegion(own, regionOf(other))),
    )
    .map((other): Rival => ({ sw: other, id: bridgeId(other, tree) }))
    .sort((a, b) => compareBridgeIds(a.id, b.id));
  if (as === 'never')
    return settled(
      sw,
      tree,
      max,
      [],
      `${name} has the worst priority in ${treeName(tree)}: it becomes root only where nothing better is left.`,
    );
  return as === 'root' ? asRoot(sw, tree, rivals) : asStandby(sw, tree, rivals);
}

/** The identifier that a switch would have with a priority. */
function idWith(sw: Bridge, tree: TreeId, priority: number): BridgeId {
  const now = bridgeId(sw, tree);
  return { mac: now.mac, priority: now.priority - setBridgePriority(sw, tree) + priority };
}
const beats = (a: BridgeId, b: BridgeId): boolean => compareBridgeIds(a, b) < 0;

function asRoot(sw: Bridge, tree: TreeId, rivals: readonly Rival[]): Placing {
  const name = switchName(sw);
  const [best] = rivals;
  if (!best)
    return settled(sw, tree, setBridgePriority(sw, tree), [], `${name} is the only bridge of ${treeName(tree)}.`);
  const now = bridgeId(sw, tree);
  if (now.priority < best.id.priority)
    return settled(
      sw,
      tree,
      setBridgePriority(sw, tree),
      rivals,
      `${name} is root of ${treeName(tree)} by priority already.`,
    );
  // One step is left free below the rivals for a standby, where there is room.
  const wins = LEGAL.filter((priority) => idWith(sw, tree, priority).priority < best.id.priority);
  const chosen = wins.at(-2) ?? wins.at(-1) ?? (beats(idWith(sw, tree, min), best.id) ? min : null);
  if (chosen !== null) {
    const how =
      idWith(sw, tree, chosen).priority === best.id.priority
        ? `; ${switchName(best.sw)} has the same priority, so only the lower MAC address decides`
        : '';
    return settled(
      sw,
      tree,
      chosen,
      rivals.filter((rival) => beats(rival.id, now)),
      `${name} becomes root of ${treeName(tree)} with priority ${chosen}${how}.`,
    );
  }
  const blocking = rivals.filter((rival) => !beats(idWith(sw, tree, min), rival.id));
  return {
    done: false,
    tree,
    sentence: `No priority makes ${name} root of ${treeName(tree)}: ${blocking.map(rivalText).join(', ')} ${blocking.length === 1 ? 'has' : 'have'} priority 0 already and a lower MAC address.`,
    instead: {
      label: `raise ${blocking.map((rival) => switchName(rival.sw)).join(', ')} to ${step} and place ${name} at 0`,
      commands: [
        ...blocking.flatMap((rival) => priorityCommand(rival.sw, tree, step)),
        ...priorityCommand(sw, tree, min),
      ],
    },
  };
}

function asStandby(sw: Bridge, tree: TreeId, rivals: readonly Rival[]): Placing {
  const name = switchName(sw);
  const [root, next] = rivals;
  if (!root)
    return {
      done: false,
      tree,
      sentence: `${name} is the only bridge of ${treeName(tree)}: there is no root to stand by for.`,
      instead: null,
    };
  const now = bridgeId(sw, tree);
  if (beats(root.id, now) && (!next || now.priority < next.id.priority))
    return settled(
      sw,
      tree,
      setBridgePriority(sw, tree),
      rivals,
      `${name} is the standby of ${treeName(tree)} already.`,
    );
  const fits = LEGAL.filter((priority) => {
    const id = idWith(sw, tree, priority);
    return beats(root.id, id) && (!next || beats(id, next.id));
  });
  // Clear of the others by priority where that can be, and of the root.
  const clear = fits.filter((priority) => !next || idWith(sw, tree, priority).priority < next.id.priority);
  const apart = clear.filter((priority) => idWith(sw, tree, priority).priority > root.id.priority);
  const chosen = apart.at(-1) ?? clear.at(-1) ?? fits.at(-1);
  if (chosen !== undefined) {
    return settled(
      sw,
      tree,
      chosen,
      rivals.slice(1).filter((rival) => beats(rival.id, now)),
      `${name} becomes the standby of ${treeName(tree)} with priority ${chosen}, behind ${switchName(root.sw)}.`,
    );
  }
  const between = next ? `between ${rivalText(root)} and ${rivalText(next)}` : `behind ${rivalText(root)}`;
  return {
    done: false,
    tree,
    sentence: `No priority puts ${name} ${between} in ${treeName(tree)}.`,
    instead: makeRoom(sw, tree, root, rivals.slice(1)),
  };
}

/** Moves the root to 0 and whoever stands in the way up, so that the second step is free. */
function makeRoom(sw: Bridge, tree: TreeId, root: Rival, others: readonly Rival[]): Remedy {
  const inTheWay = others.filter((rival) => rival.id.priority <= idWith(rival.sw, tree, step).priority);
  const raised = inTheWay.map((rival) => switchName(rival.sw));
  return {
    label: `${switchName(root.sw)} to 0, ${switchName(sw)} to ${step}${raised.length > 0 ? `, ${raised.join(', ')} to ${2 * step}` : ''}`,
    commands: [
      ...priorityCommand(root.sw, tree, min),
      ...inTheWay.flatMap((rival) => priorityCommand(rival.sw, tree, 2 * step)),
      ...priorityCommand(sw, tree, step),
    ],
  };
}

const rivalText = ({ sw, id }: Rival): string => `${switchName(sw)} (${bridgeIdText(id)})`;

function settled(sw: Bridge, tree: TreeId, priority: number, past: readonly Rival[], sentence: string): Placing {
  return {
    done: true,
    tree,
    priority,
    commands: priorityCommand(sw, tree, priority),
    past: past.map((rival) => switchName(rival.sw)),
    sentence,
  };
}

/** Sets a bridge priority where this switch keeps it for the tree; nothing where it stands already. */
export function priorityCommand(sw: Bridge, tree: TreeId, priority: number): Command[] {
  if (setBridgePriority(sw, tree) === priority) return [];
  return [{ do: 'set-bridge-priority', switch: sw.id, tree: keyOf(sw, tree), priority }];
}

/** Takes a step off every rival that shares the best priority there is with a switch, which cannot be put before them otherwise. */
export function yieldTo(network: Network, tree: TreeId, s: number): Command[] {
  const sw = network.switches[s]!;
  if (setBridgePriority(sw, tree) !== min) return [];
  return network.switches
    .filter((other) => other !== sw && partOf(other, tree) === 'bridge' && setBridgePriority(other, tree) === min)
    .flatMap((other) => priorityCommand(other, tree, min + step));
}

/** A standard bridge has one tree: it keeps its priority under `cst`, under VLAN 1's, or for all trees. */
function keyOf(sw: Bridge, tree: TreeId): TreeId | null {
  const key = settingKey(tree, sw.dialect);
  if (key !== CST || sw.trees[CST]) return key;
  return sw.trees[tree] ? tree : null;
}

/** Places switches in several trees, each as the network stands: several at once make sense for `never` only. */
export function placeAll(
  network: Network,
  trees: readonly TreeId[],
  switches: readonly SwitchId[],
  as: Placement,
): Placing[] {
  return trees.flatMap((tree) =>
    switches.flatMap((id) => {
      const s = network.switchIndex.get(id);
      return s === undefined ? [] : [place(network, tree, s, as)];
    }),
  );
}

/** What several placings come to, in a sentence or two; alike ones are told once for all their trees. */
export function placingText(placings: readonly Placing[]): string {
  const groups = new Map<string, TreeId[]>();
  for (const { tree, sentence } of placings) {
    const key = sentence.replace(treeName(tree), '\n');
    groups.set(key, [...(groups.get(key) ?? []), tree]);
  }
  const sentences = [...groups].map(([key, trees]) => key.replace('\n', treesName(trees)));
  return sentences.slice(0, 3).join(' ') + (sentences.length > 3 ? ` And ${sentences.length - 3} more.` : '');
}
