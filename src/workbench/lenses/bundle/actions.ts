/** What Bundle adds to keys and palette. */
import type { PageAction } from '../../state/action';
import { bundleSelected, canBundle } from '../../state/editing';
import { mayEdit } from '../../state/looking';

export const ACTIONS: readonly PageAction[] = [
  {
    id: 'bundle',
    name: 'Bundle the selected links at both ends',
    group: 'Selection',
    keys: ['B'],
    when: (state) => mayEdit(state) && canBundle(state),
    run: bundleSelected,
  },
];
