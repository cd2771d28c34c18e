import fc from 'fast-check';
import { valleyStation } from '../../demo/demos';
import { edit, editAll } from '../../edit/edit';
import type { RegionId, SwitchId } from '../../model/ids';
import type { Design } from '../../model/document';
import { networkOf, regionsDesign, solutionOf } from '../../testing/networks';
import { regionsOf } from '../../topology/region';
import { findingsOf } from '../findings/findings';
import {
  compareRegions,
  namesAlike,
  regionMapOf,
  regionsIn,
  misconfigurationText,
  misconfigurationsOf,
  vlansName,
} from './regions';
import { tries } from '../../testing/runs';

const inRegion = (region: string, more: object = {}) => ({ dialect: 'mstp', region, ...more });
const settings = (id: string, more: object = {}) => ({
  id,
  name: 'RIDGE',
  revision: 1,
  instances: [
    { id: 1, vlans: '15,25' },
    { id: 2, vlans: '35' },
  ],
  ...more,
});
const rest = (...regions: object[]) => ({ vlans: [{ id: 15 }, { id: 25 }, { id: 35 }], regions });
const rulesOf = (design: Design): string[] => findingsOf(design, solutionOf(design)).map((finding) => finding.rule);
const mapsOf = (design: Design) => design.switches.map(regionsOf(design));
const triangle = (odd: object, more: object = {}) =>
  networkOf(
    { a: inRegion('r', { priority: 4096 }), b: inRegion('r', { priority: 8192 }), c: inRegion('odd', more) },
    ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'],
    {},
    rest(settings('r'), { ...settings('odd'), ...odd }),
  );

describe('regions of a network', () => {
  it('are every powered MSTP switch once, in pieces that hang together over cables of their own', () => {
    fc.assert(
      fc.property(regionsDesign(), (design) => {
        const { network } = solutionOf(design);
        const regions = regionsIn(network);
        expect(regions.flatMap((region) => region.pieces.flat()).sort()).toEqual(
          design.switches
            .filter((sw) => sw.dialect === 'mstp')
            .map((sw) => sw.id)
            .sort(),
        );
        for (const { switches, map } of regions)
          for (const id of switches)
            expect(
              compareRegions(
                map,
                regionMapOf(
                  design,
                  design.switches.find((sw) => sw.id === id)!,
                )!,
              ).same,
            ).toBe(true);
      }),
      { numRuns: tries(50) },
    );
  });
  it('are in pieces where others stand between', () => {
    const chain = networkOf(
      { a: inRegion('r'), x: { dialect: 'rstp' }, b: inRegion('r') },
      ['a 1 = x 1', 'x 2 = b 1'],
      {},
      rest(settings('r')),
    );
    expect(regionsIn(solutionOf(chain).network)).toMatchObject([{ pieces: [['a'], ['b']] }]);
    expect(rulesOf(chain)).toContain('region-split');
  });
});

describe('two switches compared', () => {
  it('differ nowhere from themselves, and the same both ways', () => {
    fc.assert(
      fc.property(regionsDesign(), (design) => {
        const maps = mapsOf(design).filter((map) => map !== null);
        for (const a of maps) {
          expect(compareRegions(a, a)).toMatchObject({ same: true, vlans: [] });
          expect(misconfigurationText('a', a, 'b', a)).toBeNull();
          for (const b of maps) expect(compareRegions(a, b).same).toBe(compareRegions(b, a).same);
        }
      }),
      { numRuns: tries(25) },
    );
  });
  it('tell the VLANs whose instance differs, and the likely mistake', () => {
    const design = triangle({ instances: [{ id: 1, vlans: '15,25,35' }] });
    const [a, , c] = mapsOf(design);
    expect(compareRegions(c!, a!).vlans.map((each) => [vlansName(each.vlans), each.a, each.b])).toEqual([
      ['VLAN 35', 1, 2],
    ]);
    expect(misconfigurationText('c', c!, 'the others', a!)).toBe(
      'c maps VLAN 35 to instance 1, the others to instance 2',
    );
  });
  it.each([
    [{ revision: 2 }, 'c has revision 2, a 1'],
    [{ name: 'Ridge' }, 'c is named “Ridge”, a “RIDGE”: capitals, blanks and every other octet count'],
    [
      {
        instances: [
          { id: 2, vlans: '15,25' },
          { id: 1, vlans: '35' },
        ],
      },
      'c has the same groups of VLANs under other instance numbers',
    ],
    [{ instances: [{ id: 1, vlans: '15,25' }] }, 'c maps VLAN 35 to the IST, a to instance 2'],
  ])('of %j say %s', (odd, text) => {
    const [a, , c] = mapsOf(triangle(odd));
    expect(misconfigurationText('c', c!, 'a', a!)).toBe(text);
  });
  it('takes names for alike that differ in capitals, blanks or one character', () => {
    expect(
      [
        ['RIDGE', 'Ridge'],
        ['RIDGE', 'RIDGE '],
        ['RIDGE-1', 'RIDGE1'],
        ['RIDGE', 'RIGDE'],
        ['RIDGE', 'RIDE'],
        ['RIDGE', 'VALLEY'],
        ['A', 'B'],
        ['RIDGE-1', 'RIDGE-2'],
      ].map(([a, b]) => namesAlike(a!, b!)),
    ).toEqual([true, true, true, false, true, false, false, false]);
  });
});

describe('slips', () => {
  it.each([
    [{ revision: 2 }, 'region-revision-alone'],
    [{ name: 'ridge' }, 'region-name-slip'],
    [{ instances: [{ id: 1, vlans: '15' }] }, 'region-map-differs'],
  ])('%j is %s, and its remedy ends it', (odd, rule) => {
    const design = triangle(odd);
    const [finding] = findingsOf(design, solutionOf(design)).filter((each) => each.rule === rule);
    expect(finding?.at.switch).toBe('c');
    const mended = editAll(design, finding!.remedies[0]!.commands);
    if (!mended.ok) throw new Error(mended.error.found);
    expect(rulesOf(mended.value.design)).not.toContain(rule);
    expect(regionsIn(solutionOf(mended.value.design).network)).toHaveLength(1);
  });
  it('are a switch without settings beside a region, but not a region that is another in more than one field', () => {
    const bare = edit(triangle({}), { do: 'set-switch', switch: 'c' as SwitchId, region: null });
    expect(bare.ok && rulesOf(bare.value.design)).toContain('region-without-settings');
    expect(misconfigurationsOf(solutionOf(triangle({ name: 'VALLEY', revision: 7 })).network)).toEqual([]);
  });
  it('that several switches share are one finding, mended for all', () => {
    const two = networkOf(
      {
        a: inRegion('r', { priority: 4096 }),
        b: inRegion('r', { priority: 8192 }),
        e: inRegion('r'),
        c: inRegion('odd'),
        d: inRegion('odd'),
      },
      ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1', 'c 3 = d 1', 'a 3 = e 1'],
      {},
      rest(settings('r'), settings('odd', { revision: 2 })),
    );
    const found = findingsOf(two, solutionOf(two)).filter((each) => each.rule === 'region-revision-alone');
    expect(found.map((each) => each.text)).toEqual([
      'c has revision 2, the others 1, and 1 more like it: a boundary runs through what should be the one region RIDGE',
    ]);
    const mended = editAll(two, found[0]!.remedies[0]!.commands);
    expect(mended.ok && regionsIn(solutionOf(mended.value.design).network)).toHaveLength(1);
  });
  it('of the valley station: the gatehouse', () => {
    const design = valleyStation();
    expect(misconfigurationsOf(solutionOf(design).network)).toMatchObject([
      {
        switch: 'gatehouse',
        field: 'map',
        settings: 'valley' as RegionId,
        text: 'gatehouse maps VLAN 55 to instance 1, the others to instance 2',
      },
    ]);
  });
});

describe('trunks under an instance’s tree', () => {
  const hosts = (vlan: number) =>
    ['a', 'c'].map((sw, i) => ({
      id: `h${i}`,
      mac: `02:00:00:01:00:0${i}`,
      vlan,
      attach: [{ switch: sw, port: '9' }],
    }));
  const design = (vlan: number) =>
    networkOf(
      { a: inRegion('r', { priority: 4096 }), b: inRegion('r', { priority: 8192 }), c: inRegion('r') },
      ['a 1 = b 1', 'b 2 = c 2', 'a 2 = c 1'],
      {
        'a 2': { vlans: { mode: 'trunk', allowed: '1,25,35' } },
        'a 9': { vlans: { mode: 'access', vlan } },
        'c 9': { vlans: { mode: 'access', vlan } },
      },
      { ...rest(settings('r')), hosts: hosts(vlan) },
    );
  it('that leave one of its VLANs out cut it off, though another way would carry it', () => {
    const found = findingsOf(design(15), solutionOf(design(15))).find(
      (finding) => finding.rule === 'instance-off-trunk',
    );
    expect(found?.text).toBe(
      'VLAN 15 goes with instance 1, whose tree takes a port 2 to c port 1; that trunk does not carry it',
    );
    const mended = editAll(design(15), found!.remedies[0]!.commands);
    expect(mended.ok && rulesOf(mended.value.design)).not.toContain('instance-off-trunk');
  });
  it('are fine where nobody needs the VLAN on the other side', () =>
    expect(rulesOf(design(25))).not.toContain('instance-off-trunk'));
});

describe('roots of instances', () => {
  it('that nobody placed are told by region', () => {
    const alone = networkOf(
      { a: inRegion('r', { trees: { 'mst:1': { priority: 4096 } } }), b: inRegion('r') },
      ['a 1 = b 1'],
      {},
      rest(settings('r')),
    );
    const found = findingsOf(alone, solutionOf(alone)).filter((finding) => finding.rule === 'instance-without-root');
    expect(found.map((finding) => finding.at.trees)).toEqual([['mst:2']]);
  });
  it('are too far away where hops run out inside of the region', () => {
    const names = Array.from({ length: 8 }, (_, i) => `s${i}`);
    const chain = networkOf(
      Object.fromEntries(
        names.map((name, i) => [name, inRegion('r', { timers: { maxHops: 6 }, priority: i === 0 ? 4096 : 32_768 })]),
      ),
      names.slice(1).map((name, i) => `${names[i]} 2 = ${name} 1`),
      {},
      rest(settings('r')),
    );
    const far = findingsOf(chain, solutionOf(chain))
      .filter((finding) => finding.rule === 'beyond-max-hops')
      .map((finding) => finding.at.switch);
    expect(far).toEqual(['s6']);
  });
});
