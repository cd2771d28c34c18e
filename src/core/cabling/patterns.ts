/** Several names in one word: `dome-[1-4]`, `rack-[a,c]`, `[01-12]`; and ranges of ports, `1-4`. */
import { fail, ok, type Result } from '../base/result';

/** Most names that one word may stand for. */
export const MOST_NAMES = 1000;

/** The names that a word stands for; a word without brackets is itself. The error is a sentence. */
export function expandName(word: string): Result<string[], string> {
  const match = /^([^[]*)\[([^\]]*)\](.*)$/s.exec(word);
  if (!match) return ok([word]);
  const [, before = '', inside = '', after = ''] = match;
  const rest = expandName(after);
  if (!rest.ok) return rest;
  const names: string[] = [];
  for (const part of inside.split(',')) {
    const found = expandPart(part.trim());
    if (!found.ok) return found;
    for (const middle of found.value) for (const end of rest.value) names.push(before + middle + end);
    if (names.length > MOST_NAMES) return fail(`this stands for more than ${MOST_NAMES} names`);
  }
  return ok(names);
}

function expandPart(part: string): Result<string[], string> {
  if (part === '') return fail('an empty place in the brackets; write [1-4], [a-d] or [1,3]');
  const numbers = /^(\d+)-(\d+)$/.exec(part);
  if (numbers) return rangeOf(numbers[1]!, numbers[2]!);
  const letters = /^([a-z])-([a-z])$|^([A-Z])-([A-Z])$/.exec(part);
  if (!letters) return ok([part]);
  const [first, last] = [letters[1] ?? letters[3]!, letters[2] ?? letters[4]!].map((letter) =>
    letter.charCodeAt(0),
  ) as [number, number];
  if (last < first) return fail(`${part} runs backwards`);
  return ok(Array.from({ length: last - first + 1 }, (_, i) => String.fromCharCode(first + i)));
}

/** `01` to `12`, keeping leading noughts. */
function rangeOf(first: string, last: string): Result<string[], string> {
  const [from, to] = [Number(first), Number(last)];
  if (to < from) return fail(`${first}-${last} runs backwards (${last}-${first}?)`);
  if (to - from >= MOST_NAMES) return fail(`${first}-${last} stands for more than ${MOST_NAMES}`);
  const width = first.startsWith('0') ? first.length : 0;
  return ok(Array.from({ length: to - from + 1 }, (_, i) => String(from + i).padStart(width, '0')));
}

/** The port labels that a word stands for: `1-4` is four of them. */
export function expandPorts(word: string): Result<string[], string> {
  const range = /^(\d+)-(\d+)$/.exec(word);
  return range ? rangeOf(range[1]!, range[2]!) : expandName(word);
}
