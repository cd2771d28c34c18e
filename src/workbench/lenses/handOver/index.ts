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
    table('templates', 'Templates', () => import('./TemplatesTable').then((m) => m.TemplatesTable), {
      offer: 'Templates of your own, over the settings of a switch',
      tall: true,
      withoutTrees: true,
    }),
    table('report', 'Report', () => import('./ReportTable').then((m) => m.ReportTable), {
      offer: 'Report of the design, as one file to print',
      tall: true,
      withoutTrees: true,
    }),
    table('tables', 'Tables', () => import('./TablesTable').then((m) => m.TablesTable), {
      offer: 'Tables: every list of the design as CSV or spreadsheet, out and in',
      tall: true,
      withoutTrees: true,
    }),
    table('lab', 'Lab', () => import('./LabTable').then((m) => m.LabTable), {
      offer: 'Lab: the design built of real switches, and what it found',
      tall: true,
      withoutTrees: true,
    }),
    table('share', 'Share', () => import('./ShareTable').then((m) => m.ShareTable), {
      offer: 'Share: a link, a page to look at, one file',
      withoutTrees: true,
    }),
    vlans,
    findings,
    history,
  ],
};
