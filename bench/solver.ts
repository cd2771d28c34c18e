/** The settled solver against plain heap Dijkstra (graphology's, once a tree, on the same graph), and how both grow. */
import Graph from 'graphology';
import { dijkstra } from 'graphology-shortest-path';
import type { Design } from '../src/core/model/document';
import { solve } from '../src/core/tree/solve';
import { benchNetwork } from './network';
import { report } from './report';

/** The middle one of several runs, in milliseconds. */
export function median(runs: number, work: () => void): number {
  work();
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}

/** The same switches and cables, a cable costing what the end farther from the root pays; graphs are built outside the timing. */
function graphOf(design: Design): Graph {
  const graph = new Graph({ multi: true, type: 'undirected' });
  for (const sw of design.switches) graph.addNode(sw.id);
  for (const link of design.links)
    if (link.a.switch !== link.b.switch) graph.addEdge(link.a.switch, link.b.switch, { weight: 20_000 });
  return graph;
}

function measure(switches: number, links: number, trees: number) {
  const design = benchNetwork(switches, links, trees);
  const graph = graphOf(design);
  const ours = median(9, () => {
    const solution = solve(design);
    if (solution.trees.length !== trees) throw new Error('not solved');
  });
  const plain = median(5, () => {
    for (let t = 0; t < trees; t += 1) dijkstra.singleSource(graph, design.switches[t % switches]!.id, 'weight');
  });
  return {
    switches,
    links,
    trees,
    'solve (ms)': ours.toFixed(1),
    'plain Dijkstra (ms)': plain.toFixed(1),
    ratio: (ours / plain).toFixed(3),
  };
}

export function benchSolver(): void {
  report('Settled solve against plain heap Dijkstra, once a tree (aim: ratio 1.0 or less)', [
    ...[50, 100, 200, 400].map((n) => measure(n, n * 3, 64)),
    ...[1, 8, 32, 128].map((trees) => measure(200, 600, trees)),
    measure(500, 1500, 64),
  ]);
}
