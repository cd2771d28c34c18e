/** What actions that set something for one tree, or all, have in common. */
import { z } from '../../base/zod';
import { treesName, type TreeId } from '../ids';
import { among, type ActionFault } from './kind';

/** Absent: for all trees; one that has its own setting keeps that, as a switch does. */
export const tree = z
  .string()
  .transform((id) => id as TreeId)
  .optional();

export const treeFaults = (found: TreeId | undefined, trees: () => readonly TreeId[]): ActionFault[] =>
  found === undefined || trees().includes(found)
    ? []
    : [{ field: 'tree', found, allowed: `a tree: ${among(trees())}` }];

export const inTree = (found: TreeId | undefined): string => (found === undefined ? '' : ` in ${treesName([found])}`);

/** What stands first against it. */
export const firstFault = (...faults: readonly ActionFault[][]): ActionFault[] =>
  faults.find((each) => each.length > 0) ?? [];
