/** Which member a flow takes: always the same one, and only the flows of a lost member move. */
import fc from 'fast-check';
import { HASH_POLICIES } from '../../model/document';
import { BROADCAST, bucketCount, bucketOwner, hashOf, memberFor, type Flow } from './hash';

const octet = fc.integer({ min: 0, max: 255 });
const mac = fc
  .array(octet, { minLength: 5, maxLength: 5 })
  .map((octets) => ['02', ...octets.map((each) => each.toString(16).padStart(2, '0'))].join(':'));
const ip = fc.integer({ min: 1, max: 254 }).map((n) => `192.0.2.${n}`);
const flow: fc.Arbitrary<Flow> = fc
  .record({
    from: mac,
    to: mac,
    ip: fc.option(fc.record({ from: ip, to: ip, fromPort: fc.nat(65_535), toPort: fc.nat(65_535) }), {
      nil: undefined,
    }),
  })
  .map(({ ip: given, ...rest }) => (given ? { ...rest, ip: given } : rest));
const members = fc.integer({ min: 1, max: 16 }).chain((count) =>
  fc.record({
    count: fc.constant(count),
    active: fc.subarray(
      Array.from({ length: count }, (_, i) => i),
      { minLength: 1 },
    ),
  }),
);

it.each(HASH_POLICIES)(
  'by layer %s every flow takes one active member, and stays on it while others come and go',
  (policy) => {
    fc.assert(
      fc.property(flow, members, fc.nat(), (each, { count, active }, pick) => {
        const member = memberFor(policy, each, count, active);
        expect(active).toContain(member);
        const lost = active[pick % active.length]!;
        const after = memberFor(
          policy,
          each,
          count,
          active.filter((m) => m !== lost),
        );
        if (active.length === 1) expect(after).toBe(-1);
        else if (member === lost) expect(active.filter((m) => m !== lost)).toContain(after);
        // Among all members, who is not lost keeps what it has.
        const full = Array.from({ length: count }, (_, i) => i);
        const before = memberFor(policy, each, count, full);
        if (count > 1 && before !== lost)
          expect(
            memberFor(
              policy,
              each,
              count,
              full.filter((m) => m !== lost),
            ),
          ).toBe(before);
      }),
    );
  },
);

it('deals buckets as evenly as their number lets it', () => {
  for (let count = 1; count <= 16; count += 1) {
    const full = Array.from({ length: count }, (_, i) => i);
    const shares = full.map(
      (m) =>
        Array.from({ length: bucketCount(count) }, (_, b) => bucketOwner(b, count, full)).filter((owner) => owner === m)
          .length,
    );
    expect(Math.max(...shares) - Math.min(...shares)).toBeLessThanOrEqual(1);
  }
});

it('folds the octets of addresses, and of ports where it looks at them', () => {
  const ip = { from: '192.0.2.1', to: '198.51.100.2', fromPort: 0x1234, toPort: 80 };
  const each: Flow = { from: '02:00:00:00:00:a1', to: '02:00:00:00:00:0f', ip };
  const macs = 0xa1 ^ 0x0f;
  const ips = 192 ^ 2 ^ 1 ^ 198 ^ 51 ^ 100 ^ 2;
  expect(hashOf('2', each)).toBe(macs);
  expect(hashOf('2+3', each)).toBe(macs ^ ips);
  expect(hashOf('3+4', each)).toBe(ips ^ 0x12 ^ 0x34 ^ 80);
  expect(hashOf('2+3', { from: each.from, to: each.to })).toBe(macs);
  expect(hashOf('2', { from: '02:00:00:00:00:00', to: BROADCAST })).toBe(2);
});

it('has eight buckets up to eight members, sixty-four above, and deals those of a lost member in turn', () => {
  expect([1, 8, 9, 16].map(bucketCount)).toEqual([8, 8, 64, 64]);
  expect([0, 4, 8, 12].map((bucket) => bucketOwner(bucket, 4, [1, 2, 3]))).toEqual([1, 2, 3, 1]);
  expect(bucketOwner(5, 4, [1, 2, 3])).toBe(1);
  const flow: Flow = { from: '02:00:00:00:00:00', to: '02:00:00:00:00:0b' };
  expect(memberFor('2', flow, 4, [0, 1, 2, 3])).toBe((0x0b % 8) % 4);
});

it('looks at what its policy says, and at nothing else', () => {
  const base: Flow = {
    from: '02:00:00:00:00:01',
    to: '02:00:00:00:00:02',
    ip: { from: '192.0.2.1', to: '192.0.2.2', fromPort: 50_000, toPort: 80 },
  };
  const otherPort: Flow = { ...base, ip: { ...base.ip!, fromPort: 50_001 } };
  const otherIp: Flow = { ...base, ip: { ...base.ip!, from: '192.0.2.9' } };
  expect([hashOf('2', otherPort), hashOf('2+3', otherPort)]).toEqual([hashOf('2', base), hashOf('2+3', base)]);
  expect(hashOf('3+4', otherPort)).not.toBe(hashOf('3+4', base));
  expect(hashOf('2', otherIp)).toBe(hashOf('2', base));
  expect(hashOf('2+3', otherIp)).not.toBe(hashOf('2+3', base));
  expect(hashOf('3+4', { ...base, from: '02:00:00:00:00:0f' })).toBe(hashOf('3+4', base));
  expect(hashOf('3+4', { from: base.from, to: BROADCAST })).toBe(hashOf('2', { from: base.from, to: BROADCAST }));
});
