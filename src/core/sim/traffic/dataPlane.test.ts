/** Who is cut off, for how long and why. */
import { editAll } from '../../edit/edit';
import type { LinkId } from '../../model/ids';
import type { Design } from '../../model/document';
import { SECOND } from '../../modes/entity';
import { networkOf, solutionOf } from '../../testing/networks';
import { compileNetwork } from '../../topology/network';
import { DataPlane, MOST_PAIRS, TALK, type Outage } from './dataPlane';
import { readScenario } from '../scenario/scenario';
import { simulate } from '../simulate';
import { HANDLING, LINK_DELAY } from '../engine/delays';
import { Simulation } from '../engine/simulation';

const host = (id: string, attach: readonly string[], n: number, vlan = 1) => ({
  id,
  vlan,
  mac: `02:00:00:00:${(n >> 8).toString(16).padStart(2, '0')}:${(n & 255).toString(16).padStart(2, '0')}`,
  attach: attach.map((end) => ({ switch: end.split(' ')[0]!, port: end.split(' ')[1]! })),
});
const edges = (...ends: string[]) => Object.fromEntries(ends.map((end) => [end, { edge: true }]));
const outagesAndReach = (design: Design, actions: readonly object[], until = 60) => {
  const scenario = readScenario({ actions, until }, design);
  const run = scenario.ok ? simulate(design, scenario.value) : scenario;
  if (!run.ok) throw new Error('not run');
  return run.value;
};
const outages = (design: Design, actions: readonly object[], until = 60): readonly Outage[] =>
  outagesAndReach(design, actions, until).outages;
const between = (all: readonly Outage[], from: string, to: string) =>
  all.filter((outage) => outage.from === from && outage.to === to).map(({ start, end, cause }) => [start, end, cause]);
/** x - a - b - y, the only way. */
const chain = networkOf({ a: { priority: 0 }, b: {} }, ['a 1 = b 1'], edges('a 9', 'b 9'), {
  hosts: [host('x', ['a 9'], 1), host('y', ['b 9'], 2)],
});

describe('hosts', () => {
  it('that are reached all the time have no outage', () => expect(outages(chain, [])).toEqual([]));
  it('are cut off while the only link is, both ways, and to the end if it stays so', () => {
    const back = outages(chain, [
      { at: 1, do: 'link-down', link: 'l0' },
      { at: 5, do: 'link-up', link: 'l0' },
    ]);
    for (const [from, to] of [
      ['x', 'y'],
      ['y', 'x'],
    ] as const) {
      const [[start, end, cause]] = between(back, from, to) as [[number, number, string]];
      expect([start, cause]).toEqual([1, 'no path']);
      expect(end).toBeGreaterThan(5);
      expect(end).toBeLessThan(5.1);
    }
    expect(between(outages(chain, [{ at: 1, do: 'link-down', link: 'l0' }]), 'x', 'y')).toEqual([[1, null, 'no path']]);
  });
  it('are cut off by a link that is dead in one direction, that way only', () => {
    const oneWay = outages(chain, [{ at: 1, do: 'one-way', link: 'l0', from: 'b' }], 1.5);
    expect(between(oneWay, 'y', 'x')).toEqual([[1, null, 'no path']]);
    expect(between(oneWay, 'x', 'y')).toEqual([]);
  });
  it('behind a converter are cut off until missing BPDUs tell', () => {
    const ring = networkOf(
      { a: { priority: 0 }, b: { priority: 4096 }, c: {} },
      ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'],
      edges('a 9', 'c 9'),
      { hosts: [host('x', ['a 9'], 1), host('y', ['c 9'], 2)] },
    );
    const [[start, end]] = between(outages(ring, [{ at: 1, do: 'link-down', link: 'l2', light: false }]), 'x', 'y') as [
      [number, number],
    ];
    expect(start).toBe(1);
    expect(end).toBeGreaterThan(4.5);
    expect(end).toBeLessThan(8);
  });
  it('with two cards go over to the second when the first has no port', () => {
    const two = networkOf(
      { a: { priority: 0 }, b: {}, c: {} },
      ['a 1 = b 1', 'a 2 = c 1'],
      edges('a 9', 'b 9', 'c 9'),
      { hosts: [host('x', ['a 9'], 1), host('y', ['b 9', 'c 9'], 2)] },
    );
    const all = between(outages(two, [{ at: 1, do: 'switch-down', switch: 'b' }]), 'x', 'y');
    expect(all.every(([, end]) => end !== null && (end as number) < 1.1)).toBe(true);
  });
  it('of different VLANs are nobody’s pair; a VLAN that a link does not carry does not pass it', () => {
    const vlans = networkOf(
      { a: {}, b: {} },
      ['a 1 = b 1'],
      {
        'a 1': { vlans: { mode: 'trunk', allowed: '15' } },
        ...Object.fromEntries(['a 8', 'b 8'].map((end) => [end, { edge: true, vlans: { mode: 'access', vlan: 15 } }])),
        ...Object.fromEntries(['a 9', 'b 9'].map((end) => [end, { edge: true, vlans: { mode: 'access', vlan: 25 } }])),
      },
      {
        vlans: [{ id: 15 }, { id: 25 }],
        hosts: [
          host('x', ['a 8'], 1, 15),
          host('y', ['b 8'], 2, 15),
          host('u', ['a 9'], 3, 25),
          host('v', ['b 9'], 4, 25),
        ],
      },
    );
    const all = outages(vlans, [], 5);
    expect(new Set(all.map(({ from, to, vlan, cause }) => `${from} ${to} ${vlan} ${cause}`))).toEqual(
      new Set(['u v 25 no path', 'v u 25 no path']),
    );
  });
});

describe('addresses', () => {
  it('that point the old way are stale until their host speaks again', () => {
    // Two ways from a to c; switches without spanning tree keep what they learnt when the far link moves.
    const off = { dialect: 'off' };
    const design = networkOf({ a: off, b: off, c: off }, ['a 1 = b 1', 'a 2 = c 1', 'b 2 = c 2'], edges('a 9', 'c 9'), {
      hosts: [host('x', ['a 9'], 1), host('y', ['c 9'], 2)],
    });
    const start = editAll(design, [{ do: 'set-link', link: 'l2' as LinkId, up: false }]);
    if (!start.ok) throw new Error(start.error.found);
    const all = between(
      outages(
        start.value.design,
        [
          { at: 1, do: 'link-up', link: 'l2' },
          { at: 1, do: 'link-down', link: 'l1' },
        ],
        5,
      ),
      'x',
      'y',
    );
    expect(all.at(-1)).toEqual([1, 1 + TALK / SECOND, 'outdated address']);
  });
});

describe('addresses of hosts that speak once a minute', () => {
  /** y hangs on c, reached from x on a over b until that cable is cut; the way from a to c stays closed until then. */
  const design = (dialect: string) =>
    networkOf(
      { a: { priority: 0, dialect }, b: { priority: 4096, dialect }, c: { dialect } },
      ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'],
      { ...edges('a 9', 'c 9', 'b 9'), 'c 1': { cost: 200_000 } },
      { hosts: [host('x', ['a 9'], 1), host('y', ['c 9'], 2), host('z', ['b 9'], 3)] },
    );
  const cut = (dialect: string, talk: number, until = 400) => {
    const scenario = readScenario({ actions: [{ at: 1, do: 'link-down', link: 'l1' }], until, talk }, design(dialect));
    const run = scenario.ok ? simulate(design(dialect), scenario.value) : scenario;
    if (!run.ok) throw new Error('not run');
    return run.value;
  };
  it('are forgotten in the time of a message where a topology change is told (RSTP)', () => {
    const all = between(cut('rstp', 60, 60).outages, 'x', 'y');
    expect(all).toEqual([[1, (SECOND + HANDLING + LINK_DELAY) / SECOND, 'outdated address']]);
  });
  it('age in Forward Delay where the classic root tells of the change, instead of five minutes', () => {
    // The port forwards after two forward delays, and a message later the root knows: what was heard at 0 is older than 15 s.
    const all = between(cut('stp', 600).outages, 'x', 'y');
    expect(all).toEqual([
      [1, 31, 'no path'],
      [31, 31 + (HANDLING + LINK_DELAY) / SECOND, 'outdated address'],
    ]);
  });
  it('age in five minutes where nobody tells', () => {
    const off = { dialect: 'off' };
    const hubs = networkOf({ a: off, b: off, c: off }, ['a 1 = b 1', 'a 2 = c 1', 'b 2 = c 2'], edges('a 9', 'c 9'), {
      hosts: [host('x', ['a 9'], 1), host('y', ['c 9'], 2)],
    });
    const start = editAll(hubs, [{ do: 'set-link', link: 'l2' as LinkId, up: false }]);
    const actions = [
      { at: 1, do: 'link-up', link: 'l2' },
      { at: 1, do: 'link-down', link: 'l1' },
    ];
    const scenario = start.ok ? readScenario({ actions, until: 900, talk: 700 }, start.value.design) : start;
    const run = scenario.ok && start.ok ? simulate(start.value.design, scenario.value) : null;
    if (!run?.ok) throw new Error('not run');
    expect(between(run.value.outages, 'x', 'y')).toEqual([[1, 300, 'outdated address']]);
  });
});

describe('pairs at an instant', () => {
  it('are cut off for the reason and the time that their outages say', () => {
    const all = outagesAndReach(
      chain,
      [
        { at: 1, do: 'link-down', link: 'l0' },
        { at: 5, do: 'link-up', link: 'l0' },
        { at: 9, do: 'one-way', link: 'l0', from: 'b' },
      ],
      12,
    );
    for (const t of [0, 0.5, 1, 2, 5, 5.0001, 6, 9, 10, 12]) {
      const causes = all.reach.causesAt(t * SECOND);
      all.reach.pairs.forEach(({ from, to, vlan }, i) => {
        const open = all.outages.find(
          (outage) =>
            outage.from === from &&
            outage.to === to &&
            outage.vlan === vlan &&
            outage.start <= t &&
            (outage.end === null || t < outage.end),
        );
        expect(causes[i]).toBe(open?.cause ?? null);
      });
    }
    expect(all.reach.count).toBe(5);
  });
});

it('sees a storm in a VLAN with one host, too: it is broadcasts that circle', () => {
  const off = { dialect: 'off' };
  const loop = networkOf(
    { a: off, b: off },
    ['a 1 = b 1', 'a 2 = b 2'],
    { 'a 9': {} },
    { hosts: [host('x', ['a 9'], 1)] },
  );
  const scenario = readScenario({ actions: [], until: 5 }, loop);
  const run = scenario.ok ? simulate(loop, scenario.value) : scenario;
  expect(run.ok && run.value.storms).toMatchObject([
    {
      vlan: 1,
      start: 0,
      end: null,
      links: ['l0', 'l1'],
      flapping: [
        { switch: 'a', ports: ['1', '2'] },
        { switch: 'b', ports: ['1', '2'] },
      ],
    },
  ]);
});

it('counts the pairs that are too many to follow', () => {
  const count = 80;
  const crowd = networkOf({ a: {} }, [], edges(...Array.from({ length: count }, (_, i) => `a ${i + 1}`)), {
    hosts: Array.from({ length: count }, (_, i) => host(`h${i}`, [`a ${i + 1}`], i + 1)),
  });
  const sim = new Simulation(
    compileNetwork(crowd),
    solutionOf(crowd).trees.map((tree) => tree.id),
  );
  expect(new DataPlane(sim).unfollowed).toBe(count * (count - 1) - MOST_PAIRS);
});
