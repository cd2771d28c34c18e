/** An exercise: a design whose intents do not hold yet, and what is asked of whoever takes it. */
import { z } from '../base/zod';
import { text, treeId } from './common';
import { field } from './field';
import { treeName, type TreeId } from './ids';

export const exerciseSchema = z.strictObject({
  task: field(text(4000), { label: 'task', reads: 'nothing' }),
  /** The revision that it begins with. */
  begins: field(z.number().int().min(0), { label: 'first revision', reads: 'nothing' }),
  /** The tree whose worksheet is to be filled in, too. */
  worksheet: field(treeId.transform((value) => value as TreeId).optional(), {
    label: 'worksheet for',
    reads: 'nothing',
    absent: 'none',
    text: (tree) => (tree === undefined ? 'none' : treeName(tree)),
  }),
});
export type Exercise = z.output<typeof exerciseSchema>;
