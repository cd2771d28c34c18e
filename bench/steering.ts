/** Placing roots, candidate ways, margins and steering, over growing networks. */
import type { Design } from '../src/core/model/document';
import { costMargin } from '../src/core/analysis/steering/margin';
import { candidatePaths } from '../src/core/analysis/steering/paths';
import { placeAll } from '../src/core/analysis/roots/placing';
import { linkLoads } from '../src/core/analysis/sharing/load';
import { shareTrees, uplinksOf } from '../src/core/analysis/sharing/share';
import { steer } from '../src/core/analysis/steering/steer';
import { solve } from '../src/core/tree/solve';
import { vlanTree } from '../src/core/model/ids';
import { benchNetwork } from './network';
import { report } from './report';
import { middle } from './session';

function timed(runs: number, work: () => unknown): string {
  work();
  return middle(
    Array.from({ length: runs }, () => {
      const start = performance.now();
      work();
      return performance.now() - start;
    }),
  ).toFixed(1);
}

function row(design: Design) {
  const solution = solve(design);
  const { network, trees } = solution;
  const tree = trees.find((each) => each.id === vlanTree(3))!;
  const last = design.switches.at(-1)!;
  const link = design.links[design.switches.length + 5]!;
  return {
    switches: design.switches.length,
    links: design.links.length,
    'placing a root in 32 trees (ms)': timed(9, () =>
      placeAll(
        network,
        trees.map((each) => each.id),
        [last.id],
        'root',
      ),
    ),
    'ways of every switch (ms)': timed(5, () =>
      network.switches.map((_, s) => candidatePaths(network, tree, s).length),
    ),
    'margin of one cost (ms)': timed(5, () => costMargin(design, tree.id, link.a.switch, link.a.port)),
    'load of every link (ms)': timed(3, () => linkLoads(solution)),
    'sharing 32 trees (ms)': timed(1, () =>
      shareTrees(
        solution,
        trees.map((each) => each.id),
        uplinksOf(network),
      ),
    ),
    'steering, one end (ms)': timed(1, () => steer(solution, [{ wants: 'block', ...link.a }], [tree.id])),
    'steering, two wishes (ms)': timed(1, () =>
      steer(
        solution,
        [
          { wants: 'block', ...link.a },
          { wants: 'carry', link: design.links[design.switches.length + 9]!.id },
        ],
        [tree.id],
      ),
    ),
  };
}

export function benchSteering(): void {
  report(
    'Roots and steering, growth (32 trees; steering runs in a worker and can be cancelled)',
    [50, 100, 200, 400].map((n) => row(benchNetwork(n, n * 3, 32))),
  );
}
