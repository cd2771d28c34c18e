/** A file of ours as JSON, checked; what is wrong with it in one sentence. */
import { parseJson } from '../base/json';
import { fail, ok, type Result } from '../base/result';
import type { z } from '../base/zod';
import { foundText } from '../model/problem';

/** `kind`: what it should be, such as `result of a lab`. */
export function readJsonFile<S extends z.ZodType>(schema: S, file: string, kind: string): Result<z.output<S>, string> {
  const json = parseJson(file);
  if (!json.ok) return fail(`This is no ${kind}: found ${json.error}.`);
  const read = schema.safeParse(json.value);
  if (read.success) return ok(read.data);
  const [issue] = read.error.issues;
  const path = issue!.path.map(String).join('.');
  const found = issue!.path.reduce<unknown>(
    (at, key) => (typeof at === 'object' && at !== null ? (at as Record<PropertyKey, unknown>)[key] : undefined),
    json.value,
  );
  return fail(`This is no ${kind}: ${path === '' ? 'found' : `${path}: found`} ${foundText(found)}.`);
}
