/** Regions as a design has them, and which tree decides for a VLAN. */
import type { SwitchId } from '../model/ids';
import { networkOf } from '../testing/networks';
import { sameConfiguration } from '../wire/mstConfiguration';
import { compileNetwork } from './network';
import { hasInstance, regionsOf, sameRegion } from './region';
import { treesOf } from './trees';
import { vlanTrees } from './vlanTree';

const instances = [
  { id: 2, vlans: '20-29' },
  { id: 1, vlans: '10,15' },
];
const design = networkOf(
  {
    a: { dialect: 'mstp', region: 'one' },
    b: { dialect: 'mstp', region: 'same' },
    c: { dialect: 'mstp', region: 'other' },
    d: { dialect: 'mstp' },
    e: {},
    f: { dialect: 'off' },
    g: { dialect: 'per-vlan-rstp' },
  },
  [],
  {},
  {
    vlans: [{ id: 20 }],
    regions: [
      { id: 'one', name: 'R', revision: 3, instances },
      { id: 'same', name: 'R', revision: 3, instances: [...instances].reverse() },
      {
        id: 'other',
        name: 'R',
        revision: 3,
        instances: [
          { id: 2, vlans: '20-28' },
          { id: 1, vlans: '10,15' },
        ],
      },
    ],
  },
);
const regionOf = regionsOf(design);
const sw = (id: string) => design.switches.find((each) => each.id === (id as SwitchId))!;

describe('a region', () => {
  it('holds switches with one name, revision and map, and none without MSTP', () => {
    const same = (one: string, two: string) => sameRegion(regionOf(sw(one)), regionOf(sw(two)));
    expect([same('a', 'b'), same('a', 'c'), same('a', 'd'), same('a', 'e'), same('e', 'a'), same('e', 'f')]).toEqual([
      true,
      ...Array.from({ length: 5 }, () => false),
    ]);
  });
  it('has the IST and the instances of its map', () => {
    const has = (id: string) => [0, 1, 2, 3].map((mstid) => hasInstance(regionOf(sw(id)), mstid));
    expect(has('a')).toEqual([true, true, true, false]);
    expect(has('d')).toEqual([true, false, false, false]);
    expect(has('e')).toEqual([true, false, false, false]);
  });
  it('is the same where name, revision and map are, however its instances are listed', () => {
    expect(sameConfiguration(regionOf(sw('a'))!.configurationId, regionOf(sw('b'))!.configurationId)).toBe(true);
    expect(sameConfiguration(regionOf(sw('a'))!.configurationId, regionOf(sw('c'))!.configurationId)).toBe(false);
  });
  it('maps VLANs to instances in rising order, and the rest to the IST', () => {
    const map = regionOf(sw('a'))!;
    expect(map.instances.map((instance) => instance.mstid)).toEqual([1, 2]);
    expect([1, 10, 15, 20, 29, 30, 4094].map(map.instanceOf)).toEqual([0, 1, 1, 2, 2, 0, 0]);
  });
  it('of a switch that is given none is its own, and other dialects have none', () => {
    expect(regionOf(sw('d'))!.configurationId).toMatchObject({
      name: sw('d').mac,
      revision: 0,
      digest: 'ac36177f50283cd4b83821d8ab26de62',
    });
    expect([regionOf(sw('e')), regionOf(sw('f')), regionOf(sw('g'))]).toEqual([null, null, null]);
  });
});

it('a VLAN’s frames pass where its own tree says, its instance, or the common tree', () => {
  const trees = treesOf(design);
  expect(trees).toEqual(['mst:0', 'mst:1', 'mst:2', 'vlan:20']);
  const treeFor = vlanTrees(compileNetwork(design), trees);
  const of = (vid: number) => design.switches.map((_, s) => trees[treeFor(s, vid)] ?? null);
  expect(of(20)).toEqual(['mst:2', 'mst:2', 'mst:2', 'mst:0', 'mst:0', 'mst:0', 'vlan:20']);
  expect(of(1)).toEqual(['mst:0', 'mst:0', 'mst:0', 'mst:0', 'mst:0', 'mst:0', 'mst:0']);
  expect(of(99).at(-1)).toBeNull(); // no per-VLAN tree is declared for it
});
