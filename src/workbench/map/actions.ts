/** What can be done to the map from keys and palette. */
import type { PageAction } from '../state/action';
import { standIns } from '../../core/analysis/groups/groups';
import type { GroupId, SwitchId } from '../../core/model/ids';
import { groupsOf, outermost } from '../state/folding';
import { mayEdit, isHidden } from '../state/looking';
import { itemsOf, switchesOf } from '../state/selection';
import type { Workbench } from '../state/workbench';
import { addSwitch } from './AddSwitch';
import { KINDS, PARTS, pictureName, savePicture } from './picture/save';

const filled = (state: Workbench): boolean => mayEdit(state) && state.design.switches.length > 0;

/** The switches that are selected, or that what is selected hangs on. */
const chosen = (state: Workbench): SwitchId[] => [
  ...new Set(itemsOf(state.selection).flatMap((item) => switchesOf(state.design, item))),
];

/** The groups that what is selected is in, and whether to fold or unfold them: what stands for it now, else the innermost around it. */
function foldsOfChosen(state: Workbench): { readonly groups: readonly GroupId[]; readonly how: 'fold' | 'unfold' } {
  const groups = groupsOf(state.design);
  const stands = standIns(groups, state.folded);
  const switches = chosen(state);
  const standing = new Set(switches.flatMap((id) => stands.get(id)?.group.id ?? []));
  if (standing.size > 0) return { groups: [...standing], how: 'unfold' };
  const around = new Set(
    switches.flatMap((id) => groups.findLast((each) => each.switches.includes(id))?.group.id ?? []),
  );
  return { groups: [...around], how: 'fold' };
}

export const ACTIONS: readonly PageAction[] = [
  { id: 'whole', name: 'Whole map', group: 'Map', keys: ['0'], run: (state) => state.controls?.whole() },
  { id: 'closer', name: 'Zoom in', group: 'Map', keys: ['+'], run: (state) => state.controls?.closer() },
  { id: 'farther', name: 'Zoom out', group: 'Map', keys: ['-'], run: (state) => state.controls?.farther() },
  {
    id: 'hang',
    name: 'Hung from the root, or as placed',
    group: 'Map',
    keys: ['H'],
    when: (state) => state.shownTrees.length > 0,
    run: (state) => state.setLayout(state.layout === 'hung' ? 'placed' : 'hung'),
  },
  {
    id: 'only',
    name: 'Only what is selected and what it is cabled to, or all again',
    group: 'Map',
    keys: ['F'],
    when: (state) => state.focus !== null || chosen(state).length > 0,
    run: (state) => state.setFocus(state.focus ? null : { kind: 'around', switches: chosen(state), hops: 1 }),
  },
  {
    id: 'only-ways',
    name: 'Only the ways of what is selected to the root',
    group: 'Map',
    when: (state) => chosen(state).length > 0 && !isHidden(state),
    run: (state) => state.setFocus({ kind: 'ways', switches: chosen(state) }),
  },
  {
    id: 'only-blocks',
    name: 'Only what blocks in the trees shown',
    group: 'Map',
    when: (state) => state.shownTrees.length > 0 && !isHidden(state),
    run: (state) => state.setFocus({ kind: 'blocks' }),
  },
  {
    id: 'only-moved',
    name: 'Only what just moved',
    group: 'Map',
    when: (state) => (state.moved?.ends.length ?? 0) > 0,
    run: (state) =>
      state.setFocus({ kind: 'moved', switches: [...new Set(state.moved!.ends.map((end) => end.switch))] }),
  },
  {
    id: 'fold',
    name: 'Fold the groups of what is selected, or unfold them',
    group: 'Map',
    keys: ['Z'],
    when: (state) => foldsOfChosen(state).groups.length > 0,
    run: (state) => state.fold(foldsOfChosen(state).groups, foldsOfChosen(state).how),
  },
  {
    id: 'fold-all',
    name: 'Fold all groups',
    group: 'Map',
    when: (state) => groupsOf(state.design).some(({ group }) => !state.folded.has(group.id)),
    run: (state) => state.fold(outermost(state.design), 'fold'),
  },
  {
    id: 'unfold-all',
    name: 'Unfold all groups',
    group: 'Map',
    when: (state) => groupsOf(state.design).some(({ group }) => state.folded.has(group.id)),
    run: (state) => state.fold(state.folded, 'unfold'),
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
  ...PARTS.flatMap((part) =>
    KINDS.map((kind): PageAction => ({
      id: `picture-${part}-${kind}`,
      name: pictureName(part, kind),
      group: 'Map',
      when: (state) => state.design.switches.length > 0,
      run: (state) =>
        void savePicture(state, part, kind).then(
          (refused) => refused !== null && state.advise({ text: refused, remedy: null }),
        ),
    })),
  ),
  {
    id: 'add-switch',
    name: 'Add a switch',
    group: 'Map',
    keys: ['N'],
    when: (state) => mayEdit(state) && state.layout === 'placed',
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
