/** Everything that can be done from the keyboard or the palette, once. */
import { MANIFESTS, OFFERED, lensWith } from '../lenses/lenses';
import { islandRoots } from '../../core/tree/explain/election';
import { treeOf } from '../../core/tree/settled';
import { ACTIONS as MAP_ACTIONS } from '../map/actions';
import { ACTION_GROUPS, selected, type PageAction } from '../state/action';
import { cutOrRestore, lineUp, powerOffOrOn, removeSelected, selectAll } from '../state/editing';
import { exportDesign } from '../state/exportDesign';
import { atPresent, mayEdit } from '../state/looking';
import { linkTo } from '../state/link';
import { HAS_SERVER } from '../state/reach';
import { focusMap } from '../state/mapRoom';
import { type Workbench } from '../state/store';
import { LENSES } from '../state/lens';

const OWN: readonly PageAction[] = [
  {
    id: 'palette',
    name: 'Find an action or an object',
    group: 'Anywhere',
    keys: ['Ctrl+K'],
    run: (state) => state.openDialog('palette'),
  },
  { id: 'keys', name: 'Show all keys', group: 'Anywhere', keys: ['?'], run: (state) => state.openDialog('keys') },
  {
    id: 'glossary',
    name: 'Glossary: what the terms mean',
    group: 'Anywhere',
    keys: ['G'],
    run: (state) => state.openDialog('glossary'),
  },
  {
    id: 'tour',
    name: 'Tour of the workbench in five steps',
    group: 'Anywhere',
    when: (state) => mayEdit(state) && state.design.switches.length > 1,
    run: (state) => state.setTour(0),
  },
  {
    id: 'undo',
    name: 'Undo the last change',
    group: 'Anywhere',
    keys: ['Ctrl+Z'],
    when: (state) => mayEdit(state) && state.undoSteps.length > 0,
    run: (state) => state.undo(),
  },
  {
    id: 'redo',
    name: 'Redo what was undone',
    group: 'Anywhere',
    keys: ['Ctrl+Shift+Z', 'Ctrl+Y'],
    when: (state) => mayEdit(state) && state.redoSteps.length > 0,
    run: (state) => state.redo(),
  },
  {
    id: 'export',
    name: 'Export this design as a file',
    group: 'Anywhere',
    when: (state) => state.save.kind === 'saved',
    run: (state) => exportDesign(state.id, state.newest),
  },
  {
    id: 'link',
    name: 'Copy a link to what is shown',
    group: 'Anywhere',
    when: ({ looking: { kind } }) => HAS_SERVER && (kind === 'present' || kind === 'revision'),
    run: (state) => void navigator.clipboard.writeText(`${window.location.origin}${linkTo(state)}`),
  },
  {
    id: 'designs',
    name: 'List of designs',
    group: 'Anywhere',
    when: () => HAS_SERVER,
    run: () => window.location.assign('/'),
  },
  {
    id: 'now',
    name: 'Go back to now',
    group: 'Anywhere',
    when: (state) => !atPresent(state),
    run: (state) => state.look(null),
  },
  ...LENSES.map((lens): PageAction => ({
    id: `lens-${lens}`,
    name: `${lens} view`,
    group: 'Anywhere',
    when: (state) => state.lens !== lens,
    run: (state) => state.setLens(lens),
  })),
  {
    id: 'drawer',
    name: 'Show or hide the table',
    group: 'Anywhere',
    keys: ['D'],
    run: (state) => state.toggleDrawer(),
  },
  {
    id: 'inspector',
    name: 'Open or fold the inspector',
    group: 'Anywhere',
    keys: ['I'],
    run: (state) => state.toggleInspector(),
  },
  ...OFFERED.map(({ key, offer }): PageAction => ({
    id: `open-${key}`,
    name: offer!,
    group: 'Anywhere',
    run(state) {
      const lens = lensWith(key, state.lens);
      if (state.lens !== lens) state.setLens(lens);
      state.openDrawer(key);
    },
  })),

  { id: 'tree-before', name: 'The tree before', group: 'Trees', keys: ['['], run: (state) => state.stepTree(-1) },
  { id: 'tree-next', name: 'The next tree', group: 'Trees', keys: [']'], run: (state) => state.stepTree(1) },
  {
    id: 'root',
    name: 'Go to the root of the tree that is shown',
    group: 'Trees',
    keys: ['R'],
    when: (state) => rootOf(state) !== null,
    run: (state) => {
      state.goTo({ kind: 'switch', switch: rootOf(state)! });
      focusMap();
    },
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
    when: (state) => mayEdit(state) && state.selection !== null,
    run: removeSelected,
  },
  {
    id: 'cut',
    name: 'Cut or restore the selected links',
    group: 'Selection',
    keys: ['X'],
    when: selected('link'),
    run: cutOrRestore,
  },
  {
    id: 'power',
    name: 'Switch the selected switches off or on',
    group: 'Selection',
    keys: ['O'],
    when: selected('switch'),
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
    when: selected('switch', 2),
    run: (state) => lineUp(state, 'row'),
  },
  {
    id: 'column',
    name: 'Line up in a column',
    group: 'Selection',
    when: selected('switch', 2),
    run: (state) => lineUp(state, 'column'),
  },
  {
    id: 'spread-across',
    name: 'Spread evenly across',
    group: 'Selection',
    when: selected('switch', 3),
    run: (state) => lineUp(state, 'spread-across'),
  },
  {
    id: 'spread-down',
    name: 'Spread evenly down',
    group: 'Selection',
    when: selected('switch', 3),
    run: (state) => lineUp(state, 'spread-down'),
  },
];

/** All of them, group by group. */
export const ACTIONS: readonly PageAction[] = ACTION_GROUPS.flatMap((group) =>
  [...OWN, ...MANIFESTS.flatMap(({ actions }) => actions ?? []), ...MAP_ACTIONS].filter(
    (action) => action.group === group,
  ),
);

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
): PageAction | null {
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
