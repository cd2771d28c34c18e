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

/** Values of the schema's shape, most of them legal; each has every key now and then, and lacks each optional one. */
export function fromSchema(schema: z.ZodType, pools: Pools, key = ''): fc.Arbitrary<unknown> {
  const def = schema.def as typeof schema.def & Def;
  const again = (inner: z.ZodType | undefined, at = key): fc.Arbitrary<unknown> => fromSchema(inner!, pools, at);
  switch (def.type) {
    case 'object':
      return fc
        .record(Object.fromEntries(Object.entries(def.shape!).map(([name, part]) => [name, again(part, name)])))
        .map((value) => Object.fromEntries(Object.entries(value).filter(([, part]) => part !== undefined)));
    case 'union':
      return fc.oneof(...def.options!.map((option) => again(option)));
    case 'literal':
      return fc.constantFrom(...def.values!);
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries!));
    case 'boolean':
      return fc.boolean();
    case 'string':
      return fc.constantFrom(...(pools.texts[key] ?? pools.other.texts));
    case 'number':
      return fc.constantFrom(...(pools.numbers[key] ?? pools.other.numbers));
    case 'array':
      return fc.array(again(def.element), { maxLength: 3 });
    case 'record':
      return fc.dictionary(again(def.keyType, 'tree') as fc.Arbitrary<string>, again(def.valueType), { maxKeys: 2 });
    case 'optional':
    case 'default':
      return fc.oneof(fc.constant(undefined), again(def.innerType));
    case 'nullable':
      return fc.oneof(fc.constant(null), again(def.innerType));
    case 'pipe':
      return again(def.in);
    default:
      throw new Error(`no values for a schema of type ${def.type}`);
  }
}
