import { loadable } from '../../ui/loadable';
import { table, type LensManifest } from '../manifest';
import { findings, history } from '../shared/tables';
import { PlayedRun } from './PlayedRun';
import { ACTIONS } from './actions';
import { PANELS } from './panels';

/** The simulator gives them what they need. */
const played = { tall: true, withoutTrees: true };

export const breaking: LensManifest = {
  lens: 'Break',
  purpose: 'What happens when something fails, second by second, and who is cut off for how long.',
  tables: [
    table('clock', 'Timeline', () => import('./ClockTable').then((m) => m.ClockTable), {
      offer: 'Timeline: a scenario and its run',
      ...played,
    }),
    table('outages', 'Outages', () => import('./OutageTable').then((m) => m.OutageTable), {
      offer: 'Outages of a run',
      ...played,
    }),
    table('order', 'Order of events', () => import('./OrderTable').then((m) => m.OrderTable), {
      offer: 'Order of events of a run',
      ...played,
    }),
    table('reach', 'Frame paths', () => import('./ReachTable').then((m) => m.ReachTable), {
      offer: 'Frame paths: who reaches whom',
      ...played,
    }),
    table('frames', 'Frames', () => import('./FramesTable').then((m) => m.FramesTable), {
      offer: 'Frames of a run',
      ...played,
    }),
    table('sides', 'Side by side', () => import('./SidesTable').then((m) => m.SidesTable), {
      offer: 'A scenario side by side',
      ...played,
    }),
    findings,
    history,
  ],
  panels: PANELS,
  actions: ACTIONS,
  layers: { over: PlayedRun },
  Signs: loadable('the signs of break', () => import('./Signs').then((m) => m.Signs)),
};
