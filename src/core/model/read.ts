/** Reading a design from text or from a value of unknown shape: all of it or nothing, with every problem named. */
import { limitProblems } from './derive/limits';
import { parseJson, valueFault } from '../base/json';
import { fail, ok, type Result } from '../base/result';
import type { z } from '../base/zod';
import { MAX_PROBLEMS } from './limits';
import { foundText, jsonPath, problemsOf, type DesignProblem } from './problem';
import { referenceProblems } from './references';
import { FORMAT, designSchema, type Design } from './document';

/** Checks a value of unknown shape and fills in every default. The first hundred problems are named. */
export function readDesign(input: unknown): Result<Design, DesignProblem[]> {
  const foreign = foreignProblem(input);
  if (foreign) return fail([foreign]);
  const document = input as Record<string, unknown>;
  const tooMany = limitProblems(document);
  if (tooMany.length > 0) return fail(tooMany);
  const odd = valueFault(input);
  if (odd) return fail([{ ...odd, path: jsonPath(odd.path) }]);
  const parsed = readParts(document, null);
  if (!parsed.ok) return parsed;
  const broken = referenceProblems(parsed.value);
  return broken.length > 0 ? fail(broken) : parsed;
}

/** Reads a `.knot.json` document. */
export function readDesignText(text: string): Result<Design, DesignProblem[]> {
  const allowed = 'a JSON document';
  if (text.trim() === '') return fail([{ path: 'document', found: 'an empty file', allowed }]);
  const json = parseJson(text.replace(/^\uFEFF/, ''));
  return json.ok ? readDesign(json.value) : fail([{ path: 'document', found: json.error, allowed }]);
}

/**
 * What stands against a design that an edit made of a legal one: the rule is the document's schema itself, asked only of
 * parts that are not the same value as before.
 */
export function changeProblems(before: Design, after: Design): DesignProblem[] {
  if (after === before) return [];
  const tooMany = limitProblems(after);
  if (tooMany.length > 0) return tooMany;
  const parsed = readParts(after, before);
  return parsed.ok ? referenceProblems(after) : parsed.error;
}

/**
 * Checks a document list item by list item, and stops at the hundredth problem: what is wrong with a hundred thousand
 * items alike is told and held in memory no hundred thousand times. Items of `known`, a legal design, are taken as they are.
 */
function readParts(document: Readonly<Record<string, unknown>>, known: Design | null): Result<Design, DesignProblem[]> {
  const problems: DesignProblem[] = [];
  const lists: Record<string, unknown[]> = {};
  const shell: Record<string, unknown> = { ...document };
  for (const [key] of LISTS) {
    const value = document[key];
    if (!Array.isArray(value)) continue;
    shell[key] = [];
    lists[key] = value;
  }
  const whole = read(designSchema, shell, []) as Design;
  for (const [key, item] of LISTS) {
    const list = lists[key];
    if (!list || list === known?.[key]) continue;
    const before = new Set<unknown>(known ? known[key] : []);
    lists[key] = list.map((each, i) =>
      before.has(each) || problems.length >= MAX_PROBLEMS ? each : read(item, each, [key, i]),
    );
  }
  return problems.length > 0 ? fail(problems.slice(0, MAX_PROBLEMS)) : ok({ ...whole, ...lists });

  function read(schema: z.ZodType, value: unknown, path: readonly PropertyKey[]): unknown {
    const parsed = schema.safeParse(value);
    if (!parsed.success) problems.push(...problemsOf(schema, value, parsed.error, MAX_PROBLEMS, path));
    return parsed.data;
  }
}

/** A part of a document with every default filled in; what is not legal stays as it is, and so does what stands in `known`. */
export function readPart(key: keyof Design, value: unknown, known: unknown): unknown {
  const read = (schema: z.ZodType, part: unknown): unknown => {
    const parsed = schema.safeParse(part);
    return parsed.success ? parsed.data : part;
  };
  const item = LISTS.find(([list]) => list === key)?.[1];
  if (!item || !Array.isArray(value)) return read(designSchema.shape[key], value);
  const before = new Set<unknown>(Array.isArray(known) ? known : []);
  return value.map((each) => (before.has(each) ? each : read(item, each)));
}

type ListKey = { [K in keyof Design]-?: Design[K] extends readonly unknown[] ? K : never }[keyof Design] & keyof Design;

/** The document's lists with what an item of each is. */
const LISTS = Object.entries(designSchema.shape).flatMap(([key, schema]) => {
  const item = itemOf(schema);
  return item ? [[key as ListKey, item] as const] : [];
});

function itemOf(schema: z.ZodType): z.ZodType | null {
  const { innerType, element } = schema.def as { innerType?: z.ZodType; element?: z.ZodType };
  return innerType ? itemOf(innerType) : (element ?? null);
}

/** A file of another kind or of a later version gets one message, not one for every key. */
function foreignProblem(input: unknown): DesignProblem | null {
  const allowed = `a document with "format": "${FORMAT.name}" and "version": ${FORMAT.version}`;
  if (typeof input !== 'object' || input === null || Array.isArray(input)) {
    return {
      path: 'document',
      found: Array.isArray(input) ? 'a list' : `${JSON.stringify(input)}`.slice(0, 60),
      allowed,
    };
  }
  const { format, version } = input as { format?: unknown; version?: unknown };
  if (format !== FORMAT.name) return { path: 'format', found: foundText(format), allowed: JSON.stringify(FORMAT.name) };
  if (typeof version === 'number' && version > FORMAT.version) {
    return { path: 'version', found: `${version}, which a later Knot Path wrote`, allowed: `${FORMAT.version}` };
  }
  return null;
}
