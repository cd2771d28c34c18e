/**
 * Templates in the language Liquid, by liquidjs: they see what they are given, read no file, and are stopped where they take too
 * long or too much memory.
 */
import { Liquid, LiquidError, type Template } from 'liquidjs';
import { oncePerText } from '../../base/cache';
import { fail, ok, type Result } from '../../base/result';
import { vlanSet, VlanSet } from '../../model/vlanSet';

/** What is wrong with a template, and where: lines and columns count from 1. */
export interface TemplateFault {
  readonly line: number;
  readonly column: number;
  /** Begins with a small letter, no full stop. */
  readonly says: string;
}

/** Milliseconds for one text, and about how many things it may have in memory. */
const RENDER_LIMIT = 500;
const MEMORY_LIMIT = 5_000_000;
const PARSE_LIMIT = 1_000_000;

const engine = new Liquid({
  // What is named by include, render or layout is looked for here, and so nowhere else.
  templates: {},
  ownPropertyOnly: true,
  strictFilters: true,
  strictVariables: true,
  lenientIf: true,
  parseLimit: PARSE_LIMIT,
  renderLimit: RENDER_LIMIT,
  memoryLimit: MEMORY_LIMIT,
});

/** Numbers of a list, of ports by their numbers, or of a text such as `15,25-29`. */
function numbersOf(value: unknown): number[] {
  if (typeof value === 'string') return vlanNumbers(value);
  const all: readonly unknown[] = Array.isArray(value) ? value : value === null || value === undefined ? [] : [value];
  return all.map((each) => {
    const number = typeof each === 'object' && each !== null && 'number' in each ? each.number : each;
    if (typeof number !== 'number' && typeof number !== 'string') throw new Error('numbers or ports are expected');
    if (!/^\d{1,9}$/.test(String(number))) throw new Error(`numbers or ports are expected, not ${String(number)}`);
    return Number(number);
  });
}

function vlanNumbers(text: string): number[] {
  const set = VlanSet.parse(text);
  if (!set.ok) throw new Error(`a list of numbers such as 15,25-29 is expected, not ${text}`);
  return set.value.ranges().flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
}

/** `15,25-29`: between what, and with what between the ends of a range. */
engine.registerFilter('ranges', (value: unknown, between: unknown = ',', dash: unknown = '-') => {
  const sorted = [...new Set(numbersOf(value))].sort((a, b) => a - b);
  const found: [number, number][] = [];
  for (const number of sorted) {
    const last = found.at(-1);
    if (last && number === last[1] + 1) last[1] = number;
    else found.push([number, number]);
  }
  return found.map(([from, to]) => (from === to ? `${from}` : `${from}${String(dash)}${to}`)).join(String(between));
});
/** Each number of a range by itself, to be walked through. */
engine.registerFilter('numbers', (value: unknown) => numbersOf(value));
/** Whether a number is in a text such as `15,25-29`. */
engine.registerFilter('has_number', (value: unknown, number: unknown) => vlanSet(String(value)).has(Number(number)));
/** A cell of a CSV file (RFC 4180); what a spreadsheet would take for a formula is made plain text. */
engine.registerFilter('csv', (value: unknown) => {
  const cell = value === null || value === undefined ? '' : String(value as string);
  return `"${(/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell).replaceAll('"', '""')}"`;
});
/** A word for a POSIX shell, whatever is in it. */
engine.registerFilter('shell', (value: unknown) => `'${String(value as string).replaceAll("'", String.raw`'\''`)}'`);
/** One line: what would end it becomes a space. */
engine.registerFilter('one_line', (value: unknown) =>
  String(value as string).replaceAll(/[\p{Cc}\u2028\u2029]+/gu, ' '),
);

/** Filters that are ours, beside Liquid's own. */
export const OWN_FILTERS = ['ranges', 'numbers', 'has_number', 'csv', 'shell', 'one_line'] as const;

const parsed = oncePerText((text: string): Result<Template[], TemplateFault> => {
  try {
    return ok(engine.parse(text));
  } catch (error) {
    return fail(faultOf(error));
  }
}, 20);

/** What a template makes of what it is given: `sees` by name. */
export function renderTemplate(text: string, sees: object): Result<string, TemplateFault> {
  const template = parsed(text);
  if (!template.ok) return template;
  try {
    return ok(String(engine.renderSync(template.value, sees)));
  } catch (error) {
    return fail(faultOf(error));
  }
}

/** Liquid tells the place in a token, and says the sentence with the place and the file behind it. */
function faultOf(error: unknown): TemplateFault {
  if (!(error instanceof Error)) throw error;
  const place = LiquidError.is(error) ? error.token : null;
  const [line = 1, column = 1] = place?.getPosition() ?? [];
  const says = error.message
    .split('\n')[0]!
    .replace(/, (?:file:.*?, )?line:\d+(?:, col:\d+)?$/, '')
    .replace(/^ENOENT: .*$/, 'other files are not read from here');
  return { line, column, says };
}
