/** The protocols against the bare queue that they run on, over growing networks; and the demo's scenarios. */
import { fernhollow } from '../src/core/demo/demos';
import type { Design, Dialect } from '../src/core/model/document';
import { EventQueue } from '../src/core/sim/engine/eventQueue';
import { readScenario } from '../src/core/sim/scenario/scenario';
import { simulate } from '../src/core/sim/simulate';
import { solve } from '../src/core/tree/solve';
import { benchNetwork } from './network';
import { middle } from './session';

function run(design: Design, actions: readonly object[], until: number) {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(scenario.error[0]!.found);
  const start = performance.now();
  const done = simulate(design, scenario.value, { mostFrames: 0 });
  if (!done.ok) throw new Error(done.error);
  return { ms: performance.now() - start, ...done.value };
}

/** Pushing and popping as many events as a run had, with as many waiting as it has. */
function bareQueue(events: number, waiting: number): number {
  const queue = new EventQueue<number>();
  for (let i = 0; i < waiting; i += 1) queue.push((i * 7919) % 2_000_003, i);
  const start = performance.now();
  for (let i = 0; i < events; i += 1) {
    const t = queue.next;
    queue.pop();
    queue.push(t + 1 + ((i * 7919) % 2_000_003), i);
  }
  return performance.now() - start;
}

function row(switches: number) {
  const design = benchNetwork(switches, switches * 3, 32);
  const solution = solve(design);
  const root = design.switches[solution.trees[0]!.root[0]!]!.id;
  const { ms, events, settledAt } = run(design, [{ at: 1, do: 'switch-down', switch: root }], 60);
  const bare = bareQueue(events, switches * 32);
  return {
    switches,
    links: switches * 3,
    events,
    'run (ms)': Math.round(ms),
    'thousand events a second': Math.round(events / ms),
    'of the bare queue': (bare / ms).toFixed(2),
    'settled at (s)': settledAt?.toFixed(1) ?? 'not',
    'memory (MB)': Math.round(process.memoryUsage().rss / 1e6),
  };
}

export function benchSimulator(): void {
  const speaking = (dialect: Dialect): Design => ({
    ...fernhollow(),
    switches: fernhollow().switches.map((sw) => ({ ...sw, dialect })),
  });
  console.log('\nThe demo with the link of its root cut, one minute');
  console.table(
    (['stp', 'rstp', 'per-vlan-stp', 'per-vlan-rstp'] as const).map((dialect) => {
      const runs = Array.from({ length: 5 }, () =>
        run(speaking(dialect), [{ at: 1, do: 'link-down', link: 'l13' }], 60),
      );
      return { dialect, events: runs[0]!.events, 'run (ms)': middle(runs.map((each) => each.ms)).toFixed(0) };
    }),
  );
  console.log('\nThe protocols, growth: 32 trees, the root of most of them dies, one minute');
  console.table([50, 100, 200].map(row));
}
