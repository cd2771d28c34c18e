import { table, type LensManifest } from '../manifest';
import { findings, history, ledger, moved, vlans } from '../shared/tables';
import { RegionOutlines } from './RegionOutlines';
import { PANELS } from './panels';

export const group: LensManifest = {
  lens: 'Group',
  tables: [
    table('board', 'Board', () => import('./Board').then((m) => m.Board), {
      offer: 'VLANs laid onto instances',
      tall: true,
    }),
    table('regions', 'Regions', () => import('./RegionsTable').then((m) => m.RegionsTable), {
      offer: 'Regions, and two switches compared',
      tall: true,
    }),
    table('gain', 'Gain', () => import('./GainTable').then((m) => m.GainTable), {
      offer: 'What instances gain against one tree a VLAN',
      tall: true,
    }),
    table('moving', 'Moving', () => import('./MovingTable').then((m) => m.MovingTable), {
      offer: 'Moving to MSTP, step by step',
      tall: true,
    }),
    vlans,
    ledger,
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  layers: { under: RegionOutlines },
};
