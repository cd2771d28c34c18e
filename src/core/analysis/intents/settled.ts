/** What claims ask of a settled network, each found once. */
import { oncePerNumber } from '../../base/cache';
import type { Host } from '../../model/document';
import { instanceTree, type HostId, type SwitchId, type TreeId } from '../../model/ids';
import { namesOf } from '../../model/derive/names';
import type { Names } from '../../model/names';
import { VlanSet, vlanSet } from '../../model/vlanSet';
import { bridgePortOf, type Network } from '../../topology/network';
import { islandRoots } from '../../tree/explain/election';
import { passing, treeForVlan } from '../../tree/passing';
import { treeOf, type SettledTree, type Solution } from '../../tree/settled';
import { chainsOf } from '../groups/groups';
import { findingsOf } from '../findings/findings';
import type { Finding } from '../findings/finding';
import { linkLoads, type Loads } from '../sharing/load';
import type { End, HostsOf, SwitchesOf, TreesOf } from './reader';

export class Settled {
  readonly solution: Solution;
  /** Switches that a failure has taken away: what hangs on nothing else went with them. */
  private readonly dead: ReadonlySet<SwitchId>;
  /** Whether it is the network after a failure. */
  readonly isAfterFailure: boolean;
  private known: { loads?: Loads; findings?: readonly Finding[] } = {};

  /** `dead`: of a network after a failure. */
  constructor(solution: Solution, dead: ReadonlySet<SwitchId> | null = null) {
    this.solution = solution;
    this.dead = dead ?? new Set();
    this.isAfterFailure = dead !== null;
  }

  get network(): Network {
    return this.solution.network;
  }
  get names(): Names {
    return namesOf(this.network.design);
  }
  get loads(): Loads {
    return (this.known.loads ??= linkLoads(this.solution));
  }
  get findings(): readonly Finding[] {
    return (this.known.findings ??= findingsOf(this.network.design, this.solution));
  }

  /** In the order of the design. */
  switchesOf(all: readonly SwitchesOf[]): SwitchId[] {
    const { design } = this.network;
    const chain = chainsOf(design);
    return design.switches
      .filter((sw) =>
        all.some((of) =>
          of.by === 'switch' ? of.id === sw.id : of.by === 'tier' ? of.tier === sw.tier : chain(sw).includes(of.id),
        ),
      )
      .map(({ id }) => id);
  }

  /** In the order of the design; those that hang on nothing but what a failure took away are left out. */
  hostsOf(all: readonly HostsOf[]): Host[] {
    const { design } = this.network;
    const at = new Set(this.switchesOf(all.flatMap((of) => (of.by === 'switches' ? [of.of] : []))));
    const named = new Set<HostId>(all.flatMap((of) => (of.by === 'host' ? [of.id] : [])));
    const vlans = all.reduce((set, of) => (of.by === 'vlans' ? set.union(vlanSet(of.vlans)) : set), VlanSet.empty);
    const every = all.some((of) => of.by === 'all');
    return design.hosts.filter(
      (host) =>
        (every || named.has(host.id) || vlans.has(host.vlan) || host.attach.some((end) => at.has(end.switch))) &&
        !(host.attach.length > 0 && host.attach.every((end) => this.dead.has(end.switch))),
    );
  }

  /** Each once, in the order in which they are said. */
  treesOf(of: TreesOf): SettledTree[] {
    if (of.by === 'all') return [...this.solution.trees];
    const found =
      of.by === 'vlans'
        ? vlanSet(of.vlans)
            .ranges()
            .flatMap(([from, to]) => this.listed(from, to).map((vid) => treeForVlan(this.solution, vid)))
        : of.mstids.map((mstid) => treeOf(this.solution, instanceTree(mstid)) ?? null);
    return [...new Set(found.filter((tree) => tree !== null))];
  }
  /** VLANs of a range that the design has, or the range's own where it is one VLAN. */
  private listed(from: number, to: number): number[] {
    if (from === to) return [from];
    return this.network.design.vlans.map(({ id }) => id).filter((vid) => vid >= from && vid <= to);
  }
  vlansOf(vlans: string): number[] {
    return vlanSet(vlans)
      .ranges()
      .flatMap(([from, to]) => this.listed(from, to));
  }

  /** The root of a tree's largest island; null where it has none. */
  rootOf(tree: SettledTree): number | null {
    return islandRoots(this.network, tree)[0] ?? null;
  }
  rootIdOf(tree: SettledTree): SwitchId | null {
    const s = this.rootOf(tree);
    return s === null ? null : this.network.switches[s]!.id;
  }
  /** Trees that have another root than before, null where none is left. */
  newRoots(before: Settled): { readonly tree: TreeId; readonly root: SwitchId | null }[] {
    const was = new Map(before.solution.trees.map((tree) => [tree.id, before.rootIdOf(tree)]));
    return this.solution.trees.flatMap((tree) => {
      const root = this.rootIdOf(tree);
      return was.has(tree.id) && was.get(tree.id) !== root ? [{ tree: tree.id, root }] : [];
    });
  }
  nameAt(s: number): string {
    return this.names.switch(this.network.switches[s]!.id);
  }

  /** The bridge port that an end is or belongs to; -1 where it is gone. */
  portAt({ switch: sw, port }: End): number {
    const p = this.network.portIndexOf(sw, port);
    return p < 0 ? -1 : bridgePortOf(this.network, p);
  }

  /** 1 for each port through which a VLAN's frames pass. */
  passes(vid: number): Uint8Array {
    return passing(this.solution, vid);
  }

  /** Switches next to each over cables that a VLAN's frames pass. */
  readonly next = oncePerNumber((vid: number): readonly (readonly number[])[] => {
    const { switches, ports, owner, far } = this.network;
    const passes = this.passes(vid);
    const near: number[][] = switches.map(() => []);
    for (let p = 0; p < ports.length; p += 1)
      if (far[p]! >= 0 && passes[p] && passes[far[p]!]) near[owner[p]!]!.push(owner[far[p]!]!);
    return near;
  });

  /** Switches at which a host's frames come in: those with power, whose port lets its VLAN through. */
  switchesAt(host: Host): number[] {
    const { switchIndex, switches } = this.network;
    const passes = this.passes(host.vlan);
    return host.attach.flatMap((end) => {
      const p = this.portAt(end);
      return p >= 0 && switches[switchIndex.get(end.switch)!]!.up && passes[p] ? [switchIndex.get(end.switch)!] : [];
    });
  }

  /** By switch, the one before it on the way from some switches in a VLAN: itself where it begins, -1 where none leads. */
  ways(vid: number, from: readonly number[]): Int32Array {
    const near = this.next(vid);
    const before = new Int32Array(near.length).fill(-1);
    const queue = [...new Set(from)];
    for (const s of queue) before[s] = s;
    for (const s of queue)
      for (const t of near[s]!)
        if (before[t]! < 0) {
          before[t] = s;
          queue.push(t);
        }
    return before;
  }
}

/** Some of many, as words: the first few, and how many more. */
export const few = (names: readonly string[], most = 3): string =>
  names.length <= most
    ? names.join(', ').replace(/, ([^,]*)$/, ' and $1')
    : `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
