import { fernhollow } from '../../core/demo/demos';
import { editAll } from '../../core/edit/edit';
import type { TreeId } from '../../core/model/ids';
import { solve } from '../../core/tree/solve';
import { inOrder, merged, stillShown } from './shownTrees';

const before = solve(fernhollow());
const { rank: places } = before.trees.find((tree) => tree.id === 'vlan:25')!;
const last = fernhollow().switches[places.indexOf(Math.max(...places))]!.id;
const edited = editAll(fernhollow(), [
  { do: 'set-bridge-priority', switch: last, tree: 'vlan:25' as TreeId, priority: 0 },
]);
if (!edited.ok) throw new Error(edited.error.path);
const after = solve(edited.value.design);
const ids = before.trees.map((tree) => tree.id);

it('trees that came later take the place of those before, in their order, and the others stay the same values', () => {
  const newer = after.trees.filter((tree) => tree.id === 'vlan:25');
  const all = merged(before.trees, newer);
  expect(all.map((tree) => tree.id)).toEqual(ids);
  for (const [i, tree] of all.entries()) expect(tree).toBe(tree.id === 'vlan:25' ? newer[0] : before.trees[i]);
  const rank = (trees: typeof all) => [...trees.find((tree) => tree.id === 'vlan:25')!.rank];
  expect(rank(all)).not.toEqual(rank(before.trees));
});

it('shown trees stand in the order of the design, and stay as long as there are such', () => {
  expect(inOrder([ids[2]!, ids[0]!], before)).toEqual([ids[0], ids[2]]);
  const shown = [ids[1]!, ids[3]!];
  expect(stillShown(shown, fernhollow(), ids)).toBe(shown);
  expect(stillShown(shown, fernhollow(), [ids[3]!])).toEqual([ids[3]]);
  const others = ids.filter((id) => !shown.includes(id));
  expect(stillShown(shown, fernhollow(), others)).toEqual([others[0]]);
  const first = stillShown([], fernhollow(), ids);
  expect(stillShown([], fernhollow(), ids, first)).toBe(first); // nothing is drawn again for it
});
