/** Two switches that answer as one bridge are a pair where cables and bundles show it (802.1AX-2020 clause 9: one system, one key). */
import equal from 'fast-deep-equal';
import type { LinkEnd } from '../../../model/document';
import { macAddress } from '../../../model/legal';
import type { ObservedSwitch } from '../observation';
import type { Drawing, DrawnBundle, DrawnSwitch } from './drawing';

/** After cables: a pair is told by what its bundles lead to. */
export function pairsOf(drawing: Drawing): void {
  const byAddress = new Map<string, ObservedSwitch[]>();
  for (const sw of drawing.observation.switches)
    if (sw.mac !== null) byAddress.set(sw.mac, [...(byAddress.get(sw.mac) ?? []), sw]);
  let domain = 0;
  for (const [mac, all] of byAddress) {
    if (all.length < 2) continue;
    const [one, other] = all;
    const pair = all.length === 2 && macAddress.safeParse(mac).success ? new PairDrawer(drawing, one!, other!) : null;
    if (pair?.draw(mac, domain + 1)) domain += 1;
    else
      drawing.doubt(
        `${all.map(called).join(' and ')}: by their address they are one bridge; a pair is to be set by hand.`,
      );
  }
}

const called = ({ name, source }: ObservedSwitch): string => name || source;

interface Half {
  readonly seen: ObservedSwitch;
  readonly sw: DrawnSwitch;
  readonly bundles: readonly DrawnBundle[];
}

class PairDrawer {
  private readonly drawing: Drawing;
  private readonly halves: readonly [Half, Half];
  /** By end, the other end of its cable; a host is its card. */
  private readonly far: ReadonlyMap<string, string>;

  constructor(drawing: Drawing, one: ObservedSwitch, other: ObservedSwitch) {
    this.drawing = drawing;
    const half = (seen: ObservedSwitch): Half => {
      const { sw } = drawing.at.get(seen)!;
      return { seen, sw, bundles: drawing.bundles.filter((bundle) => bundle.switch === sw.id) };
    };
    this.halves = isSecondary(one) && !isSecondary(other) ? [half(other), half(one)] : [half(one), half(other)];
    const bundleAt = new Map(
      drawing.bundles.flatMap((bundle) =>
        bundle.ports.map((port) => [`${bundle.switch}\n${port}`, bundle.id as string]),
      ),
    );
    const whole = (end: LinkEnd): string => bundleAt.get(keyOf(end)) ?? keyOf(end);
    this.far = new Map([
      ...drawing.links.flatMap(({ a, b }) => [[keyOf(a), whole(b)] as const, [keyOf(b), whole(a)] as const]),
      ...drawing.hosts.flatMap(({ id, attach }) => attach.map((end) => [keyOf(end), `host ${id}`] as const)),
    ]);
  }

  /** False where nothing shows what joins them. */
  draw(mac: string, domain: number): boolean {
    const { drawing, halves } = this;
    const [one, other] = halves;
    const peers = one.bundles.flatMap((bundle) => {
      const leads = this.leadsTo(bundle);
      return leads.size === 1
        ? other.bundles.filter((each) => leads.has(each.id)).map((each) => [bundle, each] as const)
        : [];
    });
    const [peer, ...more] = peers;
    if (!peer || more.length > 0) return false;
    const keepalive = this.keepalive();
    halves.forEach(({ sw }, i) => {
      const pair = {
        ...{ domain, mac, priority: (i + 1) * 100, peerLink: peer[i]!.id },
        ...(keepalive ? { keepalive: 'own-link', keepalivePort: keepalive[i] } : {}),
      };
      drawing.put({ ...sw, pair });
    });
    const taken = new Set<number>();
    for (const bundle of one.bundles) {
      const leads = [...this.leadsTo(bundle)];
      const half = other.bundles.find((each) => each !== peer[1] && sameMembers([...this.leadsTo(each)], leads));
      if (bundle === peer[0] || leads.length === 0 || !half) continue;
      const key = typeof bundle.key === 'number' ? bundle.key : Number(bundle.number);
      let pairNumber = key;
      while (taken.has(pairNumber)) pairNumber += 1;
      taken.add(pairNumber);
      for (const each of [bundle, half]) drawing.putBundle({ ...each, pairNumber, key });
    }
    const [first] = halves;
    drawing.doubt(
      `${halves.map(({ seen }) => called(seen)).join(' and ')}: they answer as one bridge, and were drawn as a pair with ${called(first.seen)} as its primary; domain, priorities and keepalive are not told.`,
    );
    return true;
  }

  /** What the cables of a bundle lead to. */
  private leadsTo({ switch: sw, ports }: DrawnBundle): ReadonlySet<string> {
    return new Set(ports.flatMap((port) => this.far.get(`${sw}\n${port}`) ?? []));
  }

  /** The ports of a cable between both that is in no tree, if there is one. */
  private keepalive(): readonly [string, string] | null {
    const [one, other] = this.halves;
    const isIdle = ({ seen, sw }: Half, port: string): boolean => {
      const number = [...this.drawing.at.get(seen)!.ports].find(([, drawn]) => drawn.id === port)?.[0];
      return (
        !this.drawing.bundles.some((bundle) => bundle.switch === sw.id && bundle.ports.some((each) => each === port)) &&
        seen.trees.every(({ ports }) => ports.every((each) => each.port !== number))
      );
    };
    for (const { a, b } of this.drawing.links) {
      const [from, to] = a.switch === one.sw.id ? [a, b] : [b, a];
      if (from.switch === one.sw.id && to.switch === other.sw.id && isIdle(one, from.port) && isIdle(other, to.port))
        return [from.port, to.port];
    }
    return null;
  }
}

/** Its ports go by other numbers to their partners than those that they have; or it is the root, and reaches it by its peer. */
const isSecondary = ({ bundles, trees }: ObservedSwitch): boolean =>
  bundles.some(({ members }) => members.some(({ port, lacp }) => lacp !== null && lacp.actor.port !== port)) ||
  trees.some(({ root, bridge, rootPort }) => equal(root, bridge) && rootPort !== null);

const sameMembers = (a: readonly string[], b: readonly string[]): boolean =>
  a.toSorted().join() === b.toSorted().join();
const keyOf = (end: LinkEnd): string => `${end.switch}\n${end.port}`;
