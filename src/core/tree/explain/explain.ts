/** Why a port has its role: the vectors it compared, the part that decided, one sentence. A pure function of a solution. */
import { CIST, treeName } from '../../model/ids';
import { SHUT_BY, shutText } from '../../model/guard';
import { settleBundles } from '../../topology/lag/settled';
import { isOne, wholeOf } from '../../topology/acting';
import { deadReason, isBundle, isShut, shutCode, type Network } from '../../topology/network';
import {
  HELD,
  OWN_HEARD,
  ROOTS_DIFFER,
  roleOf,
  stateIn,
  treeOf,
  type PortState,
  type Role,
  type SettledTree,
  type Solution,
} from '../settled';
import { wrongVlans } from '../../topology/vlanCheck';
import { bridgesSolution } from '../spread';
import { bpduWay, wayPhrase } from './bpduWay';
import { compareVectors, costText, decidingField, heardBy, offerOf } from './vector';
import { label, lossPhrase, offerPhrase, portText, switchName, type Way, type VectorComparison } from './phrases';

export interface PortExplanation {
  readonly role: Role;
  readonly state: PortState;
  readonly sentence: string;
  /** The comparison that settled the role first, then any that followed. */
  readonly comparisons: readonly VectorComparison[];
}

/** Explains port index `p` in a tree of a solution; null where the port does not belong to the tree. */
export function explainPort(solution: Solution, tree: SettledTree, p: number): PortExplanation | null {
  const { network } = solution;
  const role = roleOf(tree, p);
  if (!network.acting || role === null || role === 'disabled') return explainOwn(solution, tree, p);
  const pair = network.pairs.find((each) => isOne(each) && each.peer.includes(p));
  if (pair) {
    const over = role === 'root' ? " This switch's way to the root leads over it." : '';
    const sentence = `Peer link: to spanning tree both switches of the pair are one bridge, and the link between them lies inside of it. It always forwards.${over}`;
    return { role, state: stateIn(tree, p), sentence, comparisons: [] };
  }
  const bridges = bridgesSolution(solution);
  return explainOwn(bridges, treeOf(bridges, tree.id)!, wholeOf(network, p));
}

/** Explains a port of a bridge. */
function explainOwn(solution: Solution, tree: SettledTree, p: number): PortExplanation | null {
  const { network } = solution;
  const role = roleOf(tree, p);
  if (!role) return null;
  const say = (sentence: string, ...comparisons: (VectorComparison | null)[]): PortExplanation => ({
    role,
    state: stateIn(tree, p),
    sentence,
    comparisons: comparisons.filter((c) => c !== null),
  });
  const s = network.owner[p]!;
  if (tree.disputed[p] === ROOTS_DIFFER)
    return say(
      `${role[0]!.toUpperCase()}${role.slice(1)}, but it discards: held, since roots differ. ${ownerName(network, network.far[p]!)} has VLANs whose root does not fit the CIST's at this port: all have theirs inside of the region, or all beyond it.`,
    );
  if (tree.disputed[p] === OWN_HEARD && role !== 'backup')
    return say(
      `${role[0]!.toUpperCase()}${role.slice(1)}, but it discards: held, since the switch's own BPDUs arrive here in another VLAN.`,
    );
  const boundary = tree.regional !== undefined && tree.id !== CIST && !tree.regional.inside[p];
  if (role !== 'disabled' && boundary && network.far[p]! >= 0) return explainBoundary();
  switch (role) {
    case 'disabled':
      return say(
        isBundle(network, p) && network.switches[s]!.up && !isShut(network, p)
          ? `Disabled. ${bundleReason(network, p)}`
          : deadText(network, p),
      );
    case 'designated':
      return explainDesignated();
    case 'root':
      return explainRoot();
    case 'backup':
      return say(
        `Backup: this switch already serves the segment through ${portText(network, tree.designated[p]!)}, whose port identifier is better.${comesBack(tree.designated[p]!)}${tree.disputed[p] === OWN_HEARD ? ' The own BPDU check holds it in all VLANs.' : ''}`,
        segmentComparison(network, tree, tree.designated[p]!, p),
      );
    case 'alternate':
    case 'master':
      return explainAlternate();
  }

  /** The way that the switch's own BPDU takes back to it, where that leads through others. */
  function comesBack(from: number): string {
    const way = bpduWay(solution, tree.id, from, p) ?? [];
    return way.length === 0
      ? ''
      : ` Its own BPDU comes back: out of ${portText(network, from)}, then through ${wayPhrase(network, way)}, where ${treeName(tree.id)} has no tree and BPDUs are passed on.`;
  }

  /** 802.1Q-2018 13.12: what the CIST does there, and why it does it. */
  function explainBoundary(): PortExplanation {
    const what = BOUNDARY_TEXT[role!] ?? BOUNDARY_TEXT.alternate!;
    const cist = treeOf(solution, CIST);
    const there = cist ? explainOwn(solution, cist, p) : null;
    if (!there) return say(what);
    return say(
      `${what} In the CIST it is ${there.sentence[0]!.toLowerCase()}${there.sentence.slice(1)}`,
      ...there.comparisons,
    );
  }

  function explainDesignated(): PortExplanation {
    const rivals = rivalsOn(network, tree, p);
    const [rival] = rivals;
    const isRoot = tree.root[s] === s;
    const [thrown, other] = [
      tree.regional?.inside[p] ? 'no hop is left' : 'they are older than the max age of their root',
      network.far[p]!,
    ];
    const wrong = tree.disputed[p] === HELD ? wrongVlans(network).get(p) : undefined;
    if (wrong)
      return say(
        `Designated, but it discards: held, since VLANs differ. BPDUs of VLAN ${wrong.heard} arrive here in VLAN ${wrong.own}, from ${label(network, wrong.from)}.`,
      );
    if (tree.disputed[p] && network.oneWayPeers.has(p)) {
      const [beside] = network.oneWayPeers.get(p)!;
      return say(
        `Designated, but it discards: it hears ${ownerName(network, beside!)} speak for the segment too, by a member over which that hears nothing of it.`,
      );
    }
    const { bpduRx, bpduTx } = network.ports[p]!;
    if (tree.disputed[p] && (!bpduTx || (other >= 0 && !network.ports[other]!.bpduRx)))
      return say(
        `Designated, but it discards: ${bpduTx ? 'its BPDUs are discarded at the other end' : 'it sends no BPDU'}, and it hears a worse bridge speak for the segment too.`,
      );
    if (!bpduRx)
      return say('Designated: BPDUs that come in are discarded here, so it knows of no other bridge on this segment.');
    if (tree.disputed[p])
      return say(
        `Designated, but it discards: the bridge at the other end throws its BPDUs away, since ${thrown}, and is designated itself.`,
      );
    if (other >= 0 && tree.disputed[other])
      return say(
        `Designated: the BPDUs of ${ownerName(network, other)} are thrown away here, since ${thrown}, so this port is designated as well, and the other one discards.`,
      );
    if (rival === undefined)
      return say(
        `Designated: no other bridge sends BPDUs for ${treeName(tree.id)} on this segment${isRoot ? ', and this switch is the root' : ''}.`,
      );
    const comparison = segmentComparison(network, tree, p, rival);
    if (isRoot)
      return say('Designated: this switch is the root, and the root is designated on every segment.', comparison);
    return say(`Designated: ${offerPhrase(comparison)}.`, comparison);
  }

  function explainRoot(): PortExplanation {
    const next = runnerUp(network, tree, s, p);
    const via = switchName(network.switches[network.owner[tree.designated[p]!]!]!);
    const root = switchName(network.switches[tree.root[s]!]!);
    const whose = tree.regional && tree.id !== CIST ? 'regional root' : 'root';
    const way = via === root ? `straight to the ${whose} ${root}` : `to the ${whose} ${root} through ${via}`;
    const inner =
      tree.regional && tree.id === CIST
        ? ` outside of regions${hasWayInside(tree, s) ? ` and ${costText(tree.regional.cost[s]!)} inside of its own` : ''}`
        : '';
    const total = `${costText(tree.rootPathCost[s]!)}${inner}`;
    if (next < 0) return say(`Root port: the only port that hears a way ${way}, at a root path cost of ${total}.`);
    const comparison = rootComparison(network, tree, p, next);
    return say(
      `Root port: leads ${way} at ${total}; ${portText(network, next)} ${lossPhrase(comparison)}.`,
      comparison,
    );
  }

  function explainAlternate(): PortExplanation {
    const segment = segmentComparison(network, tree, tree.designated[p]!, p);
    if (network.ports[p]!.rootGuard)
      return say(
        `Alternate: held by root guard. ${ownerName(network, tree.designated[p]!)} offers a better way than this switch, and this port may never lead to a root.`,
        segment,
      );
    const rootPort = tree.rootPort[s]!;
    const better = rootPort < 0 ? null : rootComparison(network, tree, rootPort, p);
    const tail = better
      ? ` Its way to the root is ${portText(network, rootPort)}; this one ${lossPhrase(better)}.`
      : '';
    return say(`Alternate: ${offerPhrase(segment)}.${tail}`, segment, better);
  }
}

/** Whether a bridge has somebody else of its region as regional root: then its way has a part inside. */
const hasWayInside = (tree: SettledTree, s: number): boolean => tree.regional!.root[s] !== s;

/** Of an instance, where a port leads out of the region (802.1Q-2018 13.12). */
const BOUNDARY_TEXT: Readonly<Partial<Record<Role, string>>> = {
  master:
    'Master: it leads out of the region toward the root of the CIST, and frames of every instance leave the region here.',
  alternate: 'Alternate: at the boundary of a region an instance does what the CIST does, which blocks this port.',
  designated:
    'Designated: at the boundary of a region an instance does what the CIST does, which has this port designated.',
};

/** Why port index `p` has no part in a tree, where \`explainPort\` has nothing to say: one sentence. */
export function whyOutside(network: Network, tree: SettledTree, p: number): string {
  const bundle = network.bundleOf[p]!;
  if (bundle < 0 || network.serves[p] === p || !roleOf(tree, bundle))
    return 'It does not carry the VLAN, or its switch runs no spanning tree for it.';
  const { bundles, switches, owner, ports } = network;
  const member = bundles.memberAt(switches[owner[p]!]!.id, ports[p]!.id);
  return `The ${portText(network, bundle)} stands in its place. ${settleBundles(bundles).members[member]!.reason}`;
}

/** Why a bundle that is down is down. */
function bundleReason({ bundles, ports, switches, owner }: Network, p: number): string {
  const end = bundles.ends.find(
    ({ id, owner: of }) =>
      of.kind === 'switch' && of.switch === switches[owner[p]!]!.id && (id as string) === ports[p]!.id,
  )!;
  return settleBundles(bundles).ends[end.index]!.reason;
}

/** Why a port has no part for want of signal. */
function deadText(network: Network, p: number): string {
  const reason = deadReason(network, p) ?? 'no-cable';
  if (reason !== 'shut') return DEAD_TEXT[reason];
  const by = shutCode(network, p);
  return `Disabled: ${shutText(by)}.${SHUT_WHY[by] ?? ''}`;
}

const BACK = ' A test frame of this switch comes back here: something behind the port closes a loop.';
const SHUT_WHY: Readonly<Record<number, string>> = {
  [SHUT_BY.bpduGuard]: ' A bridge is heard here, and the guard shuts the port at its first BPDU.',
  [SHUT_BY.loopProbe]: BACK,
  [SHUT_BY.loopProbeBlocks]: BACK,
};

const DEAD_TEXT = {
  'no-cable': 'Disabled: nothing is plugged in.',
  'switch-off': 'Disabled: the switch has no power.',
  'stack-member-off': 'Disabled: its stack member does not act, so there is no signal.',
  keepalive: 'Disabled: it carries the keepalive of its pair, and nothing else.',
  'pair-yields': 'Disabled: the peer link is lost, and the secondary of a pair takes its pair bundles down.',
  'pair-unlike': 'Disabled: the halves of its pair bundle do not agree, so the secondary takes its own down.',
  'far-switch-off': 'Disabled: the switch at the other end has no power, so there is no signal.',
  'port-down': 'Disabled: the port is set down.',
  'link-cut': 'Disabled: the link is cut.',
  'bundle-down': 'Disabled: the bundle is down.',
  member: 'Disabled: a bundle has this port as a member, and keeps it out.',
  'far-end-shut': 'Disabled: a guard has shut the port at the other end, so there is no signal.',
  'far-end-down': 'Disabled: the port at the other end is set down, so there is no signal.',
} as const;

/** Bridge ports other than the designated one on the segment of `p`, best offer first. */
function rivalsOn(network: Network, tree: SettledTree, p: number): number[] {
  const found: number[] = [];
  tree.designated.forEach((best, q) => best === tree.designated[p] && q !== best && found.push(q));
  return found.sort(
    (q, r) =>
      compareVectors(offerOf(network, tree, q), offerOf(network, tree, r)) || network.order[q]! - network.order[r]!,
  );
}

/** The port of switch `s` that would be root port without `p`; -1 where none is. */
function runnerUp(network: Network, tree: SettledTree, s: number, p: number): number {
  let best = -1;
  for (let q = network.firstPort[s]!; q < network.firstPort[s + 1]!; q += 1) {
    const sender = tree.designated[q]!;
    if (
      q === p ||
      sender < 0 ||
      network.ports[q]!.rootGuard ||
      network.owner[sender] === s ||
      (tree.regional && tree.id !== CIST && !tree.regional.inside[q])
    )
      continue;
    if (best < 0 || compareVectors(heardBy(network, tree, q), heardBy(network, tree, best)) < 0) best = q;
  }
  return best;
}

/** What the winner and the loser each offer, or would offer, the segment. */
function segmentComparison(network: Network, tree: SettledTree, winner: number, loser: number): VectorComparison {
  const side = (p: number): Way => ({
    label: label(network, p),
    who: ownerName(network, p),
    vector: offerOf(network, tree, p),
  });
  return compared('Which port is designated on this segment?', side(winner), side(loser));
}

/** What two ports of one switch hear, each with its own cost added. */
function rootComparison(network: Network, tree: SettledTree, winner: number, loser: number): VectorComparison {
  const side = (p: number): Way => {
    const sender = ownerName(network, tree.designated[p]!);
    return { label: `${portText(network, p)}, from ${sender}`, who: sender, vector: heardBy(network, tree, p) };
  };
  return compared('Which port leads to the root?', side(winner), side(loser));
}

const compared = (question: string, winner: Way, loser: Way): VectorComparison => ({
  question,
  winner,
  loser,
  decidedBy: decidingField(winner.vector, loser.vector),
});

const ownerName = (network: Network, p: number): string => switchName(network.switches[network.owner[p]!]!);
