/**
 * What is wrong with a document, in terms a person can act on: the JSON path, what stands there, what may stand there.
 */
import type { z } from '../base/zod';
import { insideOf, nodeOf, type Node } from './field';

export interface DesignProblem {
  /** JSON path, such as `switches[0].ports[2].cost`; `document` for the whole. */
  readonly path: string;
  readonly found: string;
  readonly allowed: string;
}

/** One line: path, what was found, what is allowed. */
export const problemText = (problem: DesignProblem): string =>
  `${problem.path}: found ${problem.found}; allowed: ${problem.allowed}`;

/** `['switches', 0, 'trees', 'vlan:15']` as `switches[0].trees["vlan:15"]`. */
export function jsonPath(path: readonly PropertyKey[]): string {
  let out = '';
  for (const part of path) {
    if (typeof part === 'number') out += `[${part}]`;
    else if (/^[A-Za-z_$][\w$]*$/.test(String(part))) out += out === '' ? String(part) : `.${String(part)}`;
    else out += `[${JSON.stringify(part)}]`;
  }
  return out === '' ? 'document' : out;
}

/** A value as it stands in JSON, cut to a length that fits a message. */
export function foundText(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (Array.isArray(value)) return `a list of ${value.length}`;
  if (typeof value === 'object' && value !== null) return 'an object';
  const text = String(JSON.stringify(value));
  return text.length > 60 ? `${text.slice(0, 59)}…` : text;
}

/** Turns zod's issues on `input`, which stands at `base` in the document, into problems, at most `most` of them. */
export function problemsOf(
  schema: z.ZodType,
  input: unknown,
  error: z.ZodError,
  most = 20,
  base: readonly PropertyKey[] = [],
): DesignProblem[] {
  return error.issues
    .slice(0, most)
    .flatMap((issue) => problemsOfIssue(schema, input, issue, most, base))
    .slice(0, most);
}

function problemsOfIssue(
  schema: z.ZodType,
  input: unknown,
  issue: z.core.$ZodIssue,
  most: number,
  base: readonly PropertyKey[],
): DesignProblem[] {
  const pathText = (path: readonly PropertyKey[]): string => jsonPath([...base, ...path]);
  if (issue.code === 'unrecognized_keys') {
    const known = knownKeys(schema, issue.path, input);
    return issue.keys.slice(0, most).map((key) => ({
      path: pathText([...issue.path, key]),
      found: 'a key that this version does not know',
      allowed: known.length > 0 ? known.join(', ') : 'no such key',
    }));
  }
  if (issue.code === 'invalid_key') {
    const [inner] = issue.issues;
    return [
      { path: pathText(issue.path), found: foundText(issue.path.at(-1)), allowed: inner?.message ?? issue.message },
    ];
  }
  return [{ path: pathText(issue.path), found: foundText(valueAt(input, issue.path)), allowed: allowedBy(issue) }];
}

function allowedBy(issue: z.core.$ZodIssue): string {
  if (issue.code === 'invalid_type') {
    const expected = issue.expected === 'array' ? 'list' : issue.expected;
    return `${/^[aeiou]/.test(expected) ? 'an' : 'a'} ${expected}`;
  }
  if (issue.code === 'invalid_value') return issue.values.map((value) => JSON.stringify(value)).join(', ');
  if (issue.code === 'invalid_union') return unionText(issue);
  if (issue.code === 'too_small') return `at least ${String(issue.minimum)}`;
  if (issue.code === 'too_big') return `at most ${String(issue.maximum)}`;
  return issue.message; // what our own rules say
}

/** What tells the kinds of a thing apart, such as `"trunk"` or `"access"`; else what each of them allows. */
function unionText(issue: z.core.$ZodIssueInvalidUnion): string {
  if ('options' in issue && Array.isArray(issue.options))
    return issue.options.map((option) => JSON.stringify(option)).join(', ');
  const each = issue.errors.flatMap(([first]) => (first ? [allowedBy(first)] : []));
  return each.length > 0 ? [...new Set(each)].join(', or ') : issue.message;
}

function valueAt(input: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>((value, key) => (value as Record<PropertyKey, unknown> | undefined)?.[key], input);
}

/** The keys that the group at `path` knows, going the way the document goes. */
function knownKeys(schema: z.ZodType, path: readonly PropertyKey[], input: unknown): string[] {
  let here: Node | null = nodeOf(schema);
  let value = input;
  const chosen = (node: Node | null): Node | null =>
    node?.kind === 'union'
      ? (node.options.get((value as Record<string, unknown> | undefined)?.[node.discriminator]) ?? null)
      : node;
  for (const key of path) {
    here = insideOf(chosen(here), String(key));
    value = (value as Record<PropertyKey, unknown> | undefined)?.[key];
  }
  const group = chosen(here);
  return group?.kind === 'group' ? [...group.fields.keys()] : [];
}
