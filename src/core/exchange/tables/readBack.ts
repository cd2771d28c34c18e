/** Tables read back: what in them is otherwise than in the design, as one change, and what is wrong at its cell. */
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import { problemText } from '../../model/problem';
import type { Put } from '../../model/put';
import { says, valueOf, type Cell } from './cells';
import type { Column, DesignTable } from './table';
import { partAt, tablesOf } from './tables';
import { valueAt } from '../../model/derive/touched';

/** Cells as they were read, the heading first; `name`: of the file or the sheet. */
export interface Sheet {
  readonly name: string;
  readonly rows: readonly (readonly Cell[])[];
}

export interface CellFault {
  readonly sheet: string;
  /** From 1, the heading included; as spreadsheets count. */
  readonly line: number;
  /** The heading of its column; null where the whole line is meant. */
  readonly column: string | null;
  readonly found: string;
  readonly allowed: string;
}

export const cellFaultText = ({ sheet, line, column, found, allowed }: CellFault): string =>
  `${sheet}, line ${line}${column === null ? '' : `, ${column}`}: found ${found}; allowed: ${allowed}`;

export interface ReadBack {
  /** What is to be done, where something differs and nothing is wrong. */
  readonly commands: readonly Command[];
  /** The design once it is done; the design itself where nothing differs. */
  readonly design: Design;
  readonly faults: readonly CellFault[];
  /** Sentences on what was passed over: columns that nothing is read from. */
  readonly passed: readonly string[];
}

/** Most faults that are told. */
const MOST_FAULTS = 200;

/** Reads tables back into the design whose items they name. */
export function readTables(design: Design, sheets: readonly Sheet[]): ReadBack {
  const tables = tablesOf(design);
  const puts: Put[] = [];
  const faults: CellFault[] = [];
  const passed: string[] = [];
  for (const sheet of sheets) {
    const table = tableFor(tables, sheet);
    if (!table) {
      const found = sheet.rows[0]?.map((cell) => String(cell ?? '')).join(', ');
      faults.push({
        sheet: sheet.name,
        line: 1,
        column: null,
        found: found ? `the heading ${found.slice(0, 80)}` : 'nothing',
        allowed: `the heading of a table that was saved here: ${tables.map(({ name }) => name).join(', ')}`,
      });
      continue;
    }
    const read = readSheet(design, table, sheet);
    puts.push(...read.puts);
    faults.push(...read.faults);
    passed.push(...read.passed);
  }
  const told = faults.slice(0, MOST_FAULTS);
  if (faults.length > 0 || puts.length === 0) return { commands: [], design, faults: told, passed };
  const commands: Command[] = [{ do: 'put', puts: [...merged(design, puts)] }];
  const edited = editAll(design, commands);
  if (edited.ok) return { commands, design: edited.value.design, faults: [], passed };
  return {
    commands: [],
    design,
    passed,
    faults: [
      {
        sheet: sheets[0]!.name,
        line: 1,
        column: null,
        found: problemText(edited.error),
        allowed: 'tables that fit together',
      },
    ],
  };
}

const wordOf = (cell: Cell | undefined): string => String(cell ?? '').trim();
const same = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** The table that a sheet is: by its name, else by what its first columns and most others are called. */
function tableFor(tables: readonly DesignTable[], { name, rows: [heading = []] }: Sheet): DesignTable | null {
  const heads = heading.map(wordOf);
  const fits = (table: DesignTable): boolean =>
    table.columns.slice(0, table.keys).every(({ head }) => heads.some((each) => same(each, head)));
  const stem = name.replace(/\.[a-z]+$/i, '');
  const called = tables.find((table) => same(table.name, stem) || same(table.key, stem));
  if (called) return fits(called) ? called : null;
  const shared = (table: DesignTable): number =>
    table.columns.filter(({ head }) => heads.some((each) => same(each, head))).length;
  const [best] = tables.filter(fits).sort((a, b) => b.keys - a.keys || shared(b) - shared(a));
  return best && shared(best) > best.keys ? best : null;
}

function readSheet(
  design: Design,
  table: DesignTable,
  { name, rows: [heading = [], ...lines] }: Sheet,
): { readonly puts: Put[]; readonly faults: CellFault[]; readonly passed: string[] } {
  if (table.columns.every(({ path }) => path === null))
    return { puts: [], faults: [], passed: [`${name}: nothing is read back from this table, which is worked out.`] };
  const heads = heading.map(wordOf);
  const placeOf = (column: Column): number => heads.findIndex((head) => same(head, column.head));
  const keys = table.columns.slice(0, table.keys).map(placeOf);
  const own = table.columns.slice(table.keys).map((column) => ({ column, at: placeOf(column) }));
  const known = new Map(table.rows.map((row) => [row.cells.slice(0, table.keys).join('\n'), row]));
  const unread = heads.filter((head) => head !== '' && !table.columns.some((column) => same(column.head, head)));
  const passed = unread.length === 0 ? [] : [`${name}: nothing is read from ${unread.join(', ')}.`];
  const [puts, faults]: [Put[], CellFault[]] = [[], []];
  const seen = new Set<string>();
  lines.forEach((cells, i) => {
    if (cells.every((cell) => wordOf(cell) === '')) return;
    const line = i + 2;
    const id = keys.map((at) => wordOf(cells[at])).join('\n');
    const row = known.get(id);
    const fault = (column: string | null, found: string, allowed: string): number =>
      faults.push({ sheet: name, line, column, found, allowed });
    const called = id.replace('\n', ' ') || 'nothing';
    if (!row)
      return fault(
        table.columns[0]!.head,
        `“${called}”`,
        `one that the design has: lines are changed by tables, not added`,
      );
    if (seen.has(id)) return fault(table.columns[0]!.head, `“${called}” a second time`, 'each once');
    seen.add(id);
    const item = valueAt(design, row.place);
    for (const { column, at } of own) {
      if (at < 0 || column.path === null || column.node === null) continue;
      const cell = cells[at] ?? null;
      if (says(cell, partAt(item, column.path), column.node)) continue;
      const value = valueOf(cell, column.node);
      if (!value.ok) fault(column.head, wordOf(cell) === '' ? 'nothing' : `“${wordOf(cell)}”`, value.error);
      else
        puts.push({
          place: [...row.place, ...column.path],
          ...(value.value === undefined ? {} : { value: value.value }),
        });
    }
  });
  return { puts, faults, passed };
}

/** Values in groups that are not there yet are put as whole groups. */
function merged(design: Design, puts: readonly Put[]): Iterable<Put> {
  const found = new Map<string, Put>();
  const groups = new Map<string, Record<string, unknown>>();
  for (const put of puts) {
    const parent = put.place.slice(0, -1);
    if (valueAt(design, parent) !== undefined) {
      found.set(put.place.join('\n'), put);
      continue;
    }
    if (put.value === undefined) continue;
    const key = parent.join('\n');
    const group = groups.get(key) ?? {};
    group[put.place.at(-1)!] = put.value;
    groups.set(key, group);
    found.set(key, { place: parent, value: group });
  }
  return found.values();
}
