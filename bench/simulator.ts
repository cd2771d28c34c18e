/** Scenarios: the demo's in each dialect, growing networks with trees that are unlike, alike, and bundled, each beside the plain way to run it. */
import type { Endpoint } from 'comlink';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { MessageChannel, Worker } from 'node:worker_threads';
import { fernhollow } from '../src/core/demo/demos';
import { readDesign } from '../src/core/model/read';
import type { Design, Dialect } from '../src/core/model/document';
import type { RunOptions } from '../src/core/sim/run';
import { readScenario } from '../src/core/sim/scenario/scenario';
import { simulateShared, sizeOfRun } from '../src/core/sim/simulate';
import { solve } from '../src/core/tree/solve';
import { helperBehind, helpersFrom, type WorkingHelper } from '../src/workers/helpers';
import { rehearsals } from '../src/workers/rehearsal';
import { benchNetwork } from './network';
import { report } from './report';
import { middle } from './session';

/** Everything that can be left out is run: booting, each hello, each tree by itself. */
const PLAIN: RunOptions = { begins: 'booted', everyHello: true, clocks: 'all on one' };

/** Workers that run some of what is large, as in the browser. */
const workers: Worker[] = [];
function startHelper(): WorkingHelper {
  const { port1, port2 } = new MessageChannel();
  const worker = new Worker(path.join(__dirname, 'helper.cjs'), { workerData: port2, transferList: [port2] });
  workers.push(worker);
  const failed = new Promise<never>((_, fail) => worker.once('error', fail));
  return helperBehind(port1 as unknown as Endpoint, failed);
}
const helpers = helpersFrom(startHelper, availableParallelism() - 1);

async function run(
  design: Design,
  actions: readonly object[],
  until: number,
  options: Omit<RunOptions, 'progress'> = {},
) {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(scenario.error[0]!.found);
  const start = performance.now();
  const done = await simulateShared(design, scenario.value, helpers, options);
  if (!done.ok) throw new Error(done.error);
  return { ms: performance.now() - start, ...done.value };
}

/** The root of the first tree dies; `own`: how many trees are unlike any other. The plain way is left out where it takes minutes. */
async function row(
  switches: number,
  trees: number,
  own: number,
  plain = true,
  design = benchNetwork(switches, switches * 3, trees, own),
) {
  const root = design.switches[solve(design).trees[0]!.root[0]!]!.id;
  const dies = [{ at: 1, do: 'switch-down', switch: root }];
  const { ms, events, settledAt } = await run(design, dies, 60);
  const memory = process.memoryUsage().rss;
  return {
    switches,
    trees,
    unlike: Math.min(own, trees),
    bundles: design.bundles.length,
    events,
    'a minute (ms)': Math.round(ms),
    ...(plain ? { 'of the plain way': (ms / (await run(design, dies, 60, PLAIN)).ms).toFixed(3) } : {}),
    'settled at (s)': settledAt?.toFixed(1) ?? 'not',
    'memory (MB)': Math.round(memory / 1e6),
  };
}

/** Every tenth cable is two, bundled by LACP. */
function bundled(design: Design): Design {
  const doubled = design.links.filter((_, l) => l % 10 === 0);
  const ports = new Map(design.switches.map((sw) => [sw.id as string, [...sw.ports] as object[]]));
  const bundles: object[] = [];
  const second = doubled.map(({ a, b }, i) => {
    const [from, to] = [a, b].map((end) => {
      const own = ports.get(end.switch)!;
      const known = design.switches.find((sw) => sw.id === end.switch)!.ports.find((port) => port.id === end.port)!;
      const id = String(own.length + 1);
      own.push({ ...known, id, number: own.length + 1 });
      bundles.push({
        id: `b${bundles.length}`,
        number: bundles.length + 1,
        switch: end.switch,
        ports: [end.port, id],
        mode: 'active',
      });
      return { switch: end.switch, port: id };
    });
    return { id: `second-${i}`, a: from, b: to };
  });
  const read = readDesign({
    ...design,
    switches: design.switches.map((sw) => ({ ...sw, ports: ports.get(sw.id) })),
    links: [...design.links, ...second],
    bundles,
  });
  if (!read.ok) throw new Error(JSON.stringify(read.error[0]));
  return read.value;
}

export async function benchSimulator(): Promise<void> {
  const speaking = (dialect: Dialect): Design => ({
    ...fernhollow(),
    switches: fernhollow().switches.map((sw) => ({ ...sw, dialect })),
  });
  const demo: object[] = [];
  for (const dialect of ['stp', 'rstp', 'per-vlan-stp', 'per-vlan-rstp'] as const) {
    const runs = [];
    for (let i = 0; i < 5; i += 1)
      runs.push(await run(speaking(dialect), [{ at: 1, do: 'link-down', link: 'l13' }], 60, { mostFrames: 0 }));
    demo.push({ dialect, events: runs[0]!.events, 'run (ms)': middle(runs.map((each) => each.ms)).toFixed(0) });
  }
  report('The demo with the link of its root cut, one minute', demo);
  // As in the page, where the simulator's workers have rehearsed before anybody asks.
  const large = benchNetwork(200, 600, 32, 60);
  for (const scenario of rehearsals(large))
    for (const helper of helpers(sizeOfRun(large, scenario))) await helper.rehearse?.(large, scenario);
  const rows: object[] = [];
  for (const n of [50, 100, 200, 400]) rows.push(await row(n, 32, 60, n < 400));
  for (const trees of [1, 8, 128]) rows.push(await row(100, trees, 200, trees < 128));
  rows.push(await row(200, 32, 6));
  rows.push(await row(100, 32, 60, true, bundled(benchNetwork(100, 300, 32))));
  rows.push(await row(500, 64, 100, false));
  report(
    'A root dies, one minute, every frame kept (aim: 200 switches, 32 trees within 2 s, 500 and 64 within 12 s)',
    rows,
  );
  await Promise.all(workers.map((worker) => worker.terminate()));
}
