'use client';
/** The selected switch's candidate ways to the root of each shown tree, costs added up hop by hop. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import { runsTrees } from '../../../core/model/document';
import { treeName, treesName, type BridgePortId, type SwitchId, type TreeId } from '../../../core/model/ids';
import { candidatePaths, type CandidatePath } from '../../../core/analysis/steering/paths';
import { takesPart } from '../../../core/tree/explain/election';
import { treeOf, type Solution } from '../../../core/tree/settled';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { itemsOf, switchesIn, type Selection } from '../../state/selection';
import { groupText } from '../../ui/words/units';
import { Grid } from '../../ui/Grid';
import styles from '../../ui/table.module.css';

export interface PathRow {
  readonly id: string;
  readonly tree: string;
  readonly taken: string;
  readonly way: string;
  readonly sum: string;
  readonly total: string;
  readonly over: string;
  readonly switchId: SwitchId;
  readonly portId: BridgePortId;
}

/** One row a way. */
export function pathRows(solution: Solution, shown: readonly TreeId[], id: SwitchId): PathRow[] {
  const { network } = solution;
  const names = new Map(network.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  const s = network.switchIndex.get(id);
  if (s === undefined) return [];
  return shown.flatMap((treeId) => {
    const tree = treeOf(solution, treeId);
    return (tree ? candidatePaths(network, tree, s) : []).map((path, i): PathRow => ({
      id: `${treeId} ${i}`,
      tree: treeName(treeId),
      taken: takenText(path),
      way: [...path.hops.map((hop) => `${names.get(hop.switch)} ${hop.port}`), names.get(path.root)].join(' › '),
      sum: sumText(path),
      total: totalText(path),
      over: path.chosen ? '' : `+${groupText(path.over)}`,
      switchId: path.hops[0]!.switch,
      portId: path.hops[0]!.port,
    }));
  });
}

/** Costs in the order of the hops; those that count inside of a region alone stand in brackets. */
const sumText = ({ hops }: CandidatePath): string =>
  hops.map((hop) => (hop.inside ? `(${groupText(hop.cost)})` : groupText(hop.cost))).join(' + ');

/** In a CIST with regions both sums: outside of regions, and inside of this one. */
const totalText = ({ total, internal }: CandidatePath): string =>
  internal === null ? groupText(total) : `${groupText(total)}, inside ${groupText(internal)}`;

const takenText = ({ chosen, heard, over }: CandidatePath): string =>
  chosen
    ? 'the way taken'
    : !heard
      ? 'not heard: this port is designated'
      : over === 0
        ? 'as cheap, loses the tie'
        : 'dearer';

/** The switch that is meant: selected itself, or by one of its ports. */
function switchOf(selection: Selection | null): SwitchId | null {
  const [item] = itemsOf(selection);
  return item?.kind === 'switch' || item?.kind === 'port' ? item.switch : null;
}

/** Why a switch has no way to a root in the trees shown. */
function noWay({ network, trees }: Solution, shown: readonly TreeId[], id: SwitchId): string {
  const s = network.switchIndex.get(id) ?? -1;
  const sw = network.switches[s];
  const name = sw?.name ?? id;
  if (!sw?.up) return `${name} has no power: it has no way to go.`;
  if (!runsTrees(sw)) return `${name} runs no spanning tree: it passes frames on, and has no root to reach.`;
  const own = shown
    .flatMap((tree) => treeOf({ network, trees }, tree) ?? [])
    .filter((tree) => takesPart(network, tree, s));
  if (own.length === 0) return `${name} has no part in ${treesName(shown)}: none of its ports is in there.`;
  return `${name} is the root of ${treesName(own.map((tree) => tree.id))}: it has no way to go.`;
}

const COLUMNS: GridColDef<PathRow>[] = [
  { field: 'tree', headerName: 'Tree', width: 100 },
  { field: 'taken', headerName: 'Which', width: 170 },
  { field: 'way', headerName: 'Way', flex: 1, minWidth: 230 },
  { field: 'sum', headerName: 'Costs along it', width: 210 },
  { field: 'total', headerName: 'Sum', width: 130, align: 'right', headerAlign: 'right' },
  { field: 'over', headerName: 'Over the winner', width: 124, align: 'right', headerAlign: 'right' },
];

export function PathTable() {
  const store = useWorkbenchStore();
  const solution = useFollowing((state) => state.solution);
  const shown = useFollowing((state) => state.shownTrees);
  const chosen = useWorkbench((state) => switchesIn(state.selection).length);
  const id = useWorkbench((state) => switchOf(state.selection));
  const rows = useMemo(() => (solution && id ? pathRows(solution, shown, id) : []), [solution, shown, id]);
  const open = useCallback(
    (row: PathRow) => store.getState().goTo({ kind: 'port', switch: row.switchId, port: row.portId }),
    [store],
  );
  if (chosen > 1)
    return (
      <p className={styles.empty}>
        {chosen} switches are selected; select one of them: its ways to the root are then added up here.
      </p>
    );
  if (!id)
    return (
      <p className={styles.empty}>Select a switch: its ways to the root are then added up here, the one taken first.</p>
    );
  if (rows.length === 0 && solution) return <p className={styles.empty}>{noWay(solution, shown, id)}</p>;
  return <Grid aria-label="Ways to the root" rows={rows} columns={COLUMNS} onOpen={open} />;
}
