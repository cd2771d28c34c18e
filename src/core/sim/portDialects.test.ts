/** Ports that speak otherwise than their switch: networks with them come to rest where the solver says, from boot and after cuts. */
import fc from 'fast-check';
import { SECOND } from '../modes/entity';
import { bundledDesign } from '../testing/bundles';
import { meshDesign, randomDesign, regionsDesign } from '../testing/networks';
import { otherwise } from '../testing/portDialects';
import { parts } from '../testing/runs';
import { unlikeAtRest } from '../testing/settling';

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
