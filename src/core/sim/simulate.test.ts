import type { Run, RunOptions } from './run';
import { fernhollow } from '../demo/demos';
import { SPOKEN, type Design, type Dialect } from '../model/document';
import { SECOND } from '../modes/entity';
import { networkOf, settledTree, solutionOf } from '../testing/networks';
import { compileNetwork } from '../topology/network';
import { readScenario } from './scenario/scenario';
import { simulate } from './simulate';
import { HANDLING, LINK_DELAY } from './engine/delays';
import { Simulation } from './engine/simulation';

const HOP = (HANDLING + LINK_DELAY) / SECOND;
const run = (design: Design, actions: readonly object[], until = 60, options: RunOptions = {}): Run => {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(JSON.stringify(scenario.error));
  const done = simulate(design, scenario.value, options);
  if (!done.ok) throw new Error(done.error);
  return done.value;
};
const speaking = (design: Design, dialect: Dialect): Design => ({
  ...design,
  switches: design.switches.map((sw) => ({ ...sw, dialect })),
});
/** `[t, to]` of every change of a port's state. */
const steps = ({ trace }: Run, end: string, tree = 'cst') =>
  trace
    .filter((entry) => `${entry.switch} ${entry.port}` === end && entry.tree === tree && entry.from !== entry.to)
    .map(({ t, to }) => [t, to] as const);
const host = (id: string, sw: string, port: string, mac: number) => ({
  id,
  mac: `02:00:00:00:01:0${mac}`,
  attach: [{ switch: sw, port }],
});
/** a is root; c blocks toward b. */
const triangle = (
  dialect: Dialect,
  rest: Record<string, unknown> = {},
  ports: Record<string, Record<string, unknown>> = {},
) =>
  networkOf(
    { a: { dialect, priority: 0 }, b: { dialect, priority: 4096 }, c: { dialect } },
    ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'],
    ports,
    rest,
  );
const hosts = { hosts: [host('x', 'a', '9', 1), host('y', 'c', '9', 2)] };
const edge = { 'a 9': { edge: true }, 'c 9': { edge: true } };

describe('classic spanning tree', () => {
  it('listens for one forward delay and learns for another (802.1D-1998 8.7.5)', () => {
    const booted = run(triangle('stp'), [], 60, { fromBoot: true });
    expect(steps(booted, 'a 1')).toEqual([
      [0, 'listening'],
      [15, 'learning'],
      [30, 'forwarding'],
    ]);
    expect(steps(booted, 'c 2').at(-1)?.[1]).toBe('blocking');
  });

  it('replaces a lost root port at once, and is through after two forward delays', () => {
    const cut = run(triangle('stp', hosts, edge), [{ at: 1, do: 'link-down', link: 'l2' }]);
    expect(steps(cut, 'c 2')).toEqual([
      [1, 'listening'],
      [16, 'learning'],
      [31, 'forwarding'],
    ]);
    expect(cut.outages).toContainEqual({ from: 'x', to: 'y', vlan: 1, start: 1, end: 31, cause: 'no path' });
  });

  it('waits for max age first where the failure is elsewhere (8.7.4)', () => {
    const [listening, learning, forwarding] = steps(
      run(triangle('stp'), [{ at: 1, do: 'link-down', link: 'l0' }]),
      'c 2',
    );
    expect(listening![1]).toBe('listening');
    // b's information was a hop old when it came, with a hello not more than two seconds before.
    expect(listening![0]).toBeGreaterThanOrEqual(1 + 20 - 1 - 2);
    expect(listening![0]).toBeLessThanOrEqual(1 + 20 - 1);
    expect(learning![0]).toBeCloseTo(listening![0] + 15, 6);
    expect(forwarding![0]).toBeCloseTo(listening![0] + 30, 6);
  });

  it('sends no two configuration BPDUs on a port within the hold time (8.6.1)', () => {
    const times = new Map<number, number[]>();
    const design = speaking(triangle('stp'), 'stp');
    const sim = new Simulation(compileNetwork(design), [solutionOf(design).trees[0]!.id], 2, {
      sent: (t, _, port, bpdu) => bpdu.kind === 'config' && times.set(port, [...(times.get(port) ?? []), t]),
    });
    sim.boot();
    sim.runTo(5 * SECOND);
    sim.follow({ ...design, links: design.links.map((link, i) => ({ ...link, up: i > 0 })) });
    sim.runTo(60 * SECOND);
    expect(times.size).toBeGreaterThan(2);
    for (const at of times.values())
      at.forEach((t, i) => i > 0 && expect(t - at[i - 1]!).toBeGreaterThanOrEqual(SECOND));
  });

  it('tells the root of a change, which has addresses age fast for max age and a forward delay (8.6.14)', () => {
    const ages: string[] = [];
    const chain = networkOf(
      { a: { dialect: 'stp', priority: 0 }, b: { dialect: 'stp' }, c: { dialect: 'stp' } },
      ['a 1 = b 1', 'b 2 = c 1'],
      {},
    );
    const kinds = new Set<string>();
    const sim = new Simulation(compileNetwork(chain), [solutionOf(chain).trees[0]!.id], 1, {
      sent: (t, _, port, bpdu) => {
        kinds.add(bpdu.kind);
        if (bpdu.kind === 'config' && bpdu.tc && port === 0) ages.push(String(t));
      },
    });
    sim.boot();
    sim.runTo(200 * SECOND);
    expect(kinds).toEqual(new Set(['config', 'tcn']));
    // The last port forwards at 30 s; the root says so for 35 s more, a hello each two seconds.
    expect(Number(ages.at(-1)) / SECOND).toBeGreaterThan(30 + 35 - 3);
    expect(Number(ages.at(-1)) / SECOND).toBeLessThan(30 + 35 + 3);
  });

  it('notices nothing but missing BPDUs behind a converter', () => {
    const [first] = steps(run(triangle('stp'), [{ at: 1, do: 'link-down', link: 'l2', light: false }]), 'c 2');
    expect(first![0]).toBeGreaterThan(17);
    expect(first![0]).toBeLessThanOrEqual(21);
  });
});

describe('RSTP', () => {
  it('takes an alternate port in the same moment as the root port goes (13.37)', () => {
    const cut = run(triangle('rstp', hosts, edge), [{ at: 1, do: 'link-down', link: 'l2' }]);
    expect(steps(cut, 'c 2')).toEqual([[1, 'forwarding']]);
    expect(cut.outages.every((outage) => outage.end !== null && outage.end - outage.start < 0.05)).toBe(true);
  });

  it('takes three messages where the failure is a hop away: the worse root, the proposal, the agreement', () => {
    const cut = run(triangle('rstp'), [{ at: 1, do: 'link-down', link: 'l0' }]);
    const [[t, to]] = steps(cut, 'c 2') as [[number, string]];
    expect(to).toBe('forwarding');
    expect(t).toBeCloseTo(1 + 3 * HOP, 9);
  });

  it('hands the proposal down a chain, a hop in the time of two messages', () => {
    const names = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
    const chain = networkOf(
      Object.fromEntries(names.map((name, i) => [name, { priority: 4096 * i }])),
      names.slice(1).map((name, i) => `${names[i]} 2 = ${name} 1`),
    );
    const { trace, settledAt } = run(chain, [], 30, { fromBoot: true });
    expect(settledAt).toBeLessThan(20 * HOP);
    expect(trace.filter((entry) => entry.to === 'forwarding')).toHaveLength(14);
  });

  it('gives up information that is not repeated for three hellos', () => {
    const [first] = steps(run(triangle('rstp'), [{ at: 1, do: 'link-down', link: 'l2', light: false }]), 'c 2');
    expect(first![0]).toBeGreaterThan(4.9);
    expect(first![0]).toBeLessThan(7.1);
  });

  it('falls back to configuration BPDUs toward a classic bridge, and waits as that one does', () => {
    const mixed = networkOf({ a: { priority: 0 }, b: { dialect: 'stp' } }, ['a 1 = b 1']);
    const booted = run(mixed, [], 60, { fromBoot: true });
    expect(steps(booted, 'b 1').at(-1)).toEqual([30, 'forwarding']);
    const [, , until] = steps(booted, 'a 1');
    expect(until?.[1] ?? 'forwarding').toBe('forwarding');
  });

  it('takes a port that hears no bridge for an edge port after the migrate time', () => {
    const alone = networkOf({ a: {} }, [], { 'a 9': {} }, { hosts: [host('x', 'a', '9', 1)] });
    expect(steps(run(alone, [], 30, { fromBoot: true }), 'a 9')).toEqual(
      [
        [0, 'discarding'],
        [3, 'learning'],
        [3, 'forwarding'],
      ].filter(([, to]) => to !== 'learning'),
    );
  });

  it('never sends more than the hold count and one a second', () => {
    const design = fernhollow();
    const sent = new Map<string, number[]>();
    const { trees } = solutionOf(design);
    const sim = new Simulation(
      compileNetwork(design),
      trees.map((tree) => tree.id),
      3,
      { sent: (t, tree, port) => sent.set(`${tree} ${port}`, [...(sent.get(`${tree} ${port}`) ?? []), t]) },
    );
    sim.boot();
    sim.runTo(5 * SECOND);
    sim.follow({ ...design, links: design.links.map((link, i) => ({ ...link, up: i > 3 })) });
    sim.runTo(15 * SECOND);
    for (const times of sent.values()) {
      for (const t of times)
        expect(times.filter((other) => other >= t && other < t + SECOND).length).toBeLessThanOrEqual(7);
    }
  });

  it('flushes the ports that a topology change did not come by, and no edge port (13.39)', () => {
    const names = { a: { priority: 0 }, b: { priority: 4096 }, c: {}, d: {} };
    const hosts = { hosts: ['a', 'b', 'c'].map((sw, i) => host(`on-${sw}`, sw, '9', i + 1)) };
    const edges = Object.fromEntries(['a', 'b', 'c'].map((sw) => [`${sw} 9`, { edge: true }]));
    const design = networkOf(names, ['a 1 = b 1', 'b 2 = c 1', 'c 2 = d 1'], edges, hosts);
    const without = { ...design, links: design.links.map((link, i) => ({ ...link, up: i < 2 })) };
    const flushed = new Set<string>();
    let listening = false;
    const sim = new Simulation(compileNetwork(without), [solutionOf(design).trees[0]!.id], 1, {
      flushed: (_, __, p) =>
        listening && flushed.add(`${sim.network.switches[sim.network.owner[p]!]!.id} ${sim.network.ports[p]!.id}`),
    });
    sim.boot();
    sim.runTo(30 * SECOND);
    listening = true;
    sim.follow(design);
    sim.runTo(40 * SECOND);
    expect([...flushed].sort()).toEqual(['b 1', 'c 1']);
  });

  it('sends a hello every two seconds where nothing happens, from designated ports alone', () => {
    const moments = new Map<number, number[]>();
    const design = triangle('rstp');
    const sim = new Simulation(compileNetwork(design), [solutionOf(design).trees[0]!.id], 1, {
      sent: (t, _, port, __, ___, ____, times, period) =>
        Array.from({ length: times }, (_____, i) => moments.set(port, [...(moments.get(port) ?? []), t + i * period])),
    });
    sim.boot();
    sim.runTo(40 * SECOND);
    sim.tellHellos();
    const late = [...moments.values()].map((all) => all.filter((t) => t > 20 * SECOND));
    expect(late.map((all) => all.length).filter(Boolean)).toEqual([10, 10, 10]);
  });
});

it('a cable with a delay takes that long, and so does what waits for a message over it', () => {
  const ring = (delay?: number) => {
    const design = networkOf({ a: { priority: 0 }, b: { priority: 4096 }, c: {} }, [
      'a 1 = b 1',
      'b 2 = c 2',
      'a 2 = c 1',
    ]);
    return {
      ...design,
      links: design.links.map((link) => (link.id === 'l1' && delay !== undefined ? { ...link, delay } : link)),
    };
  };
  // b hears of the lost link from c, over the cable between them.
  const at = (design: Design) =>
    run(design, [{ at: 1, do: 'link-down', link: 'l0' }], 3).trace.find(
      (entry) => entry.switch === 'b' && entry.port === '2' && entry.role === 'root',
    )!.t;
  expect(at(ring(50_000)) - at(ring())).toBeCloseTo(2 * 0.05 - 2 * 0.000005, 4);
});

describe('scenarios', () => {
  it('end where the solver says', () => {
    const demo = fernhollow();
    const { final, settledAt } = run(demo, [
      { at: 1, do: 'bridge-priority', switch: 'ridge-a', priority: 4096, tree: 'vlan:15' },
      { at: 10, do: 'port-cost', switch: 'dome-east', port: '1', cost: 90_000 },
      { at: 20, do: 'switch-down', switch: 'ridge-b' },
    ]);
    expect(settledAt).toBeGreaterThan(20);
    const after: Design = {
      ...demo,
      switches: demo.switches.map((sw) => ({
        ...sw,
        up: sw.id !== 'ridge-b',
        ...(sw.id === 'ridge-a' ? { trees: { 'vlan:15': { priority: 4096 } } } : {}),
        ports: sw.ports.map((port) => (sw.id === 'dome-east' && port.id === '1' ? { ...port, cost: 90_000 } : port)),
      })) as Design['switches'],
    };
    for (const tree of final.trees) expect(tree).toEqual(settledTree(after, tree.id));
  });

  it('bring a switch back after its boot time, and plug in a new cable', () => {
    const design = networkOf({ a: { priority: 0 }, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1'], {
      'a 3': {},
      'c 3': {},
    });
    const { trace, final } = run(design, [
      { at: 1, do: 'switch-down', switch: 'b' },
      { at: 2, do: 'switch-up', switch: 'b', boot: 5 },
      { at: 20, do: 'add-link', link: { id: 'new', a: { switch: 'a', port: '3' }, b: { switch: 'c', port: '3' } } },
    ]);
    expect(trace.find((entry) => entry.switch === 'b' && entry.t > 1)?.t).toBe(7);
    expect(final.trees[0]!.switches).toMatchObject({ c: { rootPort: '3', rootPathCost: 20_000 } });
  });

  it('see a loop that no spanning tree closes as a storm', () => {
    const off = { dialect: 'off' };
    const loop = networkOf(
      { a: off, b: off, c: {} },
      ['a 1 = b 1', 'a 2 = b 2', 'b 3 = c 1'],
      { 'a 9': {}, 'c 9': { edge: true } },
      hosts,
    );
    const { outages, storms } = run(loop, [{ at: 4, do: 'link-down', link: 'l1' }], 10);
    expect(outages).toContainEqual({ from: 'x', to: 'y', vlan: 1, start: 0, end: 4, cause: 'storm' });
    expect(storms).toMatchObject([{ vlan: 1, start: 0, end: 4, links: ['l0', 'l1'], copies: 2 }]);
    expect(run(loop, [], 10).storms).toMatchObject([{ start: 0, end: null }]);
  });

  it('are the same again with the same seed, and differ with another', () => {
    const cut = [{ at: 1, do: 'link-down', link: 'l0' }];
    const times = (seed: number) => steps(run(triangle('stp'), cut, 60, { seed }), 'c 2').map(([t]) => t);
    expect(times(4)).toEqual(times(4));
    expect(times(4)).not.toEqual(times(5));
  });

  it('say what still moves at the end, and can be stopped', () => {
    const early = run(triangle('stp'), [{ at: 1, do: 'link-down', link: 'l2' }], 10);
    expect([early.settledAt, early.moving.map((entry) => `${entry.switch} ${entry.port} ${entry.to}`)]).toEqual([
      null,
      ['c 2 listening'],
    ]);
    let told = 0;
    expect(run(triangle('stp'), [], 60, { progress: (share) => share === 0 || (told += 1) < 5 })).toMatchObject({
      stopped: true,
      settledAt: null,
    });
    expect(told).toBe(5);
    const scenario = readScenario({ actions: [] }, triangle('stp'));
    expect(scenario.ok && simulate(triangle('stp'), scenario.value, { progress: () => false })).toEqual({
      ok: false,
      error: 'Stopped before the network came to rest for the scenario to begin.',
    });
  });

  it.each<[string, object, string]>([
    [
      'a link that is not there',
      { at: 1, do: 'link-down', link: 'l77' },
      'actions[0].link: found "l77"; allowed: a link: one of l0, l1, l2',
    ],
    ['a negative time', { at: -1, do: 'link-down', link: 'l0' }, 'actions[0].at: found -1'],
    [
      'a time past the end',
      { at: 100, do: 'link-down', link: 'l0' },
      "actions[0].at: found 100; allowed: at most the scenario's end, 60 s",
    ],
    ['an action that is none', { at: 1, do: 'explode' }, 'actions[0].do: found "explode"'],
    [
      'a priority off the grid',
      { at: 1, do: 'bridge-priority', switch: 'a', priority: 5 },
      'actions[0].priority: found 5',
    ],
    [
      'a tree that is not there',
      { at: 1, do: 'port-cost', switch: 'a', port: '1', cost: 5, tree: 'vlan:9' },
      'actions[0].tree: found "vlan:9"; allowed: a tree: one of cst',
    ],
    [
      'a port that is taken',
      { at: 1, do: 'add-link', link: { id: 'n', a: { switch: 'a', port: '1' }, b: { switch: 'c', port: '1' } } },
      'actions[0].link.a.port: found "1"; allowed: a port that nothing is plugged into',
    ],
    [
      'a switch that is not there',
      { at: 1, do: 'switch-down', switch: 'z' },
      'actions[0].switch: found "z"; allowed: a switch: one of a, b, c',
    ],
    ['an unknown key', { at: 1, do: 'switch-down', switch: 'a', fast: true }, 'actions[0].fast'],
  ])('are refused with the place: %s', (_, action, text) => {
    const read = readScenario({ actions: [action] }, triangle('rstp'));
    expect(
      read.ok ? '' : `${read.error[0]!.path}: found ${read.error[0]!.found}; allowed: ${read.error[0]!.allowed}`,
    ).toContain(text);
  });
});

it('runs the demo in every dialect', () => {
  for (const dialect of ['stp', 'rstp', 'per-vlan-stp', 'per-vlan-rstp'] as const) {
    const { final, settledAt } = run(speaking(fernhollow(), dialect), [{ at: 1, do: 'link-down', link: 'l13' }], 120);
    expect(settledAt).not.toBeNull();
    const after = speaking(
      { ...fernhollow(), links: fernhollow().links.map((link) => (link.id === 'l13' ? { ...link, up: false } : link)) },
      dialect,
    );
    for (const tree of final.trees) expect(tree).toEqual(settledTree(after, tree.id));
  }
});

describe.each(SPOKEN)('the demo’s scenarios in %s', (dialect) => {
  const design = { ...fernhollow(), switches: fernhollow().switches.map((sw) => ({ ...sw, dialect })) };
  it.each(design.scenarios.map((scenario) => [scenario.name, scenario] as const))(
    '%s: everything happens in its time',
    (_, { actions, until, fromBoot }) => {
      const done = simulate(design, { actions, until, talk: 0.01, fromBoot });
      if (!done.ok) throw new Error(done.error);
      const { trace, outages, recording, reach } = done.value;
      expect(trace.length).toBeGreaterThan(0);
      expect(trace.every(({ t }, i) => t >= (trace[i - 1]?.t ?? 0) && t <= until)).toBe(true);
      expect(outages.every(({ start, end }) => start >= 0 && (end === null || (end > start && end <= until)))).toBe(
        true,
      );
      expect(recording.until(until * SECOND)).toBe(trace.length);
      // Who is cut off at the end is so in the list of outages, too.
      const open = outages.filter(({ end }) => end === null).length;
      expect(reach.causesAt(until * SECOND).filter((cause) => cause !== null)).toHaveLength(open);
    },
  );
});
