/** Roots, roles, states, costs and priorities, tree by tree. */
import { counted } from '../../../base/words';
import type { Command } from '../../../edit/commands';
import { isMultiple, type Switch } from '../../../model/document';
import { CIST, type SwitchId, type TreeId } from '../../../model/ids';
import { bridgePriority, pathCost, portPriority } from '../../../model/legal';
import { bridgeId, portIdentifier, setBridgePriority, systemIdExtension } from '../../../topology/bridgeId';
import { isPeerLink } from '../../../topology/acting';
import type { Bridge } from '../../../topology/bridges';
import { roleOf, stateIn, type SettledTree } from '../../../tree/settled';
import type { SwitchMatch } from '../match';
import type { ObservedTree, ObservedTreePort } from '../observation';
import type { Difference } from './difference';
import { treeThere, type Held } from './held';

/** A root that is not the one designed, with the switches that tell of it. */
interface AnotherRoot {
  readonly root: SwitchId;
  readonly other: string;
  readonly why: string;
  readonly trees: Set<TreeId>;
  readonly tellers: Set<SwitchId>;
  readonly toBe: Set<SwitchId>;
}

interface Reason {
  readonly text: string;
  /** Whose priority is to be as it is there; null where that is not known. */
  readonly toBe: SwitchId | null;
}

/** Every tree of the design; gives the roots that are others: each is one difference, however many switches tell of it. */
export function compareTrees(held: Held): Difference[] {
  const comparer = new TreeComparer(held);
  for (const tree of held.solution.trees) comparer.compare(tree);
  return comparer.rootDifferences();
}

class TreeComparer {
  private readonly held: Held;
  private readonly roots = new Map<string, AnotherRoot>();

  constructor(held: Held) {
    this.held = held;
  }

  rootDifferences(): Difference[] {
    return [...this.roots.values()].map(({ root, other, why, trees, tellers, toBe }) => ({
      ...{ harm: 'root', what: 'root', switch: root, port: null, link: null, trees: [...trees] },
      designed: this.held.names.switch(root),
      observed: `${other}, as ${counted(tellers.size, 'switch tells', 'switches tell')}`,
      why,
      takeOver: toBe.size === 0 ? null : () => [...trees].flatMap((tree) => this.prioritiesAsThere(tree, toBe)),
    }));
  }

  compare(tree: SettledTree): void {
    const { held } = this;
    const { network } = held;
    const wrongRoots = new Set<number>();
    const seen = held.matches.pairs.flatMap((pair) => {
      const s = held.switchAt(pair.designed.id);
      const there = treeThere(network.switches[s]!, pair, tree.id);
      return there && pair.designed.up ? [{ pair, s, there }] : [];
    });
    for (const { pair, s, there } of seen) {
      if (tree.root[s]! < 0) continue;
      const root = network.switches[tree.root[s]!]!;
      held.compared += 1;
      const observed = held.byMac.get(there.root.mac)?.designed;
      if (observed?.id !== root.id && there.root.mac !== bridgeId(root, tree.id).mac) {
        wrongRoots.add(s);
        this.anotherRoot(tree.id, root, observed ?? null, there.root.mac, pair.designed.id);
      }
      this.comparePriority(tree.id, pair.designed.id, held.bridge(pair.designed.id), there);
    }
    for (const { pair, s, there } of seen) this.comparePorts(tree, pair, there, wrongRoots.has(s));
  }

  private anotherRoot(tree: TreeId, root: Bridge, observed: Switch | null, mac: string, teller: SwitchId): void {
    const of = this.whyRoot(tree, root.id, observed);
    const why = of.map(({ text }) => text).join('; ');
    const key = JSON.stringify([root.id, mac, why]);
    const other = observed ? this.held.names.switch(observed.id) : mac;
    const known = this.roots.get(key) ?? {
      ...{ root: root.id, other, why, trees: new Set<TreeId>(), tellers: new Set<SwitchId>() },
      toBe: new Set<SwitchId>(),
    };
    this.roots.set(key, known);
    known.trees.add(tree);
    known.tellers.add(teller);
    for (const { toBe } of of) if (toBe) known.toBe.add(toBe);
  }

  /** Why another is root: somebody's priority is not what the design says. */
  private whyRoot(tree: TreeId, root: SwitchId, other: Switch | null): Reason[] {
    const { held } = this;
    return [root, ...(other ? [other.id] : [])].flatMap((id): Reason[] => {
      const sw = held.bridge(id);
      const pair = held.seen.get(id);
      const there = pair && treeThere(sw, pair, tree);
      const name = held.names.switch(id);
      if (!there) return [{ text: `${name} was not read`, toBe: null }];
      const wanted = bridgeId(sw, tree).priority;
      if (there.bridge.priority === wanted) return [];
      const text = `${name} is set to ${there.bridge.priority & 0xf000}, the design says ${wanted & 0xf000}`;
      return [{ text, toBe: id }];
    });
  }

  private prioritiesAsThere(tree: TreeId, switches: ReadonlySet<SwitchId>): Command[] {
    return [...switches].flatMap((id): Command[] => {
      const sw = this.held.bridge(id);
      const there = treeThere(sw, this.held.seen.get(id)!, tree);
      return there ? asPriority(sw.id, tree, ownPriority(sw, tree, there)) : [];
    });
  }

  private comparePriority(tree: TreeId, id: SwitchId, sw: Bridge, there: ObservedTree): void {
    const [designed, own] = [setBridgePriority(sw, tree), ownPriority(sw, tree, there)];
    this.held.compared += 1;
    if (designed === own) return;
    this.held.tell('setting', 'bridge priority', { switch: id, trees: [tree] }, String(designed), String(own), {
      takeOver: bridgePriority.safeParse(own).success ? () => asPriority(sw.id, tree, own) : null,
    });
  }

  private comparePorts(tree: SettledTree, { designed }: SwitchMatch, there: ObservedTree, follows: boolean): void {
    const { held } = this;
    const { network } = held;
    const places = held.places.get(designed.id)!;
    const byPort = new Map<string, ObservedTreePort>();
    for (const port of there.ports) {
      const place = places.get(port.port);
      if (place) byPort.set(place.of.id, port);
    }
    const s = held.switchAt(designed.id);
    const sw = network.switches[s]!;
    for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) {
      const { id } = network.ports[p]!;
      const role = roleOf(tree, p);
      const port = byPort.get(id);
      if (role === null || !port || role === 'master') continue;
      const at = () => ({ switch: designed.id, port: id, trees: [tree.id] });
      held.compared += 3;
      if (role !== port.role) {
        const why = follows
          ? 'it follows from the other root'
          : port.cost !== tree.cost[p]
            ? 'its cost is another'
            : '';
        held.tell('path', 'role', at(), role, port.role, { why });
      } else if (role !== 'disabled') {
        const state = stateIn(tree, p);
        if (state !== stateWord(port)) held.tell('path', 'state', at(), state, stateWord(port));
      }
      if (role === 'disabled') continue;
      const { cost } = port;
      // What a peer link costs is the pair's own affair.
      if (tree.cost[p] !== cost && !isPeerLink(network, p))
        held.tell('setting', 'cost', at(), String(tree.cost[p]), String(cost), {
          takeOver: pathCost.safeParse(cost).success ? () => this.asCost(designed.id, id, tree, p, cost) : null,
        });
      const wanted = portIdentifier(network.ports[p]!, tree.id, sw.dialect).priority;
      const { priority } = port;
      if (wanted !== priority)
        held.tell('setting', 'port priority', at(), String(wanted), String(priority), {
          takeOver: portPriority.safeParse(priority).success
            ? () => [{ do: 'set-port-priority', switch: designed.id, port: id, tree: tree.id, priority }]
            : null,
        });
    }
  }

  /** Outside of its region a port has a cost of its own (802.1Q-2018 13.27, ExternalPortPathCost). */
  private asCost(
    sw: SwitchId,
    port: Held['network']['ports'][number]['id'],
    tree: SettledTree,
    p: number,
    cost: number,
  ): Command[] {
    const isOutside = tree.id === CIST && isMultiple(this.held.bridge(sw)) && !tree.regional?.inside[p];
    return isOutside
      ? [{ do: 'set-external-cost', switch: sw, port, cost }]
      : [{ do: 'set-port-cost', switch: sw, port, tree: tree.id, cost }];
  }
}

/** Without the system ID extension. */
const ownPriority = (sw: Bridge, tree: TreeId, { bridge }: ObservedTree): number =>
  bridge.priority - (systemIdExtension(sw, tree) === 0 ? 0 : bridge.priority & 0xfff);

const asPriority = (id: SwitchId, tree: TreeId, priority: number): Command[] => [
  { do: 'set-bridge-priority', switch: id, tree, priority },
];

const stateWord = ({ state }: ObservedTreePort): string =>
  state === 'blocking' || state === 'discarding' ? 'discarding' : state;
