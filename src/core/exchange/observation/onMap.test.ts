/** What is drawn of an observation is what was told. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { anyDesign } from '../../testing/networks';
import { observedAtRest } from '../../testing/observed';
import { tries } from '../../testing/runs';
import { movedEnds } from '../../tree/moved';
import { viewTree } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { asObserved } from './onMap';

it('draws a network at rest as its design is solved', () =>
  fc.assert(
    fc.property(anyDesign, (design) => {
      const [solved, told] = [solve(design), asObserved(design, observedAtRest(design))];
      expect(movedEnds(solved, told)).toEqual([]);
    }),
    { numRuns: tries(30) },
  ));

it('draws another network as that one is solved', () => {
  const demo = fernhollow();
  const done = editAll(demo, [
    { do: 'set-bridge-priority', switch: 'lodge' as never, tree: 'vlan:15' as never, priority: 0 },
    { do: 'set-link', link: demo.links[0]!.id, up: false },
  ]);
  if (!done.ok) throw new Error();
  const there = done.value.design;
  const told = asObserved(demo, observedAtRest(there));
  expect(movedEnds(solve(there), told)).toEqual([]);
  expect(movedEnds(solve(demo), told).length).toBeGreaterThan(0);
  // What explains the trees is what is there.
  expect(told.network.design.switches.find(({ id }) => id === 'lodge')!.trees).toEqual({ 'vlan:15': { priority: 0 } });
  const other = solve(there);
  told.trees.forEach((tree, t) =>
    expect(viewTree(told.network, tree).switches).toEqual(viewTree(other.network, other.trees[t]!).switches),
  );
});
