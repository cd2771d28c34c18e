/** Guards judged and set: what protects what, rules, strangers. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Design } from '../../model/document';
import type { BridgePortId, SwitchId } from '../../model/ids';
import { anyDesign, meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { guarded } from '../../testing/guards';
import { tries } from '../../testing/runs';
import { movedEnds } from '../../tree/moved';
import { viewTree } from '../../tree/settled';
import { findingsOf } from '../findings/findings';
import { underFailures } from './failures';
import { intrude, intrusionsOf } from './intruder';
import { protectionOf } from './protection';
import { guardRules } from './rules';

const verdictAt = (design: Design, sw: string, port: string) =>
  protectionOf(solutionOf(design)).find((each) => each.switch === sw && each.port === port);
const take = (design: Design, key: string): Design => {
  const rule = guardRules(solutionOf(design), null).find((each) => each.key === key)!;
  const edited = editAll(design, rule.commands);
  if (!edited.ok) throw new Error(JSON.stringify(edited.error));
  return edited.value.design;
};

/** A design with a free edge port 40 on every switch. */
const edges = (design: Design, settings: object): Design => ({
  ...design,
  switches: design.switches.map((sw) => ({
    ...sw,
    ports: [
      ...sw.ports,
      {
        ...(networkOf({ x: {} }, [], { 'x 40': {} }).switches[0]!.ports[0] as never as object),
        edge: true,
        ...settings,
      },
    ] as never,
  })),
});

describe('protection', () => {
  const pair = (ports: Record<string, Record<string, unknown>>, sw = {}) =>
    networkOf({ a: { priority: 4096 }, b: { ...sw } }, ['a 1 = b 1', 'a 2 = b 2'], ports);

  it.each([
    ['an edge without a guard', { 'b 9': { edge: true } }, {}, 'b 9', ['edge', 'open']],
    ['an edge that its switch guards', { 'b 9': { edge: true } }, { edgeBpduGuard: true }, 'b 9', ['edge', 'guarded']],
    [
      'an edge that does not follow its switch',
      { 'b 9': { edge: true, bpduGuard: false } },
      { edgeBpduGuard: true },
      'b 9',
      ['edge', 'open'],
    ],
    [
      'an edge that discards BPDUs',
      { 'b 9': { edge: true, bpduGuard: true, bpduRx: false } },
      {},
      'b 9',
      ['edge', 'harms'],
    ],
    ['root guard on the way to the root', { 'b 1': { rootGuard: true } }, {}, 'b 1', ['toward the root', 'harms']],
    ['root guard on the way from it', { 'a 1': { rootGuard: true } }, {}, 'a 1', ['away from the root', 'guarded']],
    ['loop guard on the standby way', { 'b 2': { loopGuard: true } }, {}, 'b 2', ['toward the root', 'guarded']],
    ['loop guard where it never acts', { 'a 1': { loopGuard: true } }, {}, 'a 1', ['away from the root', 'idle']],
    ['BPDU guard toward a switch', { 'a 1': { bpduGuard: true } }, {}, 'a 1', ['away from the root', 'harms']],
  ] as const)('%s', (_, ports, sw, end, [lead, verdict]) => {
    const [id, port] = end.split(' ') as [string, string];
    expect(verdictAt(pair(ports as never, sw), id, port)).toMatchObject({ lead, verdict });
  });

  it('misses loop guard on a way to the root over a media converter, and says how often a shut port opens in vain', () => {
    const design = pair({}, {});
    const converted = { ...design, links: design.links.map((link) => ({ ...link, converter: true })) };
    expect(verdictAt(converted, 'b', '1')).toMatchObject({ lead: 'toward the root', verdict: 'open' });
    expect(verdictAt(converted, 'a', '1')).toMatchObject({ verdict: 'plain' });
    const again = verdictAt(pair({ 'b 1': { bpduGuard: true } }, { recovery: 300 }), 'b', '1');
    expect(again?.why).toContain('Every 300 s it opens, and is shut again at once.');
  });

  it('says nothing of switches without spanning tree', () =>
    expect(protectionOf(solutionOf(networkOf({ a: { dialect: 'off' } }, [], { 'a 1': { edge: true } })))).toEqual([]));
});

describe('rules', () => {
  it('leave nothing to do once they are taken, and move no port', () => {
    fc.assert(
      fc.property(
        guarded(
          anyDesign.map((design) => edges(design, {})),
          { loop: true, tcn: true, edge: true },
        ),
        (design) => {
          for (const key of ['edge-bpdu-guard', 'recovery', 'edge-loop-probe', 'root-guard', 'loop-guard', 'edge']) {
            const after = take(design, key);
            expect(guardRules(solutionOf(after), null).find((each) => each.key === key)?.commands).toEqual([]);
            const roots = movedEnds(solutionOf(design), solutionOf(after));
            expect([key, roots]).toEqual([key, []]);
          }
        },
      ),
      { numRuns: tries(20) },
    );
  });

  it('guard every edge of the demo, and end its finding', () => {
    const after = take(fernhollow(), 'edge-bpdu-guard');
    expect(protectionOf(solutionOf(after)).some(({ lead, verdict }) => lead === 'edge' && verdict === 'open')).toBe(
      false,
    );
    expect(findingsOf(after, solutionOf(after)).some(({ rule }) => rule === 'edge-unguarded')).toBe(false);
  });

  it('hold for the switches that are chosen alone', () => {
    const rules = guardRules(solutionOf(fernhollow()), new Set(['lodge' as SwitchId]));
    expect(rules.find(({ key }) => key === 'edge-bpdu-guard')?.commands).toEqual([
      { do: 'set-switch', switch: 'lodge', edgeBpduGuard: true },
    ]);
  });
});

describe('a stranger', () => {
  it('takes the root where nothing stops it, and only there', () => {
    const rows = intrusionsOf(solutionOf(fernhollow()));
    const at = (sw: string, port: string) => rows.find((row) => row.switch === sw && row.port === port);
    expect(at('lodge', '6')).toMatchObject({ stoppedBy: null, roots: { length: 7 } });
    expect(at('array-hut', '6')).toMatchObject({ stoppedBy: 'BPDU guard', roots: [], moved: 0, cutOff: [] });
  });

  it('is tried in the trees that it may touch alone, and all the same in all', () => {
    fc.assert(
      fc.property(fc.oneof(anyDesign, meshDesign), (drawn) => {
        const design = edges(drawn, {});
        const solution = solutionOf(design);
        for (const { switch: sw, port, roots, moved } of intrusionsOf(solution)
          .filter((row) => row.stoppedBy === null)
          .slice(0, 4)) {
          const whole = intrude(solution, sw, port)!;
          const s = whole.solution.network.switchIndex.get(whole.stranger)!;
          const led = whole.solution.trees.filter((tree) => tree.root.some((root, own) => root === s && own !== s));
          expect([roots, moved]).toEqual([led.map(({ id }) => id), whole.moved.length]);
        }
      }),
      { numRuns: tries(25) },
    );
  });

  /** The trees without the stranger's own part. */
  const inside = (design: Design, stranger: string | null) => {
    const { network, trees } = solutionOf(design);
    return trees.map((tree) => {
      const { switches } = viewTree(network, tree);
      return Object.entries(switches).filter(([id]) => id !== stranger);
    });
  };
  it.each([
    ['root guard', { rootGuard: true }],
    ['BPDU guard', { bpduGuard: true }],
  ] as const)('with %s on every edge moves nothing inside', (_, settings) => {
    fc.assert(
      fc.property(fc.oneof(anyDesign, meshDesign), fc.nat(), (drawn, pick) => {
        const design = edges(drawn, settings);
        const sw = design.switches[pick % design.switches.length]!;
        fc.pre(sw.up && sw.dialect !== 'off');
        const there = intrude(solutionOf(design), sw.id, '40' as BridgePortId)!;
        const without = (trees: ReturnType<typeof inside>) =>
          JSON.stringify(trees)
            .replaceAll(/"40":\{[^}]*\},?/g, '')
            .replaceAll(',}', '}');
        expect(without(inside(there.design, there.stranger))).toBe(without(inside(design, null)));
      }),
      { numRuns: tries(25) },
    );
  });

  it('is cut off together with those who follow it, where a root guard farther in holds', () => {
    const design = networkOf({ a: { priority: 4096 }, b: {}, c: {} }, ['a 1 = b 1', 'b 2 = c 1'], {
      'b 2': { rootGuard: true },
      'c 9': { edge: true },
    });
    expect(intrusionsOf(solutionOf(design))).toMatchObject([
      { switch: 'c', port: '9', stoppedBy: null, cutOff: ['c'] },
    ]);
  });
});

describe('findings about guards', () => {
  const rulesOf = (design: Design) => findingsOf(design, solutionOf(design)).map(({ rule }) => rule);
  const pair = (ports: Record<string, Record<string, unknown>>, sw: object = {}, link: object = {}): Design => {
    const design = networkOf(
      { a: { priority: 0, tier: 'core', ...sw }, b: { priority: 4096, tier: 'core' } },
      ['a 1 = b 1'],
      ports,
    );
    return { ...design, links: design.links.map((each) => ({ ...each, ...link })) };
  };

  it.each<[string, object, object?, object?]>([
    ['guard-shuts-way', { 'a 1': { bpduGuard: true } }],
    ['guard-holds-way', { 'b 1': { rootGuard: true } }],
    ['bpdus-discarded', { 'a 1': { bpduRx: false } }],
    ['edge-between-switches', { 'a 1': { edge: true } }],
    ['edge-unguarded', { 'a 9': { edge: true } }],
    ['access-no-edge', { 'a 9': { vlans: { mode: 'access', vlan: 1 } } }],
    ['recovery-off-unmanned', { 'a 9': { edge: true, bpduGuard: true } }, { unmanned: true }],
    ['recovery-in-vain', { 'a 1': { bpduGuard: true } }, { recovery: 300 }],
    ['converter-without-loop-guard', {}, {}, { converter: true }],
    ['guard-without-tree', { 'a 1': { rootGuard: true }, 'a 9': { bpduGuard: true } }, { dialect: 'off' }],
  ])('%s, and its remedy ends it', (rule, ports, sw = {}, link = {}) => {
    const design = pair(ports as never, sw, link);
    expect(rulesOf(pair({}))).toEqual([]);
    expect(rulesOf(design)).toContain(rule);
    const [remedy] = findingsOf(design, solutionOf(design)).find((each) => each.rule === rule)!.remedies;
    const edited = editAll(design, remedy!.commands);
    expect(edited.ok && rulesOf(edited.value.design)).not.toContain(rule);
  });
});

describe('guards under failures', () => {
  // Two heads over one access switch: the second reaches the root through it once its own uplink is gone.
  const heads = (ports: Record<string, Record<string, unknown>>) =>
    networkOf({ r: { priority: 0 }, d: {}, e: {}, a: {} }, ['r 1 = d 1', 'r 2 = e 1', 'd 2 = a 1', 'e 2 = a 2'], ports);

  it('a root guard cuts a head off that has lost its uplink', () => {
    const { severed, failures } = underFailures(solutionOf(heads({ 'e 2': { rootGuard: true } })));
    expect(failures).toBe(8);
    const cut = { switch: 'e', port: '2', trees: ['cst'], cutOff: ['e'] };
    expect(severed).toEqual([
      { ...cut, failure: { kind: 'link', link: 'l1' } },
      { ...cut, failure: { kind: 'switch', switch: 'r' } },
    ]);
  });

  it('none does where there are none, or where nobody has another way', () => {
    expect(underFailures(solutionOf(heads({}))).severed).toEqual([]);
    const chain = networkOf({ r: { priority: 0 }, d: {}, a: {} }, ['r 1 = d 1', 'd 2 = a 1'], {
      'd 2': { rootGuard: true },
    });
    expect(underFailures(solutionOf(chain)).severed).toEqual([]);
  });

  it('a loop guard that leads toward a root under no failure is idle', () => {
    const { idle } = underFailures(solutionOf(heads({ 'r 1': { loopGuard: true }, 'e 2': { loopGuard: true } })));
    expect(idle).toEqual([{ switch: 'r', port: '1' }]);
  });
});
