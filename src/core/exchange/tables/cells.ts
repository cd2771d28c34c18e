/** What stands in a cell of a table, and what it means for a field of a design. */
import equal from 'fast-deep-equal';
import { fail, ok, type Result } from '../../base/result';
import { carriageSchema, carriageText, type Carriage } from '../../model/document';
import type { Node } from '../../model/field';
import type { Names } from '../../model/names';
import { problemsOf } from '../../model/problem';

/** Null where nothing stands there. */
export type Cell = string | number | boolean | null;

/** How cells say yes and no: as people read the field where it has words of its own, `up` and `down`. */
const wordFor = (value: boolean, node: Node): string =>
  (node.kind === 'leaf' && node.facts?.text?.(value, NO_NAMES)) || (value ? 'yes' : 'no');
/** Words for yes and no name nothing of a design. */
const NO_NAMES = {} as Names;

/** A value as a cell has it; lists of words with commas between. */
export function cellOf(value: unknown, node: Node): Cell {
  if (value === undefined || value === null) return null;
  if (node.kind === 'union') return carriageText(value as Carriage);
  if (Array.isArray(value)) return value.join(', ');
  if (typeof value === 'boolean') return wordFor(value, node);
  return typeof value === 'number' ? value : String(value as string);
}

/** What a cell means for a field; undefined where it is empty and the field may be absent. The error says what is allowed. */
export function valueOf(cell: Cell, node: Node): Result<unknown, string> {
  const text = cell === null ? '' : String(cell).trim();
  if (text === '' && (node.optional || node.standard !== undefined))
    return ok(node.optional ? undefined : node.standard);
  if (node.kind === 'union') return carriageOf(text);
  if (isYesNo(node)) return yesOrNo(text, node);
  // A field takes one of these: the first that its schema does not refuse is meant.
  const meant: unknown[] = [
    text,
    ...(/^-?\d+(\.\d+)?$/.test(text) ? [Number(text)] : []),
    text
      .split(',')
      .map((word) => word.trim())
      .filter((word) => word !== ''),
  ];
  for (const value of meant) {
    const read = node.schema.safeParse(value);
    if (read.success) return ok(read.data);
  }
  const tried = meant.find((value) => typeof value === 'number') ?? text;
  const refused = node.schema.safeParse(tried);
  const [problem] = refused.success ? [] : problemsOf(node.schema, tried, refused.error);
  return fail(problem?.allowed ?? 'another value');
}

function yesOrNo(text: string, node: Node): Result<unknown, string> {
  const said = text.toLowerCase();
  for (const value of [true, false])
    if ([wordFor(value, node).toLowerCase(), value ? 'yes' : 'no', String(value)].includes(said)) return ok(value);
  return fail(`${wordFor(true, node)} or ${wordFor(false, node)}`);
}

const isYesNo = ({ schema }: Node): boolean => schema.safeParse(true).success && schema.safeParse(false).success;

/** `trunk 1-4094, native 1`, `access 15`. */
function carriageOf(text: string): Result<unknown, string> {
  const trunk = /^trunk\s+(.*?),?\s+native\s+(\d+)$/i.exec(text);
  const access = /^access\s+(\d+)$/i.exec(text);
  const value = trunk
    ? { mode: 'trunk', allowed: trunk[1] === 'no VLAN' ? '' : trunk[1], native: Number(trunk[2]) }
    : access && { mode: 'access', vlan: Number(access[1]) };
  const read = value && carriageSchema.safeParse(value);
  return read?.success ? ok(read.data) : fail('trunk 1-4094, native 1, or access 15');
}

/** Whether a cell says what is there already. */
export const says = (cell: Cell, value: unknown, node: Node): boolean => {
  const [now, before] = [valueOf(cell, node), cellOf(value, node)];
  if (now.ok && equal(now.value, value)) return true;
  return String(cell ?? '').trim() === String(before ?? '').trim();
};
