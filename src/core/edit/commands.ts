/** Edits as data: every change to a design is one of these commands, checked by zod where it enters. */
import { z } from '../base/zod';
import type { CommandKind } from './command';
import { bundleCommands } from './groups/bundles';
import { designCommands } from './groups/design';
import { hostCommands } from './groups/hosts';
import { keptCommands } from './groups/kept';
import { linkCommands } from './groups/links';
import { portCommands } from './groups/ports';
import { regionCommands } from './groups/regions';
import { switchCommands } from './groups/switches';
import { vlanCommands } from './groups/vlans';

const KINDS = [
  ...designCommands,
  ...switchCommands,
  ...portCommands,
  ...linkCommands,
  ...bundleCommands,
  ...hostCommands,
  ...vlanCommands,
  ...regionCommands,
  ...keptCommands,
] as const;

type SchemasOf<T extends readonly { readonly schema: unknown }[]> = { [I in keyof T]: T[I]['schema'] };

const schemas = KINDS.map((kind) => kind.schema) as unknown as SchemasOf<typeof KINDS>;
export const commandSchema = z.discriminatedUnion('do', schemas);

/** One edit. */
export type Command = z.output<typeof commandSchema>;

const byName = new Map<string, CommandKind>(
  KINDS.map((kind) => [kind.schema.shape.do.value, kind as unknown as CommandKind]),
);

/** What a command is; undefined for one that there is not. */
export const kindOf = (command: Command): CommandKind | undefined => byName.get(command.do);
