'use client';
/** If a root dies: who takes over in which trees, what moves, who is cut off, which sharing is lost. */
import type { GridColDef } from '@mui/x-data-grid';
import { useCallback, useMemo } from 'react';
import { treesName, type SwitchId, type TreeId } from '../../../core/model/ids';
import type { Design } from '../../../core/model/document';
import { ifSwitchDies, type LossOf, type RootLoss } from '../../../core/analysis/roots/rootLoss';
import { movedEnds } from '../../../core/tree/moved';
import { TextButton } from '../../ui/TextButton';
import { useFollowing, useWorkbench, useWorkbenchStore } from '../../state/context';
import { movedOf } from '../../state/moved';
import { askLosses } from '../../state/questions';
import { useAsk } from '../../state/ask';
import { Asking } from '../shared/Asking';
import { BackToNow, MapShows, useKept, useShownRow } from '../shared/lossTable';
import { Grid } from '../../ui/Grid';
import styles from '../../ui/table.module.css';
import type { Workbench } from '../../state/workbench';

export interface LossRow {
  readonly id: string;
  readonly root: string;
  readonly trees: string;
  readonly takesOver: string;
  readonly ends: number;
  readonly cutOff: string;
  readonly shares: string;
  readonly switch: SwitchId;
  readonly treeIds: readonly TreeId[];
}

/** So many hosts are named. */
const FEW_HOSTS = 3;

/** One row for each root and each set of its trees that fare alike. */
export function lossRows(design: Design, all: readonly LossOf[]): LossRow[] {
  const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  const nameOf = (id: SwitchId): string => names.get(id) ?? id;
  const hostNames = new Map(design.hosts.map((host) => [host.id, host.name ?? host.id]));
  /** A few hosts by name, many as a number. */
  const hostsText = (alike: readonly RootLoss[]): string[] => {
    const hosts = [...new Set(alike.flatMap((each) => each.hostsCutOff))];
    return hosts.length > FEW_HOSTS ? [`${hosts.length} hosts`] : hosts.map((id) => hostNames.get(id) ?? id);
  };
  return all.flatMap(({ switch: id, losses }) => {
    const groups = new Map<string, RootLoss[]>();
    for (const each of losses) {
      const key = JSON.stringify([each.takesOver, each.cutOff, each.sharesWith]);
      groups.set(key, [...(groups.get(key) ?? []), each]);
    }
    return [...groups.values()].map((alike, i): LossRow => {
      const [first] = alike as [RootLoss];
      const treeIds = alike.map((each) => each.tree);
      return {
        id: `${id} ${i}`,
        root: nameOf(id),
        trees: treesName(treeIds),
        takesOver: first.takesOver === null ? 'nobody is left' : nameOf(first.takesOver),
        ends: alike.reduce((sum, each) => sum + each.ends.length, 0),
        cutOff: [...first.cutOff.map(nameOf), ...hostsText(alike)].join(', ') || 'nobody',
        shares: first.sharesWith.length > 0 ? treesName(first.sharesWith) : 'no other',
        switch: id,
        treeIds,
      };
    });
  });
}

const COLUMNS: GridColDef<LossRow>[] = [
  { field: 'root', headerName: 'If this root dies', width: 150 },
  { field: 'trees', headerName: 'of', width: 210 },
  { field: 'takesOver', headerName: 'takes over', width: 140 },
  { field: 'ends', headerName: 'Ports that change', type: 'number', width: 120 },
  { field: 'cutOff', headerName: 'Cut off', flex: 1, minWidth: 160 },
  { field: 'shares', headerName: 'Then shares its root with', flex: 1, minWidth: 170 },
];

/** On the map only the switches of which an end moved. */
const showMoved = ({ moved, setFocus }: Workbench): void =>
  setFocus(moved && { kind: 'moved', switches: [...new Set(moved.ends.map((end) => end.switch))] });

export function LossTable() {
  const store = useWorkbenchStore();
  const solution = useFollowing((state) => state.solution);
  const looking = useWorkbench((state) => state.looking);
  const present = looking.kind === 'present';
  const design = solution?.network.design ?? null;
  const { status, stop } = useAsk(useMemo(() => (design && present ? askLosses(design) : null), [design, present]));
  const found = useMemo(
    () => (design && present && status.kind === 'found' ? lossRows(design, status.value) : null),
    [design, present, status],
  );
  const rows = useKept(design, found);
  const [chosen, setShownRow] = useShownRow();
  const show = useCallback(
    ({ id, switch: dead, treeIds }: LossRow) => {
      store.getState().look(null);
      setShownRow(id);
      const { solution: before, revision, look, showTree, shownTrees, select } = store.getState();
      const loss = before && ifSwitchDies(before, dead);
      if (!loss) return;
      if (!treeIds.some((id) => shownTrees.includes(id))) showTree(treeIds[0]!, 'alone');
      const label = `the design if ${loss.design.switches.find((sw) => sw.id === loss.switch)?.name ?? loss.switch} dies`;
      look({
        kind: 'loss',
        label,
        revision,
        design: loss.design,
        solution: loss.solution,
        moved: movedOf(label, movedEnds(before, loss.solution), 'comparison'),
      });
      select({ kind: 'switch', switch: loss.switch });
    },
    [store, setShownRow],
  );
  if (present && solution && status.kind !== 'found')
    return <Asking status={status} stop={stop} what="Working out what each loss does" />;
  if (present && (!rows || rows.length === 0)) return <p className={styles.empty}>No tree has a root yet.</p>;
  return (
    <>
      <div className={styles.filter}>
        {present ? (
          <span>A click on a row shows the map as it would be, changed ports marked.</span>
        ) : (
          <>
            <span>
              <MapShows />
              {looking.kind === 'loss' && rows && ' Another row shows another loss.'}
            </span>
            <TextButton onClick={() => showMoved(store.getState())}>only what changes</TextButton>
            <BackToNow />
          </>
        )}
      </div>
      {rows && (present || looking.kind === 'loss') && (
        <Grid aria-label="If a root dies" rows={rows} columns={COLUMNS} onOpen={show} chosen={chosen} />
      )}
    </>
  );
}
