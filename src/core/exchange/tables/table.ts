/** What a table of a design is. */
import type { Node } from '../../model/field';
import type { Cell } from './cells';

export interface Column {
  readonly head: string;
  /** Below its row's item; null where it says which item that is, or is not read back. */
  readonly path: readonly string[] | null;
  readonly node: Node | null;
  /** Of what is not read back: how it is told. */
  readonly tells?: (item: object) => Cell;
}

export interface Row {
  /** Where its item is in the document. */
  readonly place: readonly string[];
  readonly cells: readonly Cell[];
}

export interface DesignTable {
  /** In names of files: `cables`. */
  readonly key: string;
  readonly name: string;
  readonly columns: readonly Column[];
  /** How many of the columns, the first ones, say which item a row is. */
  readonly keys: number;
  readonly rows: readonly Row[];
}
