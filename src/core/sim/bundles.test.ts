/** Bundles while the protocols run: the LACP machines come to what the settled answer says, and spanning tree follows them. */
import type { Run } from './run';
import fc from 'fast-check';
import { settleBundles } from '../topology/lag/settled';
import { bundlesOf } from '../topology/lag/ends';
import type { Design } from '../model/document';
import { SECOND } from '../modes/entity';
import { type Participant, STATE_BITS } from '../modes/lacp/state';
import { bundledDesign } from '../testing/bundles';
import { booted } from '../testing/settling';
import { benchedScenario } from '../testing/scenarios';
import { networkOf, solutionOf } from '../testing/networks';
import { turnLinks } from '../testing/turns';
import { forwards, roleOf } from '../tree/settled';
import { traceOf, Player } from './trace/trace';
import { simulate } from './simulate';
import type { Simulation } from './engine/simulation';
import { parts, tries } from '../testing/runs';

const REST = 120 * SECOND;

const told = (who: Participant | null) =>
  who && {
    system: who.system,
    systemPriority: who.systemPriority,
    key: who.key,
    port: who.port,
    portPriority: who.portPriority,
    bits: STATE_BITS.filter((bit) => who.state[bit]),
  };

/** Members that the machines have otherwise than the settled answer. */
function unlike(sim: Simulation, design: Design): unknown[] {
  const bundles = bundlesOf(design);
  const settled = settleBundles(bundles);
  return bundles.members.flatMap((member, m) => {
    const { state, lacp } = sim.aggregation.memberNow(m);
    const { state: wanted, actor, partner } = settled.members[m]!;
    const is = { state, ...(lacp ? { actor: told(lacp.actor), partner: told(lacp.partner) } : {}) };
    const should = { state: wanted, ...(lacp ? { actor, partner } : {}) };
    return JSON.stringify(is) === JSON.stringify(should)
      ? []
      : [{ member: `${member.at.switch} ${member.id}`, is, should }];
  });
}

/** Ports that the protocols have otherwise than the solver. */
function otherwise(sim: Simulation, design: Design): string[] {
  const {
    network,
    trees: [tree],
  } = solutionOf(design);
  return network.ports.flatMap((port, p) => {
    const role = roleOf(tree!, p) ?? 'disabled';
    return sim.role(0, p) === role
      ? []
      : [`${network.switches[network.owner[p]!]!.id} ${port.id}: ${role}, not ${sim.role(0, p)}`];
  });
}

it.each(parts(2, 75))('comes to what the settled answer says, member by member and bit by bit (%#)', (runs) => {
  fc.assert(
    fc.property(bundledDesign({ modes: ['active', 'active', 'passive', 'static', 'initiate', 'answer'] }), (design) => {
      expect(unlike(booted(design), design)).toEqual([]);
    }),
    runs,
  );
});

it.each(parts(2, 50))('leaves spanning tree where the solver has it, from boot and after cuts (%#)', (runs) => {
  fc.assert(
    fc.property(
      bundledDesign({ modes: ['active', 'active', 'passive', 'initiate', 'answer'] }),
      fc.nat(),
      fc.array(fc.nat(), { maxLength: 2 }),
      (design, seed, turns) => {
        const sim = booted(design, seed);
        expect(otherwise(sim, design)).toEqual([]);
        turnLinks(sim, design, turns, REST, (now) => expect(otherwise(sim, now)).toEqual([]));
      },
    ),
    runs,
  );
});

const host = (sw: string, n: number) => ({
  id: `h${sw}`,
  mac: `02:00:00:00:09:0${n}`,
  attach: [{ switch: sw, port: '9' }],
});
/** Two links side by side and a slower way around over c; a host on each switch. */
const sides = (bundles: readonly object[], dialect = 'rstp', ports: Parameters<typeof networkOf>[2] = {}): Design =>
  networkOf(
    { a: { priority: 0, dialect }, b: { dialect }, c: { dialect } },
    ['a 1 = b 1', 'a 2 = b 2', 'a 3 = c 1', 'b 3 = c 2'],
    { 'a 9': {}, 'b 9': {}, 'c 9': {}, ...ports },
    { bundles, hosts: [host('a', 1), host('b', 2), host('c', 3)] },
  );
const at = (sw: string, more: object = {}) => ({ id: `at-${sw}`, switch: sw, number: 1, ports: ['1', '2'], ...more });
const ran = (design: Design, actions: readonly object[], until = 130): Run => {
  const run = simulate(design, benchedScenario(design, actions, until));
  if (!run.ok) throw new Error(run.error);
  return run.value;
};
/** When a member came to stand so for the first time after a moment, seconds. */
const whenIs = ({ members }: Run, member: number, state: string, after = 0): number | undefined => {
  const mark = members.marks.find((each) => each.member === member && each.state === state && each.t >= after * SECOND);
  return mark && mark.t / SECOND;
};
const costs = (run: Run, sw: string, port: string): number =>
  (run.final.trees[0]!.switches[sw as never]!.ports[port as never] as { cost: number }).cost;

describe('timeouts', () => {
  const dies = [{ at: 1, do: 'link-down', link: 'l1', light: false }];
  it('fast: a member whose partner falls silent is out after three seconds', () => {
    const run = ran(sides([at('a', { timeout: 'fast' }), at('b', { timeout: 'fast' })]), dies);
    const out = whenIs(run, 1, 'waiting')!;
    expect(out).toBeGreaterThan(2.9);
    expect(out).toBeLessThan(4.2);
  });
  it('slow: only after ninety, and until then what it sends is lost', () => {
    const run = ran(sides([at('a'), at('b')]), dies);
    const out = whenIs(run, 1, 'waiting')!;
    expect(out).toBeGreaterThan(60);
    expect(out).toBeLessThan(92);
    expect(whenIs(run, 0, 'waiting')).toBeUndefined();
  });
  it('light that goes takes the member out at once', () => {
    const run = ran(sides([at('a'), at('b')]), [{ at: 1, do: 'link-down', link: 'l1' }], 20);
    expect([whenIs(run, 1, 'down'), whenIs(run, 3, 'down')]).toEqual([1, 1]);
    expect(run.outages).toEqual([]);
  });
  it('a passive end answers when the slow partner speaks next: the bundle comes up late', () => {
    const run = ran(sides([at('b')]), [{ at: 1, do: 'add-bundle', bundle: at('a', { mode: 'passive' }) }], 60);
    const up = whenIs(run, 2, 'active')!;
    expect(up).toBeGreaterThan(5);
    expect(up).toBeLessThan(35);
  });
  it('one way only: the end that still hears takes its member out', () => {
    const run = ran(
      sides([at('a', { ports: ['1'], timeout: 'fast' }), at('b', { ports: ['1'], timeout: 'fast' })]),
      [{ at: 1, do: 'one-way', link: 'l0', from: 'a' }],
      40,
    );
    // b gives a up after twice three seconds and says so; a hears that and lets no frame through, so nothing circles.
    expect(whenIs(run, 0, 'waiting')).toBeLessThan(7.5);
    expect(run.storms).toEqual([]);
  });
});

describe('spanning tree over a bundle', () => {
  it.each([
    ['long', 10_000, 20_000],
    ['short', 3, 4],
  ])('costs by the sum of its active members, %s', (method, both, one) => {
    const design = { ...sides([at('a'), at('b')]), pathCost: method } as Design;
    const lost = ran(design, [{ at: 1, do: 'link-down', link: 'l0' }], 20);
    expect([costs(ran(design, [], 1), 'b', 'at-b'), costs(lost, 'b', 'at-b')]).toEqual([both, one]);
    expect(
      costs(
        ran(
          design,
          [
            { at: 1, do: 'link-down', link: 'l0' },
            { at: 5, do: 'link-up', link: 'l0' },
          ],
          30,
        ),
        'b',
        'at-b',
      ),
    ).toBe(both);
  });
  it('moves the tree when a lost member makes another way the cheaper one, and back', () => {
    const design = sides([at('a'), at('b')], 'rstp', {
      'a 3': { speed: 5000 },
      'c 1': { speed: 5000 },
      'b 3': { speed: 10_000 },
      'c 2': { speed: 10_000 },
    });
    const rootPort = (run: Run) => run.final.trees[0]!.switches['b' as never]!.rootPort;
    expect(rootPort(ran(design, [], 1))).toBe('3');
    const faster = sides([at('a'), at('b')], 'rstp', {
      'a 3': { speed: 2000 },
      'c 1': { speed: 2000 },
      'b 3': { speed: 5000 },
      'c 2': { speed: 5000 },
    });
    expect([
      rootPort(ran(faster, [], 1)),
      rootPort(ran(faster, [{ at: 1, do: 'link-down', link: 'l1' }], 20)),
      rootPort(
        ran(
          faster,
          [
            { at: 1, do: 'link-down', link: 'l1' },
            { at: 10, do: 'link-up', link: 'l1' },
          ],
          40,
        ),
      ),
    ]).toEqual(['at-b', '3', 'at-b']);
  });
  it('sees single ports while both ends wait, and blocks all but one', () => {
    const run = ran(sides([at('a', { mode: 'passive' }), at('b', { mode: 'passive' })]), [], 5);
    const { ports } = run.final.trees[0]!.switches['b' as never]!;
    expect(ports).toMatchObject({
      1: { role: 'root', memberOf: 'at-b' },
      2: { role: 'alternate', memberOf: 'at-b' },
      'at-b': { role: 'disabled' },
    });
  });
  it('an end that becomes passive beside a passive one falls, and rises again when it is active', () => {
    const run = ran(
      sides([at('a', { timeout: 'fast' }), at('b', { mode: 'passive', timeout: 'fast' })]),
      [
        { at: 1, do: 'bundle-mode', bundle: 'at-a', mode: 'passive' },
        { at: 30, do: 'bundle-mode', bundle: 'at-a', mode: 'active' },
      ],
      60,
    );
    expect(whenIs(run, 0, 'individual', 1)).toBeLessThan(20);
    expect(whenIs(run, 0, 'active', 30)).toBeLessThan(34);
    const player = new Player(traceOf(run, [], 60));
    const port = player.network.portIndexOf('b' as never, 'at-b' as never);
    expect([0, 20, 50].map((t) => player.at(t * SECOND).live(port))).toEqual([true, false, true]);
    expect(player.memberAt(2, 20 * SECOND)?.state).toBe('individual');
  });
});

describe('static ends check nothing', () => {
  const half = [{ at: 1, do: 'add-bundle', bundle: at('a', { mode: 'static' }) }];
  it('against single ports: broadcasts come back, which no spanning tree sees', () => {
    const run = ran(sides([], 'stp'), half, 60);
    expect(run.storms).toContainEqual(expect.objectContaining({ endless: false }));
    expect(run.storms.at(-1)!.flapping.length).toBeGreaterThan(0);
  });
  it('with crossed cables and one more way: broadcasts circle without end', () => {
    const crossed = networkOf(
      { a: { priority: 0, dialect: 'stp' }, b: { dialect: 'stp' }, c: { dialect: 'stp' } },
      ['a 1 = b 1', 'a 2 = c 1', 'a 3 = c 2', 'b 3 = c 3'],
      { 'a 9': {}, 'b 9': {}, 'c 9': {} },
      { hosts: [host('a', 1), host('b', 2), host('c', 3)] },
    );
    const run = ran(crossed, half, 60);
    expect(run.storms.at(-1)).toMatchObject({ endless: true, end: null, links: ['l1', 'l2'] });
    expect(run.outages.some((outage) => outage.cause === 'storm')).toBe(true);
    // LACP on the same cables takes one of them, and nothing circles.
    const safe = ran(crossed, [{ at: 1, do: 'add-bundle', bundle: at('a', { mode: 'active' }) }], 60);
    expect(safe.storms).toEqual([]);
  });
  it('against LACP: what the static end sends by a kept-out member is lost', () => {
    const run = ran(sides([at('a', { mode: 'static' }), at('b')], 'stp'), [], 90);
    expect(run.final.trees[0]!.switches['b' as never]!.ports).toMatchObject({ 'at-b': { role: 'disabled' } });
  });
});

it('rapid bridges forward where the solver has them forward, whatever static ends face: who hears a worse one speak discards', () => {
  let disputes = 0;
  fc.assert(
    fc.property(bundledDesign({ modes: ['static'] }), (design) => {
      const { network, trees } = solutionOf(design);
      const [tree] = trees;
      const sim = booted(design);
      network.ports.forEach((port, p) => {
        const role = roleOf(tree!, p) ?? 'disabled';
        const is = [sim.role(0, p), sim.state(0, p) === 'forwarding'];
        expect([network.switches[network.owner[p]!]!.id, port.id, ...is]).toEqual([
          network.switches[network.owner[p]!]!.id,
          port.id,
          role,
          forwards(tree!, p),
        ]);
        disputes += tree!.disputed[p]!;
      });
    }),
    { numRuns: tries(150) },
  );
  expect(disputes).toBeGreaterThan(0);
});

it('classic bridges settle where the solver has them, whatever static ends face', () => {
  fc.assert(
    fc.property(bundledDesign({ modes: ['static', 'static', 'active', 'passive'] }), (drawn) => {
      const design: Design = { ...drawn, switches: drawn.switches.map((sw) => ({ ...sw, dialect: 'stp' as const })) };
      expect(otherwise(booted(design), design)).toEqual([]);
    }),
    { numRuns: tries(50) },
  );
});
