/** That hosts of one VLAN reach each other, over or not over switches and links, within so many hops. */
import type { Host } from '../../../model/document';
import { nameOf } from '../../../model/names';
import type { FailureRun } from '../../failures/outages';
import type { Breach, Claim, Form } from '../claim';
import type { HostsOf, PlacesOf, Reader } from '../reader';
import { few, type Settled } from '../settled';

interface Terms {
  readonly over: readonly PlacesOf[] | null;
  readonly notOver: readonly PlacesOf[] | null;
  readonly hops: number | null;
}

class ReachClaim implements Claim {
  private readonly hosts: readonly HostsOf[];
  private readonly terms: Terms;

  constructor(hosts: readonly HostsOf[], terms: Terms) {
    this.hosts = hosts;
    this.terms = terms;
  }

  write(writer: Parameters<Claim['write']>[0]): string {
    const { over, notOver, hops } = this.terms;
    return [
      writer.hosts(this.hosts),
      'reach each other',
      ...(over ? [`over ${writer.places(over)}`] : []),
      ...(notOver ? [`not over ${writer.places(notOver)}`] : []),
      ...(hops === null ? [] : [`within ${hops} hops`]),
    ].join(' ');
  }

  judge(of: Settled): Breach | null {
    const hosts = of.hostsOf(this.hosts);
    // Whoever went with a failure is not missed; but what speaks of nobody says nothing.
    if (hosts.length === 0) return of.isAfterFailure ? null : { why: 'There is no such host.', at: {} };
    for (const vid of new Set(hosts.map(({ vlan }) => vlan))) {
      const found = this.inVlan(
        of,
        vid,
        hosts.filter(({ vlan }) => vlan === vid),
      );
      if (found) return found;
    }
    return null;
  }

  private inVlan(of: Settled, vid: number, hosts: readonly Host[]): Breach | null {
    const trees = of.treesOf({ by: 'vlans', vlans: String(vid) }).map(({ id }) => id);
    const breach = (host: Host, why: string): Breach => ({
      why,
      at: { ...(host.attach[0] ? { switch: host.attach[0].switch } : {}), trees },
    });
    const entries = hosts.map((host) => of.switchesAt(host));
    const [over, notOver] = [this.terms.over, this.terms.notOver].map((all) => all && passesOf(of, vid, all));
    for (const [i, host] of hosts.entries()) {
      const before = of.ways(vid, entries[i]!);
      const lost = hosts.filter((_, j) => j !== i && !entries[j]!.some((s) => before[s]! >= 0));
      if (lost.length > 0) {
        // Who misses the others is told of: of two sides the smaller one.
        const alone = 2 * lost.length > hosts.length;
        const [who, others] = alone
          ? [hosts.filter((each) => !lost.includes(each)), lost]
          : [lost, hosts.filter((each) => !lost.includes(each))];
        return breach(
          who[0]!,
          `In VLAN ${vid}, ${few(who.map(nameOf))} ${who.length === 1 ? 'does' : 'do'} not reach ${others.length === 1 ? nameOf(others[0]!) : `the other ${others.length}`}.`,
        );
      }
      for (let j = i + 1; j < hosts.length; j += 1) {
        const wrong = this.wrongWay(of, wayTo(before, entries[j]!), over ?? null, notOver ?? null);
        if (wrong !== null)
          return breach(host, `In VLAN ${vid}, the way from ${nameOf(host)} to ${nameOf(hosts[j]!)} ${wrong}.`);
      }
    }
    return null;
  }

  private wrongWay(of: Settled, way: readonly number[], over: Passes | null, notOver: Passes | null): string | null {
    const { hops } = this.terms;
    const named = way.map((s) => of.nameAt(s));
    if (over && over(way) === null) return `is ${named.join(', ')}`;
    const through = notOver?.(way) ?? null;
    if (through !== null) return `goes over ${through}`;
    if (hops !== null && way.length - 1 > hops) return `takes ${way.length - 1} hops: ${named.join(', ')}`;
    return null;
  }
}

/** What of some places a way passes, as people call it; null where it passes none. */
type Passes = (way: readonly number[]) => string | null;

function passesOf(of: Settled, vid: number, places: readonly PlacesOf[]): Passes {
  const switches = new Set(
    of.switchesOf(places.filter((place) => place.by !== 'link')).map((id) => of.network.switchIndex.get(id)!),
  );
  const links = places.flatMap((place) => {
    const p = place.by === 'link' ? of.portAt(place.end) : -1;
    const far = p < 0 ? -1 : of.network.far[p]!;
    if (place.by !== 'link' || far < 0 || !of.passes(vid)[p] || !of.passes(vid)[far]) return [];
    const { owner } = of.network;
    return [{ ends: [owner[p]!, owner[far]!] as const, name: `the link at ${of.names.end(place.end)}` }];
  });
  return (way) => {
    const at = way.find((s) => switches.has(s));
    if (at !== undefined) return of.nameAt(at);
    const link = links.find(({ ends: [a, b] }) =>
      way.some((s, i) => (s === a && way[i + 1] === b) || (s === b && way[i + 1] === a)),
    );
    return link?.name ?? null;
  };
}

/** The switches on the shortest way to one of some, from the far end. */
function wayTo(before: Int32Array, to: readonly number[]): number[] {
  const ways = to.flatMap((end) => {
    if (before[end]! < 0) return [];
    const way = [end];
    for (let s = end; before[s] !== s;) way.push((s = before[s]!));
    return [way];
  });
  return ways
    .reduce<number[]>((best, way) => (best.length === 0 || way.length < best.length ? way : best), [])
    .reverse();
}

function termsOf(reader: Reader): Terms {
  const over = reader.takes('over', 'every way passes one of some switches or links') ? reader.places() : null;
  const notOver = reader.takes('not over', 'no way passes some switches or links') ? reader.places() : null;
  const within = reader.takes('within', 'so many links at most');
  const hops = within ? reader.number('a number of hops', 'hops', (n) => Number.isInteger(n) && n <= 100) : null;
  return { over, notOver, hops };
}

/** That hosts are cut off from each other for no longer than a time, in seconds, while the network gets over a failure. */
class OutageClaim implements Claim {
  private readonly hosts: readonly HostsOf[];
  private readonly most: number;

  constructor(hosts: readonly HostsOf[], most: number) {
    this.hosts = hosts;
    this.most = most;
  }

  write(writer: Parameters<Claim['write']>[0]): string {
    return `${writer.hosts(this.hosts)} are cut off no longer than ${this.most} s`;
  }

  judge(): null {
    return null;
  }

  judgeRun({ pairs }: FailureRun, of: Settled): Breach | null {
    const named = new Set(of.hostsOf(this.hosts).map(({ id }) => id));
    const [worst] = pairs
      .filter(({ from, to, longest }) => named.has(from) && named.has(to) && longest > this.most)
      .sort((a, b) => b.longest - a.longest);
    if (!worst) return null;
    const host = of.network.design.hosts.find(({ id }) => id === worst.from)!;
    const time = worst.lasting ? 'for good' : `for ${Number(worst.longest.toPrecision(3))} s`;
    return {
      why: `In VLAN ${worst.vlan}, ${nameOf(host)} does not reach ${of.names.host(worst.to)} ${time}.`,
      at: host.attach[0] ? { switch: host.attach[0].switch } : {},
    };
  }
}

export const reachForms: readonly Form[] = [
  {
    words: 'are cut off no longer than',
    about: 'subject',
    detail: 'seconds, while a failure is got over: simulated',
    underFailures: true,
    read: (reader, subject) =>
      new OutageClaim(
        subject.map((item) => reader.hostsOf(item)),
        reader.number('a time in seconds, such as 3 s', 's', (n) => n >= 0 && n <= 3600),
      ),
  },
  {
    words: 'reach each other',
    about: 'subject',
    detail: 'hosts of one VLAN, each VLAN by itself',
    read: (reader, subject) =>
      new ReachClaim(
        subject.map((item) => reader.hostsOf(item)),
        termsOf(reader),
      ),
  },
];
