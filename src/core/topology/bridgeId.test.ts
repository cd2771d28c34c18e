import fc from 'fast-check';
import type { Dialect } from '../model/document';
import { CIST, CST, treeName, treeVlan, vlanTree, type TreeId } from '../model/ids';
import { nearestLegal } from '../model/legal';
import { vlanSet } from '../model/vlanSet';
import { designOf, networkOf } from '../testing/networks';
import {
  bridgeId,
  bridgeIdText,
  compareBridgeIds,
  isSetFor,
  portIdentifier,
  portIdentifierText,
  portIdentifierValue,
  setExternalCost,
  setPathCost,
  settingKey,
  systemIdExtension,
} from './bridgeId';
import { belongs, partOf, treesOf } from './trees';

const switchOf = (more: object) =>
  designOf({
    switches: [
      {
        id: 'a',
        mac: '02:00:00:00:00:0a',
        ports: [{ id: '1', number: 7, trees: { cst: { priority: 16 }, 'vlan:15': { priority: 32, cost: 5 } } }],
        ...more,
      },
    ],
  }).switches[0]!;

describe('a bridge identifier', () => {
  it('adds the VLAN to the priority in a per-VLAN tree, and nothing in the CST', () => {
    const perVlan = switchOf({ dialect: 'per-vlan-rstp', trees: { 'vlan:15': { priority: 4096 } } });
    expect([vlanTree(15), vlanTree(25)].map((tree) => bridgeIdText(bridgeId(perVlan, tree)))).toEqual([
      '4111.02:00:00:00:00:0a',
      '32793.02:00:00:00:00:0a',
    ]);
    expect(bridgeId(switchOf({ priority: 8192 }), CST).priority).toBe(8192);
  });

  it('is in VLAN 1 of a mixed network, for a standard bridge, what it is in the CST', () => {
    expect(bridgeId(switchOf({ trees: { cst: { priority: 4096 } } }), vlanTree(1)).priority).toBe(4096);
  });

  it('is ordered by priority first, then by MAC as a number', () => {
    // Few priorities, so that the MAC often decides.
    const id = fc.record({ priority: fc.integer({ min: 0, max: 3 }), number: fc.nat(0xffffff) });
    fc.assert(
      fc.property(id, id, (a, b) => {
        const asId = ({ priority, number }: typeof a) => ({
          priority,
          mac: `02:00:00:${number.toString(16).padStart(6, '0').match(/../g)!.join(':')}`,
        });
        expect(Math.sign(compareBridgeIds(asId(a), asId(b)))).toBe(
          Math.sign(a.priority - b.priority || a.number - b.number),
        );
      }),
    );
  });
});

describe('what is set for a tree', () => {
  const only = (...ids: readonly TreeId[]) => Object.fromEntries(ids.map((id) => [id, {}]));

  it('stands under the key of what the dialect has: the tree, VLAN 1 for the CIST, the CST', () => {
    const keys = (dialect: Dialect) =>
      [CST, vlanTree(15), CIST, 'mst:1' as TreeId].map((id) => settingKey(id, dialect));
    expect(keys('per-vlan-rstp')).toEqual([CST, 'vlan:15', 'vlan:1', 'mst:1']);
    expect(keys('mstp')).toEqual([CST, 'vlan:15', 'mst:0', 'mst:1']);
    expect(keys('rstp')).toEqual([CST, 'vlan:15', CST, CST]);
  });

  it('is found for it, of a standard bridge under the tree’s own name too', () => {
    expect(isSetFor(only(CST), CST, 'rstp')).toBe(true);
    expect(isSetFor(only(vlanTree(1)), vlanTree(1), 'rstp')).toBe(true);
    expect(isSetFor(only(vlanTree(15)), vlanTree(1), 'rstp')).toBe(false);
    expect(isSetFor(only(CST), vlanTree(15), 'per-vlan-rstp')).toBe(false);
    expect(isSetFor(only(vlanTree(15)), 'mst:1' as TreeId, 'mstp')).toBe(false);
  });

  it('is told apart by the system ID extension: VLAN, instance, nothing', () => {
    const extensions = (dialect: Dialect, ...ids: readonly TreeId[]) =>
      ids.map((id) => systemIdExtension(switchOf({ dialect }), id));
    expect(extensions('per-vlan-rstp', vlanTree(15), CIST, CST)).toEqual([15, 1, 0]);
    expect(extensions('mstp', 'mst:7' as TreeId, CIST, vlanTree(15))).toEqual([7, 0, 15]);
    expect(extensions('rstp', vlanTree(1), vlanTree(15), CST)).toEqual([0, 15, 0]);
  });

  it('are costs of a port: of the tree, of the port, and outside of a region by themselves', () => {
    const [port] = switchOf({}).ports;
    const priced = { ...port!, cost: 9, externalCost: 20 };
    expect(setPathCost(port!, vlanTree(15), 'per-vlan-rstp')).toBe(5);
    expect(setPathCost(priced, vlanTree(25), 'per-vlan-rstp')).toBe(9);
    expect(setPathCost(port!, vlanTree(25), 'per-vlan-rstp')).toBeUndefined();
    expect(setExternalCost(priced, CIST, 'mstp')).toBe(20);
    expect(setExternalCost({ ...port!, cost: 9 }, CIST, 'mstp')).toBe(9);
    expect(setExternalCost(priced, CST, 'rstp')).toBe(9);
  });
});

describe('a port identifier', () => {
  it('is four bits of priority and twelve of number', () => {
    const sw = switchOf({});
    const id = portIdentifier(sw.ports[0]!, CST, sw.dialect);
    expect([portIdentifierText(id), portIdentifierValue(id)]).toEqual(['16.7', 0x1007]);
    expect(portIdentifierValue({ priority: 240, number: 4095 })).toBe(0xffff);
    expect(portIdentifier(sw.ports[0]!, vlanTree(25), 'per-vlan-rstp').priority).toBe(128);
  });
});

describe('legal values', () => {
  it.each([
    [4000, [0, 4096]],
    [4096, [4096]],
    [-5, [0]],
    [70_000, [61_440]],
    [61_000, [57_344, 61_440]],
  ])('nearest to %i: %j', (value, nearest) =>
    expect(nearestLegal(value, { min: 0, max: 61_440, step: 4096 })).toEqual(nearest),
  );
});

describe('the trees of a network', () => {
  it('are one for standard bridges, one a VLAN for per-VLAN ones, none where all are off', () => {
    const vlans = { vlans: [{ id: 25 }, { id: 15 }] };
    expect(treesOf(networkOf({ a: { dialect: 'stp' }, b: {} }, [], {}, vlans))).toEqual(['cst']);
    expect(treesOf(networkOf({ a: { dialect: 'per-vlan-stp' }, b: {} }, [], {}, vlans))).toEqual([
      'vlan:1',
      'vlan:15',
      'vlan:25',
    ]);
    expect(treesOf(networkOf({ a: { dialect: 'off' } }, [], {}, vlans))).toEqual([]);
  });

  it('see a switch as a bridge, a hub or a relay', () => {
    expect(partOf(switchOf({ dialect: 'off' }), CST)).toBe('hub');
    expect(partOf(switchOf({}), vlanTree(1))).toBe('bridge');
    expect(partOf(switchOf({}), vlanTree(15))).toBe('relay');
    expect(partOf(switchOf({ dialect: 'per-vlan-rstp' }), vlanTree(15))).toBe('bridge');
  });

  it('take in the ports that carry their VLAN; the CST takes all', () => {
    const perVlan = switchOf({ dialect: 'per-vlan-rstp' });
    expect([null, 15, 25].map((vid) => belongs(perVlan, vlanSet('15'), vid))).toEqual([true, true, false]);
    expect(belongs(switchOf({}), vlanSet('15'), 1)).toBe(true);
    expect(belongs(perVlan, vlanSet('15'), 1)).toBe(false);
  });

  it('have names', () => {
    expect(['cst', 'vlan:15', 'mst:0', 'mst:2'].map((id) => treeName(id as TreeId))).toEqual([
      'the common tree',
      'VLAN 15',
      'CIST',
      'instance 2',
    ]);
    expect([treeVlan(vlanTree(15)), treeVlan(CST)]).toEqual([15, null]);
  });
});
