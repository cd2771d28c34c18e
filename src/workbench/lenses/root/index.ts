import { table, type LensManifest } from '../manifest';
import { findings, history, ports, moved } from '../shared/tables';
import { ACTIONS } from './actions';
import { IslandOutlines } from './IslandOutlines';
import { PANELS } from './panels';
import { Signs } from './Signs';

export const root: LensManifest = {
  lens: 'Root',
  purpose: 'Which switch is the root of each tree, who stands by, and why.',
  tables: [
    ports,
    table('roots', 'Roots', () => import('./RootMatrix').then((m) => m.RootMatrix), {
      offer: 'Roots: trees by switches',
    }),
    table('losses', 'If a root dies', () => import('./LossTable').then((m) => m.LossTable), {
      offer: 'If a root dies',
    }),
    table('worksheet', 'Worksheet', () => import('./worksheet/WorksheetTable').then((m) => m.WorksheetTable), {
      offer: 'Worksheet: work a tree out by hand',
      open: true,
    }),
    table('conversations', 'Conversations', () => import('./ConversationTable').then((m) => m.ConversationTable), {
      offer: 'Conversations: what bridges say to each other',
    }),
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  actions: ACTIONS,
  layers: { under: IslandOutlines },
  Signs,
};
