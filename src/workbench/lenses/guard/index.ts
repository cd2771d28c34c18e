import { loadable } from '../../ui/loadable';
import { table, type LensManifest } from '../manifest';
import { findings, history, moved, ports } from '../shared/tables';
import { OpenEdges } from './OpenEdges';
import { PANELS } from './panels';

export const guard: LensManifest = {
  lens: 'Guard',
  purpose: 'What an edge must never hear, what happens when it does, and how it comes back.',
  tables: [
    table('guards', 'Guards', () => import('./GuardTable').then((m) => m.GuardTable), {
      offer: 'Guards of every port',
    }),
    table('guard-rules', 'By rule', () => import('./RulesTable').then((m) => m.RulesTable), {
      offer: 'Guards set by rule',
      tall: true,
    }),
    table('strangers', 'If a stranger comes', () => import('./StrangerTable').then((m) => m.StrangerTable), {
      offer: "If a stranger's switch is plugged in",
    }),
    table('guard-failures', 'Under failures', () => import('./FailureTable').then((m) => m.FailureTable), {
      offer: 'Guards under every single failure',
    }),
    ports,
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  layers: { over: OpenEdges },
  Signs: loadable('the signs of guard', () => import('./Signs').then((m) => m.Signs)),
};
