import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import type { SwitchId, TreeId } from '../../model/ids';
import { anyDesign, networkOf, solutionOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { roleOf, treeOf } from '../../tree/settled';
import { focused } from './focus';

const ids = (...all: string[]) => all as SwitchId[];
const chain = networkOf({ a: { priority: 0 }, b: {}, c: {}, d: {} }, [
  'a 1 = b 1',
  'b 2 = c 1',
  'c 2 = d 1',
  'd 2 = b 3',
]);
const solved = solutionOf(chain);
const CST = ['cst'] as TreeId[];

it('grows by a link each hop, up to all that hangs together', () => {
  const around = (hops: number) => focused(chain, { kind: 'around', switches: ids('a'), hops }, null, []);
  expect([0, 1, 2, 9].map(around)).toEqual([ids('a'), ids('a', 'b'), ids('a', 'b', 'c', 'd'), ids('a', 'b', 'c', 'd')]);
});

it('follows ways to the root, and finds both ends of what blocks', () => {
  expect(focused(chain, { kind: 'ways', switches: ids('d') }, solved, CST)).toEqual(ids('a', 'b', 'd'));
  expect(focused(chain, { kind: 'ways', switches: ids('d') }, null, CST)).toEqual(ids('d'));
  expect(focused(chain, { kind: 'blocks' }, solved, CST)).toEqual(ids('c', 'd'));
});

it('shows a root with every way, and every alternate end with what blocks', () => {
  fc.assert(
    fc.property(anyDesign, (design) => {
      const solution = solutionOf(design);
      const { network, trees } = solution;
      for (const tree of trees) {
        const blocks = new Set(focused(design, { kind: 'blocks' }, solution, [tree.id]));
        for (const p of network.ports.keys())
          if (roleOf(tree, p) === 'alternate' && network.link[p]! >= 0)
            expect(blocks).toContain(network.switches[network.owner[p]!]!.id);
        for (const [s, { id }] of network.switches.entries()) {
          const way = focused(design, { kind: 'ways', switches: [id] }, solution, [tree.id]);
          expect(way).toContain(id);
          if (tree.rootPort[s]! >= 0) expect(way.length).toBeGreaterThan(1);
        }
      }
    }),
    { numRuns: tries(30) },
  );
});

it('hides nothing of the demo that blocks', () => {
  const demo = fernhollow();
  const solution = solutionOf(demo);
  const tree = treeOf(solution, 'vlan:15' as TreeId)!;
  expect(tree).toBeDefined();
  expect(focused(demo, { kind: 'blocks' }, solution, ['vlan:15' as TreeId])).toContain('ridge-b');
});
