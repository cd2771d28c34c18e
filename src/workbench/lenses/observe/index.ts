import { loadable } from '../../ui/loadable';
import { table, type LensManifest } from '../manifest';
import { findings, history, moved, ports } from '../shared/tables';
import { PANELS } from './panels';
import { DifferTags } from './DifferTags';

export const observe: LensManifest = {
  lens: 'Observe',
  purpose: 'The design held against the network that is there.',
  tables: [
    table('held', 'Held against', () => import('./HeldTable').then((m) => m.HeldTable), {
      offer: 'The design held against what its network tells',
      tall: true,
      withoutTrees: true,
    }),
    table('observed-switches', 'Who was read', () => import('./ReadTable').then((m) => m.ReadTable), {
      offer: 'Switches that were read, and what they did not tell',
      withoutTrees: true,
    }),
    table('watch', 'Watch', () => import('./WatchTable').then((m) => m.WatchTable), {
      offer: 'The network that is there, watched: what happened when',
      tall: true,
      withoutTrees: true,
      ofServer: true,
    }),
    table('predicted', 'Predicted', () => import('./PredictedTable').then((m) => m.PredictedTable), {
      offer: 'What the settings that were read come to, beside what the switches say',
      withoutTrees: true,
    }),
    ports,
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  layers: { over: DifferTags },
  Signs: loadable('the signs of observe', () => import('./Signs').then((m) => m.Signs)),
};
