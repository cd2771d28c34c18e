/** What an action of a scenario is: its shape, what may stand against it, what happens, and how it is told, together. */
import { z } from '../../base/zod';
import type { Bundle } from '../bundle';
import type { CostMethod } from '../common';
import type { Host } from '../host';
import type { BridgePortId, BundleId, HostId, LinkId, PortId, SwitchId, TreeId } from '../ids';
import type { Link } from '../link';
import type { Names } from '../names';
import type { RegionSettings } from '../region';
import type { Switch } from '../switch';

/** The network as an action finds it: a design, with what earlier actions have brought along. */
export interface Topology {
  readonly pathCost: CostMethod;
  readonly switches: readonly Switch[];
  readonly links: readonly Link[];
  readonly bundles: readonly Bundle[];
  readonly hosts: readonly Host[];
  readonly regions: readonly RegionSettings[];
}

/** A command by its name, with what it sets; edit/ checks it when it is done. */
export type CommandCall = { readonly do: string } & Readonly<Record<string, unknown>>;

/** What happens at the time of an action. */
export interface Happening {
  /** Seconds later. */
  readonly after?: number;
  readonly changes?: readonly CommandCall[];
  /** What the switch `from` sends over a link gets lost, or arrives again; of null what either end sends, of undefined what its first end does. */
  readonly mute?: {
    readonly link: LinkId;
    readonly from?: SwitchId | null | undefined;
    readonly on: boolean;
    /** BPDUs alone: frames of hosts get through. */
    readonly bpdus?: true;
    /** Seconds, then it is the other way round again; for good, where it is left out. */
    readonly lasts?: number;
  };
  /** A port that a guard has shut opens. */
  readonly open?: { readonly switch: SwitchId; readonly port: BridgePortId };
  /** A bundle has these ports from then on. */
  readonly members?: { readonly bundle: BundleId; readonly ports: readonly PortId[] };
}

/** What stands against a field of an action. */
export interface ActionFault {
  readonly field: string;
  readonly found: unknown;
  readonly allowed: string;
}

export interface ActionFacts<A> {
  /** What stands against it; `trees` are those that the design has at some time of the scenario. */
  faults?(action: A, topology: Topology, trees: () => readonly TreeId[]): ActionFault[];
  /** What it plugs in, without power and signal until its time comes. */
  arrivals?(action: A, topology: Topology): CommandCall[];
  happens(action: A): Happening;
  /** Begins with a capital, has no full stop. */
  text(action: A, names: Names, topology: Topology): string;
  /** Whether it changes more of the network than power, signal, costs and priorities: what switches speak, which trees there are. */
  turns?(action: A): boolean;
  /** Whether it sets something for some trees and not for others. */
  setsTrees?(action: A): boolean;
  /** The switch that it is about. */
  about?(action: A): SwitchId;
  /** What the map has to draw that is not in the design; `topology` has all that arrives. */
  brings?(action: A, topology: Topology): { readonly switches: readonly Switch[]; readonly links: readonly LinkId[] };
}

/** Longest run, seconds. */
export const MAX_UNTIL = 3600;
const at = z.number().min(0).max(MAX_UNTIL);

type Schema<K extends string, S extends z.core.$ZodLooseShape> = z.ZodObject<
  { at: typeof at; do: z.ZodLiteral<K> } & S,
  z.core.$strict
>;

/** A kind of action. */
export interface ActionKind<
  K extends string = string,
  S extends z.core.$ZodLooseShape = z.core.$ZodLooseShape,
> extends ActionFacts<z.output<Schema<K, S>>> {
  readonly schema: Schema<K, S>;
}

/** Puts a kind of action together. */
export function action<const K extends string, S extends z.core.$ZodLooseShape>(
  kind: K,
  shape: S,
  about: ActionFacts<z.output<Schema<K, S>>>,
): ActionKind<K, S>;
export function action(kind: string, shape: z.core.$ZodLooseShape, about: object): object {
  return { schema: z.strictObject({ at, do: z.literal(kind), ...shape }), ...about };
}

/** Identifiers as actions name things. */
const named = <T extends string>() => z.string().transform((id) => id as T);
export const ids = {
  link: named<LinkId>(),
  switch: named<SwitchId>(),
  bundle: named<BundleId>(),
  host: named<HostId>(),
  port: named<PortId>(),
  /** A port of a switch, or a bundle of it. */
  bridgePort: named<BridgePortId>(),
};

/** `one of a, b and 3 more`. */
export const among = (known: readonly string[]): string =>
  known.length === 0
    ? 'there is none'
    : known.length > 12
      ? `one of ${known.slice(0, 12).join(', ')} and ${known.length - 12} more`
      : `one of ${known.join(', ')}`;

/** A thing that must be there: the fault where it is not. */
export const unless = (
  items: readonly { readonly id: string }[],
  found: string,
  field: string,
  what: string,
): ActionFault[] => {
  const known = items.map(({ id }) => id);
  return known.includes(found) ? [] : [{ field, found, allowed: `${what}: ${among(known)}` }];
};
