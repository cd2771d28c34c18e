/** What a cabling line says: one statement a line. */
import { DIALECTS, traitsOf } from '../model/document';
import type { Carriage, CostMethod, Dialect, Tier } from '../model/document';
import { VlanSet } from '../model/vlanSet';

/** A piece of a line with its place, for errors that point at it. */
export interface Spot<T> {
  readonly value: T;
  readonly at: number;
  readonly length: number;
}

/** Switches and, where they are named, ports: each switch with each port. */
export interface EndPart {
  readonly names: readonly Spot<string>[];
  readonly ports: readonly Spot<string>[] | null;
}
/** One side of a cable, or what a host hangs on. */
export type End = readonly EndPart[];

/** What a line says about a port's VLANs; of a trunk, what it does not name stays as it is. */
export type CarriageWish =
  | { readonly mode: 'access'; readonly vlan: number }
  | { readonly mode: 'trunk'; readonly allowed?: string; readonly native?: number };

/** The wish in effect on a port that carries `now`, or on a new one. */
export function carriageBy(wish: CarriageWish, now: Carriage | null): Carriage {
  if (wish.mode === 'access') return wish;
  const before = now?.mode === 'trunk' ? now : { native: 1, allowed: VlanSet.all.format() };
  return { mode: 'trunk', native: wish.native ?? before.native, allowed: wish.allowed ?? before.allowed };
}

export interface PortSettings {
  /** Mbit/s. */
  readonly speed?: number;
  readonly vlans?: CarriageWish;
  readonly edge?: boolean;
  readonly up?: boolean;
  readonly number?: number;
}

export interface SwitchSettings {
  readonly tier?: Tier;
  readonly dialect?: Dialect;
  readonly mac?: string;
  readonly up?: boolean;
  readonly pathCost?: CostMethod;
  readonly position?: { readonly x: number; readonly y: number };
}

export type Statement =
  | { readonly kind: 'switch'; readonly names: readonly Spot<string>[]; readonly settings: SwitchSettings }
  | { readonly kind: 'port'; readonly end: End; readonly settings: PortSettings }
  | { readonly kind: 'vlan'; readonly vlans: string; readonly name?: string; readonly load?: number }
  | {
      readonly kind: 'host';
      readonly names: readonly Spot<string>[];
      readonly end: End;
      readonly vlan?: number;
      readonly mac?: string;
      readonly speed?: number;
    }
  | {
      readonly kind: 'cable';
      readonly from: End;
      readonly to: End;
      /** Each of the left with each of the right. */ readonly mesh: boolean;
      readonly settings: PortSettings;
      readonly up?: boolean;
    };

/** The first words of a statement. */
export const KEYWORDS = ['switch', 'port', 'host', 'vlan'] as const;

/** The dialect of a word; undefined for any other word. */
export const dialectOf = (word: string): Dialect | undefined =>
  DIALECTS.find((dialect) => traitsOf(dialect).word === word);

/** The options of each kind of statement, as they are offered; a speed may stand wherever `10G` does. */
export const OPTIONS = {
  switch: [
    'core',
    'distribution',
    'access',
    ...DIALECTS.map((dialect) => traitsOf(dialect).word),
    'mac',
    'at',
    'short-cost',
    'long-cost',
    'unpowered',
    'powered',
  ],
  port: ['10G', 'trunk', 'native', 'access', 'edge', 'no-edge', 'up', 'down', 'number'],
  cable: ['10G', 'trunk', 'native', 'access', 'cut', 'uncut'],
  host: ['vlan', 'mac', '10G'],
  vlan: ['load'],
} as const;

const SPEED = /^\d+(\.\d+)?[gmt](b(it)?(\/s|ps)?)?$/i;
const WORDS: ReadonlySet<string> = new Set(
  Object.values(OPTIONS)
    .flat()
    .filter((word) => word !== '10G'),
);

/** Whether a bare word is an option, so that it cannot be a port's label unless quoted. */
export const isOption = (word: string): boolean => WORDS.has(word) || SPEED.test(word);

/** `10G` in Mbit/s; null where the word is no speed. */
export function speedOf(word: string): number | null {
  if (!SPEED.test(word)) return null;
  const factor = { g: 1000, t: 1_000_000, m: 1 }[/[gmt]/i.exec(word)![0].toLowerCase()] ?? 1;
  return parseFloat(word) * factor;
}

/** A speed as a line has it: `10G`, `100M`. */
export const speedWord = (speed: number): string => (speed >= 1000 ? `${speed / 1000}G` : `${speed}M`);
