import { loadable } from '../../ui/loadable';
import { table, type LensManifest } from '../manifest';
import { findings, history, ports, moved } from '../shared/tables';
import { PANELS } from './panels';

export const steer: LensManifest = {
  lens: 'Steer',
  purpose: 'Which way frames take, and which port blocks: set costs and priorities, or say what you want.',
  tables: [
    table('paths', 'Ways to the root', () => import('./PathTable').then((m) => m.PathTable), {
      offer: 'Ways to the root',
    }),
    table('wishes', 'Wishes', () => import('./WishesTable').then((m) => m.WishesTable), {
      offer: 'Wishes: what should block and what should carry',
      count: (state) => state.wishes.list.length,
    }),
    table('costs', 'Costs', () => import('./SteerMatrix').then((m) => m.SteerMatrix), {
      offer: 'Costs and port priorities by trees',
    }),
    table('sharing', 'Load sharing', () => import('./SharingTable').then((m) => m.SharingTable), {
      offer: 'Load sharing: load of the links, trees spread over uplinks',
    }),
    table('control', 'Control plane', () => import('./ControlTable').then((m) => m.ControlTable), {
      offer: 'Control plane: what each spanning tree mode costs',
    }),
    ports,
    moved,
    findings,
    history,
  ],
  panels: PANELS,
  Signs: loadable('the signs of steer', () => import('./Signs').then((m) => m.Signs)),
};
