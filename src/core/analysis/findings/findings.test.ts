import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Design, Port } from '../../model/document';
import { anyDesign, networkOf, solutionOf } from '../../testing/networks';
import type { Finding } from './finding';
import { findingsOf } from './findings';
import { parts, tries } from '../../testing/runs';
import { stackOf } from '../../testing/stacks';

const rules = (design: Design) => findingsOf(design, solutionOf(design)).map((finding) => finding.rule);
const texts = (design: Design) =>
  findingsOf(design, solutionOf(design))
    .map((finding) => finding.text)
    .join('\n');
/** Two switches whose root was chosen: nothing to find but what a test adds. */
const pair = (portA: object, portB: object, a: object = {}, b: object = {}) =>
  networkOf({ a: { priority: 0, tier: 'core', ...a }, b: { priority: 4096, tier: 'core', ...b } }, ['a 1 = b 1'], {
    'a 1': { ...portA },
    'b 1': { ...portB },
  });

describe('findings', () => {
  it('are none where both ends agree and the root was chosen', () => expect(rules(pair({}, {}))).toEqual([]));

  it('tell the demo what is wrong with its root', () => {
    expect(rules(fernhollow())).toEqual([
      'root-by-mac',
      'root-on-access',
      'bundle-never-up',
      'bundle-split',
      'parallel-links',
      'edge-unguarded',
      'converter-without-loop-guard',
    ]);
    expect(texts(fernhollow())).toContain('lodge is root of VLANs 1,15,25,35,45,55,65 only by its MAC address');
  });

  it('choose by priority what chance chose, of the demo and of random networks', () => {
    const byChance = ['root-by-mac', 'instance-without-root', 'standby-by-mac'];
    const told = (design: Design) =>
      findingsOf(design, solutionOf(design)).filter((finding) => byChance.includes(finding.rule));
    const treesOf = (finding: Finding) => (finding.at as { trees: readonly string[] }).trees;
    fc.assert(
      fc.property(anyDesign, (design) => {
        for (const finding of told(design).slice(0, 3)) {
          const [remedy] = finding.remedies;
          if (!remedy) continue;
          const edited = editAll(design, remedy.commands);
          if (!edited.ok) throw new Error(edited.error.found);
          const chosen = told(edited.value.design).filter(
            (each) => each.rule === finding.rule && each.at.switch === finding.at.switch,
          );
          expect(chosen.flatMap(treesOf).filter((tree) => treesOf(finding).includes(tree))).toEqual([]);
        }
      }),
      { numRuns: tries(30), examples: [[fernhollow()]] },
    );
    expect(told(fernhollow())[0]!.remedies).toMatchObject([{ label: 'choose lodge by priority' }]);
  });

  it.each([
    ['speed-differs', pair({ speed: 1000 }, { speed: 100 }), '1000 and 100 Mb/s'],
    [
      'mixed-cost-methods',
      pair({}, {}, { pathCost: 'short' }),
      'a takes path costs by the short method, one switch by the long one',
    ],
    [
      'native-differs',
      pair({ vlans: { mode: 'trunk', native: 1 } }, { vlans: { mode: 'trunk', native: 15 } }),
      'VLAN 1 at one end and VLAN 15 at the other',
    ],
    [
      'vlan-at-one-end',
      pair({ vlans: { mode: 'trunk', allowed: '1,15-20' } }, { vlans: { mode: 'trunk', allowed: '1,15-18,25' } }),
      'VLAN 19-20,25 is carried at one end only',
    ],
    [
      'access-vlans-joined',
      pair({ vlans: { mode: 'access', vlan: 15 } }, { vlans: { mode: 'access', vlan: 25 } }),
      'access ports of VLAN 15 and VLAN 25',
    ],
    [
      'duplicate-mac',
      pair({}, {}, { mac: '02:00:00:00:00:05' }, { mac: '02:00:00:00:00:05' }),
      'a and b have the same MAC address',
    ],
    ['timers', pair({}, {}, { timers: { maxAge: 40 } }), 'max age 40 s is above 2 x (forward delay 15 s - 1 s)'],
    ['timers', pair({}, {}, { timers: { maxAge: 6, hello: 5 } }), 'max age 6 s is below 2 x (hello 5 s + 1 s)'],
  ])('%s', (rule, design, text) => {
    expect(rules(design)).toContain(rule);
    expect(texts(design)).toContain(text);
  });

  it('do not mind a trunk whose native VLAN meets an access port of the same VLAN, but tell what stops there', () => {
    const design = pair(
      { vlans: { mode: 'trunk', native: 15, allowed: '15,25' } },
      { vlans: { mode: 'access', vlan: 15 } },
    );
    expect(rules(design)).toEqual(['vlan-at-one-end']);
    expect(texts(design)).toContain('VLAN 25 is carried at one end only');
  });

  it('point at the cable that closes a loop of switches without spanning tree, and not at a cut one', () => {
    const off = { dialect: 'off' };
    const design = networkOf({ a: off, b: off, c: off }, ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2']);
    expect(findingsOf(design, solutionOf(design)).map(({ rule, at }) => [rule, at.link])).toEqual([
      ['loop-without-spanning-tree', 'l2'],
    ]);
    expect(rules({ ...design, links: design.links.map((link, i) => ({ ...link, up: i > 0 })) })).toEqual([]);
  });

  it('tell a loop that ports which pass BPDUs on leave open, without a listed VLAN too, and how to end it', () => {
    const open = { speaks: 'passes-on' };
    const design = networkOf({ a: { priority: 0 }, b: { priority: 4096 } }, ['a 1 = b 1', 'a 2 = b 2'], {
      ...{ 'a 1': open, 'a 2': open, 'b 1': open, 'b 2': open },
    });
    const found = findingsOf(design, solutionOf(design)).find(({ rule }) => rule === 'frames-circle');
    expect(found?.text).toBe('frames of VLAN 1 circle: nothing blocks in a loop that a port 2 to b port 2 closes');
    const edited = editAll(design, found!.remedies[0]!.commands);
    expect(edited.ok && rules(edited.value.design)).not.toContain('frames-circle');
  });
  it('tell which switches are beyond the reach of the root: one hop a second of max age', () => {
    const names = Array.from({ length: 9 }, (_, i) => `s${i}`);
    const chain = names.slice(1).map((name, i) => `s${i} 2 = ${name} 1`);
    const far = (maxAge: number) => {
      const design = networkOf(
        Object.fromEntries(names.map((name, i) => [name, { tier: 'core', priority: i * 4096, timers: { maxAge } }])),
        chain,
      );
      return findingsOf(design, solutionOf(design))
        .filter((finding) => finding.rule === 'beyond-max-age')
        .map((finding) => finding.at.switch);
    };
    expect(far(20)).toEqual([]);
    expect(far(8)).toEqual([]); // s8 is 8 hops away
    expect(far(6)).toEqual(['s7', 's8']);
  });

  it('find two ports of one number', () => {
    const design = networkOf({ a: {} }, [], { 'a 1': {}, 'a 2': { number: 1 } });
    expect(rules(design)).toEqual(['duplicate-port-number']);
  });
});

describe('findings about standbys', () => {
  const four = (settings: Record<string, Record<string, unknown>>, rest: Record<string, unknown> = {}) =>
    networkOf(
      { a: { priority: 0, tier: 'core' }, b: { tier: 'core' }, c: { tier: 'distribution' }, d: {}, ...settings },
      ['a 1 = b 1', 'b 2 = c 1', 'c 2 = d 1'],
      {},
      rest,
    );
  const standby = (design: Design) =>
    rules(design).filter((rule) => rule.startsWith('standby') || rule === 'one-root-for-all');
  it('tell a standby that nobody chose, a weak one, a far one', () => {
    expect(standby(four({}))).toEqual(['standby-by-mac']);
    expect(standby(four({ d: { priority: 4096 } }))).toEqual(['standby-on-access']);
    expect(standby(four({ c: { priority: 4096, tier: 'distribution' } }))).toEqual(['standby-far']);
    expect(standby(four({ b: { priority: 4096, tier: 'core' } }))).toEqual([]);
  });
  it('tell that all trees have one strong root while another is there', () => {
    const perVlan = (b: object) =>
      four(
        {
          a: { priority: 0, tier: 'core', dialect: 'per-vlan-rstp' },
          b: { priority: 4096, tier: 'core', dialect: 'per-vlan-rstp', ...b },
          c: { dialect: 'per-vlan-rstp' },
          d: { dialect: 'per-vlan-rstp' },
        },
        { vlans: [{ id: 15 }] },
      );
    expect(standby(perVlan({}))).toEqual(['one-root-for-all']);
    expect(texts(perVlan({}))).toContain('a is root of every tree (VLANs 1,15), though it is not the only core switch');
    expect(standby(perVlan({ trees: { 'vlan:15': { priority: 0 } } }))).toEqual(['one-root-for-all']); // the lower MAC still wins
    expect(standby(perVlan({ mac: '02:00:00:00:00:00', trees: { 'vlan:15': { priority: 0 } } }))).toEqual([]);
  });
});

describe('findings about VLANs', () => {
  const trunk = (allowed: string) => ({ vlans: { mode: 'trunk', allowed } });
  const chain = (middle: string, ports: Record<string, object> = {}) =>
    networkOf(
      { a: { priority: 0, tier: 'core' }, b: { priority: 4096, tier: 'core' }, c: { tier: 'core' } },
      ['a 1 = b 1', 'b 2 = c 1'],
      {
        'a 1': trunk('1,15'),
        'b 1': trunk('1,15'),
        'b 2': trunk(middle),
        'c 1': trunk(middle),
        'a 9': { edge: true, bpduGuard: true, vlans: { mode: 'access', vlan: 15 } },
        'c 9': { edge: true, bpduGuard: true, vlans: { mode: 'access', vlan: 15 } },
        ...ports,
      },
      {
        hosts: [
          { id: 'h', mac: '02:00:00:00:01:01', vlan: 15, attach: [{ switch: 'a', port: '9' }] },
          { id: 'i', mac: '02:00:00:00:01:02', vlan: 15, attach: [{ switch: 'c', port: '9' }] },
        ],
      },
    );
  it('tell a host from its port', () => {
    const design = chain('1,15', { 'c 9': { vlans: { mode: 'access', vlan: 25 } } });
    expect(texts(design)).toContain('i is in VLAN 15, but c port 9 is an access port of VLAN 25');
  });
  it('tell a VLAN whose members no path joins, and where it could run', () => {
    expect(rules(chain('1,15'))).toEqual([]);
    const [found, ...rest] = findingsOf(chain('1'), solutionOf(chain('1')));
    expect(rest).toEqual([]);
    expect(found).toMatchObject({ rule: 'vlan-without-path', text: 'VLAN 15: no path joins c to a' });
    expect(found?.remedies[0]?.commands).toMatchObject([
      { switch: 'c', port: '1', vlans: { allowed: '1,15' } },
      { switch: 'b', port: '2', vlans: { allowed: '1,15' } },
    ]);
    const cut = { ...chain('1'), links: chain('1').links.map((link) => ({ ...link, up: false })) };
    expect(findingsOf(cut, solutionOf(cut)).find((finding) => finding.rule === 'vlan-without-path')?.remedies).toEqual(
      [],
    );
  });
  it('tell a VLAN that the list does not have, in a per-VLAN network', () => {
    const perVlan = {
      ...chain('1,15'),
      switches: chain('1,15').switches.map((sw) => ({ ...sw, dialect: 'per-vlan-rstp' as const })),
    };
    expect(rules(perVlan)).toEqual(['vlan-not-listed']);
  });
});

describe('a switch without spanning tree', () => {
  it('is told where it lies in a loop with others, not at the end of a branch', () => {
    const ring = (more: string[]) =>
      networkOf(
        {
          a: { priority: 0, tier: 'core' },
          b: { tier: 'core', priority: 4096 },
          hub: { dialect: 'off', tier: 'core' },
        },
        ['a 1 = b 1', 'a 2 = hub 1', ...more],
      );
    expect(rules(ring([]))).toEqual([]);
    expect(rules(ring(['b 2 = hub 2']))).toEqual(['no-spanning-tree-in-loop']);
  });
});

it.each(parts(8, 75))('every remedy ends its finding (%#)', (runs) => {
  const port = (vlans: Port['vlans']) => ({ vlans });
  const carriages: Port['vlans'][] = [
    { mode: 'access', vlan: 15 },
    { mode: 'access', vlan: 25 },
    { mode: 'trunk', native: 1, allowed: '1-4094' },
    { mode: 'trunk', native: 15, allowed: '25' },
  ];
  const troubled = fc
    .tuple(
      anyDesign,
      fc.array(fc.tuple(fc.nat(), fc.constantFrom(...carriages), fc.constantFrom(15, 25, 35)), { maxLength: 4 }),
      fc.boolean(),
      fc.infiniteStream(fc.constantFrom(...carriages)),
    )
    .map(([design, hosts, twins, mix]) => {
      let next = design;
      hosts.forEach(([at, vlans, vlan], i) => {
        const sw = next.switches[at % next.switches.length]!;
        const id = `h${i}`;
        const edited = editAll(next, [
          {
            do: 'add-port',
            switch: sw.id,
            port: {
              ...(sw.ports[0] as Port),
              id: id as never,
              number: 50 + (i % 2),
              speed: 1000,
              up: true,
              edge: false,
              priority: 128,
              trees: {},
              ...port(vlans),
            },
          },
          {
            do: 'add-host',
            host: {
              id: id as never,
              mac: `02:00:00:00:ee:0${twins ? 0 : i}`,
              vlan,
              attach: [{ switch: sw.id, port: id as never }],
            },
          },
        ]);
        if (edited.ok) next = edited.value.design;
      });
      return {
        ...next,
        switches: next.switches.map((sw) => ({
          ...sw,
          ports: sw.ports.map((p) => ({ ...p, vlans: mix.next().value })),
        })),
      };
    });
  fc.assert(
    fc.property(troubled, (design) => {
      for (const finding of findingsOf(design, solutionOf(design))) {
        for (const remedy of finding.remedies) {
          const edited = editAll(design, remedy.commands);
          if (!edited.ok) throw new Error(`${remedy.label}: ${edited.error.path} ${edited.error.found}`);
          expect(texts(edited.value.design)).not.toContain(finding.text);
        }
      }
    }),
    runs,
  );
});

describe('findings about stacks', () => {
  const stacked = (rest: object, ports: Record<string, object> = {}, settings: object = {}) =>
    networkOf(
      {
        a: { priority: 0, tier: 'core' },
        b: { tier: 'core', priority: 4096, stack: stackOf(3, rest), ...settings },
        c: {},
      },
      ['a 1 = b 1', 'a 2 = b 2', 'b 3 = c 1'],
      { 'b 2': { stackMember: 2 }, 'b 3': { stackMember: 3 }, ...ports },
    );
  const about = (design: Design) => rules(design).filter((rule) => rule.startsWith('stack-'));
  const mended = (design: Design, rule: string) => {
    const found = findingsOf(design, solutionOf(design)).find((finding) => finding.rule === rule)!;
    const edited = editAll(design, found.remedies[0]!.commands);
    return edited.ok ? about(edited.value.design) : null;
  };

  it('are none of a ring with cables on several members', () => expect(about(stacked({}))).toEqual([]));
  it('are a chain, members that have lost the others, cables on one member', () => {
    expect(about(stacked({ ring: false }))).toEqual(['stack-chain']);
    expect(mended(stacked({ ring: false }), 'stack-chain')).toEqual([]);
    const cut = stackOf(3, { ring: false }, (i) => ({ cable: i !== 2 }));
    expect(about(stacked({}, {}, { stack: cut }))).toEqual(['stack-apart', 'stack-chain']);
    expect(texts(stacked({}, {}, { stack: cut }))).toContain('b: member 3 has lost the other members');
    expect(mended(stacked({}, {}, { stack: cut }), 'stack-apart')).toEqual(['stack-chain']);
    expect(about(stacked({}, { 'b 2': {}, 'b 3': {} }))).toEqual(['stack-one-way-out']);
  });
  it('are an address that changes where somebody notices: of a root, or of a bundle that is negotiated', () => {
    const changing = { keepsAddress: false };
    expect(about(stacked(changing))).toEqual([]);
    expect(about(stacked(changing, {}, { priority: 0, mac: '02:00:00:00:00:00' }))).toEqual([]);
    const root = networkOf({ b: { priority: 0, stack: stackOf(2, changing) }, c: {} }, ['b 1 = c 1']);
    expect(about(root)).toEqual(['stack-address']);
    expect(mended(root, 'stack-address')).toEqual([]);
  });
  it('are members with one address', () => {
    const twins = stackOf(2, {}, () => ({ mac: '02:00:00:00:0f:77' }));
    expect(texts(stacked({}, { 'b 3': {} }, { stack: twins }))).toContain(
      'member 1 of b and member 2 of b have the same MAC address',
    );
  });
});
