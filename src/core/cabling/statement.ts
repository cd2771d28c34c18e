/** What a cabling line says: one statement a line. */
import type { Carriage, GroupKind, Port, Switch } from '../model/document';
import { VlanSet } from '../model/vlanSet';
import { FIELD_WORDS } from './words';

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

export type PortSettings = Readonly<Partial<Omit<Port, 'vlans'>>> & { readonly vlans?: CarriageWish };
/** Groups by name, as lines have them. */
export type SwitchSettings = Readonly<Partial<Omit<Switch, 'group'>>> & { readonly group?: string };
export type GroupSettings = { readonly kind?: GroupKind; readonly within?: string };

export type Statement =
  | { readonly kind: 'switch'; readonly names: readonly Spot<string>[]; readonly settings: SwitchSettings }
  | { readonly kind: 'group'; readonly names: readonly Spot<string>[]; readonly settings: GroupSettings }
  | { readonly kind: 'pair' | 'stack'; readonly names: readonly Spot<string>[] }
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
export const KEYWORDS = ['switch', 'port', 'host', 'vlan', 'group', 'pair', 'stack'] as const;

/** What lines say of speed and VLANs, in words that take more than a value; a speed may stand wherever `10G` does. */
const CARRIES = ['10G', 'trunk', 'native', 'access'] as const;

/** The options of each kind of statement, as they are offered. */
export const OPTIONS: Readonly<Record<keyof typeof FIELD_WORDS, readonly string[]>> = {
  switch: [...FIELD_WORDS.switch.keys()],
  port: [...CARRIES, ...FIELD_WORDS.port.keys()],
  cable: [...CARRIES, ...FIELD_WORDS.cable.keys()],
  host: [...FIELD_WORDS.host.keys(), '10G'],
  vlan: [...FIELD_WORDS.vlan.keys()],
  group: [...FIELD_WORDS.group.keys()],
};

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
