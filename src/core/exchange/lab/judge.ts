/** Real switches held against what we say: roots, costs, roles, states, bundles, VLANs; sentences where they differ. */
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { bridgeId, bridgeIdText } from '../../topology/bridgeId';
import { settleBundles } from '../../topology/lag/settled';
import { costsIn, roleOf, stateIn, type SettledTree, type Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';
import type { SwitchReading } from '../readings/reading';
import { outsideOf } from '../settings/oneTree';
import { settingsOf, type SwitchSet } from '../settings/settings';
import { carried, untaggedOf } from '../settings/vlanChanges';

export interface Difference {
  readonly switch: SwitchId;
  /** `port3`; null for the whole switch. */
  readonly interface: string | null;
  readonly what:
    | 'root'
    | 'root path cost'
    | 'root port'
    | 'role'
    | 'state'
    | 'cost'
    | 'priority'
    | 'VLANs'
    | 'members'
    | 'neighbour';
  /** What the real switch says, and what we do. */
  readonly there: string;
  readonly ours: string;
}

export const differenceText = ({ switch: sw, interface: port, what, there, ours }: Difference): string =>
  `${sw}${port === null ? '' : ` ${port}`}: ${what} is ${there}; we say ${ours}`;

export interface Verdict {
  readonly differences: readonly Difference[];
  /** How many things were compared. */
  readonly compared: number;
}

/** `design` is one of a lab's; switches without power are not compared, nor ports without signal. */
export function judgeLab(design: Design, readings: ReadonlyMap<SwitchId, SwitchReading>): Verdict {
  const solution = solve(design);
  const judge = new Judge(solution);
  for (const set of settingsOf(design)) {
    const reading = readings.get(set.id);
    const s = solution.network.switchIndex.get(set.id);
    if (reading && s !== undefined && design.switches[s]!.up) judge.compare(set, s, reading);
  }
  return judge;
}

class Judge implements Verdict {
  readonly differences: Difference[] = [];
  compared = 0;
  private readonly solution: Solution;
  private readonly tree: SettledTree | undefined;

  constructor(solution: Solution) {
    this.solution = solution;
    this.tree = solution.trees[0];
  }

  compare(set: SwitchSet, s: number, reading: SwitchReading): void {
    const { network } = this.solution;
    const told = (what: Difference['what'], where: string | null, there: string | null, ours: string): void => {
      this.compared += 1;
      if (there !== ours)
        this.differences.push({ switch: set.id, interface: where, what, there: there ?? 'not known', ours });
    };
    const nameAt = new Map(
      outsideOf(set).map((port) => [network.portIndexOf(set.id, port.id as never), port.interface]),
    );
    if (this.tree && this.tree.root[s]! >= 0) this.compareBridge(this.tree, s, reading, nameAt, told);
    const ports = new Map(reading.ports.map((port) => [port.interface, port]));
    for (const [p, name] of nameAt) {
      const there = ports.get(name);
      const port = outsideOf(set).find((each) => each.interface === name)!;
      if (!there) {
        told('VLANs', name, null, 'a port');
        continue;
      }
      if (there.vlans !== null) {
        const untagged = (vid: number | null): string => (vid === null ? '' : `, ${vid} untagged`);
        told(
          'VLANs',
          name,
          `${there.vlans}${untagged(there.untagged)}`,
          `${carried(port.vlans).format()}${untagged(untaggedOf(port.vlans))}`,
        );
      }
      const role = this.tree ? roleOf(this.tree, p) : null;
      if (!this.tree || role === null || reading.bridge === null) continue;
      if (role === 'disabled') {
        told('state', name, there.state, 'disabled');
        continue;
      }
      if (there.role !== null) told('role', name, there.role, role);
      told('state', name, there.state, stateIn(this.tree, p));
      if (there.cost !== null) told('cost', name, String(there.cost), String(this.tree.cost[p]));
      if (there.priority !== null) told('priority', name, String(there.priority), String(port.trees[0]?.priority));
    }
    this.compareBundles(set, reading, told);
    if (reading.neighbours) this.compareNeighbours(set, reading.neighbours, told);
  }

  /** By the cables: what both ends of one with signal have to see of each other. */
  private compareNeighbours(set: SwitchSet, neighbours: NonNullable<SwitchReading['neighbours']>, told: Told): void {
    const { network } = this.solution;
    for (const { id, interface: name } of set.ports) {
      const p = network.portIndexOf(set.id, id as never);
      const far = network.plug[p]!;
      if (far < 0 || !network.macOperational[p]) continue;
      const seen = neighbours.find((each) => each.interface === name);
      const [sw, port] = [network.switches[network.owner[far]!]!, network.ports[far]!];
      told('neighbour', name, seen ? `${seen.system ?? 'somebody'} ${seen.port}` : null, `${sw.id} port${port.number}`);
    }
  }

  private compareBridge(
    tree: SettledTree,
    s: number,
    { bridge }: SwitchReading,
    nameAt: ReadonlyMap<number, string>,
    told: Told,
  ): void {
    const { network } = this.solution;
    const idOf = (at: number): string => bridgeIdText(bridgeId(network.switches[at]!, tree.id));
    told('root', null, bridge && bridgeIdText(bridge.root), idOf(tree.root[s]!));
    told('root path cost', null, bridge && String(bridge.rootPathCost), costsIn(tree, s).join(' + '));
    const p = tree.rootPort[s]!;
    told('root port', null, bridge && (bridge.rootPort ?? 'none'), p < 0 ? 'none' : (nameAt.get(p) ?? 'another'));
  }

  private compareBundles(set: SwitchSet, reading: SwitchReading, told: Told): void {
    const { bundles } = this.solution.network;
    const settled = settleBundles(bundles);
    const interfaceOf = new Map(set.ports.map((port) => [port.id, port.interface]));
    for (const end of bundles.ends) {
      const { owner } = end;
      if (owner.kind !== 'switch') continue;
      const own = set.bundles.find(({ id }) => id === owner.bundle);
      if (!own) continue;
      const there = reading.bundles.find((each) => each.interface === own.interface);
      const active = settled.ends[end.index]!.active.map((m) => interfaceOf.get(bundles.members[m]!.id)!).sort();
      const text = (all: readonly string[]): string => all.join(', ') || 'none active';
      told('members', own.interface, there ? text(there.active) : null, text(active));
    }
  }
}

type Told = (what: Difference['what'], where: string | null, there: string | null, ours: string) => void;
