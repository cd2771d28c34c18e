'use client';
/** Groups of switches: what is in each, and ways to make them. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import {
  commandsFor,
  groupsBy,
  nameForGroup,
  newGroup,
  type Filled,
  type Grouping,
} from '../../../../core/analysis/groups/groups';
import { insideOf } from '../../../../core/analysis/groups/counts';
import type { Design } from '../../../../core/model/document';
import { treeName, type TreeId } from '../../../../core/model/ids';
import { nameOf } from '../../../../core/model/names';
import { treeOf, type Solution } from '../../../../core/tree/settled';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../../state/context';
import { groupsOf } from '../../../state/folding';
import { mayEdit } from '../../../state/looking';
import { selectionOf, switchesIn, type Item } from '../../../state/selection';
import { csvOf } from '../../../ui/csv';
import { FilterField, useFilter } from '../../../ui/FilterField';
import { Grid } from '../../../ui/Grid';
import styles from '../../../ui/table.module.css';
import { TextButton } from '../../../ui/TextButton';

export interface GroupRow {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly within: string;
  readonly switches: number;
  readonly roots: string;
  readonly blocked: number;
  readonly filled: Filled;
}

/** One row a group: the design's own, or the blocks that a large one is built of. */
export function groupRows(design: Design, solution: Solution | null, shown: readonly TreeId[]): GroupRow[] {
  const byId = new Map(design.groups.map((group) => [group.id, group]));
  const trees = shown.flatMap((id) => (solution ? (treeOf(solution, id) ?? []) : []));
  const names = new Map(design.switches.map((sw) => [sw.id, nameOf(sw)]));
  return groupsOf(design).map((filled) => {
    const inside = trees.map((tree) => ({ tree, ...insideOf(solution!, tree, filled.switches) }));
    const around = filled.group.within === undefined ? undefined : byId.get(filled.group.within);
    return {
      id: filled.group.id,
      name: nameOf(filled.group),
      kind: byId.has(filled.group.id) ? (filled.group.kind ?? '') : 'block, not kept',
      within: around ? nameOf(around) : '',
      switches: filled.switches.length,
      roots: inside
        .flatMap(({ tree, root }) =>
          root === null
            ? []
            : [trees.length > 1 ? `${names.get(root)} (${treeName(tree.id)})` : (names.get(root) ?? root)],
        )
        .join(', '),
      blocked: inside.reduce((sum, { blocked }) => sum + blocked, 0),
      filled,
    };
  });
}

const WAYS: readonly (readonly [Grouping, string, string])[] = [
  ['block', 'blocks', 'distribution switches with what only they serve, chains, rings'],
  ['prefix', 'names', 'switches whose names begin alike, up to the first sign'],
  ['region', 'regions', 'switches with the same region settings'],
];

export function GroupTable() {
  const store = useWorkbenchStore();
  const design = useFollowing((state) => state.design);
  const solution = useFollowing((state) => state.solution);
  const shown = useFollowing((state) => state.shownTrees);
  const folded = useWorkbench((state) => state.folded);
  const selection = useWorkbench((state) => state.selection);
  const rows = useMemo(() => groupRows(design, solution, shown), [design, solution, shown]);
  const filter = useFilter(rows);
  const columns = useMemo(
    (): GridColDef<GroupRow>[] => [
      {
        field: 'name',
        headerName: 'Group',
        width: 210,
        renderCell: ({ row }) => <span style={{ paddingLeft: 14 * row.filled.depth }}>{row.name}</span>,
      },
      { field: 'kind', headerName: 'Kind', width: 120 },
      { field: 'within', headerName: 'Within', width: 120 },
      { field: 'switches', headerName: 'Switches', type: 'number', width: 90 },
      { field: 'roots', headerName: 'Root inside', width: 170 },
      { field: 'blocked', headerName: 'Blocking ports', type: 'number', width: 130 },
      {
        field: 'fold',
        headerName: 'On the map',
        sortable: false,
        flex: 1,
        minWidth: 110,
        renderCell: ({ row }) => {
          const isFolded = folded.has(row.filled.group.id);
          return (
            <TextButton
              does="plain"
              onClick={(event) => {
                event.stopPropagation();
                store.getState().fold([row.filled.group.id], isFolded ? 'unfold' : 'fold');
              }}
            >
              {isFolded ? 'unfold' : 'fold'}
            </TextButton>
          );
        },
      },
    ],
    [store, folded],
  );
  const open = useCallback(
    (row: GroupRow, how: 'alone' | 'more') => {
      const items = row.filled.switches.map((id): Item => ({ kind: 'switch', switch: id }));
      if (how === 'more') for (const item of items) store.getState().pick(item, 'more');
      else store.getState().select(selectionOf(items));
    },
    [store],
  );
  const chosen = useMemo(() => {
    const selected = new Set(switchesIn(selection));
    return new Set(
      rows.flatMap(({ id, filled }) =>
        filled.switches.length > 0 && filled.switches.every((each) => selected.has(each)) ? [id] : [],
      ),
    );
  }, [rows, selection]);
  return (
    <>
      {rows.length > 0 && (
        <FilterField {...filter} what="groups" example="north floor" csv={() => csvOf(columns, filter.rows)}>
          <MakeGroups design={design} />
        </FilterField>
      )}
      {rows.length > 0 ? (
        <Grid aria-label="Groups of switches" rows={filter.rows} columns={columns} onOpen={open} chosen={chosen} />
      ) : (
        <div className={styles.empty}>
          <p>
            No groups yet. A group is a site, a building, a floor, a rack: folded, it is one box on the map. In the line
            above: group north building, then switch acc-[1-9] in north.
          </p>
          <MakeGroups design={design} />
        </div>
      )}
    </>
  );
}

/** Makes groups at once: of what is selected, or of all that hangs together in one of several ways. */
function MakeGroups({ design }: { readonly design: Design }) {
  const store = useWorkbenchStore();
  const present = useWorkbench(mayEdit);
  const chosen = useWorkbench((state) => switchesIn(state.selection).length);
  const ways = useMemo(
    () => WAYS.map(([by, label, title]) => ({ by, label, title, commands: commandsFor(design, groupsBy(design, by)) })),
    [design],
  );
  if (!present) return null;
  return (
    <span style={{ display: 'inline-flex', gap: 9 }} role="group" aria-label="Make groups">
      <span>make groups of</span>
      <TextButton
        does="edit"
        disabled={chosen < 2}
        title="what is selected, as one group"
        onClick={() => {
          const { act, selection, design: now } = store.getState();
          const ids = switchesIn(selection);
          act(...newGroup(now, ids, nameForGroup(now, ids)).commands);
        }}
      >
        the selection
      </TextButton>
      {ways.map(({ by, label, title, commands }) => (
        <TextButton
          does="edit"
          key={by}
          disabled={commands.length === 0}
          title={title}
          onClick={() => store.getState().act(...commands)}
        >
          {label}
        </TextButton>
      ))}
    </span>
  );
}
