/** Guards in runs: what shuts, holds and lets go, and that the settled trees say the same. */
import fc from 'fast-check';
import { FAMILIES, meshDesign, networkOf, randomDesign, regionsDesign } from '../testing/networks';
import { guarded as withGuards, run, shutTimes } from '../testing/guards';
import { unlikeAtRest } from '../testing/settling';
import { tries } from '../testing/runs';
import { isClassic, portSchema, runsTrees, type Design } from '../model/document';
import { SHUT_BY } from '../model/guard';
import { withStranger } from '../analysis/guards/intruder';
import { namesOf } from '../model/derive/names';
import { freePortsOf } from '../model/plugs';
import { readDesign } from '../model/read';
import type { BundleId, PortId, SwitchId } from '../model/ids';
import { explainPort } from '../tree/explain/explain';
import { solve } from '../tree/solve';

const stranger = (at: number, port = '9') => ({
  at,
  do: 'add-switch',
  switch: { id: 'x', mac: '02:00:00:00:00:00', priority: 0, ports: [{ id: '1', number: 1 }] },
  links: [{ id: 'in', a: { switch: 'x', port: '1' }, b: { switch: 'b', port } }],
});

describe('BPDU guard', () => {
  const guarded = (settings: object = {}) =>
    networkOf({ a: { priority: 4096 }, b: { edgeBpduGuard: true, ...settings } }, ['a 1 = b 1'], {
      'b 9': { edge: true },
      'b 8': {},
    });
  const root = (ran: ReturnType<typeof run>, sw: string) => ran.final.trees[0]!.switches[sw as SwitchId]?.root;

  it("shuts an edge port at a stranger's first BPDU, and the tree stays", () => {
    const ran = run(guarded(), [stranger(1)], 20);
    expect(ran.trace.filter(({ switch: sw }) => sw === 'a')).toEqual([]);
    expect([root(ran, 'b'), root(ran, 'x')]).toEqual(['a', 'x']);
    expect(ran.trace.findLast(({ switch: sw, port }) => sw === 'b' && port === '9')?.to).toBe('disabled');
  });

  it('lets a stranger in at a port that is no edge port, or that says otherwise', () => {
    expect(root(run(guarded(), [stranger(1, '8')], 20), 'a')).toBe('x');
    const open = networkOf({ a: { priority: 4096 }, b: { edgeBpduGuard: true } }, ['a 1 = b 1'], {
      'b 9': { edge: true, bpduGuard: false },
    });
    expect(root(run(open, [stranger(1)], 20), 'a')).toBe('x');
  });

  it('stays shut without recovery; with it opens after the time, and is shut again by the next BPDU', () => {
    expect(shutTimes(run(guarded(), [stranger(1)], 200), 'b', '9')).toEqual([1]);
    expect(shutTimes(run(guarded({ recovery: 30 }), [stranger(1)], 70), 'b', '9')).toEqual([1, 31, 31, 61, 61]);
  });

  it('stays open once the stranger has been unplugged', () => {
    const actions = [stranger(1), { at: 10, do: 'link-down', link: 'in' }];
    expect(shutTimes(run(guarded({ recovery: 30 }), actions, 100), 'b', '9')).toEqual([1, 31]);
  });

  it('is opened by somebody, by setting it down and up, and by power that goes and comes', () => {
    const gone = { at: 10, do: 'link-down', link: 'in' };
    const opened = [stranger(1), gone, { at: 20, do: 'open-port', switch: 'b', port: '9' }];
    expect(shutTimes(run(guarded(), opened, 60), 'b', '9')).toEqual([1, 20]);
    const restarted = [
      stranger(1),
      gone,
      { at: 20, do: 'switch-down', switch: 'b' },
      { at: 25, do: 'switch-up', switch: 'b' },
    ];
    expect(shutTimes(run(guarded(), restarted, 60), 'b', '9')).toEqual([1, 20]);
  });

  it('shuts a bundle with all its members', () => {
    const design = networkOf(
      { a: { priority: 4096 }, b: {} },
      ['a 1 = b 1', 'a 2 = b 2', 'a 3 = b 3'],
      {},
      {
        bundles: [
          { id: 'u', switch: 'a', number: 1, ports: ['1', '2'] },
          { id: 'v', switch: 'b', number: 1, ports: ['1', '2'], bpduGuard: true },
        ],
      },
    );
    const { network, trees } = solve(design);
    const v = network.portIndexOf('b' as SwitchId, 'v' as BundleId);
    expect(network.shut[v]).toBe(SHUT_BY.bpduGuard);
    expect(explainPort({ network, trees }, trees[0]!, v)?.sentence).toContain('shut by BPDU guard');
    expect(Array.from(network.macOperational).filter(Boolean)).toHaveLength(2);
    expect(unlikeAtRest(design, 1, [])).toEqual([]);
    expect(namesOf(design).end({ switch: 'b' as SwitchId, port: 'v' as BundleId })).toBe('b bundle v');
    const opened = run(design, [{ at: 5, do: 'open-port', switch: 'b', port: 'v' }], 30);
    expect(shutTimes(opened, 'b', 'v')).toEqual([5, 7]); // LACP waits 2 s before members are attached, then a BPDU comes
  });
});

describe('root guard', () => {
  const design = networkOf({ a: { priority: 4096 }, b: { priority: 8192 } }, ['a 1 = b 1'], {
    'b 9': { rootGuard: true },
  });

  it('holds a stranger off while it speaks, and nothing else moves; then the port forwards again', () => {
    const port = (ran: ReturnType<typeof run>) => ran.final.trees[0]!.switches['b' as SwitchId]!.ports['9' as PortId];
    const held = run(design, [stranger(1)], 20);
    expect(port(held)).toMatchObject({ role: 'alternate', state: 'discarding' });
    expect(held.trace.filter(({ switch: sw, port: own }) => sw === 'a' || (own === '1' && sw === 'b'))).toEqual([]);
    const gone = run(design, [stranger(1), { at: 30, do: 'bridge-priority', switch: 'x', priority: 61440 }], 60);
    expect(port(gone)).toMatchObject({ role: 'designated', state: 'forwarding' });
  });
});

describe('loop guard', () => {
  const ring = (settings: Record<string, unknown>) =>
    networkOf({ a: { priority: 4096 }, b: { priority: 8192 }, c: {} }, ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'], {
      'c 2': settings,
    });
  const deaf = { at: 1, do: 'one-way', link: 'l1', from: 'b' };
  const at = (ran: ReturnType<typeof run>) => ran.final.trees[0]!.switches['c' as SwitchId]!.ports['2' as PortId];

  it('holds a blocked port that stops hearing BPDUs, where it would forward and close a loop', () => {
    const looped = run(ring({}), [deaf], 20);
    expect(at(looped)).toMatchObject({ role: 'designated' });
    const held = run(ring({ loopGuard: true }), [deaf], 20);
    expect(at(held)).toMatchObject({ role: 'designated', state: 'discarding' });
    expect([held.ending, held.trace.some(({ switch: sw, to }) => sw === 'c' && to === 'forwarding')]).toEqual([
      { kind: 'rests' },
      false,
    ]);
  });

  it('holds while BPDUs alone are lost, and lets go after it', () => {
    const lost = { at: 1, do: 'lose-bpdus', link: 'l1', from: 'b', for: 10 };
    const moves = (settings: Record<string, unknown>) =>
      run(ring(settings), [lost], 40).trace.filter(
        ({ switch: sw, port, to }) => sw === 'c' && port === '2' && to === 'forwarding',
      );
    expect(moves({})).not.toEqual([]);
    expect(moves({ loopGuard: true })).toEqual([]);
    expect(at(run(ring({ loopGuard: true }), [lost], 40))).toMatchObject({ role: 'alternate', state: 'discarding' });
  });

  it('lets go at the next BPDU', () => {
    const ran = run(ring({ loopGuard: true }), [deaf, { at: 20, do: 'link-up', link: 'l1' }], 40);
    expect(at(ran)).toMatchObject({ role: 'alternate', state: 'discarding' });
  });

  it.each(['stp', 'per-vlan-rstp', 'per-vlan-stp', 'mstp'])('holds so in %s too', (dialect) => {
    const design = ring({ loopGuard: true });
    const all = { ...design, switches: design.switches.map((sw) => ({ ...sw, dialect: dialect as never })) };
    const held = run(all, [deaf], 90);
    expect(held.trace.some(({ switch: sw, port, to }) => sw === 'c' && port === '2' && to === 'forwarding')).toBe(
      false,
    );
    expect(held.ending).toEqual({ kind: 'rests' });
  });
});

/** Where three and more ports hear each other in part, who discards for a dispute hangs on moments: cables alone. */
const withoutHubs = (design: Design): Design => ({
  ...design,
  switches: design.switches.map((sw) => (runsTrees(sw) ? sw : { ...sw, up: false })),
});

/** A port more on every switch, for whoever comes. */
const withFreePort = (design: Design): Design => {
  const port = portSchema.parse({ id: '40', number: 40 });
  return { ...design, switches: design.switches.map((sw) => ({ ...sw, ports: [...sw.ports, port] })) };
};

/** A classic bridge that hears a better one before its own first hello may never speak at all, and no guard hears it. */
const rapid = (design: Design): Design => ({
  ...design,
  switches: design.switches.map((sw) =>
    isClassic(sw) ? { ...sw, dialect: sw.dialect === 'stp' ? ('rstp' as const) : ('per-vlan-rstp' as const) } : sw,
  ),
});

describe('loop probe', () => {
  /** A small switch without spanning tree behind an edge port, with a cable from itself to itself. */
  const looped = (settings: Record<string, unknown>, ports: Record<string, Record<string, unknown>> = {}) =>
    networkOf(
      { a: { priority: 4096 }, b: { edgeLoopProbe: true, ...settings }, x: { dialect: 'off' } },
      ['a 1 = b 1', 'b 9 = x 1', 'x 2 = x 3'],
      { 'b 9': { edge: true }, ...ports },
    );
  const two = networkOf(
    { a: { priority: 4096 }, b: { edgeLoopProbe: true }, x: { dialect: 'off' } },
    ['a 1 = b 1', 'b 8 = x 1', 'b 9 = x 2'],
    { 'b 8': { edge: true, bpduRx: false, bpduTx: false }, 'b 9': { edge: true, bpduRx: false, bpduTx: false } },
  );
  const shutAt = (design: Design, port: string) => {
    const { network } = solve(design);
    return network.shut[network.portIndexOf('b' as SwitchId, port as PortId)];
  };

  it('shuts the port behind which a loop is, which no BPDU tells of, at its interval', () => {
    const ran = run(looped({ probeInterval: 3, recovery: 31 }), [], 70, true);
    expect(shutTimes(ran, 'b', '9')).toEqual([3, 34, 36, 67, 69]);
    expect([shutAt(looped({}), '9'), shutAt(looped({ edgeLoopProbe: false }), '9')]).toEqual([SHUT_BY.loopProbe, 0]);
    expect(unlikeAtRest(looped({}), 1, [])).toEqual([]);
  });

  it('blocks it, where it is told to: the other end keeps its signal', () => {
    const design = looped({ probeAction: 'block' });
    const { network } = solve(design);
    const [own, far] = ['b 9', 'x 1'].map((end) => network.portIndexOf(...(end.split(' ') as [SwitchId, PortId])));
    expect([network.shut[own!], network.live[own!], network.live[far!], network.macOperational[own!]]).toEqual([
      SHUT_BY.loopProbeBlocks,
      0,
      1,
      1,
    ]);
    expect(unlikeAtRest(design, 1, [])).toEqual([]);
  });

  it('stops one of two edge ports that do not hear each other', () => {
    expect([shutAt(two, '8'), shutAt(two, '9')]).toEqual([0, SHUT_BY.loopProbe]);
    expect(unlikeAtRest(two, 1, [])).toEqual([]);
  });

  it('has nothing to do where BPDUs tell', () => {
    const heard = {
      ...two,
      switches: two.switches.map((sw) => ({
        ...sw,
        ports: sw.ports.map((port) => ({ ...port, bpduRx: true, bpduTx: true })),
      })),
    };
    expect([shutAt(heard, '8'), shutAt(heard, '9')]).toEqual([0, 0]);
    expect(unlikeAtRest(heard, 1, [])).toEqual([]);
  });
});

describe('storm limit', () => {
  /** Hosts on a and b; behind an edge port of b a small switch that is looped onto itself. */
  const stormy = (limit: object) =>
    networkOf(
      { a: { priority: 4096 }, b: {}, x: { dialect: 'off' } },
      ['a 1 = b 1', 'b 9 = x 1', 'x 2 = x 3'],
      { 'a 5': { edge: true }, 'b 5': { edge: true }, 'b 9': { edge: true, ...limit } },
      {
        hosts: ['a', 'b'].map((sw, i) => ({
          id: `h${sw}`,
          mac: `02:00:00:00:01:0${i}`,
          vlan: 1,
          attach: [{ switch: sw, port: '5' }],
        })),
      },
    );

  it('keeps a loop behind a port from drowning the others', () => {
    const drowned = run(stormy({}), [], 20, true);
    expect(drowned.outages.some(({ cause }) => cause === 'storm')).toBe(true);
    const held = run(stormy({ stormLimit: { most: 1, of: 'percent' } }), [], 20, true);
    expect(held.storms.length).toBeGreaterThan(0);
    expect(held.outages.some(({ cause }) => cause === 'storm')).toBe(false);
  });

  it('says what it holds a loop to that its ports are in', () => {
    const both = { edge: true, bpduRx: false, bpduTx: false };
    const design = networkOf(
      { a: {}, x: { dialect: 'off' } },
      ['a 1 = x 1', 'a 2 = x 2'],
      {
        'a 1': { ...both, stormLimit: { most: 1, of: 'percent' } },
        'a 2': { ...both, stormLimit: { most: 500, of: 'frames' } },
        'a 5': { edge: true },
        'a 6': { edge: true },
      },
      {
        hosts: ['5', '6'].map((port) => ({
          id: `h${port}`,
          mac: `02:00:00:00:01:0${port}`,
          vlan: 1,
          attach: [{ switch: 'a', port }],
        })),
      },
    );
    expect(run(design, [], 10, true).storms).toMatchObject([{ endless: true, heldTo: 500 }]);
  });

  it('is at most the whole of the port', () => {
    const read = (most: number, of: string) =>
      readDesign(
        JSON.parse(
          JSON.stringify({
            ...networkOf({ a: {} }, []),
            switches: [
              { id: 'a', mac: '02:00:00:00:00:01', ports: [{ id: '1', number: 1, stormLimit: { most, of } }] },
            ],
          }),
        ),
      );
    expect([read(100, 'percent').ok, read(101, 'percent').ok, read(0, 'percent').ok, read(1.5, 'frames').ok]).toEqual([
      true,
      false,
      false,
      false,
    ]);
  });
});

describe('random guards', () => {
  const families = [
    ...(Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]).map(
      (family) => [family, randomDesign(family, family === 'hubs' ? 4 : 8)] as const,
    ),
    ['mesh', meshDesign] as const,
    ['regions', regionsDesign(6)] as const,
  ];

  it.each(families)('%s: root guards come to rest where the solver says, also after cables are cut', (_, anyOf) => {
    fc.assert(
      fc.property(
        withGuards(anyOf, { root: true, tcn: true }),
        fc.nat(),
        fc.array(fc.nat(), { maxLength: 2 }),
        (...drawn) => expect(unlikeAtRest(...drawn)).toEqual([]),
      ),
      { numRuns: tries(15) },
    );
  });

  it.each(families.filter(([family]) => family !== 'mixed'))(
    '%s: a stranger finds what the solver says',
    (_, anyOf) => {
      fc.assert(
        fc.property(
          withGuards(anyOf.map(rapid).map(withoutHubs).map(withFreePort), { bpdu: true, root: true, filter: true }),
          fc.nat(),
          fc.nat(),
          (design, seed, pick) => {
            const places = design.switches.flatMap((sw) =>
              freePortsOf(design, sw).map((port) => ({ sw: sw.id, port: port.id })),
            );
            const at = places[pick % Math.max(1, places.length)];
            const placed = at && withStranger(design, { switch: at.sw, port: at.port });
            fc.pre(placed !== undefined && placed !== null);
            expect(unlikeAtRest(rapid(placed!.design), seed, [])).toEqual([]);
          },
        ),
        { numRuns: tries(15) },
      );
    },
  );

  it.each(families)('%s: filtered BPDUs leave what the solver says', (_, anyOf) => {
    fc.assert(
      fc.property(withGuards(anyOf.map(withoutHubs), { filter: true }), fc.nat(), (design, seed) =>
        expect(unlikeAtRest(design, seed, [])).toEqual([]),
      ),
      { numRuns: tries(15) },
    );
  });

  // Where a relay would flood is not known before the trees are: families without one.
  it.each(families.filter(([family]) => family !== 'mixed'))(
    '%s: BPDU guards shut what the solver says',
    (_, anyOf) => {
      fc.assert(
        fc.property(withGuards(anyOf.map(rapid), { bpdu: true, root: true }), fc.nat(), (design, seed) =>
          expect(unlikeAtRest(design, seed, [])).toEqual([]),
        ),
        { numRuns: tries(15) },
      );
    },
  );
});
