/** Edits are pure: a design and a command give a new design and the patches that lead there and back. */
import equal from 'fast-deep-equal';
import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer';
import { fail, ok, type Result } from '../base/result';
import type { Design } from '../model/document';
import { MAX_COMMANDS } from '../model/limits';
import { foundText, type DesignProblem } from '../model/problem';
import { changeProblems } from '../model/read';
import { kindOf, type Command } from './commands';
import { Missing } from './draft';

enablePatches();

/** A change of a document: immer patches, JSON by nature. */
export type { Patch };

export interface Edited {
  readonly design: Design;
  readonly patches: Patch[];
  readonly inverse: Patch[];
}

/**
 * Applies a command. Fails, changing nothing, where the command names something that is not there or the result would
 * not be a legal document. A command that changes nothing gives no patches.
 */
export const edit = (design: Design, command: Command): Result<Edited, DesignProblem> => editAll(design, [command]);

/** Applies several commands as one step; all of them or none. */
export function editAll(design: Design, commands: readonly Command[]): Result<Edited, DesignProblem> {
  if (commands.length > MAX_COMMANDS)
    return fail({
      path: 'commands',
      found: `${commands.length} changes`,
      allowed: `at most ${MAX_COMMANDS} in one step`,
    });
  const kinds = commands.map(kindOf);
  const unknown = kinds.indexOf(undefined);
  if (unknown >= 0)
    return fail({
      path: `commands[${unknown}].do`,
      found: foundText((commands[unknown] as { readonly do?: unknown }).do),
      allowed: 'a change that this version knows',
    });
  try {
    const [next, patches, inverse] = produceWithPatches(design, (draft) => {
      commands.forEach((command, i) => kinds[i]!.apply(draft, command));
    });
    const [broken] = changeProblems(design, next);
    return broken ? fail(broken) : ok({ design: next, patches, inverse });
  } catch (error) {
    if (error instanceof Missing)
      return fail({ path: error.what, found: 'nothing', allowed: 'something this design has' });
    throw error;
  }
}

/** The change that makes one design another, as an edit: whole parts of the document are replaced where they differ. */
export function replaceDesign(design: Design, by: Design): Edited {
  const keys = (Object.keys(by) as (keyof Design)[]).filter((key) => !equal(design[key], by[key]));
  const patch = (value: Design): Patch[] => keys.map((key) => ({ op: 'replace', path: [key], value: value[key] }));
  return { design: keys.length === 0 ? design : by, patches: patch(by), inverse: patch(design) };
}

/** Follows patches that `edit` gave, in either direction. */
export const applyChange = (design: Design, patches: readonly Patch[]): Design =>
  applyPatches(design, patches as Patch[]);
