import { table, type LensManifest } from '../manifest';
import { findings, history, moved, vlans } from '../shared/tables';
import { CablingLine } from './CablingLine';
import { ACTIONS } from './actions';
import { PANELS } from './panels';

const plain = { withoutTrees: true, open: true };

export const cable: LensManifest = {
  lens: 'Cable',
  purpose: 'What is plugged into what, at what speed, and what each port carries.',
  tables: [
    table('cables', 'Cables', () => import('./CableTable').then((m) => m.CableTable), {
      offer: 'Table of cables',
      ...plain,
    }),
    table('neighbours', 'Neighbours', () => import('./NeighbourTable').then((m) => m.NeighbourTable), {
      offer: 'Neighbours of every port',
      ...plain,
    }),
    table('hosts', 'Hosts', () => import('./HostTable').then((m) => m.HostTable), {
      offer: 'Table of hosts',
      ...plain,
    }),
    table('groups', 'Groups', () => import('./groups/GroupTable').then((m) => m.GroupTable), {
      offer: 'Groups of switches',
      ...plain,
    }),
    vlans,
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  actions: ACTIONS,
  itselfFirst: true,
  Above: CablingLine,
};
