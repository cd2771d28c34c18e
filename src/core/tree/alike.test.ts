import fc from 'fast-check';
import { randomDesign, solutionOf } from '../testing/networks';
import { tries } from '../testing/runs';
import { alike, alikeTrees } from './alike';
import { viewTree } from './settled';

it('groups trees that say the same of every switch, and no others', () => {
  fc.assert(
    fc.property(randomDesign('perVlan'), (design) => {
      const { network, trees } = solutionOf(design);
      const groups = alikeTrees(trees);
      expect(
        groups
          .flat()
          .map((tree) => tree.id)
          .sort(),
      ).toEqual(trees.map((tree) => tree.id).sort());
      for (const group of groups)
        for (const other of groups) expect(alike(group[0]!, other.at(-1)!)).toBe(group === other);
      // Alike trees look alike in every role that a person sees.
      const roles = (tree: (typeof trees)[0]) =>
        Object.values(viewTree(network, tree).switches).map(({ root, ports }) => [
          root,
          Object.values(ports).map((port) => ('role' in port ? port.role : null)),
        ]);
      for (const [first, ...others] of groups) for (const other of others) expect(roles(other)).toEqual(roles(first!));
    }),
    { numRuns: tries(60) },
  );
});
