/** What a command is: its shape, what it does to a draft, and how it is told, together. */
import type { Draft } from 'immer';
import { z } from '../base/zod';
import type { Design } from '../model/document';
import type { Phrase, Naming } from './phrase';

export interface CommandFacts<C> {
  /** Does it; throws `Missing` where it names what is not there. */
  apply(draft: Draft<Design>, command: C): void;
  say(naming: Naming, command: C): Phrase;
  /** Takes in what it adds, for commands that follow. */
  learn?(naming: Naming, command: C): void;
}

type Schema<K extends string, S extends z.core.$ZodLooseShape> = z.ZodObject<
  { do: z.ZodLiteral<K> } & S,
  z.core.$strict
>;

/** A kind of command. */
export interface CommandKind<
  K extends string = string,
  S extends z.core.$ZodLooseShape = z.core.$ZodLooseShape,
> extends CommandFacts<z.output<Schema<K, S>>> {
  readonly schema: Schema<K, S>;
}

/** Puts a kind of command together. */
export function command<const K extends string, S extends z.core.$ZodLooseShape>(
  kind: K,
  shape: S,
  about: CommandFacts<z.output<Schema<K, S>>>,
): CommandKind<K, S>;
export function command(kind: string, shape: z.core.$ZodLooseShape, about: object): object {
  return { schema: z.strictObject({ do: z.literal(kind), ...shape }), ...about };
}
