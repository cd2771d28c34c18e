/** A design held against what its network tells: where they differ, sorted by harm, each with a likely reason. */
import { counted } from '../../base/words';
import type { BridgePortId, LinkId, SwitchId, TreeId } from '../../model/ids';
import { CST, treeInstance, treeName, vlanTree } from '../../model/ids';
import { isMultiple, type Design, type LinkEnd, type Switch } from '../../model/document';
import { namesOf } from '../../model/derive/names';
import type { Names } from '../../model/names';
import { VlanSet, vlanSet } from '../../model/vlanSet';
import { BUNDLE_PORTS } from '../../topology/aggregated';
import { bridgeId, setBridgePriority, systemIdExtension } from '../../topology/bridgeId';
import type { Bridge } from '../../topology/bridges';
import { settleBundles, type SettledBundles } from '../../topology/lag/settled';
import { mapText } from '../../model/region';
import { regionsOf } from '../../topology/region';
import { roleOf, stateIn, type SettledTree, type Solution } from '../../tree/settled';
import { carried, untaggedOf } from '../settings/vlanChanges';
import { matchPorts, matchSwitches, type Matches, type Place, type SwitchMatch } from './match';
import type { Observation, ObservedTree, ObservedTreePort } from './observation';

/** From the worst on: nobody is heard, the wrong root, another region, cables, where frames go, members, VLANs, settings that change nothing yet. */
export const HARMS = ['silent', 'root', 'region', 'cable', 'path', 'bundle', 'vlan', 'setting'] as const;
export type Harm = (typeof HARMS)[number];

export interface Difference {
  readonly harm: Harm;
  readonly what: string;
  /** Null where it is about the network as a whole, or about somebody whom the design does not have. */
  readonly switch: SwitchId | null;
  readonly port: BridgePortId | null;
  readonly link: LinkId | null;
  readonly trees: readonly TreeId[];
  readonly designed: string;
  readonly observed: string;
  /** A likely reason, in a sentence; empty where none is known. */
  readonly why: string;
}

export interface Comparison {
  readonly matches: Matches;
  readonly differences: readonly Difference[];
  /** How many things were compared. */
  readonly compared: number;
}

/** `lodge port 3: role in VLAN 15: alternate; the design says root`. */
export function differenceText(
  names: Names,
  { switch: sw, port, trees, what, designed, observed, why }: Difference,
): string {
  const where =
    sw === null ? '' : `${port === null ? names.switch(sw) : names.end({ switch: sw, port: port as never })}: `;
  const of = trees.length > 0 ? ` in ${trees.map(treeName).join(', ')}` : '';
  return `${where}${what}${of}: ${observed}; the design says ${designed}${why === '' ? '' : ` (${why})`}`;
}

/** `solution`: of the design. */
export function compareObserved(solution: Solution, observation: Observation): Comparison {
  return new Comparer(solution, observation).all();
}

/** A root that is not the one designed, with the switches that tell of it. */
interface AnotherRoot {
  readonly root: SwitchId;
  readonly other: string;
  readonly why: string;
  readonly trees: Set<TreeId>;
  readonly tellers: Set<SwitchId>;
}

class Comparer {
  private readonly roots = new Map<string, AnotherRoot>();
  private readonly differences: Difference[] = [];
  private compared = 0;
  private readonly solution: Solution;
  private readonly design: Design;
  private readonly names: Names;
  private readonly matches: Matches;
  /** By the design's switch. */
  private readonly places: ReadonlyMap<SwitchId, ReadonlyMap<number, Place>>;
  private readonly seen: ReadonlyMap<SwitchId, SwitchMatch>;
  private readonly byMac: ReadonlyMap<string, SwitchMatch>;
  private readonly settled: SettledBundles;
  /** VLANs that can be there. */
  private readonly known: VlanSet;

  constructor(solution: Solution, observation: Observation) {
    this.solution = solution;
    this.design = solution.network.design;
    this.names = namesOf(this.design);
    this.settled = settleBundles(solution.network.bundles);
    this.known = VlanSet.of([[1, 1], ...this.design.vlans.map(({ id }) => [id, id] as const)]);
    this.matches = matchSwitches(this.design, observation);
    const { pairs } = this.matches;
    this.places = new Map(pairs.map((pair) => [pair.designed.id, matchPorts(this.design, pair)]));
    this.seen = new Map(pairs.map((pair) => [pair.designed.id, pair]));
    this.byMac = new Map(
      pairs.flatMap((pair) =>
        [pair.observed.mac, pair.observed.chassis].flatMap((each) => (each === null ? [] : [[each, pair] as const])),
      ),
    );
  }

  all(): Comparison {
    const { unseen, unknown, pairs } = this.matches;
    for (const sw of unseen)
      if (sw.up) this.tell('silent', 'switch', { switch: sw.id }, 'there', 'nobody answers as it', '');
    for (const sw of unknown)
      this.tell('silent', `switch ${sw.name || sw.source}`, {}, 'no such switch', `it answers at ${sw.source}`, '');
    for (const pair of pairs) {
      if (!pair.designed.up)
        this.tell('silent', 'switch', { switch: pair.designed.id }, 'without power', 'it answers', '');
      this.compareRegion(pair);
      this.comparePorts(pair);
      this.compareCables(pair);
      this.compareBundles(pair);
    }
    const rank = (harm: Harm): number => HARMS.indexOf(harm);
    for (const tree of this.solution.trees) this.compareTree(tree);
    return {
      matches: this.matches,
      compared: this.compared,
      differences: this.joined().sort((a, b) => rank(a.harm) - rank(b.harm)),
    };
  }

  /** What is the same in several trees is one difference. */
  private joined(): Difference[] {
    const found = new Map<string, Difference>();
    for (const each of this.differences) {
      const { harm, what, switch: sw, port, designed, observed, why } = each;
      const key = JSON.stringify([harm, what, sw, port, designed, observed, why]);
      const before = found.get(key);
      found.set(key, before ? { ...before, trees: [...before.trees, ...each.trees] } : each);
    }
    return [...this.rootDifferences(), ...found.values()];
  }

  /** Another root is one difference, however many switches tell of it: at the switch that should be it. */
  private rootDifferences(): Difference[] {
    return [...this.roots.values()].map(({ root, other, why, trees, tellers }) => ({
      ...{ harm: 'root', what: 'root', switch: root, port: null, link: null, trees: [...trees] },
      designed: this.names.switch(root),
      observed: `${other}, as ${counted(tellers.size, 'switch tells', 'switches tell')}`,
      why,
    }));
  }

  private tell(
    harm: Harm,
    what: string,
    at: Partial<Pick<Difference, 'switch' | 'port' | 'link' | 'trees'>>,
    designed: string,
    observed: string,
    why: string,
  ): void {
    this.compared += 1;
    if (designed === observed) return;
    this.differences.push({
      ...{ switch: null, port: null, link: null, trees: [], ...at },
      ...{ harm, what, designed, observed, why },
    });
  }

  private compareTree(tree: SettledTree): void {
    const { network } = this.solution;
    const wrongRoots = new Set<number>();
    const seen = this.matches.pairs.flatMap((pair) => {
      const s = network.switchIndex.get(pair.designed.id)!;
      const there = treeThere(network.switches[s]!, pair, tree.id);
      return there && pair.designed.up ? [{ pair, s, there }] : [];
    });
    for (const { pair, s, there } of seen) {
      if (tree.root[s]! < 0) continue;
      const root = network.switches[tree.root[s]!]!;
      const observed = this.byMac.get(there.root.mac)?.designed;
      const at = { switch: pair.designed.id, trees: [tree.id] };
      const other = observed ? this.names.switch(observed.id) : there.root.mac;
      const isRight = observed?.id === root.id || there.root.mac === bridgeId(root, tree.id).mac;
      this.compared += 1;
      if (!isRight) {
        wrongRoots.add(s);
        const why = this.whyRoot(tree.id, root.id, observed ?? null);
        const key = JSON.stringify([root.id, there.root.mac, why]);
        const known = this.roots.get(key) ?? { root: root.id, other, why, trees: new Set(), tellers: new Set() };
        this.roots.set(key, known);
        known.trees.add(tree.id);
        known.tellers.add(pair.designed.id);
      }
      const [designed, set] = [setBridgePriority(network.switches[s]!, tree.id), there.bridge.priority];
      const own = set - (systemIdExtension(network.switches[s]!, tree.id) === 0 ? 0 : set & 0xfff);
      this.tell('setting', 'bridge priority', at, String(designed), String(own), '');
    }
    for (const { pair, s, there } of seen) this.compareRoles(tree, pair, there, wrongRoots.has(s));
  }

  /** Why another is root: somebody's priority is not what the design says. */
  private whyRoot(tree: TreeId, root: SwitchId, other: Switch | null): string {
    const told = (id: SwitchId): string | null => {
      const pair = this.seen.get(id);
      const sw = this.solution.network.switches[this.solution.network.switchIndex.get(id)!]!;
      const there = pair && treeThere(sw, pair, tree);
      if (!there) return `${this.names.switch(id)} was not read`;
      const wanted = bridgeId(sw, tree).priority;
      return there.bridge.priority === wanted
        ? null
        : `${this.names.switch(id)} is set to ${there.bridge.priority & 0xf000}, the design says ${wanted & 0xf000}`;
    };
    return [told(root), other && told(other.id)].filter((each) => each !== null).join('; ');
  }

  private compareRoles(tree: SettledTree, { designed }: SwitchMatch, there: ObservedTree, follows: boolean): void {
    const { network } = this.solution;
    const places = this.places.get(designed.id)!;
    const byPort = new Map(
      there.ports.flatMap((port) => {
        const place = places.get(port.port);
        return place ? [[place.of.id as string, port] as const] : [];
      }),
    );
    const s = network.switchIndex.get(designed.id)!;
    for (let p = network.firstPort[s]!; p < network.firstPort[s + 1]!; p += 1) {
      const { id } = network.ports[p]!;
      const role = roleOf(tree, p);
      const port = byPort.get(id);
      if (role === null || !port || role === 'master') continue;
      const at = { switch: designed.id, port: id, trees: [tree.id] };
      const why = follows ? 'it follows from the other root' : port.cost !== tree.cost[p] ? 'its cost is another' : '';
      this.tell('path', 'role', at, role, port.role, why);
      if (port.role === role && role !== 'disabled')
        this.tell('path', 'state', at, stateIn(tree, p), stateWord(port), '');
      if (role !== 'disabled') this.tell('setting', 'cost', at, String(tree.cost[p]), String(port.cost), '');
    }
  }

  /** Two that are told apart by anything of it are in regions of their own (802.1Q-2018 13.8). */
  private compareRegion({ designed, observed: { mst } }: SwitchMatch): void {
    const { network } = this.solution;
    const region = regionsOf(this.design)(network.switches[network.switchIndex.get(designed.id)!]!);
    if (!region || !mst) return;
    const { name, revision, digest } = region.configurationId;
    const text = (
      called: string,
      of: number,
      map: readonly { readonly id: number; readonly vlans: string }[],
    ): string => `"${called}", revision ${of}, ${mapText(map)}`;
    const wanted = region.instances.map(({ mstid, vlans }) => ({ id: mstid, vlans: vlans.format() }));
    const there = mst.instances.map(({ instance, vlans }) => ({ id: instance, vlans }));
    const isOther = mst.digest !== null && mst.digest !== digest && mapText(wanted) === mapText(there);
    this.tell(
      'region',
      'MST configuration',
      { switch: designed.id },
      text(name, revision, wanted),
      `${text(mst.name, mst.revision, there)}${isOther ? `, digest ${mst.digest}` : ''}`,
      isOther ? 'its map of VLANs is not what it tells' : '',
    );
  }

  private comparePorts({ designed, observed }: SwitchMatch): void {
    const { network } = this.solution;
    const places = this.places.get(designed.id)!;
    const known = observed.vlans === null ? null : vlanSet(observed.vlans);
    for (const port of observed.ports) {
      const place = places.get(port.number);
      if (!place) continue;
      const { id } = place.of;
      const p = network.portIndexOf(designed.id, id);
      const at = { switch: designed.id, port: id };
      if (place.kind === 'port') {
        const lit = network.macOperational[p] === 1;
        const words = (on: boolean): string => (on ? 'with signal' : 'without signal');
        this.tell('cable', 'port', at, words(lit), words(port.signal), lit && !port.up ? 'it is switched off' : '');
        if (port.speed > 0 && port.signal && lit)
          this.tell('setting', 'speed', at, `${place.of.speed} Mb/s`, `${port.speed} Mb/s`, '');
      }
      if (!port.vlans || !known || network.serves[p] !== p) continue;
      const { vlans } = network.ports[p]!;
      const wanted = carried(vlans).intersect(this.known);
      this.tell('vlan', 'VLANs', at, wanted.format() || 'none', vlanSet(port.vlans.carried).format() || 'none', '');
      const untagged = untaggedOf(vlans);
      const without = untagged !== null && wanted.has(untagged) ? String(untagged) : 'none';
      this.tell('vlan', 'VLAN without tag', at, without, String(port.vlans.untagged ?? 'none'), '');
    }
    if (!known) return;
    const s = network.switchIndex.get(designed.id)!;
    const own = network.carried.slice(network.firstPort[s], network.firstPort[s + 1]);
    for (const vlan of this.design.vlans)
      if (!known.has(vlan.id) && own.some((of) => of.has(vlan.id)))
        this.tell('vlan', `VLAN ${vlan.id}`, { switch: designed.id }, 'there', 'not there', '');
  }

  /** By neighbour tables: what is at the other end of each cable. */
  private compareCables({ designed, observed }: SwitchMatch): void {
    if (observed.neighbours.length === 0 && observed.missing.some((each) => each.includes('LLDP'))) return;
    const places = this.places.get(designed.id)!;
    const { network } = this.solution;
    const seen = new Map(
      observed.neighbours.flatMap((each) => {
        const place = places.get(each.port);
        return place?.kind === 'port' ? [[place.of.id as string, each] as const] : [];
      }),
    );
    for (const port of designed.ports) {
      const p = network.portIndexOf(designed.id, port.id);
      const far = network.plug[p]!;
      const there = seen.get(port.id);
      const other = there ? (this.byMac.get(there.chassis) ?? this.byName(there.system)) : null;
      const end =
        far < 0
          ? null
          : ({ switch: network.switches[network.owner[far]!]!.id, port: network.ports[far]!.id } as LinkEnd);
      const cable = this.design.links[network.cable[p] ?? -1];
      // A host need not tell of itself, and who is not read is not known.
      if (!end && !other) continue;
      if (end && network.macOperational[p] === 0 && !there) continue;
      this.tell(
        'cable',
        'cable',
        { switch: designed.id, port: port.id, link: cable?.id ?? null },
        end ? this.names.end(end) : 'no switch',
        there
          ? other
            ? this.endThere(other, there.portId)
            : `${there.system ?? there.chassis} ${there.portId}`
          : 'nobody is seen there',
        there ? '' : 'the neighbour table has no entry for it',
      );
    }
  }

  private byName(system: string | null): SwitchMatch | undefined {
    return this.matches.pairs.find(({ observed }) => observed.name !== '' && observed.name === system);
  }

  /** The port of a switch that calls it so. */
  private endThere({ designed, observed }: SwitchMatch, portId: string): string {
    const port = observed.ports.find(
      (each) => each.interface === portId || each.mac === portId || each.alias === portId,
    );
    const place = port && this.places.get(designed.id)!.get(port.number);
    return place
      ? this.names.end({ switch: designed.id, port: place.of.id as never })
      : `${this.names.switch(designed.id)} ${portId}`;
  }

  private compareBundles({ designed, observed }: SwitchMatch): void {
    const { bundles } = this.solution.network;
    const places = this.places.get(designed.id)!;
    for (const end of bundles.ends) {
      const { owner } = end;
      if (owner.kind !== 'switch' || owner.switch !== designed.id) continue;
      const bundle = this.design.bundles.find(({ id }) => id === owner.bundle)!;
      const there = observed.bundles.find(
        ({ number }) => places.get(number)?.of.id === bundle.id || number === BUNDLE_PORTS + bundle.number,
      );
      const text = (ids: readonly string[]): string => [...ids].sort().join(', ') || 'none';
      const wanted = this.settled.ends[end.index]!.active.map((m) => bundles.members[m]!.id);
      const active = there?.members
        .filter((member) => member.active)
        .flatMap(({ port }) => {
          const place = places.get(port);
          return place ? [place.of.id as string] : [String(port)];
        });
      const gone = wanted.filter((id) => !active?.includes(id));
      const neighbourless = gone.filter(
        (id) => !observed.neighbours.some(({ port }) => places.get(port)?.of.id === id),
      );
      this.tell(
        'bundle',
        'active members',
        { switch: designed.id, port: bundle.id },
        text(wanted),
        there ? text(active!) : 'no such bundle',
        there && neighbourless.length > 0 ? `the neighbour table has no cable at ${text(neighbourless)}` : '',
      );
    }
  }
}

/** What a switch tells of one of our trees: known by the system ID extension of its identifier there. */
function treeThere(sw: Bridge, { observed }: SwitchMatch, tree: TreeId): ObservedTree | null {
  const vid = systemIdExtension(sw, tree);
  const called = vid === 0 ? CST : (treeInstance(tree) ?? 0) > 0 && isMultiple(sw) ? tree : vlanTree(vid);
  return observed.trees.find((each) => each.tree === called) ?? null;
}

const stateWord = ({ state }: ObservedTreePort): string =>
  state === 'blocking' || state === 'discarding' ? 'discarding' : state;
