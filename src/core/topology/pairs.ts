/**
 * Pairs as they stand: which two switches are one, what keeps them from it, and what each does once they have lost each other.
 * To spanning tree and to the partners of its bundles a pair is one bridge and one LACP system (802.1AX-2020 clause 9).
 */
import { oncePer } from '../base/cache';
import type { Bundle, Design, Link, PairHalf, Switch } from '../model/document';
import type { BundleId, PortId, SwitchId } from '../model/ids';
import { withStacks } from './stacks';
import { carried } from './trees';

/** A switch that has a half of a pair. */
export type PairedSwitch = Switch & { readonly pair: PairHalf };

/** Bundles of both switches that have one number. */
export interface PairBundle {
  readonly number: number;
  /** The primary's, then the secondary's. */
  readonly halves: readonly [Bundle, Bundle];
  /** What the two say unlike; those that do are no bundle, and the secondary's half is down. */
  readonly unlike: readonly string[];
}

/**
 * How two switches of one domain stand: they are one; one is without power, and the other one is the pair; the peer link is lost,
 * and the secondary, which hears by the keepalive that the primary lives, takes its pair bundles down; both are lost, and each
 * takes itself for the pair; they cannot be one, since their settings or cables do not fit; neither has power.
 */
export type PairState = 'together' | 'alone' | 'yields' | 'both-alone' | 'unlike' | 'off';

export interface Pair {
  readonly domain: number;
  /** The primary, then the secondary. */
  readonly switches: readonly [PairedSwitch, PairedSwitch];
  readonly state: PairState;
  /** What keeps them from being one, whatever has power. */
  readonly unlike: readonly string[];
  /** The cables between their peer links. */
  readonly peerLinks: readonly Link[];
  /** Whether the peer link carries, and whether each hears of the other without it. */
  readonly peerLinkUp: boolean;
  readonly keepaliveUp: boolean;
  readonly bundles: readonly PairBundle[];
}

/** The pairs of a design, those that cannot be one included; a half whose domain no other switch has is none. */
export const pairsOf: (design: Design) => readonly Pair[] = oncePer((given: Design) => {
  const design = withStacks(given);
  const halves = design.switches.filter((sw): sw is PairedSwitch => sw.pair !== undefined);
  return halves.flatMap((one, i) => {
    const other = halves.findIndex((each) => each.pair.domain === one.pair.domain && each !== one);
    return other > i ? [pairOf(design, [one, halves[other]!])] : [];
  });
});

/** Whether two switches act as one bridge: while they are together, and while one of them is all that there is. */
export const actsAsOne = ({ state }: Pick<Pair, 'state'>): boolean => state === 'together' || state === 'alone';

function pairOf(design: Design, both: readonly [PairedSwitch, PairedSwitch]): Pair {
  const [primary, secondary] = both.toSorted(
    (a, b) => a.pair.priority - b.pair.priority || (a.mac < b.mac ? -1 : 1),
  ) as [PairedSwitch, PairedSwitch];
  const membersOf = ({ id, pair: { peerLink } }: PairedSwitch): ReadonlySet<string> =>
    new Set(design.bundles.find((bundle) => bundle.id === peerLink)?.ports.map((port) => `${id}\n${port}`));
  const [own, its] = [membersOf(primary), membersOf(secondary)];
  const joins = ({ a, b }: Link, from: ReadonlySet<string>, to: ReadonlySet<string>): boolean =>
    (from.has(placeOf(a)) && to.has(placeOf(b))) || (from.has(placeOf(b)) && to.has(placeOf(a)));
  const carries = ({ a, b, up }: Link): boolean => up && [a, b].every((at) => isUp(both, at));
  const peerLinks = design.links.filter((link) => joins(link, own, its));
  const peerLinkUp = peerLinks.some(carries);
  const keepaliveUp =
    both.every(({ up }) => up) && both.every(({ pair }) => keeps(pair, peerLinkUp)) && ownLinkUp(design, both, carries);
  const unlike = [
    ...(primary.dialect === secondary.dialect ? [] : ['spanning tree modes']),
    ...(primary.region === secondary.region ? [] : ['region settings']),
    ...(primary.pair.mac === secondary.pair.mac ? [] : ['addresses of the pair']),
    ...(peerLinks.length > 0 ? [] : ['peer links: no cable joins them']),
  ];
  const halvesOf = (sw: PairedSwitch): Map<number, Bundle> =>
    new Map(
      design.bundles.flatMap((bundle) =>
        bundle.switch === sw.id && bundle.pairNumber !== undefined ? [[bundle.pairNumber, bundle] as const] : [],
      ),
    );
  const theirs = halvesOf(secondary);
  return {
    domain: primary.pair.domain,
    switches: [primary, secondary],
    state: stateOf({ both: [primary, secondary], unlike, peerLinkUp, keepaliveUp }),
    unlike,
    peerLinks,
    peerLinkUp,
    keepaliveUp,
    bundles: [...halvesOf(primary)].flatMap(([number, half]) => {
      const other = theirs.get(number);
      return other ? [{ number, halves: [half, other] as const, unlike: unlikeHalves(half, other) }] : [];
    }),
  };
}

interface Standing {
  readonly both: readonly [Switch, Switch];
  readonly unlike: readonly string[];
  readonly peerLinkUp: boolean;
  readonly keepaliveUp: boolean;
}

function stateOf({ both, unlike, peerLinkUp, keepaliveUp }: Standing): PairState {
  const powered = both.filter(({ up }) => up).length;
  if (powered === 0) return 'off';
  if (unlike.length > 0) return 'unlike';
  if (powered === 1) return 'alone';
  if (peerLinkUp) return 'together';
  return keepaliveUp ? 'yields' : 'both-alone';
}

/** Whether a half hears of the other one, as far as it is not a matter of cables of its own. */
const keeps = ({ keepalive, keepaliveUp }: PairHalf, peerLinkUp: boolean): boolean =>
  keepalive === 'out-of-band' ? keepaliveUp : keepalive === 'peer-link' ? peerLinkUp : keepalive === 'own-link';

/** Where a half has a cable for its keepalive, whether it leads to the other's and carries. */
function ownLinkUp(
  { links }: Design,
  both: readonly [PairedSwitch, PairedSwitch],
  carries: (link: Link) => boolean,
): boolean {
  if (!both.some(({ pair }) => pair.keepalive === 'own-link')) return true;
  const [a, b] = both.map(({ id, pair }) => `${id}\n${pair.keepalivePort}`);
  return links.some(
    (link) => carries(link) && [placeOf(link.a), placeOf(link.b)].sort().join() === [a, b].sort().join(),
  );
}

const placeOf = ({ switch: sw, port }: { readonly switch: SwitchId; readonly port: PortId }): string =>
  `${sw}\n${port}`;

const isUp = (both: readonly PairedSwitch[], at: Link['a']): boolean => {
  const sw = both.find(({ id }) => id === at.switch);
  return sw?.up === true && sw.ports.find(({ id }) => id === at.port)?.up === true;
};

/** What halves of one bundle say unlike (trade practice: such a bundle is none). */
const unlikeHalves = (a: Bundle, b: Bundle): string[] => [
  ...(sameVlans(a, b) ? [] : ['VLANs']),
  ...(a.mode === b.mode ? [] : ['modes']),
  ...((a.key ?? a.pairNumber) === (b.key ?? b.pairNumber) ? [] : ['keys']),
];
const sameVlans = (a: Bundle, b: Bundle): boolean =>
  a.vlans.mode === b.vlans.mode && carried(a.vlans).format() === carried(b.vlans).format();

/** Why a port of a paired switch is down though it is set up: it carries the keepalive alone; its half of a bundle gives way. */
export type PairDown = 'keepalive' | 'pair-yields' | 'pair-unlike';

/** The ports of paired switches that are down for the pair's sake, by switch. */
export const downForPairs: (design: Design) => ReadonlyMap<SwitchId, ReadonlyMap<PortId, PairDown>> = oncePer(
  (design: Design) => {
    const down = new Map<SwitchId, Map<PortId, PairDown>>();
    const put = (sw: SwitchId, ports: readonly PortId[], why: PairDown): void => {
      const own = down.get(sw) ?? new Map<PortId, PairDown>();
      for (const port of ports) own.set(port, why);
      down.set(sw, own);
    };
    for (const pair of pairsOf(design)) {
      for (const { halves, unlike } of pair.bundles) {
        const half = halves[1];
        if (pair.state === 'yields') put(half.switch, half.ports, 'pair-yields');
        else if (pair.state === 'together' && unlike.length > 0) put(half.switch, half.ports, 'pair-unlike');
      }
    }
    for (const { id, pair } of design.switches)
      if (pair?.keepalivePort !== undefined) put(id, [pair.keepalivePort], 'keepalive');
    return down;
  },
);

/** What a bundle's end is called where it belongs to a pair: the pair's address, its key, and port numbers that the other half has not. */
export function pairIdentity(design: Design, sw: Switch, bundle: Pick<Bundle, 'id' | 'pairNumber' | 'key'>) {
  if (!sw.pair || bundle.pairNumber === undefined) return null;
  const second = pairsOf(design).some(({ switches: [, secondary] }) => secondary.id === sw.id);
  return { mac: sw.pair.mac, key: bundle.key ?? bundle.pairNumber, numbersFrom: second ? SECOND_NUMBERS : 0 };
}
/** Added to the numbers of the secondary's ports, as LACP tells them (802.1AX-2020 9.6: they are unlike in both). */
const SECOND_NUMBERS = 4096;

/** Bundles of switches that have got power while the other one of their pair had it: they stay down for a time, seconds (trade practice). */
export function waitingIn(
  before: Design,
  after: Design,
): { readonly switch: SwitchId; readonly bundle: BundleId; readonly delay: number }[] {
  const had = new Set(before.switches.filter(({ up }) => up).map(({ id }) => id));
  return pairsOf(after).flatMap(({ switches, bundles }) =>
    switches.flatMap(({ id, up, pair }, i) =>
      up && !had.has(id) && had.has(switches[1 - i]!.id) && pair.delay > 0
        ? bundles.map(({ halves }) => ({ switch: id, bundle: halves[i]!.id, delay: pair.delay }))
        : [],
    ),
  );
}
