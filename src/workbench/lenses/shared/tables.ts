/** Tables that stand in several lenses. */
import { openFirst } from '../../../core/analysis/findings/decided';
import { table, type Table } from '../manifest';
import { FindingsList } from './FindingsList';

export const ports = table('ports', 'Ports', () => import('./PortTable').then((m) => m.PortTable));
export const moved = table('moved', 'Changed ports', () => import('./MovedTable').then((m) => m.MovedTable), {
  count: (state) => state.moved?.ends.length ?? 0,
});
export const findings: Table = {
  key: 'findings',
  label: 'Findings',
  offer: 'Findings',
  Body: FindingsList,
  count: ({ design, findings: { list } }) => openFirst(design, list).open.length,
};
export const history = table('history', 'History', () => import('./HistoryTable').then((m) => m.HistoryTable), {
  offer: 'History of revisions',
  ofServer: true,
  withoutTrees: true,
});
export const vlans = table('vlans', 'VLANs', () => import('./VlanTable').then((m) => m.VlanTable), {
  offer: 'Table of VLANs',
  withoutTrees: true,
  open: true,
});
