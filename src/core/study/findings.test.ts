import { fernhollow } from '../demo/fernhollow';
import type { Design } from '../design/schema';
import { networkOf, solutionOf } from '../testing/networks';
import { findingsOf } from './findings';

const rules = (design: Design) => findingsOf(design, solutionOf(design)).map((finding) => finding.rule);
const texts = (design: Design) => findingsOf(design, solutionOf(design)).map((finding) => finding.text).join('\n');
/** Two switches whose root was chosen: nothing to find but what a test adds. */
const pair = (portA: object, portB: object, a: object = {}, b: object = {}) =>
  networkOf({ a: { priority: 0, tier: 'core', ...a }, b: { priority: 4096, tier: 'core', ...b } }, ['a 1 = b 1'], { 'a 1': { ...portA }, 'b 1': { ...portB } });

describe('findings', () => {
  it('are none where both ends agree and the root was chosen', () => expect(rules(pair({}, {}))).toEqual([]));

  it('tell the demo what is wrong with its root', () => {
    expect(rules(fernhollow())).toEqual(['root-by-mac', 'root-on-access']);
    expect(texts(fernhollow())).toContain('lodge is root of VLANs 1,15,25,35,45,55,65 only by its MAC address');
  });

  it.each([
    ['speed-differs', pair({ speed: 1000 }, { speed: 100 }), '1000 and 100 Mb/s'],
    ['native-differs', pair({ vlans: { mode: 'trunk', native: 1 } }, { vlans: { mode: 'trunk', native: 15 } }), 'VLAN 1 at one end and VLAN 15 at the other'],
    ['vlan-at-one-end', pair({ vlans: { mode: 'trunk', allowed: '1,15-20' } }, { vlans: { mode: 'trunk', allowed: '1,15-18,25' } }), 'VLAN 19-20,25 is carried at one end only'],
    ['access-vlans-joined', pair({ vlans: { mode: 'access', vlan: 15 } }, { vlans: { mode: 'access', vlan: 25 } }), 'access ports of VLAN 15 and VLAN 25'],
    ['duplicate-mac', pair({}, {}, { mac: '02:00:00:00:00:05' }, { mac: '02:00:00:00:00:05' }), 'a and b have the same MAC address'],
    ['timers', pair({}, {}, { timers: { maxAge: 40 } }), 'max age 40 s is above 2 x (forward delay 15 s - 1 s)'],
    ['timers', pair({}, {}, { timers: { maxAge: 6, hello: 5 } }), 'max age 6 s is below 2 x (hello 5 s + 1 s)'],
  ])('%s', (rule, design, text) => {
    expect(rules(design)).toContain(rule);
    expect(texts(design)).toContain(text);
  });

  it('do not mind a trunk whose native VLAN meets an access port of the same VLAN, but tell what stops there', () => {
    const design = pair({ vlans: { mode: 'trunk', native: 15, allowed: '15,25' } }, { vlans: { mode: 'access', vlan: 15 } });
    expect(rules(design)).toEqual(['vlan-at-one-end']);
    expect(texts(design)).toContain('VLAN 25 is carried at one end only');
  });

  it('point at the cable that closes a loop of switches without spanning tree, and not at a cut one', () => {
    const off = { dialect: 'off' };
    const design = networkOf({ a: off, b: off, c: off }, ['a 1 = b 1', 'b 2 = c 1', 'c 2 = a 2']);
    expect(findingsOf(design, solutionOf(design)).map(({ rule, at }) => [rule, at.link])).toEqual([['loop-without-spanning-tree', 'l2']]);
    expect(rules({ ...design, links: design.links.map((link, i) => ({ ...link, up: i > 0 })) })).toEqual([]);
  });

  it('tell which switches are beyond the reach of the root: one hop a second of max age', () => {
    const names = Array.from({ length: 9 }, (_, i) => `s${i}`);
    const chain = names.slice(1).map((name, i) => `s${i} 2 = ${name} 1`);
    const far = (maxAge: number) => {
      const design = networkOf(Object.fromEntries(names.map((name, i) => [name, { tier: 'core', priority: i * 4096, timers: { maxAge } }])), chain);
      return findingsOf(design, solutionOf(design)).filter((finding) => finding.rule === 'beyond-max-age').map((finding) => finding.at.switch);
    };
    expect(far(20)).toEqual([]);
    expect(far(8)).toEqual([]); // s8 is 8 hops away
    expect(far(6)).toEqual(['s7', 's8']);
  });

  it('find two ports of one number', () => {
    const design = networkOf({ a: {} }, [], { 'a 1': {}, 'a 2': { number: 1 } });
    expect(rules(design)).toEqual(['duplicate-port-number']);
  });
});
