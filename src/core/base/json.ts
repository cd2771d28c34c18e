/** JSON from elsewhere: read with a limit on its nesting, since what walks a value by recursion must not run out of stack. */
import { fail, ok, type Result } from './result';

/** How deep lists and objects may be nested; a design needs eleven. */
export const MAX_NESTING = 64;

const tooDeep = `lists and objects nested more than ${MAX_NESTING} deep`;

/** Reads a text as JSON; the error says what was found in its place. */
export function parseJson(text: string): Result<unknown, string> {
  if (nestsTooDeep(text)) return fail(tooDeep);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return fail(`text that is not JSON (${(error as Error).message})`);
  }
  return ok(value);
}

/** Whether brackets outside of strings ever nest too deep; counted without recursion, before anything is built. */
function nestsTooDeep(text: string): boolean {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i += 1) {
    const char = text.charCodeAt(i);
    if (char === 0x22) quoted = !quoted;
    else if (quoted)
      i += char === 0x5c ? 1 : 0; // a backslash takes the next character along
    else if (char === 0x5b || char === 0x7b) {
      depth += 1;
      if (depth > MAX_NESTING) return true;
    } else if (char === 0x5d || char === 0x7d) depth -= 1;
  }
  return false;
}

/** What stands against a value of unknown origin before a schema looks at it: its nesting, and keys that objects cannot hold safely. */
export function valueFault(
  value: unknown,
): { readonly path: readonly PropertyKey[]; readonly found: string; readonly allowed: string } | null {
  type Step = { readonly value: object; readonly depth: number; readonly key: PropertyKey; readonly from: Step | null };
  const pathOf = (step: Step | null): PropertyKey[] => (step?.from ? [...pathOf(step.from), step.key] : []);
  const open: Step[] = typeof value === 'object' && value !== null ? [{ value, depth: 1, key: '', from: null }] : [];
  for (let step = open.pop(); step; step = open.pop()) {
    if (step.depth > MAX_NESTING)
      return { path: pathOf(step).slice(0, 3), found: tooDeep, allowed: `at most ${MAX_NESTING}` };
    for (const [key, part] of Object.entries(step.value)) {
      if (key === '__proto__')
        return {
          path: [...pathOf(step), key],
          found: 'a key that programs take for something else',
          allowed: 'another name',
        };
      if (typeof part === 'object' && part !== null)
        open.push({
          value: part as object,
          depth: step.depth + 1,
          key: Array.isArray(step.value) ? Number(key) : key,
          from: step,
        });
    }
  }
  return null;
}
