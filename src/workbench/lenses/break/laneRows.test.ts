/** Lanes: what fares alike shares one. */
import { fernhollow } from '../../../core/demo/demos';
import type { Design } from '../../../core/model/document';
import { Player, traceOf } from '../../../core/sim/trace/trace';
import { simulate } from '../../../core/sim/simulate';
import { benchedScenario } from '../../../core/testing/scenarios';
import { lanesOf, type LaneFilter } from './laneRows';

const player = (design: Design, actions: readonly object[]): Player => {
  const scenario = benchedScenario(design, actions, 30);
  const run = simulate(design, scenario);
  if (!run.ok) throw new Error(run.error);
  return new Player(traceOf(run.value, scenario.actions, 30));
};
const demo = player(fernhollow(), [{ at: 1, do: 'link-down', link: 'l13' }]);
const lanes = (filter: Partial<LaneFilter> = {}) => lanesOf(demo, { trees: null, text: '', show: 'all', ...filter });

it('has one lane for a port whose trees fare alike, and names them', () => {
  const [first] = lanes({ text: 'ridge-a 6' });
  expect(first).toMatchObject({ kind: 'port', label: 'ridge-a 6', switch: 'ridge-a', port: '6' });
  expect(lanes({ show: 'ports' }).every((lane) => lane.kind !== 'pair')).toBe(true);
  // The lodge's uplinks are members of a bundle: one of them is cut.
  expect(lanes({ show: 'ports' }).filter((lane) => lane.kind === 'member')).toMatchObject([
    { label: 'lodge Uplinks', trees: 'port 1', stays: [{ from: 0, state: 'individual' }, { state: 'down' }] },
  ]);
  const ports = new Set(demo.lanes().map((lane) => lane.port)).size;
  expect(lanes({ show: 'ports' }).length).toBeGreaterThanOrEqual(ports);
  expect(lanes({ show: 'ports' }).length).toBeLessThan(demo.lanes().length);
});

it('has lanes of the trees shown alone, and of the words typed', () => {
  const [vlan] = demo.trace.trees;
  expect(
    lanes({ trees: [vlan!], show: 'ports' })
      .filter((lane) => lane.kind === 'port')
      .every((lane) => lane.treeIds.includes(vlan!)),
  ).toBe(true);
  expect(lanes({ text: 'nobody of this name' })).toEqual([]);
  expect(lanes({ text: 'DOME-NORTH', show: 'ports' }).every((lane) => lane.label.startsWith('dome-north'))).toBe(true);
});

it('has a lane for every pair where pairs alone are asked for, those that were cut off first', () => {
  const all = lanes({ show: 'pairs' });
  const cut = all.filter((lane) => lane.kind === 'pair' && lane.cuts.length > 0);
  expect(all.slice(0, cut.length)).toEqual(cut);
  expect(lanes().filter((lane) => lane.kind === 'pair')).toEqual(cut);
  const directed = all.reduce((sum, lane) => sum + (lane.label.includes(' and ') ? 2 : 1), 0);
  expect(directed).toBe(demo.trace.pairs.length);
});

it('has one lane for two hosts that lose each other at the same time', () => {
  const cut = player(fernhollow(), [{ at: 1, do: 'switch-down', switch: 'workshop' }]);
  const pairs = lanesOf(cut, { trees: null, text: 'desk', show: 'pairs' });
  expect(pairs).toHaveLength(1);
  expect(pairs[0]).toMatchObject({
    kind: 'pair',
    label: expect.stringMatching(/ and /),
    trees: '45',
    cuts: [{ from: 1_000_000, to: 30_000_000, cause: 'no path' }],
  });
});

it('names a pair as its hosts are named, whatever words are in their names', () => {
  const demo = fernhollow();
  const named = { ...demo, hosts: demo.hosts.map((host) => ({ ...host, name: `Way to ${host.name ?? host.id}` })) };
  const pairs = lanesOf(player(named, [{ at: 1, do: 'switch-down', switch: 'workshop' }]), {
    trees: null,
    text: 'desk',
    show: 'pairs',
  });
  expect(pairs.map(({ label }) => label)).toEqual([
    expect.stringMatching(/^Way to (Duty|Office) desk and Way to (Duty|Office) desk$/),
  ]);
});
