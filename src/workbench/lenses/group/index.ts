import { loadable } from '../../ui/loadable';
import { table, type LensManifest } from '../manifest';
import { findings, history, ports, moved, vlans } from '../shared/tables';
import { RegionOutlines } from './RegionOutlines';
import { PANELS } from './panels';

export const group: LensManifest = {
  lens: 'Group',
  purpose: 'Many VLANs on few trees: regions, and the VLANs assigned to their instances.',
  tables: [
    table('board', 'Board', () => import('./Board').then((m) => m.Board), {
      offer: 'VLANs assigned to instances',
      tall: true,
    }),
    table('regions', 'Regions', () => import('./RegionsTable').then((m) => m.RegionsTable), {
      offer: 'Regions, and two switches compared',
      tall: true,
    }),
    table('gain', 'Savings', () => import('./GainTable').then((m) => m.GainTable), {
      offer: 'What instances save against one tree a VLAN',
      tall: true,
    }),
    table('moving', 'Migration', () => import('./MovingTable').then((m) => m.MovingTable), {
      offer: 'Migration to MSTP, step by step',
      tall: true,
    }),
    table('ways-out', 'Ways out', () => import('./WaysOutTable').then((m) => m.WaysOutTable), {
      offer: 'Ways out of a mix of modes',
      tall: true,
    }),
    vlans,
    ports,
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  layers: { under: RegionOutlines },
  Signs: loadable('the signs of group', () => import('./Signs').then((m) => m.Signs)),
};
