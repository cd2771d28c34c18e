import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import { vlanTree, type SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';
import { networkOf } from '../../testing/networks';
import { controlCosts } from './controlPlane';

const costOf = (design: Design, dialect: string) => controlCosts(design).find((each) => each.dialect === dialect)!;
const vlans = [{ id: 15 }, { id: 25 }];
/** A triangle: three links, so three designated ports a tree. */
const triangle = (settings: object = {}, rest: Record<string, unknown> = { vlans }) =>
  networkOf(
    { a: { dialect: 'per-vlan-rstp', ...settings }, b: {}, c: {} },
    ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2'],
    {},
    rest,
  );

describe('what the dialects cost', () => {
  it('one tree: one BPDU from each designated port every two seconds', () => {
    expect(costOf(triangle(), 'rstp')).toMatchObject({ trees: 1, sent: 1.5, spoken: true });
    expect(costOf(triangle(), 'stp')).toMatchObject({ trees: 1, sent: 1.5, spoken: false });
  });
  it('a tree for each VLAN, and the standard form besides for VLAN 1', () =>
    expect(costOf(triangle(), 'per-vlan-rstp')).toMatchObject({ trees: 3, sent: 6, spoken: true }));
  it('the hello time of the root decides', () =>
    expect(costOf(triangle({ timers: { hello: 1 } }), 'rstp').sent).toBe(3));
  it('a port that leads nowhere but has signal sends too', () => {
    const design = networkOf(
      { a: {}, b: {} },
      ['a 1 = b 1'],
      { 'a 9': {} },
      { hosts: [{ id: 'desk', mac: '02:00:00:00:00:99', attach: [{ switch: 'a', port: '9' }] }] },
    );
    expect(costOf(design, 'rstp')).toMatchObject({ sent: 1, busiest: { switch: 'a', sent: 1, received: 0 } });
  });
  it('MSTP sends once for all instances, as many as the VLANs’ trees have shapes', () => {
    expect(costOf(triangle(), 'mstp')).toMatchObject({ trees: 1, sent: 1.5 });
    const split = editAll(triangle({}, { vlans }), [
      { do: 'set-switch', switch: 'b' as SwitchId, dialect: 'per-vlan-rstp' },
      { do: 'set-bridge-priority', switch: 'b' as SwitchId, tree: vlanTree(25), priority: 0 },
    ]);
    if (!split.ok) throw new Error(split.error.found);
    expect(costOf(split.value.design, 'mstp')).toMatchObject({ trees: 3, sent: 2 });
  });
  it('switches that run none neither send nor keep a tree', () =>
    expect(costOf(networkOf({ a: { dialect: 'off' }, b: { dialect: 'off' } }, ['a 1 = b 1']), 'rstp')).toMatchObject({
      trees: 0,
      sent: 0,
    }));
  it('grows with the VLANs in the demo', () => {
    const costs = controlCosts(fernhollow());
    expect(costs.map((each) => each.dialect)).toEqual(['stp', 'rstp', 'mstp', 'per-vlan-stp', 'per-vlan-rstp']);
    expect(costOf(fernhollow(), 'per-vlan-rstp').sent).toBeGreaterThan(4 * costOf(fernhollow(), 'rstp').sent);
  });
});
