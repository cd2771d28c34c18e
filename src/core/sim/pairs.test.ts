/** Pairs in a run: what each switch of one does as they lose each other, and who notices. */
import fc from 'fast-check';
import { linkLoads } from '../analysis/sharing/load';
import { SECOND } from '../modes/entity';
import type { Design } from '../model/document';
import { explainPort } from '../tree/explain/explain';
import { solve } from '../tree/solve';
import { bundledDesign } from '../testing/bundles';
import { anyDesign, meshDesign, regionsDesign } from '../testing/networks';
import { otherwise } from '../testing/portDialects';
import { withStack } from '../testing/stacks';
import { pairedNetwork, turnedInPair, withPair, type PairedOptions } from '../testing/pairs';
import { tries } from '../testing/runs';
import { benchedScenario } from '../testing/scenarios';
import { booted, unlike } from '../testing/settling';
import { treesOf } from '../topology/trees';
import type { RunOptions } from './run';
import { simulate } from './simulate';
import { followFlood, followFrame, settledPassage } from './traffic/passage';

const REST = 120 * SECOND;
const MODES = ['stp', 'rstp', 'mstp', 'per-vlan-stp', 'per-vlan-rstp'] as const;

it.each(MODES)('settles to what the solver says after everything that is lost or comes back: %s', (dialect) => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(0, 4096, 32768), { minLength: 5, maxLength: 5 }),
      fc.nat(),
      fc.array(fc.nat({ max: 30 }), { maxLength: 5 }),
      (priorities, seed, turns) => {
        const switches = Object.fromEntries(
          ['p', 's', 'x', 'y', 'r'].map((sw, i) => [sw, { dialect, priority: priorities[i] }]),
        );
        let now = pairedNetwork({ switches });
        const sim = booted(now, seed, REST);
        expect(unlike(sim, now)).toEqual([]);
        for (const turn of turns) {
          now = turnedInPair(now, turn);
          sim.follow(now);
          sim.runTo(sim.now + REST);
          expect(unlike(sim, now)).toEqual([]);
        }
      },
    ),
    { numRuns: tries(15) },
  );
});

it.each([
  ['any dialects', anyDesign, REST] as const,
  ['ports that speak otherwise', otherwise(meshDesign, ['version-0', 'per-vlan-rstp']), 400 * SECOND] as const,
  ['regions', regionsDesign(6, ['r0', 'r0', 'r0', 'r1', 'rstp']), REST] as const,
  ['stacks', withStack(anyDesign), REST] as const,
  ['bundles', bundledDesign({ modes: ['active', 'passive'] }), REST] as const,
])('so it does in any network of which two switches are made a pair: %s', (_, designs, rest) => {
  const paired = withPair(designs);
  fc.assert(
    fc.property(paired, fc.nat(), fc.array(fc.nat({ max: 60 }), { maxLength: 3 }), (design, seed, turns) => {
      fc.pre(design !== null);
      let now = design!;
      const sim = booted(now, seed, rest);
      expect(unlike(sim, now)).toEqual([]);
      for (const turn of turns) {
        now = turned(now, turn);
        if (treesOf(now).join() !== sim.trees.join()) return; // a run has the trees that it began with
        sim.follow(now);
        sim.runTo(sim.now + rest);
        expect(unlike(sim, now)).toEqual([]);
      }
    }),
    { numRuns: tries(25) },
  );
});

/** A switch loses its power, a cable is cut, a keepalive fails; or the other way round. */
function turned(design: Design, turn: number): Design {
  const { switches, links } = design;
  const at = turn % (links.length + 2 * switches.length);
  if (at < links.length)
    return { ...design, links: links.map((link, l) => (l === at ? { ...link, up: !link.up } : link)) };
  const s = Math.floor((at - links.length) / 2);
  const isPower = (at - links.length) % 2 === 0;
  return {
    ...design,
    switches: switches.map((sw, i) =>
      i !== s
        ? sw
        : isPower
          ? { ...sw, up: !sw.up }
          : { ...sw, ...(sw.pair ? { pair: { ...sw.pair, keepaliveUp: !sw.pair.keepaliveUp } } : {}) },
    ),
  };
}

it('settles so in every order in which peer link, keepalive and both switches are lost and come back', () => {
  const orders = (left: readonly number[]): number[][] =>
    left.length === 0
      ? [[]]
      : left.flatMap((one) => orders(left.filter((each) => each !== one)).map((rest) => [one, ...rest]));
  const network = pairedNetwork({ switches: { r: { dialect: 'rstp', priority: 0 } } });
  for (const order of orders([0, 1, 2, 3])) {
    let now = network;
    const sim = booted(now, 1, 60 * SECOND);
    for (const turn of [...order, ...order.slice(1), order[0]!]) {
      now = turnedInPair(now, turn);
      sim.follow(now);
      sim.runTo(sim.now + 60 * SECOND);
      expect({ order, unlike: unlike(sim, now) }).toEqual({ order, unlike: [] });
    }
  }
});

const HOSTS = [
  { id: 'at-p', mac: '02:00:00:00:99:01', vlan: 1, attach: [{ switch: 'p', port: '9' }] },
  { id: 'at-s', mac: '02:00:00:00:99:02', vlan: 1, attach: [{ switch: 's', port: '9' }] },
  { id: 'at-y', mac: '02:00:00:00:99:03', vlan: 1, attach: [{ switch: 'y', port: '9' }] },
];
const withHosts = (options: PairedOptions = {}): Design =>
  pairedNetwork({
    switches: { p: { priority: 0 }, s: { priority: 0 } },
    ports: { 'p 9': {}, 's 9': {}, 'y 9': {} },
    rest: { hosts: HOSTS },
    ...options,
  });
const run = (design: Design, actions: readonly object[], until = 30) => {
  const done = simulate(design, benchedScenario(design, actions, until));
  if (!done.ok) throw new Error(done.error);
  return done.value;
};
const cut = (...links: string[]) => links.map((link) => ({ at: 2, do: 'link-down', link }));
const away = (found: ReturnType<typeof run>): string[] => [
  ...new Set(found.outages.filter(({ start, end }) => (end ?? 30) - start > 1).map(({ from, to }) => `${from} ${to}`)),
];

describe('a pair that loses its peer link', () => {
  it('cuts off what hangs on the secondary alone, as long as the keepalive is heard', () => {
    const found = run(withHosts(), cut('l0', 'l1'));
    expect(away(found).sort()).toEqual(['at-p at-s', 'at-s at-p', 'at-s at-y', 'at-y at-s']);
    expect(found.trace.filter(({ switch: sw }) => sw === 'y')).toEqual([]);
    expect(found.storms).toEqual([]);
  });
  it('has nobody notice one cable of it, or its keepalive, alone', () => {
    for (const link of ['l0', 'l2']) expect(away(run(withHosts(), cut(link)))).toEqual([]);
  });
  it('is two of one address where the keepalive is lost as well', () => {
    const found = run(withHosts(), cut('l0', 'l1', 'l2'), 10);
    const speakers = new Set(
      Array.from({ length: found.sent.count }, (_, i) => found.sent.at(i)).flatMap(({ bpdu, origin }) =>
        'vector' in bpdu ? [`${origin} ${bpdu.vector.bridge}`] : [],
      ),
    );
    expect([...speakers].filter((each) => each.startsWith('0 ') || each.startsWith('1 ')).length).toBeGreaterThan(1);
    expect(found.final.trees[0]!.switches['s' as never]!.ports['s-y' as never]).toMatchObject({ state: 'forwarding' });
  });
});

describe('a switch of a pair', () => {
  const loses = (sw: string) => [
    { at: 2, do: 'switch-down', switch: sw },
    { at: 5, do: 'switch-up', switch: sw },
  ];
  it.each(['p', 's'])('that loses power changes nobody’s tree: %s', (sw) => {
    const found = run(withHosts({ half: { p: { delay: 4 }, s: { delay: 4 } } }), loses(sw));
    expect(found.trace.filter((each) => !['p', 's', 'r'].includes(each.switch))).toEqual([]);
    expect(away(found).every((pair) => pair.includes(`at-${sw}`))).toBe(true);
  });
  it('leaves its pair bundles down for a time once it is back', () => {
    const back = (delay: number) =>
      run(withHosts({ half: { s: { delay } } }), loses('s'), 60).trace.find(
        ({ t, switch: sw, port, to }) => t > 5 && sw === 's' && port === 's-y' && to === 'forwarding',
      )!.t;
    expect(back(20) - back(0)).toBeCloseTo(20, 0);
  });
  it('is what its partners hear of by one system', () => {
    const { network } = solve(withHosts());
    const end = network.bundles.ends.find(({ id }) => id === 'y-pair')!;
    const far = end.members.map(
      (m) => network.bundles.ends[network.bundles.members[network.bundles.members[m]!.far]!.end]!,
    );
    expect(new Set(far.map(({ mac, key, systemPriority }) => `${mac} ${key} ${systemPriority}`)).size).toBe(1);
    expect(end.members.map((m) => network.use[m])).toEqual(['bundle', 'bundle']);
  });
});

describe('frames at a pair', () => {
  const solution = solve(withHosts());
  const passage = settledPassage(solution);
  const hops = (from: string, to: string) => {
    const way = followFrame(passage, from as never, to as never);
    return way.arrives ? way.hops.map(({ switch: sw, in: by, out }) => `${by} ${sw} ${out}`) : way.why;
  };
  it('go over the peer link from one switch to the other, and leave by members of the switch that they are at', () => {
    expect(hops('at-p', 'at-s')).toEqual(['9 p peer-p', 'peer-s s 9']);
    expect(hops('at-p', 'at-y')).toEqual(['9 p p-y', 'y-pair y 9']);
    expect(hops('at-s', 'at-y')).toEqual(['9 s s-y', 'y-pair y 9']);
    expect(followFlood(passage, 'at-p' as never).hosts).toEqual(['at-s', 'at-y']);
  });
  it('load the peer link with what comes in at the other switch than it leaves by', () => {
    const carries = (hosts: object[]) => {
      const loads = linkLoads(solve(withHosts({ rest: { hosts, vlans: [{ id: 1, name: 'all' }] } }))).links;
      return ['l0', 'l1'].map((id) => loads.find(({ link }) => link === id)!.total);
    };
    expect(carries(HOSTS.slice(0, 2))).toEqual([0.5, 0.5]); // all of 1 Mbit/s, over two cables
    expect(carries([HOSTS[0]!, HOSTS[2]!])).toEqual([0.125, 0.125]); // half of what comes from y comes in at s
    const twice = { ...HOSTS[0]!, attach: [HOSTS[0]!.attach[0]!, HOSTS[1]!.attach[0]!] };
    expect(carries([twice, HOSTS[2]!])).toEqual([0, 0]);
  });
});

it.each(['rstp', 'mstp', 'per-vlan-rstp'])('runs of a pair are told alike however they are run: %s', (dialect) => {
  const switches = Object.fromEntries(['p', 's', 'x', 'y', 'r'].map((sw) => [sw, { dialect }]));
  const design = pairedNetwork({ switches, rest: { vlans: [{ id: 15, name: 'one' }] } });
  const actions = [
    ...cut('l0', 'l1'),
    { at: 9, do: 'link-up', link: 'l0' },
    { at: 12, do: 'switch-down', switch: 'p' },
  ];
  const told = (options: RunOptions) => {
    const done = simulate(design, benchedScenario(design, actions, 40), options);
    if (!done.ok) throw new Error(done.error);
    return {
      final: done.value.final,
      trace: [...new Set(done.value.trace.map((each) => JSON.stringify(each)))].sort(),
    };
  };
  const plain = told({ begins: 'booted', clocks: 'all on one', everyHello: true });
  expect(told({ begins: 'booted', clocks: 'each its own' })).toEqual(plain);
  expect(told({ begins: 'at-rest' }).final).toEqual(plain.final);
});

it('ports of a pair are explained as those of one bridge', () => {
  const solution = solve(pairedNetwork({ switches: { r: { priority: 0 } } }));
  const why = (sw: string, port: string) =>
    explainPort(solution, solution.trees[0]!, solution.network.portIndexOf(sw as never, port as never))!.sentence;
  expect(why('p', '3')).toBe('Disabled: it carries the keepalive of its pair, and nothing else.');
  expect(why('s', 'peer-s')).toMatch(
    /^Peer link: .* It always forwards\. This switch's way to the root leads over it\.$/,
  );
  expect(why('s', '6')).toMatch(/Its way to the root is port 6 of p/);
  expect(why('s', 's-y')).toMatch(/^Designated: pair of p and s offers this segment at/);
});

it('a tree of a pair stays with whoever is left of it, in the words of the run as well', () => {
  const found = run(withHosts(), [{ at: 2, do: 'switch-down', switch: 'p' }], 10);
  expect(found.final.trees[0]!.switches['y' as never]!.root).toBe('s');
});
