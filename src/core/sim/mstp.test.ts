/** Regions on the clock: what MSTP does message by message, worked by hand (IEEE 802.1Q-2018 clause 13). */
import type { Run } from './run';
import type { PortId, SwitchId, TreeId } from '../model/ids';
import type { Design } from '../model/document';
import { SECOND } from '../modes/entity';
import { networkOf } from '../testing/networks';
import { compileNetwork } from '../topology/network';
import type { SwitchView } from '../tree/settled';
import { treesOf } from '../topology/trees';
import { readScenario } from './scenario/scenario';
import { simulate } from './simulate';
import { HANDLING, LINK_DELAY } from './engine/delays';
import { Simulation } from './engine/simulation';
import { viewNow } from './trace/view';

const HOP = (HANDLING + LINK_DELAY) / SECOND;
const inRidge = (more: object = {}) => ({ dialect: 'mstp', region: 'ridge', ...more });
const regions = [
  {
    id: 'ridge',
    name: 'RIDGE',
    revision: 1,
    instances: [
      { id: 1, vlans: '10' },
      { id: 2, vlans: '20' },
    ],
  },
  { id: 'valley', name: 'VALLEY', instances: [{ id: 1, vlans: '10,20' }] },
];
const rest = { regions, vlans: [{ id: 10 }, { id: 20 }] };
/** A triangle of one region: a is root of the CIST and of instance 1, b of instance 2. */
const triangle = networkOf(
  {
    a: inRidge({ priority: 0, trees: { 'mst:2': { priority: 8192 } } }),
    b: inRidge({ priority: 4096, trees: { 'mst:2': { priority: 0 } } }),
    c: inRidge(),
  },
  ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'],
  {},
  rest,
);

function run(design: Design, actions: readonly object[], until = 30): Run {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(JSON.stringify(scenario.error));
  const done = simulate(design, scenario.value);
  if (!done.ok) throw new Error(done.error);
  return done.value;
}
const settled = (design: Design): Simulation => {
  const sim = new Simulation(compileNetwork(design), treesOf(design));
  sim.boot();
  sim.runTo(120 * SECOND);
  return sim;
};
const tree = (sim: Simulation, id: string) => viewNow(sim, sim.trees.indexOf(id as TreeId)).switches;
const roles = (view: SwitchView | undefined) =>
  Object.entries(view?.ports ?? {}).map(([port, part]) =>
    'role' in part ? `${port} ${part.role} ${part.state}` : `${port} member of ${part.memberOf}`,
  );
const at = (view: Record<string, SwitchView>, sw: string): SwitchView | undefined => view[sw as SwitchId];

describe('one region', () => {
  it('has a tree for the CIST and one for each instance, each with its own root', () => {
    const sim = settled(triangle);
    expect(sim.trees).toEqual(['mst:0', 'mst:1', 'mst:2']);
    expect(at(tree(sim, 'mst:0'), 'c')).toMatchObject({
      root: 'a',
      regionalRoot: 'a',
      externalRootPathCost: 0,
      internalRootPathCost: 20_000,
      rootPort: '1',
    });
    expect(at(tree(sim, 'mst:2'), 'c')).toMatchObject({ root: 'b', rootPathCost: 20_000, rootPort: '2' });
    expect(roles(at(tree(sim, 'mst:1'), 'c'))).toEqual(['1 root forwarding', '2 alternate discarding']);
    expect(roles(at(tree(sim, 'mst:2'), 'c'))).toEqual(['1 alternate discarding', '2 root forwarding']);
  });
  it('lets each VLAN pass where its instance forwards', () => {
    const sim = settled(triangle);
    const p = (port: string) => sim.network.portIndexOf('c' as SwitchId, port as PortId);
    expect([10, 20, 1].map((vid) => ['1', '2'].map((port) => sim.passes(vid, p(port))))).toEqual([
      [true, false],
      [false, true],
      [true, false],
    ]);
  });
  it('takes another way in the time of a message, in the instance that needs it alone', () => {
    const { trace, settledAt } = run(triangle, [{ at: 1, do: 'link-down', link: 'l1' }]);
    // b - c was c's way in instance 2 only: its other port takes over at once.
    expect(
      trace
        .filter((entry) => entry.to !== 'disabled')
        .map(({ t, switch: sw, port, tree: id, to, role }) => [t, sw, port, id, to, role]),
    ).toEqual([[1, 'c', '1', 'mst:2', 'forwarding', 'root']]);
    expect(settledAt).toBe(1);
  });
  it('agrees hop by hop, in milliseconds, when a cable is plugged in that all trees want', () => {
    const cut = {
      ...triangle,
      links: triangle.links.map((link) => (link.id === 'l2' ? { ...link, up: false } : link)),
    };
    const { trace, outages } = run(cut, [{ at: 1, do: 'link-up', link: 'l2' }]);
    const forwards = trace.find(
      (entry) => entry.switch === 'c' && entry.port === '1' && entry.tree === 'mst:1' && entry.to === 'forwarding',
    )!;
    expect(forwards.t).toBeGreaterThanOrEqual(1 + HOP);
    expect(forwards.t).toBeLessThan(1.02);
    expect(outages).toEqual([]);
  });
  it('counts hops: what has come too far is not believed', () => {
    const chain = (hops: number) =>
      networkOf(
        Object.fromEntries(
          Array.from({ length: 9 }, (_, i) => [
            `s${i}`,
            inRidge({ priority: i === 0 ? 0 : 32_768, timers: { maxHops: hops } }),
          ]),
        ),
        Array.from({ length: 8 }, (_, i) => `s${i} 2 = s${i + 1} 1`),
        {},
        rest,
      );
    expect(at(tree(settled(chain(20)), 'mst:0'), 's8')).toMatchObject({ root: 's0', regionalRoot: 's0' });
    expect(at(tree(settled(chain(6)), 'mst:0'), 's8')!.root).not.toBe('s0');
  });
});

describe('a boundary', () => {
  /** Two switches of a region, both cabled to a rapid root outside; the way over a is the cheaper. */
  const outside = (dialect = 'rstp') =>
    networkOf(
      { a: inRidge(), b: inRidge(), x: { dialect, priority: 0 } },
      ['a 1 = b 1', 'a 2 = x 1', 'b 2 = x 2'],
      { 'b 2': { externalCost: 90_000 } },
      rest,
    );
  it('has one way to the root outside: its port is master port in every instance', () => {
    const sim = settled(outside());
    expect(at(tree(sim, 'mst:0'), 'b')).toMatchObject({
      root: 'x',
      regionalRoot: 'a',
      externalRootPathCost: 20_000,
      internalRootPathCost: 20_000,
    });
    expect(roles(at(tree(sim, 'mst:0'), 'a'))).toEqual(['1 designated forwarding', '2 root forwarding']);
    for (const id of ['mst:1', 'mst:2']) {
      expect(roles(at(tree(sim, id), 'a'))).toContain('2 master forwarding');
      expect(roles(at(tree(sim, id), 'b'))).toContain('2 alternate discarding');
      expect(at(tree(sim, id), 'x')).toBeUndefined(); // a rapid bridge knows of no instance
    }
  });
  it('turns to the other way when the first is cut, all instances with it', () => {
    const { final, settledAt } = run(outside(), [{ at: 1, do: 'link-down', link: 'l1' }]);
    const view = (id: string, sw: string) =>
      roles(final.trees.find((each) => each.id === id)!.switches[sw as SwitchId]);
    expect(view('mst:0', 'b')).toContain('2 root forwarding');
    for (const id of ['mst:1', 'mst:2']) expect(view(id, 'b')).toContain('2 master forwarding');
    expect(settledAt).toBeLessThan(1 + 10);
  });
  it('toward a classic bridge falls back to its ways, and still lets one tree stand', () => {
    const sim = settled(outside('stp'));
    expect(at(tree(sim, 'mst:0'), 'x')).toMatchObject({ root: 'x' });
    expect(at(tree(sim, 'mst:0'), 'a')).toMatchObject({ root: 'x', externalRootPathCost: 20_000 });
    expect(roles(at(tree(sim, 'mst:1'), 'a'))).toContain('2 master forwarding');
  });
  it('stands between two regions: revision, name and map must all agree', () => {
    const two = (region: string) =>
      networkOf({ a: inRidge({ priority: 0 }), b: { dialect: 'mstp', region } }, ['a 1 = b 1'], {}, rest);
    expect(at(tree(settled(two('ridge')), 'mst:0'), 'b')).toMatchObject({ regionalRoot: 'a', externalRootPathCost: 0 });
    expect(at(tree(settled(two('valley')), 'mst:0'), 'b')).toMatchObject({
      root: 'a',
      regionalRoot: 'b',
      externalRootPathCost: 20_000,
    });
  });
  it('a switch without a region is one of its own', () => {
    const alone = networkOf({ a: inRidge({ priority: 0 }), b: { dialect: 'mstp' } }, ['a 1 = b 1'], {}, rest);
    expect(at(tree(settled(alone), 'mst:0'), 'b')).toMatchObject({ root: 'a', regionalRoot: 'b' });
  });
});

describe('settings', () => {
  it('an instance has costs and priorities of its own, and follows them while it runs', () => {
    const { final } = run(triangle, [
      { at: 1, do: 'port-cost', switch: 'c', port: '1', cost: 90_000, tree: 'mst:1' },
      { at: 2, do: 'bridge-priority', switch: 'c', priority: 0, tree: 'mst:2' },
    ]);
    const view = (id: string, sw: string) => final.trees.find((each) => each.id === id)!.switches[sw as SwitchId];
    expect(view('mst:1', 'c')!.rootPort).toBe('2');
    expect(view('mst:0', 'c')!.rootPort).toBe('1');
    expect(view('mst:2', 'a')!.root).toBe('b'); // 0 as well, and the better address
  });
  it('a worse priority of the root is believed at once, not after it has aged (13.10)', () => {
    const pair = networkOf({ a: inRidge({ priority: 0 }), b: inRidge() }, ['a 1 = b 1'], {}, rest);
    const { final, settledAt } = run(pair, [{ at: 1, do: 'bridge-priority', switch: 'a', priority: 61_440 }]);
    expect(final.trees[0]!.switches['a' as SwitchId]!.root).toBe('b');
    expect(settledAt).toBeLessThan(1.1);
  });
});

it('per-VLAN bridges beside a region take part in its CIST with the tree of VLAN 1', () => {
  const mixed = networkOf(
    { a: inRidge({ priority: 0 }), p: { dialect: 'per-vlan-rstp' }, q: { dialect: 'per-vlan-rstp' } },
    ['a 1 = p 1', 'p 2 = q 1', 'a 2 = q 2'],
    {},
    rest,
  );
  const sim = settled(mixed);
  expect(sim.trees).toEqual(['mst:0', 'mst:1', 'mst:2', 'vlan:10', 'vlan:20']);
  expect(at(tree(sim, 'mst:0'), 'q')).toMatchObject({ root: 'a', rootPathCost: 20_000 });
  // Their own trees go through the region like any frame.
  expect(new Set([at(tree(sim, 'vlan:10'), 'p')!.root, at(tree(sim, 'vlan:10'), 'q')!.root])).toEqual(new Set(['p']));
});
