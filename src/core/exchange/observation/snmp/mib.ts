/** Tables of management information (SMIv2, RFC 2578): written once, and by that both written and read. */

/** Kinds of values; `text` and `octets` are both OCTET STRING, `bits` is BITS. */
export type Syntax = 'integer' | 'counter' | 'gauge' | 'ticks' | 'text' | 'octets' | 'oid';
export type SmiType = 'integer' | 'counter' | 'gauge' | 'ticks' | 'octets' | 'oid';
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
  /** How many sub-identifiers an index has. */
  readonly index: number;
  readonly columns: C;
}
export type Row<C extends Columns> = { readonly [K in keyof C]?: Js<C[K][1]> | undefined };
/** A row with where it stands. */
export type Placed<C extends Columns> = Row<C> & { readonly at: readonly number[] };

export const mibTable = <const C extends Columns>(oid: string, index: number, columns: C): MibTable<C> => ({
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
export function compareOids(a: string, b: string): number {
  const [left, right] = [a.split('.'), b.split('.')];
  for (let i = 0; i < left.length && i < right.length; i += 1) {
    const by = Number(left[i]) - Number(right[i]);
    if (by !== 0) return by;
  }
  return left.length - right.length;
}

/** What an agent has told, to be read table by table. */
export class Told {
  /** Values that were of another kind than their column: the column's names. */
  readonly wrong = new Set<string>();
  private readonly byColumn = new Map<string, Map<string, Varbind>>();

  constructor(all: Iterable<Varbind>) {
    for (const each of all) this.add(each);
  }

  private add(each: Varbind): void {
    // A column is known by its name's beginning, whose length only its table tells: all of them are kept.
    const parts = each.oid.split('.');
    for (let depth = 1; depth <= MOST_INDEX && depth < parts.length; depth += 1) {
      const column = parts.slice(0, -depth).join('.');
      const rows = this.byColumn.get(column) ?? new Map<string, Varbind>();
      this.byColumn.set(column, rows);
      rows.set(parts.slice(-depth).join('.'), each);
    }
  }

  /** The rows of a table, in the order of their indices. */
  rows<C extends Columns>({ oid, index, columns }: MibTable<C>): Placed<C>[] {
    const found = new Map<string, { at: readonly number[] } & Record<string, unknown>>();
    for (const [name, [number, syntax]] of Object.entries(columns))
      for (const [at, { type, value }] of this.byColumn.get(`${oid}.${number}`) ?? []) {
        if (at.split('.').length !== index) continue;
        const read = decoded(syntax, type, value);
        if (read === undefined) {
          this.wrong.add(name);
          continue;
        }
        const row = found.get(at) ?? { at: at.split('.').map(Number) };
        found.set(at, row);
        row[name] = read;
      }
    return [...found.entries()].sort(([a], [b]) => compareOids(a, b)).map(([, row]) => row as Placed<C>);
  }

  /** The one row of a group of scalars. */
  scalars<C extends Columns>(group: MibTable<C>): Row<C> {
    return this.rows(group).find(({ at }) => at[0] === 0) ?? ({} as Row<C>);
  }
}

/** The longest index of the tables here. */
const MOST_INDEX = 3;

const NUMBERS: readonly SmiType[] = ['integer', 'counter', 'gauge', 'ticks'];

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
