/** Regions in the document and in edits: legal values, and maps in which each VLAN has one instance. */
import fc from 'fast-check';
import { valleyStation } from '../demo/demos';
import { networkOf } from '../testing/networks';
import { commandSchema, type Command } from '../edit/commands';
import { describeCommand } from '../edit/describe';
import { edit, editAll, applyChange } from '../edit/edit';
import { problemText } from './problem';
import { readDesign } from './read';
import type { Design } from './document';
import { vlanSet } from './vlanSet';
import { leanDesign } from './derive/write';
import { parts } from '../testing/runs';

const withRegions = (...regions: object[]) => readDesign({ ...leanDesign(networkOf({ a: {} }, [])), regions });
const problems = (...regions: object[]): string[] => {
  const read = withRegions(...regions);
  return read.ok ? [] : read.error.map(problemText);
};
const instances = (...vlans: string[]) => vlans.map((each, i) => ({ id: i + 1, vlans: each }));

describe('a document', () => {
  it.each([
    [
      'maps that overlap',
      { id: 'r', instances: instances('15,25-30', '28-40') },
      'regions[0].instances[1].vlans: found 28-30; allowed: each VLAN in one instance: instance 1 has these already',
    ],
    [
      'one VLAN twice',
      { id: 'r', instances: instances('15', '15') },
      'regions[0].instances[1].vlans: found 15; allowed: each VLAN in one instance: instance 1 has this one already',
    ],
    [
      'one instance twice',
      {
        id: 'r',
        instances: [
          { id: 3, vlans: '1' },
          { id: 3, vlans: '2' },
        ],
      },
      'regions[0].instances[1].id: found 3; allowed: each instance once: another one has this id',
    ],
    [
      'more than 64 instances',
      { id: 'r', instances: instances(...Array.from({ length: 65 }, (_, i) => String(i + 1))) },
      'regions[0].instances: found 65 instances; allowed: at most 64 beside the IST',
    ],
    ['an MSTID beyond 4094', { id: 'r', instances: [{ id: 4095, vlans: '1' }] }, '4095'],
    ['MSTID 0, which is the IST', { id: 'r', instances: [{ id: 0, vlans: '1' }] }, 'instances[0].id'],
    ['VLANs outside 1 to 4094', { id: 'r', instances: instances('4095') }, 'VLAN IDs 1 to 4094'],
    ['a name over 32 octets', { id: 'r', name: 'x'.repeat(33) }, 'at most 32 octets (this has 33)'],
    ['a name of 20 characters in 40 octets', { id: 'r', name: 'é'.repeat(20) }, 'at most 32 octets (this has 40)'],
    ['a revision beyond 65535', { id: 'r', revision: 65_536 }, 'a revision, a whole number from 0 to 65535'],
  ])('refuses %s', (_, region, text) => expect(problems(region).join('\n')).toContain(text));
  it('takes a name of 32 octets, 64 instances and MSTID 4094', () => {
    expect(
      problems({
        id: 'r',
        name: 'é'.repeat(16),
        revision: 65_535,
        instances: [...instances(...Array.from({ length: 63 }, (_, i) => String(i + 1))), { id: 4094, vlans: '4094' }],
      }),
    ).toEqual([]);
  });
});

const region = (design: Design) => design.regions[0]!;
const command = (value: object): Command => commandSchema.parse(value);
const done = (design: Design, value: object): Design => {
  const edited = edit(design, command(value));
  if (!edited.ok) throw new Error(problemText(edited.error));
  return edited.value.design;
};

describe('laying VLANs onto instances', () => {
  const vlans = fc
    .array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.nat(6)), { minLength: 1, maxLength: 3 })
    .map((ranges) => ranges.map(([first, more]) => `${first}-${first + more}`).join(','));
  it.each(parts(2, 30))('moves them out of where they were, and nothing else; and can be taken back (%#)', (runs) => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(vlans, fc.integer({ min: 0, max: 5 })), { minLength: 1, maxLength: 6 }),
        (moves) => {
          let design = valleyStation();
          for (const [text, instance] of moves) {
            const edited = edit(design, command({ do: 'map-vlans', region: 'valley', vlans: text, instance }));
            if (!edited.ok) throw new Error(problemText(edited.error));
            expect(applyChange(edited.value.design, edited.value.inverse)).toEqual(design);
            const instanceIn = (of: Design, vid: number) =>
              region(of).instances.find((each) => vlanSet(each.vlans).has(vid))?.id ?? 0;
            for (let vid = 1; vid <= 90; vid += 1)
              expect(instanceIn(edited.value.design, vid)).toBe(
                vlanSet(text).has(vid) ? instance : instanceIn(design, vid),
              );
            design = edited.value.design;
          }
          expect(readDesign(leanDesign(design))).toMatchObject({ ok: true });
        },
      ),
      runs,
    );
  });
  it('refuses a 65th instance, leaving all as it was', () => {
    const full = done(valleyStation(), {
      do: 'set-region',
      region: 'valley',
      instances: Array.from({ length: 64 }, (_, i) => ({ id: i + 1, vlans: '' })),
    });
    expect(edit(full, command({ do: 'map-vlans', region: 'valley', vlans: '15', instance: 65 }))).toMatchObject({
      ok: false,
      error: { found: '65 instances' },
    });
  });
  it('refuses overlapping maps that are set at once', () => {
    const overlap = edit(
      valleyStation(),
      command({ do: 'set-region', region: 'valley', instances: instances('15,25', '25') }),
    );
    expect(overlap).toMatchObject({ ok: false, error: { found: '25' } });
  });
});

describe('regions that go', () => {
  it('take what was set for instances that no region has any more', () => {
    const [gone, kept] = [
      done(done(valleyStation(), { do: 'remove-region', region: 'valley-gatehouse' }), {
        do: 'remove-instance',
        region: 'valley',
        instance: 2,
      }),
      valleyStation(),
    ];
    expect(kept.switches[0]!.trees).toHaveProperty('mst:2');
    expect(gone.switches[0]!.trees).not.toHaveProperty('mst:2');
    expect(gone.switches[0]!.trees).toHaveProperty('mst:1');
    expect(gone.switches.find((sw) => sw.id === 'gatehouse')).not.toHaveProperty('region');
  });
  it('must be there to be changed, and switches join those that are', () => {
    for (const value of [
      { do: 'remove-region', region: 'x' },
      { do: 'map-vlans', region: 'x', vlans: '1', instance: 1 },
      { do: 'remove-instance', region: 'valley', instance: 9 },
      { do: 'set-switch', switch: 'ferry', region: 'x' },
    ]) {
      expect(edit(valleyStation(), command(value))).toMatchObject({ ok: false });
    }
  });
  it('are told in words', () => {
    const design = valleyStation();
    expect(
      [
        { do: 'map-vlans', region: 'valley', vlans: '45', instance: 0 },
        { do: 'set-region', region: 'valley', revision: 5 },
        { do: 'set-switch', switch: 'gatehouse', region: 'valley' },
        { do: 'set-external-cost', switch: 'weir', port: '1', cost: 7 },
      ].map((value) => describeCommand(design, command(value))),
    ).toEqual([
      'region VALLEY (number 1 of 2 of this name): VLANs 45 to the IST',
      'region VALLEY (number 1 of 2 of this name): revision 4 to 5',
      'gatehouse: region settings VALLEY (number 2 of 2 of this name) to VALLEY (number 1 of 2 of this name)',
      'external cost of weir port 1: as its cost to 7',
    ]);
    expect(editAll(design, [command({ do: 'set-external-cost', switch: 'weir', port: '1', cost: 7 })])).toMatchObject({
      ok: true,
    });
  });
});
