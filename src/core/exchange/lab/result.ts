/** What a lab has found, as the file that it leaves and the workbench reads. */
import { z } from '../../base/zod';
import { fail, ok, type Result } from '../../base/result';
import { parseJson } from '../../base/json';
import { foundText } from '../../model/problem';
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
export function readLabResult(file: string): Result<LabResult, string> {
  const json = parseJson(file);
  if (!json.ok) return fail(`This is no result of a lab: found ${json.error}.`);
  const read = labResultSchema.safeParse(json.value);
  if (read.success) return ok(read.data);
  const [issue] = read.error.issues;
  const path = issue!.path.map(String).join('.');
  const found = issue!.path.reduce<unknown>(
    (at, key) => (typeof at === 'object' && at !== null ? (at as Record<PropertyKey, unknown>)[key] : undefined),
    json.value,
  );
  return fail(`This is no result of a lab: ${path === '' ? 'found' : `${path}: found`} ${foundText(found)}.`);
}
