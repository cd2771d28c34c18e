'use client';
/** What the tables of priorities and of costs have in common: a column for each group of alike trees, edited in place. */
import type { GridColDef, GridRenderCellParams } from '@mui/x-data-grid';
import { useCallback, type ReactNode } from 'react';
import { treesName, type TreeId } from '../../../core/model/ids';
import { useWorkbenchStore } from '../../state/context';
import type { Item } from '../../state/selection';
import styles from '../../ui/table.module.css';
import { groupAt, groupWidth } from './groups';

/** Under `g0`, `g1`, … the value in each group of trees as text; empty where there is none. */
export type TreeRow = Readonly<Record<`g${number}`, string>>;
interface Group {
  readonly trees: readonly TreeId[];
}

const valueAt = (row: TreeRow, field: string): string => row[field as `g${number}`] ?? '';

/** The columns; `draw` draws a cell. */
export const treeColumns = <R extends TreeRow, G extends Group>(
  groups: readonly G[],
  what: string,
  draw: (group: G, row: R) => ReactNode,
): GridColDef<R>[] =>
  groups.map((group, g) => ({
    field: `g${g}`,
    headerName: treesName(group.trees),
    description: `${what}${treesName(group.trees)}`,
    editable: true,
    align: 'right',
    headerAlign: 'right',
    width: groupWidth(group.trees),
    sortComparator: (a: string, b: string) => Number(a) - Number(b),
    renderCell: ({ row }: GridRenderCellParams<R>) => draw(group, row),
  }));

/** Whether a cell has a value that can be another. */
export const isEditable = ({ row, field }: { readonly row: TreeRow; readonly field: string }): boolean =>
  valueAt(row, field) !== '';

/** Takes an edited cell: `put` sets its value in the trees of its column, or says why not. */
export function useCellEdit<R extends TreeRow>(
  groups: readonly Group[],
  put: (trees: readonly TreeId[], row: R, text: string) => string | null,
): (after: R, before: R) => R {
  return useCallback(
    (after, before) => {
      const field = Object.keys(after).find(
        (key) => groupAt(key) !== null && valueAt(after, key) !== valueAt(before, key),
      );
      const group = field && groups[groupAt(field)!];
      if (!group) return before;
      const refused = put(group.trees, after, valueAt(after, field));
      if (refused !== null) throw new Error(refused); // the cell stays open with what was typed
      return after;
    },
    [groups, put],
  );
}

/** Selects what a row is about: alone and in view, or with what is selected. */
export function useOpenRow<R>(itemOf: (row: R) => Item): (row: R, how: 'alone' | 'more') => void {
  const store = useWorkbenchStore();
  return useCallback(
    (row, how) => {
      if (how === 'more') store.getState().pick(itemOf(row), how);
      else store.getState().goTo(itemOf(row));
    },
    [store, itemOf],
  );
}

/** Which VLANs' trees the table has. */
export function TreesField({
  text,
  fault,
  set,
}: {
  readonly text: string;
  readonly fault: string | null;
  readonly set: (text: string) => void;
}) {
  return (
    <input
      className={styles.input}
      style={{ width: 110 }}
      value={text}
      placeholder="VLANs 15-35"
      aria-label="Trees in the table"
      aria-invalid={fault !== null}
      onChange={(event) => set(event.target.value)}
    />
  );
}
