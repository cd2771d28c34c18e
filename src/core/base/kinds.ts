/** Registries of kinds: each kind a file with a schema and what it does, told apart by the literal under `do`. */
import { z } from './zod';

interface Kind {
  readonly schema: z.ZodObject<{ do: z.ZodLiteral<string> }>;
}
type SchemasOf<T extends readonly { readonly schema: unknown }[]> = {
  readonly [I in keyof T]: T[I] extends { readonly schema: infer S extends z.core.$ZodTypeDiscriminable } ? S : never;
};

/** The schema of any of the kinds. */
export function schemaOfAny<T extends readonly { readonly schema: unknown }[]>(
  kinds: T,
): z.ZodDiscriminatedUnion<SchemasOf<T>, 'do'>;
export function schemaOfAny(kinds: readonly Kind[]): object {
  return z.discriminatedUnion('do', kinds.map((kind) => kind.schema) as [Kind['schema'], ...Kind['schema'][]]);
}

/** Finds a kind by its name. */
export function byName<About>(
  kinds: readonly (About & { readonly schema: { readonly shape: { readonly do: { readonly value: string } } } })[],
): ReadonlyMap<string, About> {
  return new Map(kinds.map((kind) => [kind.schema.shape.do.value, kind]));
}
