import { table, type LensManifest } from '../manifest';
import { findings, history, ports, moved } from '../shared/tables';
import { ACTIONS } from './actions';
import { PANELS } from './panels';

export const bundle: LensManifest = {
  lens: 'Bundle',
  purpose: 'Links that act as one: whether a bundle comes up, and what each member does.',
  tables: [
    table('bundles', 'Bundles', () => import('./BundleTable').then((m) => m.BundleTable), {
      offer: 'Bundles and links side by side',
      withoutTrees: true,
    }),
    table('modes', 'Modes', () => import('./ModesTable').then((m) => m.ModesTable), {
      offer: 'Modes: which pairs of bundle ends come up',
      tall: true,
      withoutTrees: true,
    }),
    table('flows', 'Flows', () => import('./FlowsTable').then((m) => m.FlowsTable), {
      offer: 'Flows over a bundle',
      tall: true,
      withoutTrees: true,
    }),
    table('plan', 'Plan of action', () => import('./PlanTable').then((m) => m.PlanTable), {
      offer: 'Plan of action for a new bundle',
      tall: true,
      withoutTrees: true,
    }),
    ports,
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  actions: ACTIONS,
};
