/** A worksheet: root, root path costs, roles and states of one tree as worked out by hand, and each answer held against the computed one. */
import { CIST, treeInstance, treeName, type BridgePortId, type SwitchId, type TreeId } from '../../model/ids';
import type { Answers, Design } from '../../model/document';
import { bridgeId, bridgeIdText, portIdentifier, portIdentifierText } from '../../topology/bridgeId';
import { explainRoot, islandRoots, takesPart } from '../../tree/explain/election';
import { explainPort } from '../../tree/explain/explain';
import { compileNetwork, type Network } from '../../topology/network';
import { switchName } from '../../tree/explain/phrases';
import { roleOf, stateIn, type PortState, type Role, type SettledTree, type Solution } from '../../tree/settled';
import { solveTrees } from '../../tree/solve';
import { treesOf } from '../../topology/trees';
import { costText } from '../../tree/explain/vector';
import { candidatePaths } from '../steering/paths';

/** What a port is given with: all that the answers follow from. */
export interface SheetPort {
  readonly port: BridgePortId;
  readonly cost: number;
  /** Whether the cost counts inside of the region alone: in a CIST, whose root path cost is the external one. */
  readonly inside: boolean;
  /** Priority and number: `128.1`. */
  readonly identifier: string;
  /** The switch and port at the other end. */
  readonly to: string;
}

export interface SheetSwitch {
  readonly switch: SwitchId;
  readonly name: string;
  /** `32768.02:00:…`, with the priority that takes part in the election. */
  readonly bridgeId: string;
  readonly ports: readonly SheetPort[];
}

/** Every bridge that takes part in a tree with its cabled ports, and nothing that is to be found out. */
export function sheetOf(design: Design, tree: TreeId): SheetSwitch[] {
  const {
    network,
    trees: [settled],
  } = solvedFor(design, tree);
  return settled ? partsOfSheet(network, settled) : [];
}

/** The tree, and behind it the CIST that an instance goes by at its boundaries; none where the design has no such tree. */
function solvedFor(design: Design, id: TreeId): Solution {
  const network = compileNetwork(design);
  return {
    network,
    trees: treesOf(design).includes(id) ? solveTrees(network, treeInstance(id) ? [id, CIST] : [id]) : [],
  };
}

function partsOfSheet(network: Network, tree: SettledTree): SheetSwitch[] {
  const { switches, ports, firstPort, far, owner } = network;
  return switches.flatMap((sw, s): SheetSwitch[] => {
    if (!takesPart(network, tree, s)) return [];
    const own = Array.from({ length: firstPort[s + 1]! - firstPort[s]! }, (_, i) => firstPort[s]! + i).filter(
      (p) => far[p]! >= 0 && roleOf(tree, p) !== null,
    );
    return [
      {
        switch: sw.id,
        name: switchName(sw),
        bridgeId: bridgeIdText(bridgeId(sw, tree.id)),
        ports: own.map((p): SheetPort => ({
          port: ports[p]!.id,
          cost: tree.cost[p]!,
          inside: tree.id === CIST && tree.regional?.inside[p] === 1,
          identifier: portIdentifierText(portIdentifier(ports[p]!, tree.id, sw.dialect)),
          to: `${switchName(switches[owner[far[p]!]!]!)} ${ports[far[p]!]!.id}`,
        })),
      },
    ];
  });
}

/** One answer beside the computed one. */
export interface AnswerMark {
  readonly field: 'root' | 'rootPathCost' | 'role' | 'state';
  /** Null for the root, which is asked once. */
  readonly switch: SwitchId | null;
  readonly port: BridgePortId | null;
  /** As written; null where it was left blank. */
  readonly given: string | null;
  readonly computed: string;
  readonly right: boolean;
  /** Why the computed one is so, in words. */
  readonly why: string;
}

export interface Marked {
  readonly tree: TreeId;
  readonly marks: readonly AnswerMark[];
  readonly right: number;
  readonly of: number;
}

/** Holds answers against the tree; of several islands the largest one's root counts, and costs lead to each island's own. */
export function markWorksheet(design: Design, id: TreeId, answers: Answers): Marked {
  const solution = solvedFor(design, id);
  const {
    network,
    trees: [tree],
  } = solution;
  if (!tree) return { tree: id, marks: [], right: 0, of: 0 };
  const mark = (
    place: Pick<AnswerMark, 'field' | 'switch' | 'port'>,
    given: string | undefined,
    computed: string,
    why: string,
  ): AnswerMark => ({ ...place, given: given ?? null, computed, right: given === computed, why });
  const [root] = islandRoots(network, tree);
  const marks: AnswerMark[] = [];
  if (root !== undefined) {
    marks.push(
      mark(
        { field: 'root', switch: null, port: null },
        answers.root,
        network.switches[root]!.id,
        explainRoot(network, tree, root)?.sentence ?? '',
      ),
    );
  }
  for (const { switch: sw, ports } of partsOfSheet(network, tree)) {
    const s = network.switchIndex.get(sw)!;
    const own = answers.switches[sw];
    const cost = own?.rootPathCost;
    marks.push(
      mark(
        { field: 'rootPathCost', switch: sw, port: null },
        cost === undefined ? undefined : String(cost),
        String(tree.rootPathCost[s]),
        costWhy(network, tree, s),
      ),
    );
    for (const { port } of ports) {
      const p = network.portIndexOf(sw, port);
      const role = roleOf(tree, p)!;
      const given = own?.ports[port];
      marks.push(
        mark({ field: 'role', switch: sw, port }, given?.role, role, explainPort(solution, tree, p)?.sentence ?? ''),
      );
      marks.push(
        mark({ field: 'state', switch: sw, port }, given?.state, stateIn(tree, p), stateWhy(role, stateIn(tree, p))),
      );
    }
  }
  return { tree: id, marks, right: marks.filter((each) => each.right).length, of: marks.length };
}

/** `20 000 through port 7 + 2 000 through ridge-a port 1`. */
function costWhy(network: Network, tree: SettledTree, s: number): string {
  if (tree.rootPort[s]! < 0)
    return `${switchName(network.switches[s]!)} is the root of ${treeName(tree.id)}: its root path cost is 0.`;
  const taken = candidatePaths(network, tree, s).find((path) => path.chosen);
  if (!taken) return '';
  const counted = taken.hops.filter((hop) => !hop.inside);
  if (counted.length === 0)
    return `Its way to the root stays inside of its region, where no external cost is added: 0.`;
  const hops = counted.map(
    (hop) =>
      `${costText(hop.cost)} at ${switchName(network.switches[network.switchIndex.get(hop.switch)!]!)} port ${hop.port}`,
  );
  return `The costs of the ports toward the root${counted.length < taken.hops.length ? ' that leave a region' : ''} add up: ${hops.join(' + ')}${hops.length > 1 ? ` = ${costText(taken.total)}` : ''}.`;
}

const stateWhy = (role: Role, state: PortState): string =>
  state === 'forwarding'
    ? `A ${role === 'root' ? 'root' : role} port forwards once all has settled.`
    : `${role === 'alternate' ? 'An alternate' : `A ${role}`} port discards: it neither learns nor forwards.`;
