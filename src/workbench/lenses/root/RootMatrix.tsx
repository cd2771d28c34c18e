'use client';
/** Roots: every switch by every group of alike trees, priorities editable in place, roots and standbys placed by a key. */
import Button from '@mui/material/Button';
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo, useState } from 'react';
import { treeVlan, type SwitchId, type TreeId } from '../../../core/model/ids';
import { priorityCommand, type Placement } from '../../../core/analysis/roots/placing';
import {
  rootMatrix,
  type RootCell,
  type RootMatrix as Matrix,
  type TreeGroup,
} from '../../../core/analysis/roots/rootMatrix';
import type { Solution } from '../../../core/tree/settled';
import { placeIn } from '../shared/placing';
import { bridgePriority } from '../../ui/read';
import { Knot, Loop } from '../../map/knots';
import { strandStyle } from '../../ui/strandStyle';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { itemsOf, switchesIn, type Item } from '../../state/selection';
import { counted } from '../../../core/base/words';
import { csvOf } from '../../ui/csv';
import { FilterField, useFilter } from '../../ui/FilterField';
import { useOfSelection } from '../shared/ofSelection';
import { Grid } from '../../ui/Grid';
import { groupAt, groupsOf } from '../shared/groups';
import { isEditable, treeColumns, TreesField, useCellEdit, useOpenRow, type TreeRow } from '../shared/treeColumns';
import styles from '../../ui/table.module.css';

/** A row: the switch, and under `g0`, `g1`, … its priority in each group of trees as text. */
interface RootRow extends TreeRow {
  readonly id: SwitchId;
  readonly name: string;
  readonly tier: string;
}

/** One row a switch, the strong tiers first. */
export function rootRows({ network }: Pick<Solution, 'network'>, { groups }: Matrix): RootRow[] {
  const tiers = ['core', 'distribution', 'access'];
  return network.switches
    .map((sw, s): RootRow => ({
      id: sw.id,
      name: sw.name ?? sw.id,
      tier: sw.tier,
      ...Object.fromEntries(groups.map((group, g) => [`g${g}`, group.cells[s] ? String(group.cells[s].priority) : ''])),
    }))
    .sort((a, b) => tiers.indexOf(a.tier) - tiers.indexOf(b.tier));
}

const switchesOfRow = ({ id }: RootRow): readonly SwitchId[] => [id];
const PLACES: Readonly<Record<string, Placement>> = { p: 'root', s: 'standby', w: 'never' };

export function RootMatrix() {
  const store = useWorkbenchStore();
  const solution = useFollowing((state) => state.solution);
  const selection = useWorkbench((state) => state.selection);
  const [trees, setTrees] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const whole = useMemo(() => (solution ? rootMatrix(solution) : { switches: [], groups: [] }), [solution]);
  const { groups, fault: treesFault } = useMemo(() => groupsOf(whole.groups, trees), [whole, trees]);
  const rows = useMemo(() => (solution ? rootRows(solution, { ...whole, groups }) : []), [solution, whole, groups]);
  const { rows: wanted, choice } = useOfSelection(rows, switchesOfRow);
  const filter = useFilter(wanted);

  const columns = useMemo(
    (): GridColDef<RootRow>[] => [
      { field: 'name', headerName: 'Switch', width: 150 },
      { field: 'tier', headerName: 'Tier', width: 100 },
      ...treeColumns<RootRow, TreeGroup>(groups, '', (group, row) => (
        <Cell
          cell={cellAt(solution, group, row.id)}
          tree={solution?.trees.findIndex((tree) => tree.id === group.trees[0]) ?? 0}
        />
      )),
    ],
    [groups, solution],
  );
  const put = useCallback(
    (of: readonly TreeId[], row: RootRow, text: string): string | null => {
      const refused = setPriority(store, of, [row.id], text);
      if (refused === null) setFault(null);
      return refused;
    },
    [store],
  );
  const update = useCellEdit(groups, put);
  const onKey = useCallback(
    (row: RootRow, field: string, key: string): boolean => {
      const [group, as] = [groups[groupAt(field) ?? -1], PLACES[key.toLowerCase()]];
      if (!group || !as) return false;
      placeIn(store.getState(), group.trees, [row.id], as);
      return true;
    },
    [groups, store],
  );
  const open = useOpenRow(itemOf);
  const chosen = useMemo(
    () => new Set<string>(itemsOf(selection).flatMap((item) => (item.kind === 'switch' ? [item.switch] : []))),
    [selection],
  );
  if (rows.length === 0 || whole.groups.length === 0)
    return <p className={styles.empty}>No switch runs spanning tree yet: cable the first ones in the Cable view.</p>;
  return (
    <>
      <FilterField
        {...filter}
        csv={() => csvOf(columns, filter.rows)}
        what="switches"
        example="core ridge"
        onSelect={() => store.getState().select({ kind: 'several', items: filter.rows.map(itemOf) })}
      >
        <SetSelected trees={trees} setTrees={setTrees} fault={treesFault} of={groups.flatMap((group) => group.trees)} />
        {choice}
      </FilterField>
      {fault && (
        <p className={styles.fault} role="alert">
          {fault}
        </p>
      )}
      <Grid
        aria-label="Roots: priorities of switches by trees"
        rows={filter.rows}
        columns={columns}
        onOpen={open}
        onKey={onKey}
        chosen={chosen}
        processRowUpdate={update}
        onProcessRowUpdateError={(error: Error) => setFault(error.message)}
        isCellEditable={isEditable}
      />
    </>
  );
}

const itemOf = ({ id }: RootRow): Item => ({ kind: 'switch', switch: id });

const cellAt = (solution: Solution | null, group: TreeGroup, id: SwitchId): RootCell | null =>
  group.cells[solution?.network.switchIndex.get(id) ?? -1] ?? null;

/** A priority, soft where it is that of all trees; the root with its knot, the standby with its loop, the third with its place. */
function Cell({ cell, tree }: { readonly cell: RootCell | null; readonly tree: number }) {
  if (!cell) return <span className={styles.soft}>–</span>;
  const { colour } = strandStyle(tree);
  return (
    <span className={styles.root} data-place={cell.place}>
      {cell.place === 1 && <Knot colour={colour} />}
      {cell.place === 2 && <Loop colour={colour} />}
      {cell.place === 3 && <small>3rd</small>}
      <span className={cell.own ? undefined : styles.soft}>{cell.priority}</span>
    </span>
  );
}

/** Sets a priority as typed on switches in trees as one step; empty takes the trees' own setting away. Gives null or a sentence. */
function setPriority(
  store: ReturnType<typeof useWorkbenchStore>,
  trees: readonly TreeId[],
  switches: readonly SwitchId[],
  text: string,
): string | null {
  const read = bridgePriority(text);
  if (!read.ok)
    return `${read.error.message}${read.error.suggestions ? ` Nearest: ${read.error.suggestions.join(' and ')}.` : ''}`;
  const { design, act } = store.getState();
  const chosen = design.switches.filter((sw) => switches.includes(sw.id));
  const { value } = read;
  return act(
    ...chosen.flatMap((sw) =>
      trees.flatMap((tree) =>
        value === null
          ? sw.trees[tree]
            ? [{ do: 'set-bridge-priority' as const, switch: sw.id, tree, priority: null }]
            : []
          : priorityCommand(sw, tree, value),
      ),
    ),
  );
}

interface SetProps {
  readonly trees: string;
  readonly setTrees: (text: string) => void;
  readonly fault: string | null;
  /** The trees in the table. */
  readonly of: readonly TreeId[];
}

/** For the selected switches, in the trees that the table shows: a priority, or a place. */
function SetSelected({ trees, setTrees, fault, of }: SetProps) {
  const store = useWorkbenchStore();
  const count = useWorkbench((state) => switchesIn(state.selection).length);
  const perVlan = of.some((tree) => treeVlan(tree) !== null) || trees !== '';
  const [priority, setPriorityText] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const set = () =>
    setRefused(
      priority.trim() === ''
        ? 'Which priority? 0 to 61440 in steps of 4096.'
        : setPriority(store, of, switchesIn(store.getState().selection), priority),
    );
  const place = (as: Placement) => placeIn(store.getState(), of, switchesIn(store.getState().selection), as);
  return (
    <>
      {perVlan && <TreesField text={trees} fault={fault} set={setTrees} />}
      <input
        className={styles.input}
        style={{ width: 92 }}
        value={priority}
        placeholder="priority"
        aria-label="Priority of the selected switches in these trees"
        aria-invalid={refused !== null}
        onChange={(event) => {
          setPriorityText(event.target.value);
          setRefused(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && count > 0 && set()}
      />
      <Button variant="outlined" disabled={count === 0} onClick={set}>
        Set
      </Button>
      <Button disabled={count !== 1} onClick={() => place('root')} title="P">
        Root
      </Button>
      <Button disabled={count !== 1} onClick={() => place('standby')} title="S">
        Standby
      </Button>
      <Button disabled={count === 0} onClick={() => place('never')} title="W">
        Never root
      </Button>
      {(fault ?? refused) ? (
        <span className={styles.fault} role="alert">
          {fault ?? refused}
        </span>
      ) : (
        <span>
          {count === 0
            ? 'select switches (Shift or Ctrl and click for several; two can be a pair of roots); in a cell P, S, W place, digits set'
            : `for ${counted(count, 'switch', 'switches')} in ${counted(of.length, 'tree')}`}
        </span>
      )}
    </>
  );
}
