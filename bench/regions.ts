/** MSTP with 64 instances: settled solve, a link cut in the simulator, and the search for a grouping. */
import { CIST, instanceTree, vlanTree, type TreeId } from '../src/core/model/ids';
import type { Design } from '../src/core/model/document';
import { proposeGroupings } from '../src/core/analysis/regions/grouping';
import { simulate } from '../src/core/sim/simulate';
import { readScenario } from '../src/core/sim/scenario/scenario';
import { solve } from '../src/core/tree/solve';
import { benchNetwork } from './network';
import { report } from './report';
import { median } from './solver';

/** A network of one region, or of several side by side, in which each of 64 VLANs has an instance. */
export function regionNetwork(switches: number, links: number, regions = 1): Design {
  const design = benchNetwork(switches, links, 65);
  const turned = <T>(trees: Partial<Record<TreeId, T>>): Partial<Record<TreeId, T>> =>
    Object.fromEntries(
      Object.entries(trees).map(([tree, set]) => [
        tree === vlanTree(1) ? CIST : instanceTree(Number(tree.slice(5)) - 1),
        set,
      ]),
    );
  const instances = Array.from({ length: 64 }, (_, i) => ({ id: i + 1, vlans: String(i + 2) }));
  const id = (s: number) => `r${Math.floor((s * regions) / switches)}` as Design['regions'][0]['id'];
  return {
    ...design,
    regions: Array.from({ length: regions }, (_, r) => ({
      id: `r${r}` as Design['regions'][0]['id'],
      name: `BENCH-${r}`,
      revision: 1,
      instances,
    })),
    switches: design.switches.map((sw, s) => ({
      ...sw,
      dialect: 'mstp',
      region: id(s),
      trees: turned(sw.trees),
      ports: sw.ports.map((port) => ({ ...port, trees: turned(port.trees) })),
    })),
  };
}

function measure(switches: number, links: number, regions: number) {
  const design = regionNetwork(switches, links, regions);
  const solution = solve(design);
  const whole = median(5, () => void solve(design));
  let proposed = 0;
  const grouping = median(1, () => {
    const found = proposeGroupings(solution);
    proposed = found.ok ? found.value.length : 0;
  });
  return {
    switches,
    links,
    regions,
    instances: 64,
    'solve (ms)': whole.toFixed(0),
    'propose a grouping (ms)': grouping.toFixed(0),
    proposed,
  };
}

function measureCut(switches: number, links: number) {
  const design = regionNetwork(switches, links);
  const scenario = readScenario(
    { actions: [{ at: 1, do: 'link-down', link: design.links[0]!.id }], until: 10 },
    design,
  );
  if (!scenario.ok) throw new Error(scenario.error[0]?.found);
  const once = () => {
    const start = performance.now();
    const run = simulate(design, scenario.value, { mostFrames: 0 });
    if (!run.ok) throw new Error(run.error);
    return { ms: (performance.now() - start).toFixed(0), ...run.value };
  };
  const run = once();
  return {
    switches,
    links,
    instances: 64,
    'settle and cut (ms)': run.ms,
    // The workbench's simulator has rehearsed before it is asked.
    'again (ms)': once().ms,
    events: run.events,
    'settled at (s)': run.settledAt,
  };
}

export function benchRegions(): void {
  report('MSTP, 64 instances (aim: a solve within 100 ms up to 200 switches)', [
    measure(50, 150, 1),
    measure(100, 300, 1),
    measure(200, 600, 1),
    measure(200, 600, 4),
    measure(400, 1200, 1),
  ]);
  report('MSTP, 64 instances: a link is cut (aim: 20 switches within 300 ms)', [
    measureCut(20, 60),
    measureCut(50, 150),
    measureCut(100, 300),
  ]);
}
