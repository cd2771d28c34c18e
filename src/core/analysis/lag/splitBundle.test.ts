/** Networks in which what a bundle's port leads to does not lead back: every question about them has an answer in the end. */
import { networkOf, solutionOf } from '../../testing/networks';
import { findingsOf } from '../findings/findings';
import { candidatePaths } from '../steering/paths';

/** Three switches in a row, the middle one with both cables in one bundle; hosts of VLAN 15 on the outer ones, in this order. */
const row = (allowed: string, hostsOn: readonly string[]) =>
  networkOf(
    { a: {}, b: {}, c: {} },
    ['a 1 = b 1', 'b 2 = c 1'],
    { 'a 9': {}, 'c 9': {} },
    {
      vlans: [{ id: 15 }],
      bundles: [
        { id: 'both', switch: 'b', number: 1, ports: ['1', '2'], mode: 'static', vlans: { mode: 'trunk', allowed } },
      ],
      hosts: hostsOn.map((sw, i) => ({
        id: `h${i}`,
        mac: `02:00:00:00:01:0${i}`,
        vlan: 15,
        attach: [{ switch: sw, port: '9' }],
      })),
    },
  );
const rulesOf = (design: ReturnType<typeof row>) => findingsOf(design, solutionOf(design)).map(({ rule }) => rule);

it.each([
  ['a', 'c'],
  ['c', 'a'],
])('the bundle carries VLAN 1 only, hosts on %s and %s: findings end, and the remedy leads across', (...hostsOn) => {
  const design = row('1', hostsOn);
  const found = findingsOf(design, solutionOf(design)).find(({ rule }) => rule === 'vlan-without-path');
  expect(found?.text).toContain('VLAN 15: no path joins');
  if (hostsOn[0] === 'c')
    expect(found?.remedies[0]?.commands).toEqual([
      { do: 'set-port', switch: 'b', port: 'both', vlans: { mode: 'trunk', native: 1, allowed: '1,15' } },
    ]);
});

it.each([
  ['a', 'c'],
  ['c', 'a'],
])('a bundle that carries everything joins the outer two, hosts on %s and %s', (...hostsOn) => {
  expect(rulesOf(row('1-4094', hostsOn))).toContain('bundle-split');
  expect(rulesOf(row('1-4094', hostsOn))).not.toContain('vlan-without-path');
});

it('every candidate way ends at a root', () => {
  const { network, trees } = solutionOf(row('1-4094', ['a', 'c']));
  for (const tree of trees)
    for (const s of [0, 1, 2])
      for (const path of candidatePaths(network, tree, s)) expect(path.hops.length).toBeLessThanOrEqual(3);
});
