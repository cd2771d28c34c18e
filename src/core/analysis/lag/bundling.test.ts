/** Making bundles, looking at both their ends, and the findings about them. */
import fc from 'fast-check';
import { bundlesOf } from '../../topology/lag/ends';
import { settleBundles } from '../../topology/lag/settled';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { vlanTree, type BundleId, type HostId, type LinkId } from '../../model/ids';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import { simulate } from '../../sim/simulate';
import { bundledDesign } from '../../testing/bundles';
import { networkOf, solutionOf } from '../../testing/networks';
import { roleOf, treeOf } from '../../tree/settled';
import { bundleFindings } from '../findings/bundleFindings';
import { bundlePicture } from './bundleEnds';
import { planBundle, type PlanKind } from './bundlePlan';
import { outcomesOf } from '../plans/outcome';
import { playOf } from '../plans/played';
import { besides, bundleCards, bundleThese, parallelsOf } from './bundling';
import { findingsOf } from '../findings/findings';
import { designedCsv, readObservedCsv } from '../../exchange/neighbours/table';
import { neighbourFindings } from '../neighbours/neighbours';
import { linkLoads } from '../sharing/load';
import { steer } from '../steering/steer';

const after = (design: Design, commands: readonly Command[]): Design => {
  const edited = editAll(design, commands);
  if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
  return edited.value.design;
};
const ridge = ['l1', 'l2'] as LinkId[];
const links = (design: Design) => design.links.map((link) => link.id);

describe('bundle these', () => {
  it('bundles both ends in one step, each named after the other, carrying what its ports carry', () => {
    const made = bundleThese(fernhollow(), ridge);
    if (!made.ok) throw new Error(made.error);
    const design = after(fernhollow(), made.value.commands);
    const trunk = { mode: 'trunk', native: 1, allowed: '1,15,25,35,45,55,65' };
    expect(
      design.bundles.filter((bundle) => bundle.switch.startsWith('ridge') && bundle.ports.includes('1' as never)),
    ).toMatchObject([
      {
        id: 'to-ridge-b',
        name: 'to ridge-b',
        switch: 'ridge-a',
        number: 1,
        ports: ['1', '2'],
        mode: 'active',
        vlans: trunk,
      },
      {
        id: 'to-ridge-a',
        name: 'to ridge-a',
        switch: 'ridge-b',
        number: 1,
        ports: ['1', '2'],
        mode: 'active',
        vlans: trunk,
      },
    ]);
    expect(settleBundles(bundlesOf(design)).ends.filter((end) => end.active.length === 2)).toHaveLength(4);
    expect(bundleThese(design, ridge)).toMatchObject({
      ok: false,
      error: expect.stringContaining('is in the bundle to ridge-b already'),
    });
  });
  it('says why links cannot be bundled', () => {
    expect(bundleThese(fernhollow(), ['l1', 'l3'] as LinkId[])).toMatchObject({
      ok: false,
      error: expect.stringContaining('do not all join ridge-a and ridge-b'),
    });
    expect(bundleThese(fernhollow(), [])).toMatchObject({ ok: false });
    expect(bundleThese(networkOf({ a: {} }, ['a 1 = a 2']), ['l0'] as LinkId[])).toMatchObject({
      ok: false,
      error: 'Both ends of the link are on one switch.',
    });
  });
  it('makes a legal design of any links side by side, and every bundle of it comes up', () => {
    fc.assert(
      fc.property(bundledDesign({ modes: ['active'], odd: false }), (drawn) => {
        let design: Design = { ...drawn, bundles: [], links: drawn.links.map((link) => ({ ...link, up: true })) };
        for (const { links: side } of parallelsOf(design)) {
          const made = bundleThese(
            design,
            side.map((link) => link.id),
          );
          if (!made.ok) throw new Error(made.error);
          design = after(design, made.value.commands);
        }
        const bundles = bundlesOf(design);
        expect(settleBundles(bundles).ends.every((end) => end.up)).toBe(true);
        expect(bundleFindings(design).filter((finding) => finding.rule !== 'bundle-uneven')).toEqual([]);
      }),
    );
  });
  it('finds what runs beside a link', () => {
    expect(besides(fernhollow(), 'l2' as LinkId).map((link) => link.id)).toEqual(['l1', 'l2']);
    expect(besides(fernhollow(), 'l3' as LinkId)).toEqual([]);
  });
});

describe('both ends side by side', () => {
  const bundled = (modes: readonly ['active' | 'passive' | 'static', 'active' | 'passive' | 'static']): Design => {
    const made = bundleThese(fernhollow(), ridge, modes);
    if (!made.ok) throw new Error(made.error);
    return after(fernhollow(), made.value.commands);
  };
  const pictureOf = (design: Design, id = 'to-ridge-b') => {
    const bundles = bundlesOf(design);
    return bundlePicture(
      design,
      bundles,
      bundles.ends.find((end) => (end.id as string) === id)!,
      settleBundles(bundles),
    );
  };
  it('mark what does not fit, and mend it in a step', () => {
    const design = bundled(['passive', 'passive']);
    const { fields, verdict, remedies } = pictureOf(design);
    expect(fields.find((field) => field.name === 'Mode')).toEqual({
      name: 'Mode',
      here: 'passive',
      there: 'passive',
      wrong: true,
    });
    expect(verdict).toContain('both ends wait for the other to speak');
    expect(remedies[0]?.label).toBe('make ridge-a active');
    expect(pictureOf(after(design, remedies[0]!.commands)).verdict).toContain('Up: 2 of 2');
  });
  it('mark VLANs that differ', () => {
    const design = after(bundled(['active', 'active']), [
      { do: 'set-bundle', bundle: 'to-ridge-a' as BundleId, vlans: { mode: 'trunk', native: 15, allowed: '15' } },
    ]);
    const { fields, remedies } = pictureOf(design);
    expect(fields.filter((field) => field.wrong).map((field) => field.name)).toEqual(['VLANs']);
    expect(pictureOf(after(design, remedies[0]!.commands)).fields.some((field) => field.wrong)).toBe(false);
  });
  it('tell of cables that lead to two switches', () => {
    const { verdict, opposites, remedies } = pictureOf(fernhollow(), 'uplinks');
    expect(opposites.map((each) => each.name)).toEqual(['ridge-a', 'ridge-b']);
    expect(verdict).toContain('Its cables lead to ridge-a and ridge-b.');
    expect(remedies.map((remedy) => remedy.label)).toEqual([
      'bundle the ports of ridge-a too',
      'take port 2 out of the bundle',
    ]);
  });
});

describe('findings about bundles', () => {
  const cables = (n: number) => Array.from({ length: n }, (_, i) => `a ${i + 1} = b ${i + 1}`);
  const ports = (n: number) => Array.from({ length: n }, (_, i) => String(i + 1));
  const both = (n: number, a: object = {}, b: object = {}, set: Parameters<typeof networkOf>[2] = {}): Design =>
    networkOf({ a: { priority: 0, tier: 'core' }, b: { tier: 'core' } }, cables(n), set, {
      bundles: [
        { id: 'at-a', switch: 'a', number: 1, ports: ports(n), ...a },
        { id: 'at-b', switch: 'b', number: 1, ports: ports(n), ...b },
      ],
    });
  const rules = (design: Design) => bundleFindings(design).map((finding) => finding.rule);
  it('are none where all fits', () => expect(rules(both(2))).toEqual([]));
  it.each([
    ['bundle-never-up', both(2, { mode: 'passive' }, { mode: 'passive' })],
    ['bundle-one-sided', both(2, { mode: 'static' }, {})],
    ['bundle-vlans', both(2, { vlans: { mode: 'trunk', allowed: '1-10' } })],
    ['bundle-speeds', both(2, {}, {}, { 'a 1': { speed: 100 }, 'b 1': { speed: 100 } })],
    ['bundle-member-settings', both(2, {}, {}, { 'a 1': { vlans: { mode: 'access', vlan: 7 } } })],
    ['bundle-member-settings', both(2, {}, {}, { 'a 1': { priority: 16 } })],
    ['bundle-member-settings', both(2, {}, {}, { 'b 2': { trees: { cst: { cost: 5 } } } })],
    ['bundle-over-limit', both(3, { maxActive: 2 }, { maxActive: 2 })],
    ['bundle-single', both(1)],
    ['bundle-uneven', both(3)],
    ['bundle-min-links', both(2, { minLinks: 2 })],
    ['parallel-links', { ...both(2), bundles: [] } as Design],
    [
      'bundle-split',
      networkOf(
        { a: {}, b: {}, c: {} },
        ['a 1 = b 1', 'a 2 = c 1'],
        {},
        { bundles: [{ id: 'at-a', switch: 'a', number: 1, ports: ['1', '2'] }] },
      ),
    ],
    ['bundle-neighbour', { ...both(2), observed: [{ switch: 'a', port: '2', device: 'c' }] } as Design],
  ])('%s', (rule, design) => expect(rules(design)).toContain(rule));
  it('bring the neighbour table as evidence', () => {
    const design = {
      ...both(2),
      observed: [
        { switch: 'a', port: '1', device: 'b' },
        { switch: 'a', port: '2', device: 'c' },
      ],
    } as Design;
    expect(bundleFindings(design).find((finding) => finding.rule === 'bundle-neighbour')).toMatchObject({
      text: expect.stringContaining('c on port 2, where b is drawn'),
      why: expect.stringContaining('port 1 sees b, port 2 sees c'),
    });
  });
  it('are none where what is drawn is read back as what was seen, a server with two cards too', () => {
    const design = after(fernhollow(), [{ do: 'set-observed', observed: [] }]);
    const read = readObservedCsv(designedCsv(design));
    if (!read.ok) throw new Error(read.error);
    expect(design.hosts.some((host) => host.bundle && host.attach.length > 1)).toBe(true);
    const seen = after(design, [{ do: 'set-observed', observed: [...read.value.observed] }]);
    const texts = (of: Design) => bundleFindings(of).map(({ text }) => text);
    expect(texts(seen)).toEqual(texts(design));
    expect(neighbourFindings(seen)).toEqual([]);
  });
  it('every remedy ends its finding', () => {
    const owned = both(
      2,
      { priority: 32 },
      {},
      {
        'a 1': {
          priority: 16,
          cost: 7,
          lacp: { key: 3 },
          vlans: { mode: 'access', vlan: 7 },
          trees: { cst: { cost: 5, priority: 16 } },
        },
      },
    );
    fc.assert(
      fc.property(
        fc.oneof(
          { weight: 9, arbitrary: bundledDesign({ modes: ['active', 'passive', 'static', 'initiate', 'answer'] }) },
          { weight: 1, arbitrary: fc.constant(owned) },
        ),
        (design) => {
          for (const finding of bundleFindings(design)) {
            for (const remedy of finding.remedies) {
              const mended = bundleFindings(after(design, remedy.commands));
              expect(mended.filter(({ rule, text }) => rule === finding.rule && text === finding.text)).toEqual([]);
            }
          }
        },
      ),
    );
  });
});

describe('the cards of a host', () => {
  const access = { mode: 'access', vlan: 1 };
  const server = (rest: object = {}, bundles: object[] = [], second = 'a 8') =>
    networkOf(
      { a: {}, b: {} },
      ['a 1 = b 1'],
      Object.fromEntries(['a 7', 'a 8', 'b 8'].map((end) => [end, { vlans: access }])),
      {
        hosts: [
          {
            id: 'server',
            mac: '02:00:00:00:01:01',
            vlan: 1,
            attach: ['a 7', second].map((end) => ({ switch: end.split(' ')[0], port: end.split(' ')[1] })),
            ...rest,
          },
        ],
        bundles,
      },
    );
  const here = { id: 'mine', switch: 'a', number: 4, ports: ['7', '8'], mode: 'static', vlans: access };
  const made = (design: Design) => {
    const result = bundleCards(design, 'server' as HostId);
    return result.ok ? after(design, result.value.commands) : result.error;
  };

  it.each([
    ['neither end', server()],
    ['its own end', server({ bundle: { mode: 'passive' } })],
    ['the end of the switch', server({}, [here])],
  ])('are bundled at both ends in one step where there is %s, and come up', (_, design) => {
    const then = made(design);
    if (typeof then === 'string') throw new Error(then);
    expect(then.bundles).toHaveLength(1);
    expect(settleBundles(bundlesOf(then)).ends.map((end) => end.active.length)).toEqual([2, 2]);
    expect(then.bundles[0]!.vlans).toEqual(
      design.switches[0]!.ports.find((port) => (port.id as string) === '7')!.vlans,
    );
    expect(made(then)).toBe('Cards and ports are bundled already.');
  });

  it('are not where they lead to two switches, or a port has a bundle of its own', () => {
    expect(made(server({}, [], 'b 8'))).toBe(
      'Its cards are plugged into a and b; the members of one bundle lead to one switch.',
    );
    expect(made(server({}, [{ ...here, ports: ['7'] }]))).toBe('a: a port of these is in the bundle mine already.');
  });

  it.each([
    ['its own end', server({ bundle: {} }), 'bundle the ports of a too'],
    ['the end of the switch', server({}, [here]), 'bundle the cards of server too'],
  ])('are a finding with its remedy where only %s bundles', (_, design, label) => {
    const [finding] = bundleFindings(design);
    const remedy = finding!.remedies.find((each) => each.label === label)!;
    expect(bundleFindings(after(design, remedy.commands))).toEqual([]);
  });
});

describe('a plan of action', () => {
  const outcomes = (design: Design, kind: PlanKind) => {
    const plan = planBundle(design, solutionOf(design), ridge, kind);
    if (!plan.ok) throw new Error(plan.error);
    const play = playOf(design, plan.value);
    if (!play.ok) throw new Error(play.error);
    const { actions, until } = play.value;
    const run = simulate(design, { actions: [...actions], until, talk: 0.01, fromBoot: false });
    if (!run.ok) throw new Error(run.error);
    return { steps: outcomesOf(play.value, run.value), run: run.value, plan: plan.value };
  };
  const rooted = after(fernhollow(), [
    { do: 'set-bridge-priority', switch: 'ridge-a' as never, tree: null, priority: 0 },
  ]);
  it.each([
    ['as found', fernhollow()],
    ['with the root on the ridge', rooted],
  ])(
    'by LACP never loops nor cuts off for longer than a port takes over, and ends as the design will be: %s',
    (_, design) => {
      const { steps, run, plan } = outcomes(design, 'lacp');
      expect(steps.every((step) => step.frames === null && step.outage < 0.1)).toBe(true);
      const there = solutionOf(after(design, plan.commands));
      expect(run.final.trees.map((tree) => tree.switches['ridge-b' as never]!.rootPort)).toEqual(
        there.trees.map(
          (tree) => there.network.ports[tree.rootPort[there.network.switchIndex.get('ridge-b' as never)!]!]!.id,
        ),
      );
    },
  );
  it('static in the careful order does not loop either; in the wrong one frames come back or circle', () => {
    expect(outcomes(rooted, 'static').steps.every((step) => step.frames === null && step.outage < 0.1)).toBe(true);
    expect(outcomes(fernhollow(), 'static-both-ends').steps.some((step) => step.frames !== null)).toBe(true);
  });
  it('has a cable plugged in only once both ends negotiate', () => {
    const unplugged = {
      ...fernhollow(),
      links: fernhollow().links.map((link) => (link.id === 'l2' ? { ...link, up: false } : link)),
    };
    const { plan, steps } = outcomes(unplugged, 'lacp');
    expect(plan.steps.map((step) => step.does)[2]).toEqual(['Plug in the cable ridge-a port 2 to ridge-b port 2.']);
    expect(steps.every((step) => step.frames === null && step.outage < 0.1)).toBe(true);
    expect(links(after(unplugged, plan.commands))).toHaveLength(15);
  });
});

describe('what else works with bundles', () => {
  const made = bundleThese(fernhollow(), ridge);
  const bundled = after(after(fernhollow(), made.ok ? made.value.commands : []), [
    { do: 'set-bridge-priority', switch: 'ridge-a' as never, tree: null, priority: 0 },
  ]);
  it('loads: what a bundle carries is spread over its active members', () => {
    const loads = linkLoads(solutionOf(bundled)).links.filter((link) => ridge.includes(link.link));
    expect(loads[0]!.total).toBeGreaterThan(0);
    expect(loads.map(({ total, state }) => [total, state])).toEqual([
      [loads[0]!.total, 'carries'],
      [loads[0]!.total, 'carries'],
    ]);
    const lost = after(bundled, [{ do: 'set-link', link: 'l1' as LinkId, up: false }]);
    const [gone, left] = linkLoads(solutionOf(lost)).links;
    expect([gone!.state, left!.total]).toEqual(['down', 2 * loads[0]!.total]);
  });
  it('steering: a wish for a member is one for its bundle', () => {
    const found = steer(
      solutionOf(bundled),
      [{ wants: 'block', switch: 'ridge-b' as never, port: '1' as never }],
      [vlanTree(15)],
    );
    if (!found.ok) throw new Error(found.error);
    const solution = solutionOf(after(bundled, found.value[0]!.commands));
    const port = solution.network.portIndexOf('ridge-b' as never, 'to-ridge-a' as never);
    expect(roleOf(treeOf(solution, vlanTree(15))!, port)).toBe('alternate');
  });
  it('findings: the VLAN of a host behind a bundle is set on the bundle', () => {
    const moved = after(fernhollow(), [{ do: 'set-host', host: 'image-store' as never, vlan: 35 }]);
    const finding = findingsOf(moved, solutionOf(moved)).find(({ rule }) => rule === 'host-vlan-not-carried')!;
    const mended = after(moved, finding.remedies[0]!.commands);
    expect(mended.bundles.find((bundle) => bundle.switch === 'ridge-b')!.vlans).toEqual({ mode: 'access', vlan: 35 });
    expect(findingsOf(mended, solutionOf(mended)).map(({ rule }) => rule)).not.toContain('host-vlan-not-carried');
  });
  it('loops: members of one bundle between switches without spanning tree are one cable', () => {
    const off = { dialect: 'off' };
    const pair = (bundles: readonly object[]) =>
      networkOf({ a: off, b: off }, ['a 1 = b 1', 'a 2 = b 2'], {}, { bundles });
    const loops = (design: Design) =>
      findingsOf(design, solutionOf(design)).filter(({ rule }) => rule === 'loop-without-spanning-tree');
    expect(loops(pair([]))).toHaveLength(1);
    expect(loops(pair(['a', 'b'].map((sw) => ({ id: `at-${sw}`, switch: sw, number: 1, ports: ['1', '2'] }))))).toEqual(
      [],
    );
  });
});
