/** What comes to each port is told as a run has it: the same BPDUs, in the same form, from the same switches. */
import fc from 'fast-check';
import type { Design } from '../../model/document';
import type { BridgePortId, SwitchId } from '../../model/ids';
import { SECOND } from '../../modes/entity';
import { Simulation } from '../../sim/engine/simulation';
import { networkOf, randomDesign, regionsDesign } from '../../testing/networks';
import { otherwise } from '../../testing/portDialects';
import { tries } from '../../testing/runs';
import { compileNetwork } from '../../topology/network';
import { treesOf } from '../../topology/trees';
import { solve } from '../../tree/solve';
import { heardAt, heardText } from './heard';

const KINDS = { configuration: 'config', RST: 'rst', MST: 'mst' } as const;

/** Whom a port faces that is forced to version 0 and blocks may have heard it when it began, or not. */
const isForcedHere = ({ switches }: Design): boolean =>
  switches.some(({ ports }) => ports.some(({ speaks }) => speaks === 'version-0' || speaks === 'per-vlan-stp'));

/** By port: tree, sender and form of each BPDU that comes in within ten seconds of a network at rest. */
function comesIn(design: Design): string[] {
  const found = new Set<string>();
  const network = compileNetwork(design);
  const sim = new Simulation(
    network,
    treesOf(design),
    1,
    {
      sent: (t, tree, port, bpdu, origin) => {
        const to = network.far[port]!;
        if (t > 400 * SECOND && to >= 0 && bpdu.kind !== 'tcn')
          found.add(
            `${to}: ${treesOf(design)[tree]!} of ${network.switches[origin]!.id}, ${isForcedHere(design) ? '' : bpdu.kind}`,
          );
      },
    },
    { everyHello: true },
  );
  sim.boot();
  sim.runTo(410 * SECOND);
  return [...found].sort();
}

it.each([
  ['mixed dialects', otherwise(randomDesign('mixed'), ['passes-on', 'per-vlan-rstp', 'version-0'])],
  ['trees for each VLAN', otherwise(randomDesign('perVlan'), ['version-0'])],
  ['standard dialects', otherwise(randomDesign('standard'), ['per-vlan-stp'])],
  ['regions', regionsDesign(6, ['r0', 'r0', 'r1', 'rstp', 'per-vlan-rstp'])],
] as const)('what comes in, among %s', (_, designs) => {
  fc.assert(
    fc.property(designs, (design) => {
      const solution = solve(design);
      const told = solution.network.ports.flatMap((__, p) =>
        heardAt(solution, p).flatMap(({ trees, from, kind, group }) =>
          // Of VLAN 1's two frames a run counts one.
          trees.flatMap((tree) =>
            group === 'standard' || !['vlan:1', 'mst:0'].includes(tree)
              ? [
                  `${p}: ${tree} of ${solution.network.switches[solution.network.owner[from]!]!.id}, ${isForcedHere(design) ? '' : KINDS[kind]}`,
                ]
              : [],
          ),
        ),
      );
      expect([...new Set(told)].sort()).toEqual(comesIn(design));
    }),
    { numRuns: tries(12) },
  );
});

it('says in a sentence who sends what, by what way, and what becomes of it', () => {
  const carriage = { vlans: { mode: 'trunk', allowed: '1,15,25' } };
  const solution = solve(
    networkOf(
      { core: { dialect: 'per-vlan-rstp', priority: 4096 }, c: { dialect: 'rstp' }, d: { dialect: 'per-vlan-rstp' } },
      ['core 1 = c 1', 'c 2 = d 1'],
      { 'core 1': carriage, 'c 1': { ...carriage, bpduRx: true }, 'c 2': carriage, 'd 1': carriage },
      { vlans: [{ id: 15 }, { id: 25 }] },
    ),
  );
  const at = (sw: string, port: string): string[] => {
    const p = solution.network.portIndexOf(sw as SwitchId, port as BridgePortId);
    return heardAt(solution, p).map((heard) => heardText(solution, p, heard));
  };
  expect(at('c', '1')).toEqual([
    'RST BPDUs of the common tree, untagged, from core port 1: read as the common tree.',
    'RST BPDUs of VLAN 1, untagged, for trees of VLANs, from core port 1: passed on untouched.',
    'RST BPDUs of VLANs 15,25, tagged, for trees of VLANs, from core port 1: passed on untouched.',
  ]);
  expect(at('d', '1')).toEqual([
    'RST BPDUs of the common tree, untagged, from c port 2: read as VLAN 1.',
    'RST BPDUs of VLANs 15,25, tagged, for trees of VLANs, from core port 1, passed on through c (port 1 to port 2): read as such.',
  ]);
  expect(at('core', '1')).toEqual([]);
});
