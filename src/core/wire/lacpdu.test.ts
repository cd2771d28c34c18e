/** LACPDUs in octets. */
import fc from 'fast-check';
import { SLOW_GROUP, decodeLacpFrame, encodeLacpFrame, type WireParticipant } from './lacpdu';

const u16 = fc.integer({ min: 0, max: 65_535 });
const mac = fc
  .array(fc.integer({ min: 0, max: 255 }), { minLength: 6, maxLength: 6 })
  .map((octets) => octets.map((each) => each.toString(16).padStart(2, '0')).join(':'));
const participant: fc.Arbitrary<WireParticipant> = fc.record({
  systemPriority: u16,
  system: mac,
  key: u16,
  portPriority: u16,
  port: u16,
  state: fc.integer({ min: 0, max: 255 }),
});

it('reads back what it writes, 110 octets after the EtherType', () => {
  fc.assert(
    fc.property(mac, participant, participant, (from, actor, partner) => {
      const octets = encodeLacpFrame(from, { actor, partner });
      expect(octets).toHaveLength(14 + 110);
      expect(decodeLacpFrame(octets)).toEqual({ ok: true, value: { to: SLOW_GROUP, from, actor, partner } });
    }),
  );
});

it('says why a frame is no LACPDU', () => {
  const [actor] = fc.sample(participant, 1);
  const good = encodeLacpFrame('02:00:00:00:00:01', { actor: actor!, partner: actor! });
  const with_ = (at: number, octet: number): Uint8Array => good.map((each, i) => (i === at ? octet : each));
  expect(decodeLacpFrame(with_(12, 0x08))).toEqual({ ok: false, error: expect.stringContaining('EtherType 0x0809') });
  expect(decodeLacpFrame(with_(14, 2))).toEqual({ ok: false, error: 'subtype 2, not LACP' });
  expect(decodeLacpFrame(with_(16, 9))).toEqual({ ok: false, error: expect.stringContaining('part 9') });
  expect(decodeLacpFrame(good.slice(0, 40))).toEqual({
    ok: false,
    error: expect.stringContaining('ends after 40 octets'),
  });
});
