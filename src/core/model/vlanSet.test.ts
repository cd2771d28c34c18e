import fc from 'fast-check';
import { MAX_VLAN, VlanSet, vlanSet, vlansText } from './vlanSet';

const ranges = fc.array(
  fc
    .tuple(fc.integer({ min: 1, max: MAX_VLAN }), fc.nat(300))
    .map(([first, more]): [number, number] => [first, Math.min(MAX_VLAN, first + more)]),
  { maxLength: 12 },
);

const parsed = (text: string) => {
  const result = VlanSet.parse(text);
  if (!result.ok) throw new Error(result.error.found);
  return result.value;
};

describe('a VLAN set', () => {
  it('is read back from its own text', () => {
    fc.assert(
      fc.property(ranges, (list) => expect(parsed(VlanSet.of(list).format()).format()).toBe(VlanSet.of(list).format())),
    );
  });

  it('holds exactly the VLANs of its ranges', () => {
    fc.assert(
      fc.property(ranges, fc.integer({ min: 0, max: 4095 }), (list, vid) =>
        expect(VlanSet.of(list).has(vid)).toBe(list.some(([first, last]) => first <= vid && vid <= last)),
      ),
    );
  });

  it('has one canonical text whatever the order, overlap and spaces', () => {
    expect(parsed(' 29, 15 ,25-28,26 - 27').format()).toBe('15,25-29');
    expect(parsed('1-4094').format()).toBe(VlanSet.all.format());
    expect(parsed('').isEmpty).toBe(true);
  });

  it.each([
    ['5-3', 0, 'backwards'],
    ['0', 0, 'VLAN 0'],
    ['15,4095', 3, 'VLAN 4095'],
    ['1-5000', 0, 'VLAN 5000'],
    ['15,,25', 3, 'empty'],
    ['15, x', 4, '"x"'],
    ['15, ', 4, 'empty'],
    ['5-3x', 0, '"5-3x"'],
    [' 9-3 ', 1, '"9-3", which runs'],
    ['-5', 0, '"-5"'],
    ['1.5', 0, '"1.5"'],
  ])('refuses %s, pointing at character %i', (text, at, found) => {
    const result = VlanSet.parse(text);
    expect(result).toMatchObject({
      ok: false,
      error: {
        at,
        found: expect.stringContaining(found) as string,
        allowed: expect.stringContaining('15,25-29') as string,
      },
    });
  });

  it('joins, meets and grows as sets do', () => {
    fc.assert(
      fc.property(ranges, ranges, fc.integer({ min: 1, max: MAX_VLAN }), (a, b, vid) => {
        const [one, two] = [VlanSet.of(a), VlanSet.of(b)];
        expect(one.union(two).has(vid)).toBe(one.has(vid) || two.has(vid));
        expect(one.intersect(two).has(vid)).toBe(one.has(vid) && two.has(vid));
        expect(one.with([vid]).format()).toBe(one.union(VlanSet.of([[vid, vid]])).format());
        expect(one.isEmpty).toBe(one.ranges().length === 0);
      }),
    );
  });

  it('reaches from the first VLAN to the last', () => {
    expect(VlanSet.all.ranges()).toEqual([[1, 4094]]);
    expect(VlanSet.of([[4094, 4094]]).format()).toBe('4094');
    expect(vlansText([4094, 15, 16])).toBe('15-16,4094');
    expect(parsed('   ').isEmpty).toBe(true);
  });

  it('of a checked design is legal, or nothing is', () => expect(() => vlanSet('0')).toThrow('not a VLAN set: 0'));

  it('tells what two sets do not share', () => {
    expect(vlanSet('1,15-20').differenceBothWays(vlanSet('15-18,25')).format()).toBe('1,19-20,25');
  });
});
