/**
 * How old messages grow on their way from the root, and where they are too old to count, in 256ths of a second. A rapid bridge
 * adds a second, to the nearest one, and takes nothing that would be older than the root's max age then (802.1Q-2018 13.29
 * updtRolesTree and updtRcvdInfoWhile). A classic bridge adds its own increment; what it hears must live until it is said
 * again, at the next hello (802.1D-1998 8.6.1, 8.6.2 and 8.7.4).
 */
import { oncePer } from '../base/cache';
import { isClassic } from '../model/document';
import { AGE_UNITS } from '../modes/vector';
import type { Network } from '../topology/network';
import type { Segments } from '../topology/segments';
import { forcedOn } from './hearing';

/** What grows with each bridge that a message passes. */
export interface Wear {
  /** A bridge that speaks as root. */
  begin(s: number): void;
  /** Whether what bridge s says of a root counts at bridge t. */
  counts(s: number, root: number, t: number): boolean;
  /** Bridge t takes its part from bridge s. */
  pass(s: number, t: number): void;
}

const timesOf = oncePer(({ switches }: Network) => ({
  classic: Uint8Array.from(switches, (sw) => (isClassic(sw) ? 1 : 0)),
  maxAge: Int32Array.from(switches, ({ timers }) => timers.maxAge * AGE_UNITS),
  hello: Int32Array.from(switches, ({ timers }) => timers.hello * AGE_UNITS),
  increment: Int32Array.from(switches, ({ timers }) => timers.ageIncrement),
}));

/** Ages in one tree; inside of a region they stay as they are. */
export interface Ageing extends Wear {
  keep(s: number, t: number): void;
}

/** Ages in one tree, by bridge. */
export function ageing(network: Network): Ageing {
  const { classic, maxAge, hello, increment } = timesOf(network);
  /** By bridge: the age of what it sends, and how long until it says so again. */
  const age = new Int32Array(classic.length);
  const again = new Int32Array(classic.length);
  const older = (s: number): number => (Math.round(age[s]! / AGE_UNITS) + 1) * AGE_UNITS;
  return {
    begin(s) {
      age[s] = 0;
      again[s] = hello[s]!;
    },
    counts(s, root, t) {
      const most = maxAge[root]!;
      if (!classic[t]) return older(s) <= most && (!classic[s] || age[s]! < most);
      return age[s]! + again[s]! <= most;
    },
    pass(s, t) {
      age[t] = classic[t] ? age[s]! + increment[t]! : older(s);
      again[t] = classic[t] ? again[s]! : hello[t]!;
    },
    keep(s, t) {
      age[t] = age[s]!;
      again[t] = hello[t]!;
    },
  };
}

/** Whether a port notices that another one takes itself for designated too: rapid ones do, by what the other says that it learns (13.29 recordDispute). */
export function noticing(network: Network, segments: Pick<Segments, 'of'>): (p: number, q: number) => boolean {
  const { classic } = timesOf(network);
  const forced = forcedOn(network, segments);
  return (p, q) => !classic[network.owner[p]!] && !classic[network.owner[q]!] && !forced(q);
}
