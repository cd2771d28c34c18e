/** What Root adds to keys and palette: placing roots. */
import { selected, type PageAction } from '../../state/action';
import { placeSelected } from '../shared/placing';

export const ACTIONS: readonly PageAction[] = [
  {
    id: 'place-root',
    name: 'Make the selected switch root of the trees shown',
    group: 'Trees',
    keys: ['P'],
    when: selected('switch'),
    run: placeSelected('root'),
  },
  {
    id: 'place-standby',
    name: 'Make the selected switch their standby',
    group: 'Trees',
    keys: ['S'],
    when: selected('switch'),
    run: placeSelected('standby'),
  },
  {
    id: 'place-never',
    name: 'Give the selected switches the worst priority: never root',
    group: 'Trees',
    keys: ['W'],
    when: selected('switch'),
    run: placeSelected('never'),
  },
];
