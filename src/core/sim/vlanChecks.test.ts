/** The VLAN check: where untagged VLANs differ a port is held in both, settled and in a run, until that clears up. */
import fc from 'fast-check';
import { heardAt } from '../analysis/dialects/heard';
import { findingsOf } from '../analysis/findings/findings';
import { editAll } from '../edit/edit';
import type { Dialect } from '../model/document';
import { SECOND } from '../modes/entity';
import { networkOf, randomDesign, regionsDesign, settledTree } from '../testing/networks';
import { tries } from '../testing/runs';
import { benchedScenario } from '../testing/scenarios';
import { unlikeAtRest } from '../testing/settling';
import { withVlanChecks } from '../testing/vlanChecks';
import { explainPort } from '../tree/explain/explain';
import { solve } from '../tree/solve';
import { simulate } from './simulate';

it.each([
  ['trees for each VLAN', randomDesign('perVlan')] as const,
  ['mixed dialects', randomDesign('mixed')] as const,
  ['regions', regionsDesign(6, ['r0', 'r0', 'r1', 'per-vlan-rstp', 'per-vlan-rstp'])] as const,
])('settles to what the solver says: %s', (_, designs) => {
  fc.assert(
    fc.property(withVlanChecks(designs), fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) =>
      expect(unlikeAtRest(design, seed, turns, 200 * SECOND)).toEqual([]),
    ),
    { numRuns: tries(40) },
  );
});

const between = (
  native: readonly [number, number],
  check: readonly [boolean, boolean],
  dialect: Dialect,
  second = {},
) =>
  networkOf(
    { a: { dialect, priority: 0, vlanCheck: check[0] }, b: { dialect, priority: 4096, vlanCheck: check[1] } },
    ['a 1 = b 1', 'a 2 = b 2'],
    {
      'a 1': { vlans: { mode: 'trunk', native: native[0], allowed: '1-4094' } },
      'b 1': { vlans: { mode: 'trunk', native: native[1], allowed: '1-4094' }, ...second },
    },
    { vlans: [{ id: 15 }, { id: 25 }] },
  );
const guards = (design: ReturnType<typeof between>, vid: number) =>
  ['a', 'b'].map((sw) => {
    const port = settledTree(design, `vlan:${vid}`).switches[sw as never]!.ports['1' as never]!;
    return 'role' in port ? `${port.role} ${port.state}${port.guard ? ` (${port.guard})` : ''}` : 'member';
  });

describe.each<Dialect>(['per-vlan-rstp', 'per-vlan-stp'])(
  'a trunk whose ends have unlike native VLANs: %s',
  (dialect) => {
    const HELD = 'designated discarding (held: VLANs differ)';
    it('is held in both VLANs, at whoever checks, and in no other', () => {
      const both = between([15, 25], [true, true], dialect);
      expect([15, 25].map((vid) => guards(both, vid))).toEqual([
        [HELD, HELD],
        [HELD, HELD],
      ]);
      expect(guards(both, 1)).toEqual(['designated forwarding', 'root forwarding']);
      expect(guards(between([15, 25], [false, true], dialect), 15)).toEqual(['designated forwarding', HELD]);
    });
    it('is not held where nobody checks, or both mean the same', () => {
      expect(guards(between([15, 25], [false, false], dialect), 15)).toEqual([
        'designated forwarding',
        'root forwarding',
      ]);
      expect(guards(between([15, 15], [true, true], dialect), 15)).toEqual([
        'designated forwarding',
        'root forwarding',
      ]);
    });
    it('has the other cable in its place, and says why', () => {
      const design = between([15, 25], [true, true], dialect);
      const solution = solve(design);
      const tree = solution.trees.find(({ id }) => id === 'vlan:15')!;
      expect(settledTree(design, 'vlan:15').switches['b' as never]!.rootPort).toBe('2');
      const p = solution.network.portIndexOf('b' as never, '1' as never);
      expect(explainPort(solution, tree, p)!.sentence).toBe(
        'Designated, but it discards: held, since VLANs differ. BPDUs of VLAN 15 arrive here in VLAN 25, from a port 1.',
      );
    });
  },
);

it('what holds a port is told of its BPDUs, and as a finding whose remedy lets it go', () => {
  const design = between([15, 25], [false, true], 'per-vlan-rstp');
  const solution = solve(design);
  const at = (sw: string) => solution.network.portIndexOf(sw as never, '1' as never);
  const fates = Object.fromEntries(
    heardAt(solution, at('b')).flatMap(({ trees, fate }) => trees.map((tree) => [tree, fate])),
  );
  expect(fates).toMatchObject({ 'vlan:15': 'held against', 'vlan:25': 'held', 'vlan:1': 'read' });
  const about = (of: typeof design) => findingsOf(of, solve(of)).filter(({ rule }) => rule === 'vlans-held');
  expect(about(design).map(({ text }) => text)).toEqual([
    'b port 1 is held in VLANs 15,25: BPDUs of VLAN 15 arrive there in VLAN 25',
  ]);
  const edited = editAll(design, about(design)[0]!.remedies[0]!.commands);
  expect(edited.ok && about(edited.value.design)).toEqual([]);
  expect(about(between([15, 25], [false, false], 'per-vlan-rstp'))).toEqual([]);
});

it('an access port is held by the BPDUs of a trunk’s native VLAN, and a trunk by none of an access port', () => {
  const design = between([15, 1], [true, true], 'per-vlan-rstp', { vlans: { mode: 'access', vlan: 25 } });
  expect(guards(design, 25)).toEqual(['designated forwarding', 'designated discarding (held: VLANs differ)']);
});

it('a port is let go three hellos after the last BPDU of another VLAN', () => {
  const design = between([15, 25], [false, true], 'per-vlan-stp');
  const actions = [{ at: 5, do: 'lose-bpdus', link: 'l0', from: 'a', for: 30 }];
  const run = simulate(design, benchedScenario(design, actions, 40));
  if (!run.ok) throw new Error(run.error);
  const own = run.value.recording;
  const tree = run.value.trees.indexOf('vlan:25' as never);
  const port = solve(design).network.portIndexOf('b' as never, '1' as never);
  const changes = Array.from({ length: own.count }, (_, i) => own.change(i)).filter(
    (change) => change.tree === tree && change.port === port,
  );
  expect(own.atStart(tree, port)[2]).toBe(true);
  const letGo = changes.find(({ held, to }) => !held && to !== 'disabled')!;
  expect(letGo.t / SECOND).toBeGreaterThan(9);
  expect(letGo.t / SECOND).toBeLessThan(12);
});
