/** Everything that can be done from the keyboard or the palette, once: what it is called, its key, when it can be done. */
import { OFFERED, lensWith } from '../../lenses/lenses';
import { islandRoots } from '../../../core/tree/explain/election';
import { treeOf } from '../../../core/tree/settled';
import { CABLING_FIELD } from '../../state/cablingField';
import { addSwitch } from '../../map/AddSwitch';
import { itemsOf } from '../../state/selection';
import { LENSES, type Workbench } from '../../state/store';
import { placeSelected } from '../../lenses/shared/placing';
import {
  bundleSelected,
  canBundle,
  cutOrRestore,
  lineUp,
  powerOffOrOn,
  removeSelected,
  selectAll,
} from '../../state/editing';
import { atPresent } from '../../state/looking';

export type ActionGroup = 'Anywhere' | 'Trees' | 'Map' | 'Selection';

export interface Action {
  readonly id: string;
  readonly name: string;
  readonly group: ActionGroup;
  /** As people read it: `Ctrl+Shift+Z`, `[`. */
  readonly keys?: readonly string[];
  /** Whether it can be done now; always, where it is left out. */
  readonly when?: (state: Workbench) => boolean;
  readonly run: (state: Workbench) => void;
}

const present = (state: Workbench): boolean => atPresent(state);
const some =
  (kind: 'switch' | 'link', least = 1) =>
  (state: Workbench): boolean =>
    present(state) && itemsOf(state.selection).filter((item) => item.kind === kind).length >= least;
const turning = (state: Workbench): boolean => state.lens === 'Break' && state.clock?.ready() === true;
const filled = (state: Workbench): boolean => present(state) && state.design.switches.length > 0;

/** Puts the cursor into the cabling line, in its lens. */
function toCablingLine(state: Workbench): void {
  state.setLens('Cable');
  requestAnimationFrame(() => document.getElementById(CABLING_FIELD)?.focus());
}

export const ACTIONS: readonly Action[] = [
  {
    id: 'palette',
    name: 'Find an action or an object',
    group: 'Anywhere',
    keys: ['Ctrl+K'],
    run: (state) => state.openDialog('palette'),
  },
  { id: 'keys', name: 'Show all keys', group: 'Anywhere', keys: ['?'], run: (state) => state.openDialog('keys') },
  { id: 'line', name: 'Write into the cabling line', group: 'Anywhere', keys: ['/'], run: toCablingLine },
  {
    id: 'undo',
    name: 'Take the last change back',
    group: 'Anywhere',
    keys: ['Ctrl+Z'],
    when: (state) => present(state) && state.undoSteps.length > 0,
    run: (state) => state.undo(),
  },
  {
    id: 'redo',
    name: 'Do it again',
    group: 'Anywhere',
    keys: ['Ctrl+Shift+Z', 'Ctrl+Y'],
    when: (state) => present(state) && state.redoSteps.length > 0,
    run: (state) => state.redo(),
  },
  {
    id: 'now',
    name: 'Go back to now',
    group: 'Anywhere',
    when: (state) => !present(state),
    run: (state) => state.look(null),
  },
  ...LENSES.map((lens): Action => ({
    id: `lens-${lens}`,
    name: `${lens} lens`,
    group: 'Anywhere',
    when: (state) => state.lens !== lens,
    run: (state) => state.setLens(lens),
  })),
  {
    id: 'drawer',
    name: 'Open or close the drawer',
    group: 'Anywhere',
    keys: ['D'],
    run: (state) => state.toggleDrawer(),
  },
  ...OFFERED.map(({ key, offer }): Action => ({
    id: `open-${key}`,
    name: offer!,
    group: 'Anywhere',
    run(state) {
      const lens = lensWith(key, state.lens);
      if (state.lens !== lens) state.setLens(lens);
      state.openDrawer(key);
    },
  })),
  {
    id: 'clock-next',
    name: 'Next change on the clock',
    group: 'Anywhere',
    keys: ['.'],
    when: turning,
    run: (state) => state.clock?.step(1),
  },
  {
    id: 'clock-back',
    name: 'Previous change on the clock',
    group: 'Anywhere',
    keys: [','],
    when: turning,
    run: (state) => state.clock?.step(-1),
  },
  {
    id: 'clock-play',
    name: 'Play the clock slowly, or halt it',
    group: 'Anywhere',
    keys: ['T'],
    when: turning,
    run: (state) => state.clock?.playOrHalt(),
  },
  {
    id: 'clock-start',
    name: 'Clock to the start',
    group: 'Anywhere',
    when: turning,
    run: (state) => state.clock?.toStart(),
  },

  { id: 'tree-before', name: 'The tree before', group: 'Trees', keys: ['['], run: (state) => state.stepTree(-1) },
  { id: 'tree-next', name: 'The next tree', group: 'Trees', keys: [']'], run: (state) => state.stepTree(1) },
  {
    id: 'root',
    name: 'Go to the root of the tree that is shown',
    group: 'Trees',
    keys: ['R'],
    when: (state) => rootOf(state) !== null,
    run: (state) => state.goTo({ kind: 'switch', switch: rootOf(state)! }),
  },

  {
    id: 'place-root',
    name: 'Make the selected switch root of the trees shown',
    group: 'Trees',
    keys: ['P'],
    when: some('switch'),
    run: placeSelected('root'),
  },
  {
    id: 'place-standby',
    name: 'Make the selected switch their standby',
    group: 'Trees',
    keys: ['S'],
    when: some('switch'),
    run: placeSelected('standby'),
  },
  {
    id: 'place-never',
    name: 'Give the selected switches the worst priority: never root',
    group: 'Trees',
    keys: ['W'],
    when: some('switch'),
    run: placeSelected('never'),
  },

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
    when: (state) => present(state) && state.layout === 'placed',
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

  {
    id: 'nothing',
    name: 'Select nothing',
    group: 'Selection',
    keys: ['Escape'],
    when: (state) => state.selection !== null,
    run: (state) => state.select(null),
  },
  {
    id: 'all',
    name: 'Select every switch',
    group: 'Selection',
    keys: ['Ctrl+A'],
    when: (state) => state.design.switches.length > 0,
    run: selectAll,
  },
  {
    id: 'remove',
    name: 'Remove what is selected',
    group: 'Selection',
    keys: ['Delete', 'Backspace'],
    when: (state) => present(state) && state.selection !== null,
    run: removeSelected,
  },
  {
    id: 'cut',
    name: 'Cut or restore the selected links',
    group: 'Selection',
    keys: ['X'],
    when: some('link'),
    run: cutOrRestore,
  },
  {
    id: 'bundle',
    name: 'Bundle the selected links at both ends',
    group: 'Selection',
    keys: ['B'],
    when: (state) => present(state) && canBundle(state),
    run: bundleSelected,
  },
  {
    id: 'power',
    name: 'Switch the selected switches off or on',
    group: 'Selection',
    keys: ['O'],
    when: some('switch'),
    run: powerOffOrOn,
  },
  {
    id: 'copy',
    name: 'Copy the selected switches',
    group: 'Selection',
    keys: ['Ctrl+C'],
    when: () => false,
    run: () => undefined,
  },
  {
    id: 'paste',
    name: 'Paste switches',
    group: 'Selection',
    keys: ['Ctrl+V'],
    when: () => false,
    run: () => undefined,
  },
  {
    id: 'row',
    name: 'Line up in a row',
    group: 'Selection',
    when: some('switch', 2),
    run: (state) => lineUp(state, 'row'),
  },
  {
    id: 'column',
    name: 'Line up in a column',
    group: 'Selection',
    when: some('switch', 2),
    run: (state) => lineUp(state, 'column'),
  },
  {
    id: 'spread-across',
    name: 'Spread evenly across',
    group: 'Selection',
    when: some('switch', 3),
    run: (state) => lineUp(state, 'spread-across'),
  },
  {
    id: 'spread-down',
    name: 'Spread evenly down',
    group: 'Selection',
    when: some('switch', 3),
    run: (state) => lineUp(state, 'spread-down'),
  },
];

/** The root of the first tree shown. */
function rootOf({ solution, shownTrees }: Workbench) {
  const tree = solution && shownTrees[0] ? treeOf(solution, shownTrees[0]) : undefined;
  const [root] = solution && tree ? islandRoots(solution.network, tree) : [];
  return root === undefined ? null : solution!.network.switches[root]!.id;
}

/** The action that a key press means, if it can be done now. */
export function actionFor(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
  state: Workbench,
): Action | null {
  if (event.altKey) return null;
  return (
    ACTIONS.find((action) => action.keys?.some((keys) => matches(keys, event)) && (action.when?.(state) ?? true)) ??
    null
  );
}

function matches(
  keys: string,
  { key, ctrlKey, metaKey, shiftKey }: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey'>,
): boolean {
  const parts = keys === '+' ? ['+'] : keys.split('+');
  const wanted = parts.at(-1)!.toLowerCase();
  const command = parts.includes('Ctrl');
  // A sign such as ? may need Shift on its keyboard; letters and named keys do not.
  const shift = /^[a-z]$|^[a-z]{2,}$/.test(wanted) ? parts.includes('Shift') === shiftKey : true;
  return key.toLowerCase() === wanted && command === (ctrlKey || metaKey) && shift;
}
