'use client';
/** Every bundle with its verdict, and parallel links that are none. */
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo } from 'react';
import type { BridgePortId, LinkId, SwitchId } from '../../../core/model/ids';
import { oppositesOf } from '../../../core/analysis/lag/bundleEnds';
import { bundleAt, parallelsOf } from '../../../core/analysis/lag/bundling';
import { treeOf } from '../../../core/tree/settled';
import { groupText, speedText } from '../../ui/words/units';
import { ItemTable } from '../shared/ItemTable';
import styles from '../../ui/table.module.css';
import { useWorkbench } from '../../state/context';
import type { Item } from '../../state/selection';
import { useBundles } from '../../state/useBundles';
import { MODE_NAMES } from './words';

interface Row {
  readonly id: string;
  readonly at: string;
  readonly name: string;
  readonly to: string;
  readonly mode: string;
  readonly up: string;
  readonly members: string;
  readonly speed: string;
  readonly cost: string;
  readonly verdict: string;
  readonly item: Item;
}

const COLUMNS: GridColDef<Row>[] = [
  { field: 'at', headerName: 'On', width: 100 },
  { field: 'name', headerName: 'Bundle', width: 125 },
  { field: 'to', headerName: 'To', width: 130 },
  { field: 'mode', headerName: 'Mode', width: 75 },
  { field: 'up', headerName: 'State', width: 62 },
  { field: 'members', headerName: 'Active', width: 75 },
  { field: 'speed', headerName: 'Speed', width: 80 },
  { field: 'cost', headerName: 'Cost', width: 80, align: 'right', headerAlign: 'right' },
  { field: 'verdict', headerName: 'Why', flex: 1, minWidth: 300 },
];
const itemOf = (row: Row): Item => row.item;

export function BundleTable() {
  const design = useWorkbench((state) => state.design);
  const { bundles, settled } = useBundles();
  const solution = useWorkbench((state) => state.solution);
  const [shown] = useWorkbench((state) => state.shownTrees);
  const rows = useMemo(() => {
    const tree = solution && shown ? treeOf(solution, shown) : undefined;
    /** In the first tree that is shown. */
    const costOf = (sw: SwitchId, port: BridgePortId): string => {
      const p = solution?.network.portIndexOf(sw, port) ?? -1;
      return tree && p >= 0 && tree.cost[p]! >= 0 ? groupText(tree.cost[p]!) : '';
    };
    const ends = bundles.ends.map((end): Row => {
      const { up, reason, active } = settled.ends[end.index]!;
      return {
        id: `${end.ownerName} ${end.id}`,
        at: end.ownerName,
        name: end.owner.kind === 'host' ? 'its cards' : end.name,
        to: oppositesOf(bundles, end)
          .map((each) => each.name)
          .join(', '),
        mode: MODE_NAMES[end.mode],
        up: up ? 'up' : 'down',
        members: `${active.length} of ${end.members.length}`,
        speed: active.length > 0 ? speedText(active.reduce((sum, m) => sum + bundles.members[m]!.speed, 0)) : '',
        cost: end.owner.kind === 'switch' ? costOf(end.owner.switch, end.owner.bundle) : '',
        verdict: reason.replace(/^(Up|Down): /, ''),
        item:
          end.owner.kind === 'host'
            ? { kind: 'host', host: end.owner.host }
            : { kind: 'port', switch: end.owner.switch, port: end.owner.bundle },
      };
    });
    const nameOf = (id: SwitchId): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
    const single = parallelsOf(design).flatMap(({ a, b, links }): Row[] => {
      const free = links.filter((link) => [link.a, link.b].every((end) => !bundleAt(design, end.switch, end.port)));
      if (free.length < 2) return [];
      return [
        {
          id: `links ${free[0]!.id}`,
          at: nameOf(a),
          name: 'not bundled',
          to: nameOf(b),
          mode: '',
          up: '',
          members: `${free.length} links`,
          speed: '',
          cost: '',
          verdict: 'Spanning tree blocks all but one of them. Bundle them in the inspector.',
          item: { kind: 'link', link: free[0]!.id as LinkId },
        },
      ];
    });
    return [...ends, ...single];
  }, [design, bundles, settled, solution, shown]);
  if (rows.length === 0)
    return (
      <p className={styles.empty}>
        No bundles, and no links side by side. Choose links that join the same two switches (Shift or Ctrl and click for
        several), or a host with several cards, then bundle them in the inspector.
      </p>
    );
  return <ItemTable label="Bundles" what="rows" example="lodge down" rows={rows} columns={COLUMNS} itemOf={itemOf} />;
}
