/**
 * What a document's shape alone cannot say: identifiers are unique, references lead somewhere, a port holds one cable,
 * costs fit the cost method. Physical mismatches (VLANs, speeds, duplicate MACs) are findings, not errors.
 */
import { oncePer } from '../base/cache';
import { MAX_COST } from './legal';
import { MAX_PROBLEMS } from './limits';
import { jsonPath, type DesignProblem } from './problem';
import {
  designNode,
  type Bundle,
  type CostMethod,
  type Design,
  type Group,
  type Host,
  type Link,
  type LinkEnd,
  type PairHalf,
  type Port,
  type Switch,
} from './document';
import type { GroupId } from './ids';
import { methodOf } from './costMethod';
import { VlanSet, vlanSet } from './vlanSet';

/** A list of the document whose items have ids. */
const itemsOf = (design: Readonly<Record<string, unknown>>, key: string) =>
  design[key] as readonly { readonly id: string | number }[];

/** The ids of a switch's ports. */
const idsOf = oncePer((ports: readonly Port[]): ReadonlySet<string> => new Set(ports.map(({ id }) => id)));

/** The places of the ports that have costs of their own. */
const costly = oncePer((ports: readonly Port[]): readonly number[] =>
  Array.from(ports.keys()).filter((j) => {
    const { cost, externalCost, trees } = ports[j]!;
    return cost !== undefined || externalCost !== undefined || Object.keys(trees).length > 0;
  }),
);

/** Broken references and double identifiers, in document order: the first hundred. Time grows with the size of the design alone. */
export function referenceProblems(design: Design): DesignProblem[] {
  const problems: DesignProblem[] = [];
  const ports = new Map<string, ReadonlySet<string>>(design.switches.map((sw) => [sw.id, idsOf(sw.ports)]));
  const add = (path: readonly PropertyKey[], found: string, allowed: string): void => {
    if (problems.length < MAX_PROBLEMS) problems.push({ path: jsonPath(path), found, allowed });
  };

  const unique = (items: readonly { readonly id: string | number }[], path: readonly PropertyKey[], what: string) => {
    const seen = new Set<string | number>();
    items.forEach((item, i) => {
      if (seen.has(item.id))
        add([...path, i, 'id'], JSON.stringify(item.id), `each ${what} once: another one has this id`);
      seen.add(item.id);
    });
  };
  const end = (at: LinkEnd, path: readonly PropertyKey[]) => {
    const known = ports.get(at.switch);
    if (!known) add([...path, 'switch'], JSON.stringify(at.switch), 'the id of a switch of this design');
    else if (!known.has(at.port)) add([...path, 'port'], JSON.stringify(at.port), `the id of a port of ${at.switch}`);
  };

  /** Costs beyond what the switch's method can send in a BPDU (802.1D-1998 sends sixteen bits' worth). */
  const costs = (port: Port | Bundle, method: CostMethod, path: readonly PropertyKey[]): void => {
    const most = MAX_COST[method];
    const hold = (cost: number | undefined, ...at: PropertyKey[]) =>
      cost !== undefined &&
      cost > most &&
      add([...path, ...at], String(cost), `1 to ${most} with the ${method} path cost method`);
    hold(port.cost, 'cost');
    hold(port.externalCost, 'externalCost');
    for (const [tree, set] of Object.entries(port.trees)) hold(set?.cost, 'trees', tree, 'cost');
  };

  const domains = new Map<number, string[]>();
  for (const { id, pair } of design.switches)
    if (pair) domains.set(pair.domain, [...(domains.get(pair.domain) ?? []), id]);
  const half = ({ id, ports: own }: Switch, pair: PairHalf, path: readonly PropertyKey[]): void => {
    const others = domains.get(pair.domain)!.filter((other) => other !== id);
    if (others.length > 1)
      add([...path, 'domain'], String(pair.domain), `a domain of two switches: ${others.join(', ')} have it already`);
    if (!design.bundles.some((bundle) => bundle.id === pair.peerLink && bundle.switch === id))
      add([...path, 'peerLink'], JSON.stringify(pair.peerLink), `the id of a bundle of ${id}`);
    if (pair.keepalivePort !== undefined && !idsOf(own).has(pair.keepalivePort))
      add([...path, 'keepalivePort'], JSON.stringify(pair.keepalivePort), `the id of a port of ${id}`);
  };

  for (const [key, node] of designNode.fields)
    if (node.kind === 'list' && node.keyed && node.facts) unique(itemsOf(design, key), [key], node.facts.one);

  const regions = new Set(design.regions.map((region) => region.id));
  design.switches.forEach((sw, i) => {
    if (idsOf(sw.ports).size < sw.ports.length) unique(sw.ports, ['switches', i, 'ports'], `port of ${sw.id}`);
    if (sw.region !== undefined && !regions.has(sw.region)) {
      add(['switches', i, 'region'], JSON.stringify(sw.region), 'the id of a region of this design');
    }
    const members = sw.stack?.members.map(({ id }) => id);
    if (members)
      sw.ports.forEach(({ stackMember }, j) => {
        if (stackMember !== undefined && !members.includes(stackMember))
          add(
            ['switches', i, 'ports', j, 'stackMember'],
            String(stackMember),
            `a member of the stack ${sw.id}: ${members.join(', ')}`,
          );
      });
    if (sw.pair) half(sw, sw.pair, ['switches', i, 'pair']);
    for (const j of costly(sw.ports)) costs(sw.ports[j]!, methodOf(design, sw), ['switches', i, 'ports', j]);
  });

  const groups = new Map(design.groups.map((group) => [group.id, group]));
  design.switches.forEach((sw, i) => {
    if (sw.group !== undefined && !groups.has(sw.group))
      add(['switches', i, 'group'], JSON.stringify(sw.group), 'the id of a group of this design');
  });
  const circling = groupsInCircles(design.groups);
  design.groups.forEach(({ id, within }, i) => {
    if (within !== undefined && !groups.has(within))
      add(['groups', i, 'within'], JSON.stringify(within), 'the id of a group of this design');
    else if (circling.has(id))
      add(['groups', i, 'within'], JSON.stringify(within), 'a group that does not lie within this one');
  });

  design.regions.forEach(({ instances }, i) => {
    unique(instances, ['regions', i, 'instances'], 'instance');
    const maps = instances.map(({ vlans }) => vlanSet(vlans));
    let mapped = VlanSet.empty;
    instances.forEach(({ id }, j) => {
      const free = mapped.intersect(maps[j]!).isEmpty;
      mapped = mapped.union(maps[j]!);
      if (!free && problems.length < MAX_PROBLEMS)
        instances.slice(0, j).forEach((before, k) => {
          const both = maps[j]!.intersect(maps[k]!);
          if (before.id !== id && !both.isEmpty)
            add(
              ['regions', i, 'instances', j, 'vlans'],
              both.format(),
              `each VLAN in one instance: instance ${before.id} has ${both.format().includes(',') || both.format().includes('-') ? 'these' : 'this one'} already`,
            );
        });
    });
  });

  const plugged = new Map<string, Map<string, Link | Host>>();
  const plug = (at: LinkEnd, path: readonly PropertyKey[], by: Link | Host) => {
    const there = plugged.get(at.switch) ?? new Map<string, Link | Host>();
    const before = there.get(at.port);
    if (before) {
      const what = 'attach' in before ? 'host' : 'link';
      add(path, `${at.switch} port ${at.port}`, `one cable a port: ${what} ${before.id} is plugged in there`);
    } else plugged.set(at.switch, there.set(at.port, by));
  };
  design.links.forEach((link, i) => {
    for (const side of ['a', 'b'] as const) {
      end(link[side], ['links', i, side]);
      plug(link[side], ['links', i, side], link);
    }
  });
  design.hosts.forEach((host, i) =>
    host.attach.forEach((at, j) => {
      end(at, ['hosts', i, 'attach', j]);
      plug(at, ['hosts', i, 'attach', j], host);
    }),
  );

  const member = new Map<string, string>();
  const numbered = new Map<string, string>();
  const switches = new Map(design.switches.map((sw) => [sw.id, sw]));
  design.bundles.forEach((bundle, i) => {
    const sw = switches.get(bundle.switch);
    costs(bundle, sw ? methodOf(design, sw) : design.pathCost, ['bundles', i]);
    if (sw && ports.get(sw.id)!.has(bundle.id))
      add(
        ['bundles', i, 'id'],
        JSON.stringify(bundle.id),
        `an id that no port of ${bundle.switch} has: both stand in its results`,
      );
    const number = `${bundle.switch}\n${bundle.number}`;
    const twin = numbered.get(number);
    if (twin !== undefined)
      add(
        ['bundles', i, 'number'],
        String(bundle.number),
        `each number once on a switch: it is that of bundle ${twin}`,
      );
    else numbered.set(number, bundle.id);
    if (!sw) add(['bundles', i, 'switch'], JSON.stringify(bundle.switch), 'the id of a switch of this design');
    else
      bundle.ports.forEach((port, j) => {
        const path = ['bundles', i, 'ports', j];
        if (!ports.get(bundle.switch)!.has(port))
          add(path, JSON.stringify(port), `the id of a port of ${bundle.switch}, whose ports alone can be members`);
        const key = `${bundle.switch}\n${port}`;
        if (member.has(key)) add(path, JSON.stringify(port), `one bundle a port: it is a member of ${member.get(key)}`);
        member.set(key, bundle.id);
      });
  });
  return problems;
}

/** Groups that lie within themselves, over however many others: each is walked up once. */
function groupsInCircles(groups: readonly Group[]): ReadonlySet<GroupId> {
  const around = new Map(groups.map(({ id, within }) => [id, within]));
  const done = new Set<GroupId>();
  const circling = new Set<GroupId>();
  for (const { id } of groups) {
    const way: GroupId[] = [];
    const onWay = new Set<GroupId>();
    let at: GroupId | undefined = id;
    while (at !== undefined && !done.has(at) && !onWay.has(at)) {
      way.push(at);
      onWay.add(at);
      at = around.get(at);
    }
    if (at !== undefined && onWay.has(at)) for (const each of way.slice(way.indexOf(at))) circling.add(each);
    for (const each of way) done.add(each);
  }
  return circling;
}
