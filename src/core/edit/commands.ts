/** Edits as data: every change to a design is one of these commands, checked by zod where it enters. */
import { byName, schemaOfAny } from '../base/kinds';
import type { z } from '../base/zod';
import type { CommandFacts } from './command';
import { bundleCommands } from './groups/bundles';
import { designCommands } from './groups/design';
import { groupCommands } from './groups/groups';
import { hostCommands } from './groups/hosts';
import { intentCommands } from './groups/intents';
import { keptCommands } from './groups/kept';
import { linkCommands } from './groups/links';
import { placeCommands } from './groups/places';
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
  ...groupCommands,
  ...intentCommands,
  ...keptCommands,
  ...placeCommands,
] as const;

export const commandSchema = schemaOfAny(KINDS);

/** One edit. */
export type Command = z.output<typeof commandSchema>;

const kinds = byName<CommandFacts<Command>>(KINDS);

/** What a command is; undefined for one that there is not. */
export const kindOf = (command: Command): CommandFacts<Command> | undefined => kinds.get(command.do);
