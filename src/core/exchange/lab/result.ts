/** What a lab has found, as the file that it leaves and the workbench reads. */
import { z } from '../../base/zod';
import type { Result } from '../../base/result';
import { readJsonFile } from '../jsonFile';
import { LAB_SYSTEMS } from './labDesign';

const text = z.string().max(4000);
const differenceSchema = z.object({
  switch: text,
  interface: text.nullable(),
  what: text,
  there: text,
  ours: text,
});
const roundSchema = z.object({
  /** What was done before: a sentence. */
  after: text,
  /** Seconds until nothing differed any more; or how long was waited, where something still does. */
  seconds: z.number(),
  compared: z.number().int(),
  differences: z.array(differenceSchema),
});
export const labResultSchema = z.object({
  format: z.literal('knot-path-lab'),
  version: z.literal(1),
  name: text,
  with: z.enum(LAB_SYSTEMS),
  /** Which tree was built. */
  tree: text.nullable(),
  /** When it began, as ISO 8601. */
  at: text,
  leftOut: z.array(text),
  /** Switches that stayed in the simulator. */
  simulated: z.array(text).optional(),
  rounds: z.array(roundSchema),
});
export type LabResult = z.output<typeof labResultSchema>;
export type LabRound = z.output<typeof roundSchema>;

/** Reads a result's file; the error is a sentence. */
export const readLabResult = (file: string): Result<LabResult, string> =>
  readJsonFile(labResultSchema, file, 'result of a lab');
