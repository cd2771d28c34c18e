import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { LinkId, SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';
import { anyDesign, meshDesign, networkOf, solutionOf } from '../../testing/networks';
import { laterVlan } from '../steering/laterVlan';
import { linkLoads } from './load';

const per = { dialect: 'per-vlan-rstp' };
const host = (id: string, sw: string, port = '9') => ({
  id,
  mac: `02:00:00:00:01:0${id}`,
  vlan: 15,
  attach: [{ switch: sw, port }],
});
/** a - b - c - d in a row, hosts of VLAN 15 where told. */
const row = (hosts: readonly object[], vlans: object[] = [{ id: 15, load: 60 }], last: Record<string, unknown> = per) =>
  networkOf(
    { a: per, b: per, c: per, d: last },
    ['a 1 = b 1', 'b 2 = c 1', 'c 2 = d 1'],
    Object.fromEntries(
      ['a', 'b', 'c', 'd'].flatMap((sw) => [
        [`${sw} 8`, {}],
        [`${sw} 9`, {}],
      ]),
    ),
    { vlans, hosts },
  );
const totals = (design: Design): number[] =>
  linkLoads(solutionOf(design)).links.map((each) => Math.round(each.total * 1000) / 1000);

describe('the load of links', () => {
  it('goes between two hosts over every link of the way', () =>
    expect(totals(row([host('1', 'a'), host('2', 'c')]))).toEqual([60, 60, 0]));
  it('is spread over the pairs of three hosts', () =>
    expect(totals(row([host('1', 'a'), host('2', 'b'), host('3', 'd')]))).toEqual([40, 40, 40]));
  it('does not leave a switch on which both hosts are', () =>
    expect(totals(row([host('1', 'a'), host('2', 'a', '8')]))).toEqual([0, 0, 0]));
  it('of one host goes to the root', () => expect(totals(row([host('1', 'c')]))).toEqual([60, 60, 0]));
  it('without hosts goes from the access switches to the root', () => expect(totals(row([]))).toEqual([45, 30, 15]));
  it('counts a VLAN as 1 where none has a load', () => {
    const design = row([host('1', 'a'), host('2', 'd')], [{ id: 15 }]);
    expect(linkLoads(solutionOf(design))).toMatchObject({ assumed: true, unset: [] });
    expect(totals(design)).toEqual([1, 1, 1]);
  });
  it('names the VLANs that have none where others have', () =>
    expect(linkLoads(solutionOf(row([], [{ id: 15, load: 3 }, { id: 25 }]))).unset).toEqual([25]));
  it('passes a switch that runs no spanning tree', () =>
    expect(totals(row([host('1', 'a'), host('2', 'd')], undefined, { dialect: 'off' }))).toEqual([60, 60, 60]));
  it('counts a host with two cards where the first live one is', () => {
    const two = {
      ...host('1', 'a'),
      attach: [
        { switch: 'd', port: '9' },
        { switch: 'a', port: '9' },
      ],
    };
    const design = row([two, host('2', 'b')]);
    expect(totals(design)).toEqual([0, 60, 60]);
    expect(
      totals({
        ...design,
        switches: design.switches.map((sw) =>
          sw.id === 'd' ? { ...sw, ports: sw.ports.map((port) => ({ ...port, up: port.id !== '9' })) } : sw,
        ),
      }),
    ).toEqual([60, 0, 0]);
  });

  it('lies on no link that blocks, is cut or does not carry the VLAN, and never exceeds the sum of the loads', () => {
    fc.assert(
      fc.property(fc.oneof(anyDesign, meshDesign), (design) => {
        const loads = linkLoads(solutionOf(design));
        const sum = design.vlans.reduce((all, vlan) => all + (loads.assumed ? 1 : (vlan.load ?? 0)), 0);
        for (const each of loads.links) {
          if (each.state !== 'carries') expect(each.total).toBe(0);
          expect(each.total).toBeLessThanOrEqual(sum + 1e-6);
        }
        expect(loads.links.filter((each) => each.state === 'idle').map((each) => each.link)).toEqual(loads.idle);
      }),
    );
  });

  it('finds what the demo suffers from: the camera’s VLAN through the lodge, eight links idle', () => {
    const { peak, idle } = linkLoads(solutionOf(fernhollow()));
    expect([peak?.link, Math.round(peak!.share * 100)]).toEqual(['l13' as LinkId, 551]);
    expect(idle).toEqual(['l1', 'l2', 'l4', 'l6', 'l8', 'l10', 'l11', 'l12']);
  });
});

describe('a VLAN added later', () => {
  it('goes with what holds in all trees, over the links that carry every VLAN', () => {
    const placed = editAll(fernhollow(), [
      { do: 'set-bridge-priority', switch: 'ridge-b' as SwitchId, tree: null, priority: 4096 },
    ]);
    expect(laterVlan(solutionOf(placed.ok ? placed.value.design : fernhollow()))).toEqual({
      root: 'ridge-b',
      links: [0, 15],
    });
    expect(laterVlan(solutionOf(row([])))).toEqual({ root: 'a', links: [3, 3] });
  });
  it('is like every other where one tree carries all', () =>
    expect(laterVlan(solutionOf(networkOf({ a: {}, b: {} }, ['a 1 = b 1'])))).toBeNull());
});
