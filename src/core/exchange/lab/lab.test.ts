/** Designs as real switches can be them, and what those say of themselves held against what we say. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../demo/demos';
import { runsTrees, type Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { readDesign } from '../../model/read';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { bridgeId } from '../../topology/bridgeId';
import { treesOf } from '../../topology/trees';
import { roleOf, stateIn, treeOf, type SettledTree } from '../../tree/settled';
import { solve } from '../../tree/solve';
import type { SwitchReading } from '../readings/reading';
import { outsideOf } from '../settings/oneTree';
import { settingsOf } from '../settings/settings';
import { carried, untaggedOf } from '../settings/vlanChanges';
import { differenceText, judgeLab } from './judge';
import { labDesign, LAB_SYSTEMS, labTree } from './labDesign';
import { readLabResult } from './result';

const designs = fc.oneof(anyDesign, fc.constantFrom(fernhollow(), valleyStation(), townOffice()));
const systems = fc.constantFrom(...LAB_SYSTEMS);

it('is a design of one tree that a document can hold, with nothing that these switches do not have', () => {
  fc.assert(
    fc.property(designs, systems, fc.boolean(), (design, system, bonds) => {
      const { design: made } = labDesign(design, system, labTree(design), { bonds });
      const read = readDesign(JSON.parse(JSON.stringify(made)));
      expect(read.ok ? [] : read.error).toEqual([]);
      expect(treesOf(made).length).toBeLessThanOrEqual(1);
      for (const sw of made.switches) {
        expect(['off', 'stp', ...(system === 'ovs' ? ['rstp'] : [])]).toContain(sw.dialect);
        for (const port of sw.ports) expect(port.cost).toBeLessThanOrEqual(sw.dialect === 'stp' ? 65_535 : 200_000_000);
      }
      if (!bonds && system === 'linux') expect(made.bundles).toEqual([]);
      if (system === 'ovs')
        for (const bundle of made.bundles)
          expect(runsTrees(made.switches.find(({ id }) => id === bundle.switch)!)).toBe(false);
    }),
    { numRuns: tries(60) },
  );
});

it('has the tree that was asked for, where all is of one kind and nothing is bundled', () => {
  const design = fernhollow();
  const plain: Design = {
    ...design,
    bundles: [],
    hosts: [],
    switches: design.switches.map((sw) => ({
      ...sw,
      edgeBpduGuard: false,
      ports: sw.ports.map((port) => ({ ...port, vlans: { mode: 'trunk', native: 1 as never, allowed: '1-4094' } })),
    })),
  };
  for (const tree of treesOf(plain)) {
    const ours = treeOf(solve(plain), tree)!;
    for (const system of LAB_SYSTEMS) {
      const [there] = solve(labDesign(plain, system, tree).design).trees as [SettledTree];
      expect([...there.role]).toEqual([...ours.role]);
      expect([...there.root]).toEqual([...ours.root]);
    }
  }
});

it('tells what is left out, and costs that are divided', () => {
  const { leftOut } = labDesign(fernhollow(), 'linux', labTree(fernhollow()), { bonds: false });
  expect(leftOut.join('\n')).toContain('There is one tree for all VLANs, with the costs and priorities of VLAN 1.');
  expect(leftOut.join('\n')).toContain('This kernel has no bonds: a bundle is its first member alone (lodge uplinks');
  const slow = networkOf({ a: { dialect: 'stp' }, b: { dialect: 'stp' } }, ['a 1 = b 1'], {
    'a 1': { speed: 100 },
    'b 1': { cost: 4000 },
  });
  const { design, leftOut: told } = labDesign(slow, 'linux', labTree(slow));
  expect(design.switches.map(({ ports: [port] }) => port!.cost)).toEqual([50, 1]);
  expect(told.join()).toContain('all are divided by 4000, which changes no tree');
});

/** What switches would say that do what we say. */
function obedient(design: Design): Map<SwitchId, SwitchReading> {
  const { network, trees } = solve(design);
  const [tree] = trees;
  return new Map(
    settingsOf(design).map((set, s): [SwitchId, SwitchReading] => {
      const names = new Map(
        outsideOf(set).map((port) => [network.portIndexOf(set.id, port.id as never), port.interface]),
      );
      return [
        set.id,
        {
          bridge:
            tree && tree.root[s]! >= 0
              ? {
                  id: bridgeId(network.switches[s]!, tree.id),
                  root: bridgeId(network.switches[tree.root[s]!]!, tree.id),
                  rootPathCost: tree.rootPathCost[s]!,
                  rootPort: names.get(tree.rootPort[s]!) ?? null,
                }
              : null,
          ports: outsideOf(set).map((port) => {
            const p = network.portIndexOf(set.id, port.id as never);
            const role = tree ? roleOf(tree, p) : null;
            return {
              interface: port.interface,
              state: role === 'disabled' || role === null ? 'disabled' : stateIn(tree!, p),
              role,
              cost: tree ? tree.cost[p]! : null,
              priority: port.trees[0]?.priority ?? null,
              vlans: carried(port.vlans).format(),
              untagged: untaggedOf(port.vlans),
            };
          }),
          bundles: [],
        },
      ];
    }),
  );
}

it('has nothing against switches that do what we say, and names what one does otherwise', () => {
  fc.assert(
    fc.property(anyDesign, systems, fc.nat(), (given, system, at) => {
      const { design } = labDesign(given, system, labTree(given), { bonds: false });
      fc.pre(design.bundles.length === 0);
      const readings = obedient(design);
      expect(judgeLab(design, readings).differences).toEqual([]);
      const on = design.switches.filter(({ up, id }) => up && readings.get(id)!.ports.length > 0);
      fc.pre(on.length > 0);
      const { id } = on[at % on.length]!;
      const [port, ...others] = readings.get(id)!.ports;
      readings.set(id, { ...readings.get(id)!, ports: [{ ...port!, vlans: '4000' }, ...others] });
      expect(judgeLab(design, readings).differences).toMatchObject([
        { switch: id, interface: port!.interface, what: 'VLANs' },
      ]);
    }),
    { numRuns: tries(60) },
  );
  expect(
    differenceText({ switch: 'a' as SwitchId, interface: 'port1', what: 'role', there: 'root', ours: 'alternate' }),
  ).toBe('a port1: role is root; we say alternate');
});

it('reads a result, and says what is none', () => {
  const result = {
    format: 'knot-path-lab',
    version: 1,
    name: 'x',
    with: 'ovs',
    tree: null,
    at: '2026-01-01T00:00:00Z',
    leftOut: [],
    rounds: [],
  };
  expect(readLabResult(JSON.stringify(result))).toEqual({ ok: true, value: result });
  for (const [text, found] of [
    ['{', 'text that is not JSON'],
    ['[]', 'found'],
    [JSON.stringify({ ...result, with: 'paper' }), 'with: found "paper"'],
    [JSON.stringify({ ...result, rounds: [{ after: 1 }] }), 'rounds.0.after: found 1'],
  ] as const)
    expect(readLabResult(text)).toMatchObject({ ok: false, error: expect.stringContaining(found) as string });
});
