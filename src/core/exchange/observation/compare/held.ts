/** A design and an observation side by side: who is who, and the differences found so far. */
import { oncePer } from '../../../base/cache';
import { VlanSet } from '../../../model/vlanSet';
import type { Command } from '../../../edit/commands';
import type { Design } from '../../../model/document';
import type { SwitchId, TreeId } from '../../../model/ids';
import { CST, treeInstance, vlanTree } from '../../../model/ids';
import { isMultiple } from '../../../model/document';
import { namesOf } from '../../../model/derive/names';
import type { Names } from '../../../model/names';
import { systemIdExtension } from '../../../topology/bridgeId';
import { bridgeOf } from '../../../topology/acting';
import { calledBy } from '../../../tree/spread';
import type { Bridge } from '../../../topology/bridges';
import type { Network } from '../../../topology/network';
import type { Solution } from '../../../tree/settled';
import { matchPorts, matchSwitches, type Matches, type Place, type SwitchMatch } from '../match';
import type { Observation, ObservedTree } from '../observation';
import type { Difference, Harm } from './difference';

type At = Partial<Pick<Difference, 'switch' | 'port' | 'link' | 'trees'>>;

export class Held {
  readonly differences: Difference[] = [];
  /** How many things were compared. */
  compared = 0;
  readonly solution: Solution;
  readonly network: Network;
  readonly design: Design;
  readonly names: Names;
  readonly observation: Observation;
  readonly matches: Matches;
  /** By the design's switch, by the number of an observed port. */
  readonly places: ReadonlyMap<SwitchId, ReadonlyMap<number, Place>>;
  readonly seen: ReadonlyMap<SwitchId, SwitchMatch>;
  /** VLANs that the design declares; VLAN 1 is there by itself. `within`: what of a set is among them. */
  readonly known: { readonly has: (vid: number) => boolean; readonly within: (set: VlanSet) => VlanSet };
  /** By any address that it is known by. */
  readonly byMac: ReadonlyMap<string, SwitchMatch>;

  constructor(solution: Solution, observation: Observation) {
    this.solution = solution;
    this.network = solution.network;
    this.design = solution.network.design;
    this.names = namesOf(this.design);
    this.observation = observation;
    this.matches = matchSwitches(this.design, observation);
    const declared = VlanSet.of([[1, 1], ...this.design.vlans.map(({ id }) => [id, id] as const)]);
    this.known = { has: (vid) => declared.has(vid), within: oncePer((set: VlanSet) => set.intersect(declared)) };
    const { pairs } = this.matches;
    this.places = new Map(pairs.map((pair) => [pair.designed.id, matchPorts(this.design, pair)]));
    this.seen = new Map(pairs.map((pair) => [pair.designed.id, pair]));
    this.byMac = new Map(
      pairs.flatMap((pair) =>
        [pair.observed.mac, pair.observed.chassis].flatMap((each) => (each === null ? [] : [[each, pair] as const])),
      ),
    );
  }

  /** One more thing was compared: texts are made only where it differs. */
  tell(
    harm: Harm,
    what: string,
    at: At,
    designed: string,
    observed: string,
    {
      why = '',
      takeOver = null,
    }: { readonly why?: string; readonly takeOver?: (() => readonly Command[]) | null } = {},
  ): void {
    this.compared += 1;
    if (designed === observed) return;
    this.differences.push({
      ...{ switch: null, port: null, link: null, trees: [], ...at },
      ...{ harm, what, designed, observed, why, takeOver },
    });
  }

  switchAt(id: SwitchId): number {
    return this.network.switchIndex.get(id)!;
  }

  /** The bridge that a switch is; of a pair that acts as one, the primary is it for both while it has power. */
  bridge(id: SwitchId): Bridge {
    const { network } = this;
    return network.switches[calledBy(network, bridgeOf(network, this.switchAt(id)))]!;
  }

  switchNamed(system: string | null): SwitchMatch | undefined {
    return this.matches.pairs.find(({ observed }) => observed.name !== '' && observed.name === system);
  }
}

/** What a switch tells of one of our trees: known by the system ID extension of its identifier there. */
export function treeThere(sw: Bridge, { observed }: SwitchMatch, tree: TreeId): ObservedTree | null {
  const vid = systemIdExtension(sw, tree);
  const called = vid === 0 ? CST : (treeInstance(tree) ?? 0) > 0 && isMultiple(sw) ? tree : vlanTree(vid);
  return observed.trees.find((each) => each.tree === called) ?? null;
}
