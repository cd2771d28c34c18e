'use client';
/** A table whose rows are things on the map: a click goes there, Ctrl or Shift adds one more, the filter's rows can be selected. */
import type { GridColDef, GridValidRowModel } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { itemsOf, selectionOf, switchesOf, type Item } from '../../state/selection';
import { csvOf } from '../../ui/csv';
import { FilterField, useFilter } from '../../ui/FilterField';
import { Grid } from '../../ui/Grid';
import { useOfSelection } from './ofSelection';

interface Props<T extends GridValidRowModel & { readonly id: string }> {
  readonly rows: readonly T[];
  readonly columns: GridColDef<T>[];
  /** The thing that a row is, the same function at each call. */
  readonly itemOf: (row: T) => Item;
  readonly label: string;
  readonly what: string;
  readonly example: string;
}

/** What identifies an item among others of its kind, as rows do. */
const idOf = (item: Item): string =>
  item.kind === 'link'
    ? item.link
    : item.kind === 'host'
      ? item.host
      : item.kind === 'switch'
        ? item.switch
        : `${item.switch}\n${item.port}`;

export function ItemTable<T extends GridValidRowModel & { readonly id: string }>({
  rows,
  columns,
  itemOf,
  label,
  what,
  example,
}: Props<T>) {
  const store = useWorkbenchStore();
  const selection = useWorkbench((state) => state.selection);
  const design = useWorkbench((state) => state.design);
  const switchesOfRow = useCallback((row: T) => switchesOf(design, itemOf(row)), [design, itemOf]);
  const { rows: wanted, choice } = useOfSelection(rows, switchesOfRow);
  const filter = useFilter(wanted);
  const open = useCallback(
    (row: T, how: 'alone' | 'more') =>
      how === 'more' ? store.getState().pick(itemOf(row), how) : store.getState().goTo(itemOf(row)),
    [store, itemOf],
  );
  const kind = rows[0] && itemOf(rows[0]).kind;
  const chosen = useMemo(
    () => new Set(itemsOf(selection).flatMap((item) => (item.kind === kind ? [idOf(item)] : []))),
    [selection, kind],
  );
  return (
    <>
      <FilterField
        {...filter}
        what={what}
        example={example}
        csv={() => csvOf(columns, filter.rows)}
        onSelect={() => store.getState().select(selectionOf(filter.rows.map(itemOf)))}
      >
        {choice}
      </FilterField>
      <Grid aria-label={label} rows={filter.rows} columns={columns} onOpen={open} chosen={chosen} />
    </>
  );
}
