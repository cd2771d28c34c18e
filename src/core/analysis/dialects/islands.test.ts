/** Islands of a mixed network. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../demo/demos';
import { isPerVlan, runsTrees } from '../../model/document';
import type { Design } from '../../model/document';
import { networkOf, randomDesign, solutionOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { regionsIn } from '../regions/regions';
import { islandsOf } from './islands';

const islandsIn = (design: Design) => islandsOf(solutionOf(design).network);

it('a network of one mode is one island, and nothing is taken for anything else', () => {
  const { islands, borders } = islandsIn(fernhollow());
  expect(islands.map(({ switches }) => switches.length)).toEqual([fernhollow().switches.length]);
  expect(borders.size).toBe(0);
});

it('of a town office: a core with trees of VLANs, and a closet that has one', () => {
  const { islands, borders } = islandsIn(townOffice());
  expect(islands.map(({ label, kind }) => [label, kind])).toEqual([
    ['trees of VLANs', 'vlans'],
    ['one tree', 'common'],
  ]);
  expect(islands[1]!.switches).toEqual(['stairs-a', 'stairs-b']);
  expect([...borders].sort()).toEqual([
    ['uplink-a', 'no tree in common'],
    ['uplink-b', 'no tree in common'],
  ]);
});

it('a port that speaks as a per-VLAN bridge shares trees over the border', () => {
  const trunk = { mode: 'trunk', native: 1, allowed: '1-4094' };
  const { islands, borders } = islandsIn(
    networkOf(
      { a: { dialect: 'per-vlan-rstp' }, b: {} },
      ['a 1 = b 1', 'a 2 = b 2'],
      {
        'a 1': { vlans: trunk },
        'a 2': { vlans: trunk },
        'b 1': { vlans: trunk, speaks: 'per-vlan-rstp' },
        'b 2': { vlans: trunk },
      },
      { vlans: [{ id: 15 }, { id: 25 }] },
    ),
  );
  expect(islands).toHaveLength(2);
  expect([...borders.values()].sort()).toEqual(['VLAN 1 as common tree', 'VLAN 1 as common tree, VLANs 15,25 too']);
});

it('regions are islands as they are regions, and every switch with trees is on one', () => {
  const regions = regionsIn(solutionOf(valleyStation()).network).flatMap(({ pieces }) => pieces);
  const { islands } = islandsIn(valleyStation());
  const own = islands.filter(({ kind }) => kind === 'region').map(({ switches }) => [...switches].sort());
  expect(own.sort()).toEqual(regions.map((piece) => [...piece].sort()).sort());
  fc.assert(
    fc.property(randomDesign('mixed'), (design) => {
      const { network } = solutionOf(design);
      const all = islandsOf(network).islands;
      const switches = network.switches.filter((sw) => sw.up && runsTrees(sw));
      expect(all.flatMap((island) => island.switches).sort()).toEqual(switches.map(({ id }) => id).sort());
      for (const { kind, switches: ids } of all)
        for (const id of ids) expect(isPerVlan(switches.find((sw) => sw.id === id)!)).toBe(kind === 'vlans');
    }),
    { numRuns: tries(40) },
  );
});
