/** What BPDUs come to a port of a settled network: of which trees, in which form, from whom and by what way, and what becomes of each. */
import { isMultiple, isPerVlan } from '../../model/document';
import {
  CIST,
  CST,
  treeInstance,
  treesName,
  treeVlan,
  vlanTree,
  type BridgePortId,
  type LinkId,
  type SwitchId,
  type TreeId,
} from '../../model/ids';
import { wholeOf } from '../../topology/acting';
import { isGuarded } from '../../topology/shut';
import { segmentsOf } from '../../topology/segments';
import { belongs, partAt } from '../../topology/trees';
import { wrongVlans } from '../../topology/vlanCheck';
import { speaksVersion0 } from '../../tree/hearing';
import { passing } from '../../tree/passing';
import { vlanOf } from '../../tree/held';
import { bridgesSolution } from '../../tree/spread';
import { CODE, HELD, OWN_HEARD, type SettledTree, type Solution } from '../../tree/settled';
import { bpduWays, wayPhrase } from '../../tree/explain/bpduWay';
import { label, switchName } from '../../tree/explain/phrases';
import type { Network } from '../../topology/network';
import type { Progress } from '../steering/steer';

/** A port takes them into a tree, throws them away, is shut by them, is held since they are its bridge's own, is held against them in two VLANs, or throws them away since it is; or its switch has no part in that tree there, and passes them on or not. */
export type Fate =
  'read' | 'own' | 'discarded' | 'shuts' | 'held against' | 'held' | 'passed on' | 'blocked' | 'not carried';

/** BPDUs that come in the same way, and are treated alike. */
export interface HeardBpdus {
  readonly trees: readonly TreeId[];
  /** The port that sends them. */
  readonly from: number;
  /** The ports of switches that pass them on, in and out, in turn. */
  readonly way: readonly number[];
  readonly kind: 'configuration' | 'RST' | 'MST';
  /** To the group address of bridges with trees of VLANs: with a tag, or untagged in the native VLAN; else to that of the standard. */
  readonly group: 'standard' | 'tagged' | 'untagged';
  readonly fate: Fate;
}

/** Those that come to port `p`, the same of several trees together; those of a pair that acts as one come to both halves of a bundle. */
export function heardAt(given: Solution, half: number): HeardBpdus[] {
  const [solution, p] = [bridgesSolution(given), wholeOf(given.network, half)];
  const found = new Map<string, HeardBpdus & { readonly trees: TreeId[] }>();
  for (const tree of solution.trees) {
    if (treeInstance(tree.id)) continue; // what is said of instances is in the CIST's BPDUs
    for (const each of heardInTree(solution, tree, p)) {
      const key = JSON.stringify({ ...each, trees: null });
      const known = found.get(key);
      if (known) known.trees.push(tree.id);
      else found.set(key, { ...each, trees: [tree.id] });
    }
  }
  return [...found.values()];
}

function heardInTree(solution: Solution, tree: SettledTree, p: number): HeardBpdus[] {
  const { network, trees } = solution;
  const { switches, ports, owner, carried } = network;
  const vid = treeVlan(tree.id);
  const common = vid === null || vid === 1;
  let known: Uint8Array | null = null;
  const passes = (q: number): boolean => (known ??= passing(solution, vid ?? 1))[q] === 1;
  const segments = segmentsOf(network, tree.id, passes);
  const instances = tree.id === CIST ? trees.filter(({ id }) => treeInstance(id) !== null) : [tree];
  const sends = (x: number): boolean => ports[x]!.bpduTx && instances.some(({ role }) => role[x] === CODE.designated);
  const isActive = (q: number): boolean => tree.role[q] === CODE.designated || tree.role[q] === CODE.root;

  const isHeld = trees.some(({ disputed }) => disputed[p] === HELD);
  const fateOf = (group: HeardBpdus['group']): Fate => {
    const sw = switches[owner[p]!]!;
    const part = partAt(sw, ports[p]!, tree.id);
    // The copy for bridges with trees of VLANs is no BPDU to one of the standard.
    const foreign = part === 'bridge' && group !== 'standard' && common && !isPerVlan(sw);
    const wrong = isHeld ? wrongVlans(network).get(p) : undefined;
    if (wrong && vlanOf(tree.id) === wrong.heard) return 'held against';
    if (wrong && vlanOf(tree.id) === wrong.own) return 'held';
    if (!belongs(sw, carried[p]!, vid)) return 'not carried';
    if (part === 'hub') return 'passed on';
    if (part === 'relay' || foreign) return passes(p) ? 'passed on' : 'blocked';
    return !ports[p]!.bpduRx ? 'discarded' : isGuarded(network, p) ? 'shuts' : 'read';
  };
  return bpduWays(solution, tree.id, p)
    .filter(({ from }) => sends(from))
    .flatMap(({ from, way }) => {
      const sw = switches[owner[from]!]!;
      const { vlans } = ports[from]!;
      const tagged = vlans.mode === 'trunk' && vlans.native !== (vid ?? 1);
      const old = speaksVersion0(network, segments, from, isActive);
      const kind = old ? 'configuration' : isMultiple(sw) && common ? 'MST' : 'RST';
      const groups: HeardBpdus['group'][] = [
        ...(common ? (['standard'] as const) : []),
        ...(tree.id !== CST && (!common || isPerVlan(sw)) ? ([tagged ? 'tagged' : 'untagged'] as const) : []),
      ];
      const own = owner[from] === owner[p] && tree.disputed[p] === OWN_HEARD;
      return groups.map((group): HeardBpdus => {
        const fate = fateOf(group);
        return { trees: [], from, way, kind, group, fate: own && fate === 'read' ? 'own' : fate };
      });
    });
}

const isCommon = (trees: readonly TreeId[]): boolean =>
  trees.length === 1 && [CST, CIST, vlanTree(1)].includes(trees[0]!);

/** What is said of BPDUs that come in, part by part. */
interface HeardWords {
  /** `VLANs 15,25`, `the common tree`. */
  readonly trees: string;
  /** `tagged, for trees of VLANs`. */
  readonly form: string;
  /** `stairs-a (port 1 to port 2)`; empty where nobody passes them on. */
  readonly through: string;
  readonly fate: string;
}

function heardWords({ network }: Solution, p: number, { trees, way, group, fate }: HeardBpdus): HeardWords {
  const own = isPerVlan(network.switches[network.owner[p]!]!);
  const as = isCommon(trees) ? (own ? 'read as VLAN 1' : 'read as the common tree') : 'read as such';
  return {
    trees: group === 'standard' && isCommon(trees) ? 'the common tree' : treesName(trees),
    form: group === 'standard' ? 'untagged' : `${group}, for trees of VLANs`,
    through: way.length === 0 ? '' : wayPhrase(network, way),
    fate: fate === 'read' ? as : FATES[fate],
  };
}

/** `RST BPDUs of VLANs 15,25, tagged, from hall-core port 1: read as those trees.` */
export function heardText(solution: Solution, p: number, heard: HeardBpdus): string {
  const { trees, form, through, fate } = heardWords(solution, p, heard);
  const by = through === '' ? '' : `, passed on through ${through}`;
  return `${heard.kind} BPDUs of ${trees}, ${form}, from ${label(solution.network, heard.from)}${by}: ${fate}.`;
}

/** BPDUs that come to a port, as a row of all that is said in a network. */
export interface Conversation extends HeardWords {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
  /** The port that they come to, and the one that sends them. */
  readonly at: string;
  readonly from: string;
  readonly kind: HeardBpdus['kind'];
  readonly group: HeardBpdus['group'];
  /** The switches that they ride through, in turn; empty where there are none. */
  readonly riding: string;
  /** Whether they have come back to the switch that sends them. */
  readonly returns: boolean;
  /** The cables that they take, each from a switch on; empty where nobody passes them on. */
  readonly ride: readonly { readonly link: LinkId; readonly from: SwitchId }[];
}

/** The cables of a way, of a bundle the one that BPDUs take. */
function rideOf({ design, link, home, switches }: Network, { from, way }: HeardBpdus): Conversation['ride'] {
  if (way.length === 0) return [];
  const leaves = [from, ...way.filter((_, i) => i % 2 === 1)];
  return leaves.flatMap((q) => {
    const cable = design.links[link[q]!];
    return cable ? [{ link: cable.id, from: switches[home[q]!]!.id }] : [];
  });
}

/** `stairs-a, stairs-b`, of many the first ones. */
function ridden({ switches, owner }: Network, way: readonly number[]): string {
  const names = [...new Set(way.map((q) => owner[q]!))].map((s) => switchName(switches[s]!));
  return names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : names.join(', ');
}

/** All that bridges say to each other, what comes back and what rides through others first. */
export function conversationsIn(solution: Solution, progress: Progress = () => true): Conversation[] {
  const bridges = bridgesSolution(solution);
  const { network } = bridges;
  const { ports, switches, owner, home, far, live } = network;
  const found: Conversation[] = [];
  for (let p = 0; p < ports.length; p += 1) {
    if (p % 20 === 0 && !progress(p / ports.length)) break;
    if (far[p]! < 0 || !live[p]) continue;
    for (const heard of heardAt(bridges, p))
      found.push({
        ...heardWords(bridges, p, heard),
        switch: switches[home[p]!]!.id,
        port: ports[p]!.id,
        at: label(network, p),
        from: label(network, heard.from),
        kind: heard.kind,
        group: heard.group,
        riding: ridden(network, heard.way),
        returns: owner[heard.from] === owner[p],
        ride: rideOf(network, heard),
      });
  }
  const rank = ({ returns, through }: Conversation): number => (returns ? 0 : through === '' ? 2 : 1);
  return found.sort((a, b) => rank(a) - rank(b));
}

const FATES: Record<Exclude<Fate, 'read'>, string> = {
  discarded: 'discarded: the port takes none in',
  shuts: 'BPDU guard shuts the port',
  own: 'held against: its own',
  'held against': 'held against: of another VLAN',
  held: 'dropped: the port is held',
  'passed on': 'passed on untouched',
  blocked: 'dropped: the port blocks there',
  'not carried': 'dropped: VLAN not carried',
};
