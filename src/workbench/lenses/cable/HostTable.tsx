'use client';
/** Every host: its VLAN and where it is plugged in. */
import type { GridColDef } from '@mui/x-data-grid';
import { useMemo } from 'react';
import type { HostId } from '../../../core/model/ids';
import type { Design } from '../../../core/model/document';
import { useFollowing } from '../../state/context';
import type { Item } from '../../state/selection';
import { ItemTable } from '../shared/ItemTable';
import styles from '../../ui/table.module.css';

interface HostRow {
  readonly id: HostId;
  readonly name: string;
  readonly vlan: number;
  readonly vlanName: string;
  readonly at: string;
  readonly mac: string;
}

/** One row a host. */
export function hostRows(design: Design): HostRow[] {
  const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  const vlans = new Map(design.vlans.map((vlan) => [vlan.id, vlan.name ?? '']));
  return design.hosts.map((host) => ({
    id: host.id,
    name: host.name ?? host.id,
    vlan: host.vlan,
    vlanName: vlans.get(host.vlan) ?? (host.vlan === 1 ? 'default' : 'not listed'),
    at: host.attach.map((end) => `${names.get(end.switch)} port ${end.port}`).join(' and ') || 'nowhere',
    mac: host.mac,
  }));
}

const COLUMNS: GridColDef<HostRow>[] = [
  { field: 'name', headerName: 'Host', width: 210 },
  { field: 'vlan', headerName: 'VLAN', type: 'number', width: 80 },
  { field: 'vlanName', headerName: 'VLAN name', width: 180 },
  { field: 'at', headerName: 'Plugged into', width: 280 },
  { field: 'mac', headerName: 'MAC address', flex: 1, minWidth: 150 },
];
const itemOf = (row: HostRow): Item => ({ kind: 'host', host: row.id });

export function HostTable() {
  const design = useFollowing((state) => state.design);
  const rows = useMemo(() => hostRows(design), [design]);
  if (rows.length === 0)
    return <p className={styles.empty}>No hosts yet. In the line above the map: host desk = a 9 vlan 45.</p>;
  return <ItemTable label="Hosts" what="hosts" example="45 desk" rows={rows} columns={COLUMNS} itemOf={itemOf} />;
}
