/** Tables of management information (SMIv2, RFC 2578): written once, and by that both written and read. */

/** Kinds of values; `text` and `octets` are both OCTET STRING, `bits` is BITS. */
export type Syntax = 'integer' | 'counter' | 'counter64' | 'gauge' | 'ticks' | 'text' | 'octets' | 'oid';
export type SmiType = 'integer' | 'counter' | 'counter64' | 'gauge' | 'ticks' | 'octets' | 'oid';
export type SmiValue = number | string | Uint8Array;

export interface Varbind {
  /** `1.3.6.1.2.1.1.5.0`. */
  readonly oid: string;
  readonly type: SmiType;
  readonly value: SmiValue;
}

type Js<S extends Syntax> = S extends 'text' | 'oid' ? string : S extends 'octets' ? Uint8Array : number;
type Columns = Readonly<Record<string, readonly [number: number, syntax: Syntax]>>;

/** A table's entry with its columns; scalars of a group are one row with the index 0. */
export interface MibTable<C extends Columns = Columns> {
  readonly oid: string;
  /** How many sub-identifiers an index has; null where that differs from row to row. */
  readonly index: number | null;
  readonly columns: C;
}
export type Row<C extends Columns> = { readonly [K in keyof C]?: Js<C[K][1]> | undefined };
/** A row with where it stands. */
export type Placed<C extends Columns> = Row<C> & { readonly at: readonly number[] };

export const mibTable = <const C extends Columns>(oid: string, index: number | null, columns: C): MibTable<C> => ({
  oid,
  index,
  columns,
});
export const mibScalars = <const C extends Columns>(oid: string, columns: C): MibTable<C> => mibTable(oid, 1, columns);

/** Rows as values with names, in no order. */
export function written<C extends Columns>({ oid, columns }: MibTable<C>, rows: readonly Placed<C>[]): Varbind[] {
  return rows.flatMap((row) =>
    Object.entries(columns).flatMap(([name, [number, syntax]]): Varbind[] => {
      const value = row[name] as SmiValue | undefined;
      if (value === undefined) return [];
      return [{ oid: `${oid}.${number}.${row.at.join('.')}`, ...encoded(syntax, value) }];
    }),
  );
}

const encoded = (syntax: Syntax, value: SmiValue): Omit<Varbind, 'oid'> =>
  syntax === 'text' ? { type: 'octets', value: new TextEncoder().encode(value as string) } : { type: syntax, value };

/** Compares names as agents put them in order (RFC 3416, lexicographically). */
export const compareOids = (a: string, b: string): number =>
  compareNames(a.split('.').map(Number), b.split('.').map(Number));

/** The same of names that are taken apart. */
export function compareNames(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length && i < b.length; i += 1) {
    const by = a[i]! - b[i]!;
    if (by !== 0) return by;
  }
  return a.length - b.length;
}

/** What an agent has told, to be read table by table. */
export class Told {
  /** Values that were of another kind than their column: the column's names. */
  readonly wrong = new Set<string>();
  private readonly all: readonly Varbind[];

  constructor(all: Iterable<Varbind>) {
    this.all = [...all];
  }

  /** The rows of a table, in the order of their indices. */
  rows<C extends Columns>({ oid, index, columns }: MibTable<C>): Placed<C>[] {
    const entry = `${oid}.`;
    const byNumber = new Map(Object.entries(columns).map(([name, [number, syntax]]) => [number, { name, syntax }]));
    const found = new Map<string, { at: readonly number[] } & Record<string, unknown>>();
    for (const each of this.all) {
      if (!each.oid.startsWith(entry)) continue;
      const [number, ...at] = each.oid.slice(entry.length).split('.').map(Number);
      const column = byNumber.get(number!);
      if (!column || (index !== null && at.length !== index)) continue;
      const read = decoded(column.syntax, each.type, each.value);
      if (read === undefined) {
        this.wrong.add(column.name);
        continue;
      }
      const place = at.join('.');
      const row = found.get(place) ?? { at };
      found.set(place, row);
      row[column.name] = read;
    }
    return [...found.entries()].sort(([a], [b]) => compareOids(a, b)).map(([, row]) => row as Placed<C>);
  }

  /** The one row of a group of scalars. */
  scalars<C extends Columns>(group: MibTable<C>): Row<C> {
    return this.rows(group).find(({ at }) => at[0] === 0) ?? ({} as Row<C>);
  }
}

const NUMBERS: readonly SmiType[] = ['integer', 'counter', 'counter64', 'gauge', 'ticks'];

/** Agents mix up the kinds of whole numbers; nothing is lost by that. None here is below 0. */
function decoded(syntax: Syntax, type: SmiType, value: SmiValue): SmiValue | undefined {
  if (syntax === 'oid') return type === 'oid' && typeof value === 'string' ? value : undefined;
  if (syntax === 'text' || syntax === 'octets') {
    if (type !== 'octets' || !(value instanceof Uint8Array)) return undefined;
    return syntax === 'octets' ? value : new TextDecoder().decode(value).replaceAll('\u0000', '');
  }
  return NUMBERS.includes(type) && typeof value === 'number' && Number.isSafeInteger(value) && value >= 0
    ? value
    : undefined;
}
