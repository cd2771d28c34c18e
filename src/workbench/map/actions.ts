/** What can be done to the map from keys and palette. */
import type { PageAction } from '../state/action';
import { atPresent } from '../state/looking';
import type { Workbench } from '../state/workbench';
import { addSwitch } from './AddSwitch';

const filled = (state: Workbench): boolean => atPresent(state) && state.design.switches.length > 0;

export const ACTIONS: readonly PageAction[] = [
  { id: 'whole', name: 'Whole map', group: 'Map', keys: ['0'], run: (state) => state.controls?.whole() },
  { id: 'closer', name: 'Closer', group: 'Map', keys: ['+'], run: (state) => state.controls?.closer() },
  { id: 'farther', name: 'Farther', group: 'Map', keys: ['-'], run: (state) => state.controls?.farther() },
  {
    id: 'hang',
    name: 'Hung from the root, or as placed',
    group: 'Map',
    keys: ['H'],
    when: (state) => state.shownTrees.length > 0,
    run: (state) => state.setLayout(state.layout === 'hung' ? 'placed' : 'hung'),
  },
  {
    id: 'tidy-tier',
    name: 'Tidy the map by tier',
    group: 'Map',
    when: filled,
    run: (state) => state.controls?.tidy('tier'),
  },
  {
    id: 'tidy-root',
    name: 'Tidy the map by distance from the root',
    group: 'Map',
    when: filled,
    run: (state) => state.controls?.tidy('root'),
  },
  {
    id: 'add-switch',
    name: 'Add a switch',
    group: 'Map',
    keys: ['N'],
    when: (state) => atPresent(state) && state.layout === 'placed',
    run: addSwitch,
  },
  {
    id: 'travel',
    name: 'Travel from switch to port to far end',
    group: 'Map',
    keys: ['arrow keys'],
    when: () => false,
    run: () => undefined,
  },
];
