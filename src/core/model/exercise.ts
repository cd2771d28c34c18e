/** An exercise: a design whose intents do not hold yet, and what is asked of whoever takes it. */
import { z } from '../base/zod';
import { text } from './common';
import { field } from './field';

export const exerciseSchema = z.strictObject({
  task: field(text(4000), { label: 'task', reads: 'nothing' }),
  /** The revision that it begins with. */
  begins: field(z.number().int().min(0), { label: 'first revision', reads: 'nothing' }),
});
export type Exercise = z.output<typeof exerciseSchema>;
