/** Reading a design from text or from a value of unknown shape: all of it or nothing, with every problem named. */
import { fail, ok, type Result } from '../result';
import { problemsOf, type DesignProblem } from './problem';
import { referenceProblems } from './references';
import { FORMAT, designSchema, type Design } from './schema';

/** Checks a value of unknown shape and fills in every default. */
export function readDesign(input: unknown): Result<Design, DesignProblem[]> {
  const foreign = foreignProblem(input);
  if (foreign) return fail([foreign]);
  const parsed = designSchema.safeParse(input);
  if (!parsed.success) return fail(problemsOf(designSchema, input, parsed.error));
  const broken = referenceProblems(parsed.data);
  return broken.length > 0 ? fail(broken) : ok(parsed.data);
}

/** Reads a `.knot.json` document. */
export function readDesignText(text: string): Result<Design, DesignProblem[]> {
  const json = parseJson(text.replace(/^\uFEFF/, ''));
  return json.ok ? readDesign(json.value) : json;
}

function parseJson(text: string): Result<unknown, DesignProblem[]> {
  if (text.trim() === '') return fail([{ path: 'document', found: 'an empty file', allowed: 'a JSON document' }]);
  try {
    return ok(JSON.parse(text));
  } catch (error) {
    return fail([{ path: 'document', found: `text that is not JSON (${(error as Error).message})`, allowed: 'a JSON document' }]);
  }
}

/** A file of another kind or of a later version gets one message, not one for every key. */
function foreignProblem(input: unknown): DesignProblem | null {
  const allowed = `a document with "format": "${FORMAT.name}" and "version": ${FORMAT.version}`;
  if (typeof input !== 'object' || input === null || Array.isArray(input)) {
    return { path: 'document', found: Array.isArray(input) ? 'a list' : `${JSON.stringify(input)}`.slice(0, 60), allowed };
  }
  const { format, version } = input as { format?: unknown; version?: unknown };
  if (format !== FORMAT.name) return { path: 'format', found: JSON.stringify(format)?.slice(0, 60) ?? 'nothing', allowed: JSON.stringify(FORMAT.name) };
  if (typeof version === 'number' && version > FORMAT.version) {
    return { path: 'version', found: `${version}, which a later Knot Path wrote`, allowed: `${FORMAT.version}` };
  }
  return null;
}
