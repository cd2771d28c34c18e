import fc from 'fast-check';
import type { Design } from '../model/document';
import { anyDesign, randomDesign, solutionOf } from '../testing/networks';
import { exchangeVectors } from '../testing/exchange';
import { islandRoots } from './explain/election';
import { segmentsOf } from '../topology/segments';
import { CODE, treeOf, viewTree, type SettledTree, type Solution } from './settled';
import { vlanTree } from '../model/ids';
import { parts } from '../testing/runs';

const RUNS = parts(2, 200);
const forwards = (code: number | undefined): boolean => code === CODE.root || code === CODE.designated;

function segmentsFor({ network, trees }: Solution, tree: SettledTree) {
  const common = treeOf({ network, trees }, vlanTree(1));
  return segmentsOf(network, tree.id, (p) => forwards(common?.role[p]));
}

function forEachTree(design: Design, check: (solution: Solution, tree: SettledTree) => void) {
  const solution = solutionOf(design);
  for (const tree of solution.trees) check(solution, tree);
}

describe('a settled network', () => {
  it.each(RUNS)('is what bridges arrive at that know only what their ports hear (%#)', (runs) => {
    fc.assert(
      fc.property(anyDesign, (design) =>
        forEachTree(design, (solution, tree) => {
          const told = exchangeVectors(solution, tree.id, segmentsFor(solution, tree));
          expect([...tree.rootPathCost].map((cost) => (cost === Infinity ? -1 : cost))).toEqual(told.rootPathCost);
          expect([...tree.root]).toEqual(told.root);
          expect([...tree.rootPort]).toEqual(told.rootPort);
          expect([...tree.role]).toEqual(told.role);
        }),
      ),
      runs,
    );
  });

  it.each(RUNS)(
    'has one designated port on each segment and one root port on each bridge but the roots (%#)',
    (runs) => {
      fc.assert(
        fc.property(anyDesign, (design) =>
          forEachTree(design, ({ network, trees }, tree) => {
            const segments = segmentsFor({ network, trees }, tree);
            for (let i = 0; i + 1 < segments.first.length; i += 1) {
              const ports = [...segments.ports.slice(segments.first[i], segments.first[i + 1])];
              if (ports.length > 0) expect(ports.filter((p) => tree.role[p] === CODE.designated)).toHaveLength(1);
            }
            network.switches.forEach((_, s) => {
              if (tree.root[s]! < 0) return;
              const own = [...tree.role.slice(network.firstPort[s], network.firstPort[s + 1])];
              expect(own.filter((code) => code === CODE.root)).toHaveLength(tree.root[s] === s ? 0 : 1);
              if (tree.root[s] === s) expect(own.filter((code) => code === CODE.alternate)).toHaveLength(0);
            });
          }),
        ),
        runs,
      );
    },
  );

  it.each(RUNS)('forwards along a tree: no loop, and everything that is joined is reached (%#)', (runs) => {
    fc.assert(
      fc.property(anyDesign, (design) =>
        forEachTree(design, ({ network, trees }, tree) => {
          const segments = segmentsFor({ network, trees }, tree);
          const parent = new Map<string, string>();
          const lead = (x: string): string => (parent.has(x) ? lead(parent.get(x)!) : x);
          for (let p = 0; p < network.ports.length; p += 1) {
            if (segments.of[p]! < 0 || !forwards(tree.role[p])) continue;
            const [bridge, segment] = [lead(`b${network.owner[p]}`), lead(`s${segments.of[p]}`)];
            expect(bridge).not.toBe(segment); // else this port would close a loop
            parent.set(bridge, segment);
          }
          for (let p = 0; p < network.ports.length; p += 1) {
            if (segments.of[p]! >= 0) expect(lead(`s${segments.of[p]}`)).toBe(lead(`b${network.owner[p]}`));
          }
        }),
      ),
      runs,
    );
  });

  it.each(RUNS)('has one root an island: the bridge with the best identifier (%#)', (runs) => {
    fc.assert(
      fc.property(anyDesign, (design) =>
        forEachTree(design, ({ network, trees }, tree) => {
          const segments = segmentsFor({ network, trees }, tree);
          for (let p = 0; p < network.ports.length; p += 1) {
            for (let q = 0; q < p; q += 1)
              if (segments.of[p]! >= 0 && segments.of[p] === segments.of[q])
                expect(tree.root[network.owner[p]!]).toBe(tree.root[network.owner[q]!]);
          }
          tree.root.forEach((root, s) => root >= 0 && expect(tree.rank[root]).toBeLessThanOrEqual(tree.rank[s]!));
          for (const root of islandRoots(network, tree)) expect(tree.root[root]).toBe(root);
        }),
      ),
      runs,
    );
  });

  it.each(RUNS)('adds up costs: each bridge is one port cost further from the root than what it hears (%#)', (runs) => {
    fc.assert(
      fc.property(anyDesign, (design) =>
        forEachTree(design, ({ network }, tree) => {
          tree.rootPort.forEach((p, s) => {
            if (p >= 0)
              expect(tree.rootPathCost[s]).toBe(
                tree.rootPathCost[network.owner[tree.designated[p]!]!]! + tree.cost[p]!,
              );
          });
        }),
      ),
      runs,
    );
  });

  it.each(RUNS)('does not depend on the order of switches, ports and links in the file (%#)', (runs) => {
    const shuffled = randomDesign('mixed').chain((design) =>
      fc.record({
        design: fc.constant(design),
        switches: fc.shuffledSubarray([...design.switches], { minLength: design.switches.length }),
        links: fc.shuffledSubarray([...design.links], { minLength: design.links.length }),
        flip: fc.boolean(),
      }),
    );
    const views = (design: Design) => {
      const { network, trees } = solutionOf(design);
      return trees.map((tree) => viewTree(network, tree));
    };
    fc.assert(
      fc.property(shuffled, ({ design, switches, links, flip }) => {
        const other: Design = {
          ...design,
          switches: switches.map((sw) => (flip ? { ...sw, ports: [...sw.ports].reverse() } : sw)),
          links: links.map((link) => (flip ? { ...link, a: link.b, b: link.a } : link)),
        };
        expect(views(other)).toEqual(views(design));
      }),
      runs,
    );
  });
});
