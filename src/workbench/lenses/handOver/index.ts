import { table, type LensManifest } from '../manifest';
import { findings, history, vlans } from '../shared/tables';

export const handOver: LensManifest = {
  lens: 'Hand over',
  purpose: 'What was designed, in open forms that switches and people take.',
  tables: [
    table('settings', 'Settings', () => import('./SettingsTable').then((m) => m.SettingsTable), {
      offer: 'Settings of every switch in an open form',
      tall: true,
      withoutTrees: true,
    }),
    vlans,
    findings,
    history,
  ],
};
