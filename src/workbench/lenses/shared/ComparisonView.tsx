'use client';
/** Two states of the design side by side: settings that differ, ends whose role differs. */
import type { Difference } from '../../../core/model/derive/compare';
import Button from '@mui/material/Button';
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo, useState } from 'react';
import { treeName, type BridgePortId, type SwitchId, type TreeId } from '../../../core/model/ids';
import { TextButton } from '../../ui/TextButton';
import { useWorkbenchStore } from '../../state/context';
import type { SideBySide } from '../../state/revisions';
import type { Item } from '../../state/selection';
import { counted } from '../../../core/base/words';
import { FilterField, useFilter } from '../../ui/FilterField';
import { Grid } from '../../ui/Grid';
import styles from '../../ui/table.module.css';

interface SettingRow {
  readonly id: number;
  readonly on: string;
  readonly setting: string;
  readonly before: string;
  readonly after: string;
  readonly item: Item | null;
}
interface EndRow {
  readonly id: number;
  readonly tree: string;
  readonly switch: string;
  readonly port: string;
  readonly before: string;
  readonly after: string;
  readonly treeId: TreeId;
  readonly switchId: SwitchId;
  readonly portId: BridgePortId;
}

function itemAt({ at }: Difference): Item | null {
  if (at.link) return { kind: 'link', link: at.link };
  if (at.host) return { kind: 'host', host: at.host };
  if (at.switch && at.port) return { kind: 'port', switch: at.switch, port: at.port };
  return at.switch ? { kind: 'switch', switch: at.switch } : null;
}

export const settingRows = ({ comparison }: Pick<SideBySide, 'comparison'>): SettingRow[] =>
  comparison.settings.map((difference, id) => ({
    id,
    on: difference.on,
    setting: difference.setting,
    before: difference.before ?? '–',
    after: difference.after ?? '–',
    item: itemAt(difference),
  }));

export function endRows({ before, after, comparison }: SideBySide): EndRow[] {
  const names = new Map([...before.design.switches, ...after.design.switches].map((sw) => [sw.id, sw.name ?? sw.id]));
  return comparison.ends.map((end, id) => ({
    id,
    tree: treeName(end.tree),
    switch: names.get(end.switch) ?? end.switch,
    port: end.port,
    before: end.before ?? 'not in the tree',
    after: end.after ?? 'not in the tree',
    treeId: end.tree,
    switchId: end.switch,
    portId: end.port,
  }));
}

export function ComparisonView({ close, ...sides }: SideBySide & { readonly close: () => void }) {
  const store = useWorkbenchStore();
  const { before, after, comparison } = sides;
  const [tab, setTab] = useState<'settings' | 'ends'>('settings');
  const settings = useFilter(useMemo(() => settingRows({ comparison }), [comparison]));
  const ends = useFilter(useMemo(() => endRows({ before, after, comparison }), [before, after, comparison]));
  const settingColumns: GridColDef<SettingRow>[] = [
    { field: 'on', headerName: 'On', width: 220 },
    { field: 'setting', headerName: 'Setting', width: 200 },
    { field: 'before', headerName: before.label, width: 220, flex: 1 },
    { field: 'after', headerName: after.label, width: 220, flex: 1 },
  ];
  const endColumns: GridColDef<EndRow>[] = [
    { field: 'tree', headerName: 'Tree', width: 110 },
    { field: 'switch', headerName: 'Switch', width: 160 },
    { field: 'port', headerName: 'Port', width: 80 },
    { field: 'before', headerName: before.label, flex: 1, minWidth: 140 },
    { field: 'after', headerName: after.label, flex: 1, minWidth: 140 },
  ];
  const only = (which: 'before' | 'after') =>
    comparison.trees.filter((tree) => tree.only === which).map((tree) => treeName(tree.tree));
  const lone = [
    [before.label, only('before')],
    [after.label, only('after')],
  ] as const;
  const heading = (
    <>
      <b>
        {before.label} against {after.label}:
      </b>
      <TextButton aria-pressed={tab === 'settings'} onClick={() => setTab('settings')}>
        {counted(comparison.settings.length, 'setting')}
      </TextButton>
      <TextButton aria-pressed={tab === 'ends'} onClick={() => setTab('ends')}>
        {counted(comparison.ends.length, 'port')}
      </TextButton>
      {lone.map(
        ([label, trees]) =>
          trees.length > 0 && (
            <span key={label}>
              only in {label}: {trees.slice(0, 4).join(', ')}
              {trees.length > 4 ? ' …' : ''}
            </span>
          ),
      )}
      <Button variant="outlined" onClick={close}>
        Done comparing
      </Button>
    </>
  );
  return (
    <div className={styles.compare}>
      {tab === 'settings' ? (
        <>
          <FilterField {...settings} what="settings" example="ridge priority">
            {heading}
          </FilterField>
          {comparison.settings.length === 0 ? (
            <p className={styles.empty}>No setting differs.</p>
          ) : (
            <Grid
              aria-label="Settings that differ"
              rows={settings.rows}
              columns={settingColumns}
              onOpen={(row) => row.item && store.getState().goTo(row.item)}
            />
          )}
        </>
      ) : (
        <>
          <FilterField {...ends} what="ports" example="VLAN 15 root">
            {heading}
          </FilterField>
          {comparison.ends.length === 0 ? (
            <p className={styles.empty}>No port has another role.</p>
          ) : (
            <Grid
              aria-label="Ports whose role differs"
              rows={ends.rows}
              columns={endColumns}
              onOpen={(row) => {
                store.getState().showTree(row.treeId, 'alone');
                store.getState().goTo({ kind: 'port', switch: row.switchId, port: row.portId });
              }}
            />
          )}
        </>
      )}
    </div>
  );
}
