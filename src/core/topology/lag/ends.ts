/** The bundles of a design as their two kinds of owner see them, with what is plugged into each member. */
import { oncePer } from '../../base/cache';
import type { BundleId, HostId, LinkId, BridgePortId, SwitchId } from '../../model/ids';
import { LACP_PRIORITY } from '../../model/legal';
import { pairIdentity } from '../pairs';
import { asItStands } from '../standing';
import type { BundleMode, Design, HashPolicy, HostBundle, LinkEnd } from '../../model/document';

/** One end of a bundle: on a switch, or all cards of a host. */
export interface BundleEnd {
  /** Its place among all ends. */
  readonly index: number;
  readonly id: BundleId | HostId;
  readonly name: string;
  readonly owner:
    | { readonly kind: 'switch'; readonly switch: SwitchId; readonly bundle: BundleId }
    | { readonly kind: 'host'; readonly host: HostId };
  readonly ownerName: string;
  /** System identifier: priority, then address; the lower is the better (802.1AX-2020 6.3.2). */
  readonly systemPriority: number;
  readonly mac: string;
  readonly mode: BundleMode;
  readonly fast: boolean;
  readonly key: number;
  readonly minLinks: number;
  readonly maxActive: number;
  readonly hash: HashPolicy;
  /** Whether it is called as its pair is. */
  readonly ofPair: boolean;
  /** Places among all members. */
  readonly members: readonly number[];
}

/** What the cable of a member leads to. */
export type FarSide = 'member' | 'port' | 'card' | 'nothing';

export interface BundleMember {
  readonly index: number;
  readonly end: number;
  /** The port's id; of a host the card's number. */
  readonly id: string;
  readonly number: number;
  /** Port identifier: priority, then number; the lower is the better (802.1AX-2020 6.3.4). */
  readonly priority: number;
  readonly key: number;
  /** Mbit/s. */
  readonly speed: number;
  readonly macOperational: boolean;
  readonly link: LinkId | null;
  readonly farSide: FarSide;
  /** The member at the other end, or -1. */
  readonly far: number;
  /** The other end as people call it. */
  readonly farName: string;
  /** The switch port that it is, or that the card is plugged into. */
  readonly at: LinkEnd;
}

export interface Bundles {
  readonly ends: readonly BundleEnd[];
  readonly members: readonly BundleMember[];
  /** The member that a switch's port is, or -1. */
  readonly memberAt: (sw: SwitchId, port: BridgePortId) => number;
}

const NONE: Bundles = { ends: [], members: [], memberAt: () => -1 };

/** Whether two ends are halves of one bundle of a pair, as their partner sees them (802.1AX-2020 clause 9). */
export const areHalves = (a: BundleEnd, b: BundleEnd): boolean =>
  a !== b && a.ofPair && b.ofPair && a.mac === b.mac && a.key === b.key;

/** Whether a mode speaks first (802.1AX-2020 6.4.1: LACP_Activity), and the older negotiation's way of the same. */
export const initiates = (mode: BundleMode): boolean => mode === 'active' || mode === 'initiate';

/** Which messages an end understands; null where it sends none. */
export const negotiationOf = (mode: BundleMode): 'lacp' | 'legacy' | null =>
  mode === 'static' ? null : mode === 'initiate' || mode === 'answer' ? 'legacy' : 'lacp';

type Draft = { -readonly [K in keyof BundleMember]: BundleMember[K] };

/** The bundles of a design and what their members lead to; of one design found once. */
export const bundlesOf = oncePer(findBundles);

function findBundles(given: Design): Bundles {
  const design = asItStands(given);
  if (design.bundles.length === 0 && design.hosts.every((host) => !host.bundle)) return NONE;
  const switches = new Map(design.switches.map((sw) => [sw.id, sw]));
  const ports = new Map(
    design.switches.flatMap((sw) => sw.ports.map((port) => [placeOf(sw.id, port.id), port] as const)),
  );
  const ready = (at: LinkEnd): boolean => switches.get(at.switch)!.up && ports.get(placeOf(at.switch, at.port))!.up;
  const labelOf = (at: LinkEnd): string => `${switches.get(at.switch)!.name ?? at.switch} port ${at.port}`;
  const ends: BundleEnd[] = [];
  const members: Draft[] = [];
  /** Members of switches by port, and cards by the port that they are plugged into. */
  const onSwitch = new Map<string, number>();
  const onHost = new Map<string, number>();

  const addEnd = (
    from: HostBundle,
    end: Pick<BundleEnd, 'id' | 'name' | 'owner' | 'ownerName' | 'systemPriority' | 'mac' | 'key' | 'ofPair'>,
    own: readonly (Pick<Draft, 'id' | 'number' | 'priority' | 'speed' | 'at'> & { readonly key: number | undefined })[],
  ): void => {
    const index = ends.length;
    const { mode, timeout, minLinks, maxActive, hash } = from;
    ends.push({
      index,
      ...end,
      mode,
      fast: timeout === 'fast',
      minLinks,
      maxActive,
      hash,
      members: own.map((_, i) => members.length + i),
    });
    for (const each of own)
      members.push({
        ...each,
        key: each.key ?? end.key,
        index: members.length,
        end: index,
        macOperational: false,
        link: null,
        farSide: 'nothing',
        far: -1,
        farName: 'nothing',
      });
  };

  for (const bundle of design.bundles) {
    const sw = switches.get(bundle.switch)!;
    const owner = { kind: 'switch', switch: sw.id, bundle: bundle.id } as const;
    const asPair = pairIdentity(given, sw, bundle);
    const own = bundle.ports.map((id) => {
      const port = ports.get(placeOf(sw.id, id))!;
      return {
        id: port.id as string,
        number: port.number + (asPair?.numbersFrom ?? 0),
        priority: port.lacp?.priority ?? LACP_PRIORITY.default,
        key: port.lacp?.key,
        speed: port.speed,
        at: { switch: sw.id, port: port.id },
      };
    });
    own.forEach(({ at }, i) => onSwitch.set(placeOf(at.switch, at.port), members.length + i));
    addEnd(
      bundle,
      {
        id: bundle.id,
        name: bundle.name ?? bundle.id,
        owner,
        ownerName: sw.name ?? sw.id,
        systemPriority: sw.lacp?.systemPriority ?? LACP_PRIORITY.default,
        mac: asPair?.mac ?? sw.mac,
        key: asPair?.key ?? bundle.key ?? bundle.number,
        ofPair: asPair !== null,
      },
      own,
    );
  }
  for (const host of design.hosts) {
    if (!host.bundle || host.attach.length === 0) continue;
    const own = host.attach.map((at, i) => ({
      id: String(i + 1),
      number: i + 1,
      priority: LACP_PRIORITY.default,
      key: undefined,
      speed: ports.get(placeOf(at.switch, at.port))!.speed,
      at,
    }));
    own.forEach(({ at }, i) => onHost.set(placeOf(at.switch, at.port), members.length + i));
    const name = host.name ?? host.id;
    addEnd(
      host.bundle,
      {
        id: host.id,
        name,
        owner: { kind: 'host', host: host.id },
        ownerName: name,
        systemPriority: LACP_PRIORITY.default,
        mac: host.mac,
        key: host.bundle.key ?? 1,
        ofPair: false,
      },
      own,
    );
  }

  for (const link of design.links) {
    for (const [here, there] of [
      [link.a, link.b],
      [link.b, link.a],
    ] as const) {
      const member = members[onSwitch.get(placeOf(here.switch, here.port)) ?? -1];
      if (!member) continue;
      const far = onSwitch.get(placeOf(there.switch, there.port)) ?? -1;
      learn(member, {
        macOperational: link.up && ready(here) && ready(there),
        link: link.id,
        farSide: far < 0 ? 'port' : 'member',
        far,
        farName: labelOf(there),
      });
    }
  }
  for (const host of design.hosts) {
    host.attach.forEach((at, i) => {
      const place = placeOf(at.switch, at.port);
      const [port, card] = [onSwitch.get(place) ?? -1, onHost.get(place) ?? -1];
      const macOperational = ready(at);
      if (port >= 0)
        learn(members[port]!, {
          macOperational,
          farSide: card < 0 ? 'card' : 'member',
          far: card,
          farName: `${host.name ?? host.id}${host.attach.length > 1 ? ` card ${i + 1}` : ''}`,
        });
      if (card >= 0)
        learn(members[card]!, {
          macOperational,
          farSide: port < 0 ? 'port' : 'member',
          far: port,
          farName: labelOf(at),
        });
    });
  }
  return { ends, members, memberAt: (sw, port) => onSwitch.get(placeOf(sw, port)) ?? -1 };
}

/** Notes what a member leads to. */
function learn(member: Draft, what: Partial<Draft>): void {
  Object.assign(member, what);
}

/** No identifier holds a line feed. */
const placeOf = (sw: SwitchId, port: BridgePortId): string => `${sw}\n${port}`;
