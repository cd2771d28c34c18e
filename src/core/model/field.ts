/**
 * What a field says of itself beside its schema, once: how people call it, how its values are told, and what reads it.
 * Writing, comparing, the sentences of the history, the commands that set it, and what must be solved or simulated again
 * are all derived from here (derive/).
 */
import { oncePer } from '../base/cache';
import type { z } from '../base/zod';
import type { BridgePortId, HostId, LinkId, SwitchId } from './ids';
import type { Names } from './names';

/**
 * What reads a field: any tree; any tree, for what is set in it, though who hears whom and which trees there are does not hang on
 * it; the one tree under whose name it stands; a run of the protocols and of frames alone, since trees come to rest alike
 * whatever it says; the places on the map; nothing that is computed. What trees read, a run does.
 */
export type Reader = 'trees' | 'settings' | 'tree' | 'run' | 'layout' | 'nothing';

export interface Facts<T = never> {
  /** How people call it, in the words of the standard where it has one. */
  readonly label: string;
  /** What its numbers count: `Mb/s`. */
  readonly unit?: string;
  readonly reads: Reader;
  /** What holds where it is not there: `as the design`. */
  readonly absent?: string;
  /** A value as people read it; without it, as it stands. */
  text?(value: T, names: Names): string;
  /** What a change to this value does, where `label before to after` would be stilted: `switched off`. */
  done?(value: T, names: Names): string;
  /** Of a group that may be absent: what to say of it where it is there. */
  readonly present?: string;
  /** Written into files though it is the default. */
  readonly always?: boolean;
  /** Written as it stands, the defaults inside of it too. */
  readonly whole?: boolean;
  /** How a cabling line says it; nothing, where lines don't. */
  readonly line?: LineWords<T>;
  /** Of a list: the most items it may have, and beside what that is. */
  readonly most?: number;
  readonly beside?: string;
}

/** Words of a cabling line: some that each stand for a value, or one before a value. */
export type LineWords<T = never> =
  | { readonly kind: 'words'; readonly words: readonly (readonly [word: string, value: T, detail?: string])[] }
  | {
      readonly kind: 'value';
      readonly word: string;
      readonly detail: string;
      /** What belongs after the word, for whoever wrote something else there. */
      readonly what: string;
      /** What is offered there; VLANs are a set of them, or `none`. */
      readonly offer?: 'vlan' | 'vlans' | 'group';
      /** How the value is written where it is no name or number, and read: undefined where it is none. */
      readonly written?: { as(value: T): string; read(text: string): unknown };
    };

/** Where something is, for whoever wants to go there. */
export interface Place {
  readonly switch?: SwitchId;
  readonly port?: BridgePortId;
  readonly link?: LinkId;
  readonly host?: HostId;
}

/** Of a list: what its items are, how one is called, and where it is. `reads` is about an item that comes or goes. */
export interface ListFacts<T = never> extends Omit<Facts<readonly T[]>, 'line'> {
  readonly line?: undefined;
  readonly one: string;
  nameOf(item: T, names: Names): string;
  at?(item: T): Place;
}

const facts = new WeakMap<z.ZodType, Facts | ListFacts>();

/** A field of a table: its schema with what it says of itself. */
export function field<S extends z.ZodType>(schema: S, about: Facts<z.output<S>>): S {
  const own = schema.clone() as S;
  facts.set(own, about as Facts);
  return own;
}

/** A field that is a list of things with ids, each with a table of its own. */
export const listField = <S extends z.ZodType<readonly unknown[]>>(
  schema: S,
  about: ListFacts<z.output<S>[number]>,
): S => field(schema, about);

/** A schema as derivations walk it. */
export type Node = LeafNode | GroupNode | ListNode | RecordNode | UnionNode;

interface Base {
  readonly facts: Facts<unknown> | null;
  /** What is filled in where it is absent; undefined where nothing is. */
  readonly standard: unknown;
  /** Whether it may be absent from a design. */
  readonly optional: boolean;
  readonly schema: z.ZodType;
}
export interface LeafNode extends Base {
  readonly kind: 'leaf';
}
export interface GroupNode extends Base {
  readonly kind: 'group';
  readonly fields: ReadonlyMap<string, Node>;
}
export interface ListNode extends Omit<Base, 'facts'> {
  readonly kind: 'list';
  readonly facts: ListFacts<unknown> | null;
  readonly item: Node;
  /** Whether items go by their ids. */
  readonly keyed: boolean;
}
export interface RecordNode extends Base {
  readonly kind: 'record';
  readonly value: Node;
}
export interface UnionNode extends Base {
  readonly kind: 'union';
  readonly discriminator: string;
  readonly options: ReadonlyMap<unknown, Node>;
}

/** The parts of zod's published `def` that the walk needs. */
interface Def {
  readonly type: string;
  readonly innerType?: z.ZodType;
  readonly in?: z.ZodType;
  readonly element?: z.ZodType;
  readonly valueType?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly discriminator?: string;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly values?: readonly unknown[];
  readonly defaultValue?: unknown;
}
const defOf = (schema: z.ZodType): Def => schema.def as typeof schema.def & Def;

/** A schema taken apart, once. */
export const nodeOf: (schema: z.ZodType) => Node = oncePer((schema: z.ZodType): Node => {
  let here = schema;
  let own: Facts<unknown> | null = null;
  let standard: unknown = undefined;
  let optional = false;
  for (;;) {
    own ??= (facts.get(here) as Facts<unknown> | undefined) ?? null;
    const def = defOf(here);
    if (def.type === 'default') standard ??= def.defaultValue;
    if (def.type === 'optional') optional = true;
    const inner = def.innerType ?? (def.type === 'pipe' && isComposed(def.in!) ? def.in : undefined);
    if (!inner) break;
    here = inner;
  }
  const base = { facts: own, standard, optional, schema };
  const { type, shape, element, valueType, options, discriminator } = defOf(here);
  if (type === 'object')
    return {
      kind: 'group',
      ...base,
      fields: new Map(Object.entries(shape!).map(([key, each]) => [key, nodeOf(each)])),
    };
  if (type === 'record') return { kind: 'record', ...base, value: nodeOf(valueType!) };
  if (type === 'union' && discriminator !== undefined)
    return {
      kind: 'union',
      ...base,
      discriminator,
      options: new Map(
        options!.map((option) => [defOf(defOf(option).shape![discriminator]!).values![0], nodeOf(option)] as const),
      ),
    };
  const item = type === 'array' ? nodeOf(element!) : null;
  if (item && item.kind !== 'leaf')
    return {
      kind: 'list',
      ...base,
      facts: own as ListFacts<unknown> | null,
      item,
      keyed: item.kind === 'group' && item.fields.has('id'),
    };
  return { kind: 'leaf', ...base };
});

function isComposed(schema: z.ZodType): boolean {
  const { type, innerType, in: first } = defOf(schema);
  if (innerType ?? first) return isComposed((innerType ?? first)!);
  return type === 'record' || type === 'object' || type === 'array';
}

/** What stands under a key: a field, an item of a list, a value of a record; null where nothing may. */
export function insideOf(node: Node | null, key: string): Node | null {
  switch (node?.kind) {
    case 'group':
      return node.fields.get(key) ?? null;
    case 'list':
      return node.item;
    case 'record':
      return node.value;
    case 'union':
    case 'leaf':
    case undefined:
      return null;
  }
}

/** A value of a field as people read it, without its unit; null where it is absent and nothing is said to hold then. */
export function valueText({ facts: about }: Node, value: unknown, names: Names): string | null {
  if (value === undefined) return about?.absent ?? null;
  if (about?.text) return (about.text as (value: unknown, names: Names) => string)(value, names);
  return typeof value === 'boolean'
    ? value
      ? 'yes'
      : 'no'
    : typeof value === 'object'
      ? JSON.stringify(value)
      : String(value);
}

/** How people call a field. */
export const labelOf = (schema: z.ZodType): string => nodeOf(schema).facts?.label ?? '';
