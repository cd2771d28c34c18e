/** Ports that speak otherwise than their switch: networks with them come to rest where the solver says, from boot and after cuts. */
import fc from 'fast-check';
import { DEFAULT_CARRIAGE, portDialectsOf, type Design } from '../model/document';
import type { Action } from '../model/scenario';
import type { BridgePortId, SwitchId } from '../model/ids';
import { SECOND } from '../modes/entity';
import { bundledDesign } from '../testing/bundles';
import { run } from '../testing/guards';
import { meshDesign, networkOf, randomDesign, regionsDesign } from '../testing/networks';
import { otherwise } from '../testing/portDialects';
import { parts, tries } from '../testing/runs';
import { unlike, unlikeAtRest } from '../testing/settling';
import { compileNetwork } from '../topology/network';
import { findingsOf } from '../analysis/findings/findings';
import { editAll } from '../edit/edit';
import { explainPort } from '../tree/explain/explain';
import { viewTree } from '../tree/settled';
import { solve } from '../tree/solve';
import { Simulation } from './engine/simulation';
import { captureOf } from './report/capture';
import { afterAction, treesThrough } from './scenario/scenario';

/** A dead root may be told around a ring of ports that settle as classic ones do, hop by hop until it is too old. */
const LONG = 400 * SECOND;

const FAMILIES = [
  ['rapid bridges', randomDesign('standard')],
  ['trees for each VLAN', randomDesign('perVlan')],
  ['mixed dialects', randomDesign('mixed')],
  ['meshes', meshDesign],
  ['regions', regionsDesign(8, ['r0', 'r0', 'r0', 'r1', 'r1', 'r2', 'rstp'])],
  ['regions alone', regionsDesign(6, ['r0', 'r0', 'r0', 'r1'])],
  ['regions beside trees for each VLAN', regionsDesign(6, ['r0', 'r0', 'r1', 'rstp', 'per-vlan-rstp'])],
  ['bundles', bundledDesign({ modes: ['active'] })],
] as const;

const KINDS = [
  ['forced to version 0', ['version-0'], FAMILIES],
  ['that pass BPDUs on', ['passes-on'], FAMILIES],
  ['with trees of VLANs', ['per-vlan-rstp', 'per-vlan-stp'], FAMILIES],
  // Where ports that pass BPDUs on make a LAN of several bridges, those of a region may hear version 0 or not.
  [
    'that speak this and that',
    ['version-0', 'passes-on', 'per-vlan-rstp'],
    FAMILIES.filter(([name]) => !name.includes('regions')),
  ],
] as const;

it.each(
  KINDS.flatMap(([kind, dialects, families]) =>
    families.flatMap(([name, designs]) =>
      parts(2, 16).map(({ numRuns }) => [kind, name, dialects, designs, numRuns] as const),
    ),
  ),
)('%s, among %s (%#)', (_, __, dialects, designs, numRuns) => {
  fc.assert(
    fc.property(otherwise(designs, dialects), fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) =>
      expect(unlikeAtRest(design, seed, turns, LONG)).toEqual([]),
    ),
    { numRuns },
  );
});

describe('a closet of two standard switches on a core with trees of VLANs', () => {
  /** The closet's second uplink closes a ring: core, c, d, core. The core's VLAN 1 does not go there, so its common tree ends. */
  const closet = (uplink: Record<string, unknown> = {}, between: Record<string, unknown> = {}): Design =>
    networkOf(
      {
        core: { dialect: 'per-vlan-rstp', priority: 4096 },
        c: { dialect: 'rstp', priority: 8192 },
        d: { dialect: 'rstp' },
      },
      ['core 1 = c 1', 'core 2 = d 1', 'c 2 = d 2'],
      {
        'core 1': { vlans: { mode: 'trunk', allowed: '15' } },
        'core 2': { vlans: { mode: 'trunk', allowed: '15' } },
        ...{ 'c 1': uplink, 'd 1': uplink, 'c 2': between, 'd 2': between },
      },
      { vlans: [{ id: 15 }] },
    );
  const roles = (design: Design, tree: string, sw: string): string[] => {
    const { network, trees } = solve(design);
    const { ports } = viewTree(
      network,
      trees.find(({ id }) => id === tree)!,
    ).switches[sw as SwitchId]!;
    return Object.entries(ports).map(([port, view]) => `${port} ${'role' in view ? `${view.role} ${view.state}` : ''}`);
  };
  const found = (design: Design): string[] => findingsOf(design, solve(design)).map(({ rule }) => rule);
  const [BLOCKED, OPEN] = ['2 backup discarding', '2 designated forwarding'];
  const PER_VLAN = { speaks: 'per-vlan-rstp' };

  it('has the root block a port of its own, and tells the way that its BPDU took', () => {
    const design = closet();
    expect(roles(design, 'vlan:15', 'core')).toEqual(['1 designated forwarding', BLOCKED]);
    const solution = solve(design);
    const p = solution.network.portIndexOf('core' as SwitchId, '2' as BridgePortId);
    expect(
      explainPort(
        solution,
        solution.trees.find(({ id }) => id === 'vlan:15')!,
        p,
      )!.sentence,
    ).toBe(
      'Backup: this switch already serves the segment through port 1, whose port identifier is better. Its own BPDU comes back: ' +
        'out of port 1, then through c (port 1 to port 2) and d (port 2 to port 1), where VLAN 15 has no tree and BPDUs are passed on.',
    );
    expect(found(design)).toContain('own-bpdu-returns');
  });

  it('is open to a storm where the uplinks alone have the VLAN’s tree: none sees the ring whole', () => {
    const design = closet(PER_VLAN);
    expect(roles(design, 'vlan:15', 'core')).toEqual(['1 designated forwarding', OPEN]);
    expect(found(design)).toContain('frames-circle');
  });

  it('blocks inside the closet once its switches have the VLAN’s tree between them too', () => {
    const design = closet(PER_VLAN, PER_VLAN);
    expect(roles(design, 'vlan:15', 'core')).toEqual(['1 designated forwarding', OPEN]);
    expect(roles(design, 'vlan:15', 'c')).toEqual(['1 root forwarding', OPEN]);
    expect(roles(design, 'vlan:15', 'd')).toEqual(['1 root forwarding', '2 alternate discarding']);
    expect(found(design).filter((rule) => ['frames-circle', 'own-bpdu-returns'].includes(rule))).toEqual([]);
  });

  it('is led there by the finding’s remedy', () => {
    const design = closet();
    const [remedy] = findingsOf(design, solve(design)).find(({ rule }) => rule === 'own-bpdu-returns')!.remedies;
    const edited = editAll(design, remedy!.commands);
    expect(edited.ok && edited.value.design).toEqual(closet(PER_VLAN, PER_VLAN));
  });

  it('takes the VLANs that it is to have trees for, and lets the others ride through', () => {
    const some = { ...PER_VLAN, speaksFor: '25' };
    expect(roles(closet(some, some), 'vlan:15', 'core')).toEqual(['1 designated forwarding', BLOCKED]);
  });

  it('sends the frames of its VLANs’ trees tagged, to the group of such bridges, and reads those alone', () => {
    const design = closet(PER_VLAN);
    const ran = run(design, [{ at: 1, do: 'link-down', link: 'l2' }], 20, true);
    const network = compileNetwork(ran.design);
    const sent = Array.from({ length: ran.sent.count }, (_, i) => ran.sent.at(i)).filter(
      ({ tree, origin }) => ran.trees[tree] === 'vlan:15' && network.switches[origin]!.id === 'c',
    );
    expect(sent.length).toBeGreaterThan(0);
    expect(new Set(sent.map(({ port }) => network.ports[port]!.id))).toEqual(new Set(['1']));
    expect(new Set(sent.map(({ bpdu }) => bpdu.kind))).toEqual(new Set(['rst']));
    const { frames } = captureOf(
      network,
      ran.trees,
      ran,
      (port) => network.owner[port] === network.switchIndex.get('c' as SwitchId),
    );
    expect(frames.some(({ octets }) => octets[12] === 0x81 && octets[15] === 15)).toBe(true);
  });
});

it('waits where it is forced to version 0, though the other end agrees by RST BPDU: max age and forward delay, as from DISABLED_PORT (13.37)', () => {
  const design = networkOf({ a: { priority: 0 }, b: {} }, ['a 1 = b 1'], { 'a 1': { speaks: 'version-0' } });
  const actions = [
    { at: 1, do: 'link-down', link: 'l0' },
    { at: 2, do: 'link-up', link: 'l0' },
  ];
  const { trace } = run(design, actions, 60);
  expect(trace.findLast(({ switch: sw, to }) => sw === 'a' && to === 'forwarding')!.t).toBeCloseTo(2 + 20 + 15, 1);
});

it('takes twice the forward delay to lead to the root where it is forced to version 0, and sends configuration BPDUs alone', () => {
  const speaking = (speaks?: string): number => {
    const design = networkOf({ a: { priority: 0 }, b: {} }, ['a 1 = b 1', 'a 2 = b 2'], {
      'a 1': speaks ? { speaks } : {},
      'b 2': speaks ? { speaks } : {},
    });
    const ran = run(design, [{ at: 5, do: 'link-down', link: 'l0' }], 60);
    const kinds = Array.from({ length: ran.sent.count }, (_, i) => ran.sent.at(i)).flatMap(({ port, bpdu }) =>
      port === 0 ? [bpdu.kind] : [],
    );
    expect(new Set(kinds)).toEqual(new Set([speaks ? 'config' : 'rst']));
    return ran.trace.findLast(({ switch: sw, port, to }) => sw === 'b' && port === '2' && to === 'forwarding')!.t;
  };
  expect(speaking('version-0')).toBeCloseTo(5 + 2 * 15, 1);
  expect(speaking()).toBeLessThan(5.1);
});

it('settles to what the solver says after ports come to speak otherwise, and again as their switches do', () => {
  // A tree that goes by VLAN 1 for a part of the time is one that all ports carry.
  const carryingAll = ({ switches, ...rest }: Design): Design => ({
    ...rest,
    switches: switches.map((sw) => ({ ...sw, ports: sw.ports.map((port) => ({ ...port, vlans: DEFAULT_CARRIAGE })) })),
  });
  const designs = fc
    .oneof(randomDesign('standard'), randomDesign('mixed'), regionsDesign(6, ['r0', 'r0', 'r0', 'r1']))
    .map(carryingAll);
  const turned = fc.record({
    speaks: fc.constantFrom('version-0', 'passes-on', 'per-vlan-rstp', null),
    at: fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
  });
  fc.assert(
    fc.property(designs, fc.nat(), fc.array(turned, { minLength: 1, maxLength: 3 }), (design, seed, turns) => {
      const actions = turns.flatMap(({ speaks, at }, i) =>
        at.flatMap((pick): Action[] => {
          const sw = design.switches[pick % design.switches.length]!;
          const port = sw.ports[pick % Math.max(1, sw.ports.length)];
          return port && portDialectsOf(sw).includes(speaks ?? 'passes-on')
            ? [{ at: i, do: 'port-speaks', switch: sw.id, ports: [port.id as BridgePortId], speaks }]
            : [];
        }),
      );
      const sim = new Simulation(compileNetwork(design), treesThrough(design, actions), seed);
      sim.boot();
      sim.runTo(LONG);
      let now = design;
      for (const action of actions) {
        now = afterAction(now, action);
        sim.follow(now);
        sim.runTo(sim.now + LONG);
        expect(unlike(sim, now)).toEqual([]);
      }
    }),
    { numRuns: tries(20) },
  );
});
