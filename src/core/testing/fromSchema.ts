/** Random values that a zod schema may take: walks the schema, with texts and numbers chosen by the name of the key. */
import fc from 'fast-check';
import type { z } from '../base/zod';

/** What stands under a key; the rest of the texts and numbers come from `other`. */
export interface Pools {
  readonly texts: Readonly<Record<string, readonly string[]>>;
  readonly numbers: Readonly<Record<string, readonly number[]>>;
  readonly other: { readonly texts: readonly string[]; readonly numbers: readonly number[] };
}

interface Def {
  readonly type: string;
  readonly innerType?: z.ZodType;
  readonly in?: z.ZodType;
  readonly element?: z.ZodType;
  readonly keyType?: z.ZodType;
  readonly valueType?: z.ZodType;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly options?: readonly z.ZodType[];
  readonly values?: readonly unknown[];
  readonly entries?: Readonly<Record<string, string>>;
}

/** The fewest items that a list may have. */
function leastOf({ def }: z.ZodType): number {
  const least = (def.checks ?? []).map(({ _zod }) => (_zod.def as { readonly minimum?: number }).minimum ?? 0);
  return Math.max(0, ...least);
}

/** Values of the schema's shape, most of them legal; each has every key now and then, and lacks each optional one. */
export function fromSchema(schema: z.ZodType, pools: Pools, key = ''): fc.Arbitrary<unknown> {
  const def = schema.def as typeof schema.def & Def;
  const again = (inner: z.ZodType | undefined, at = key): fc.Arbitrary<unknown> => fromSchema(inner!, pools, at);
  const makers: Readonly<Record<string, () => fc.Arbitrary<unknown>>> = {
    object: () =>
      fc
        .record(Object.fromEntries(Object.entries(def.shape!).map(([name, part]) => [name, again(part, name)])))
        .map((value) => Object.fromEntries(Object.entries(value).filter(([, part]) => part !== undefined))),
    union: () => fc.oneof(...def.options!.map((option) => again(option))),
    literal: () => fc.constantFrom(...def.values!),
    enum: () => fc.constantFrom(...Object.values(def.entries!)),
    boolean: () => fc.boolean(),
    string: () => fc.constantFrom(...(pools.texts[key] ?? pools.other.texts)),
    number: () => fc.constantFrom(...(pools.numbers[key] ?? pools.other.numbers)),
    array: () => fc.array(again(def.element), { minLength: leastOf(schema), maxLength: 3 }),
    record: () =>
      fc.dictionary(again(def.keyType, 'tree') as fc.Arbitrary<string>, again(def.valueType), { maxKeys: 2 }),
    optional: () => fc.oneof(fc.constant(undefined), again(def.innerType)),
    default: () => fc.oneof(fc.constant(undefined), again(def.innerType)),
    nullable: () => fc.oneof(fc.constant(null), again(def.innerType)),
    unknown: () => fc.constantFrom(...pools.other.texts, ...pools.other.numbers),
    pipe: () => again(def.in),
  };
  const make = makers[def.type];
  if (!make) throw new Error(`no values for a schema of type ${def.type}`);
  return make();
}
