import fc from 'fast-check';
import { decodeBpdu, encodeBpdu, type WireBpdu } from './bpdu';
import { BRIDGE_GROUP, PER_VLAN_GROUP, decodeFrame, encodeFrame } from './ethernet';
import { decodePcapng, encodePcapng } from './pcapng';

const mac = fc
  .uint8Array({ minLength: 5, maxLength: 5 })
  .map((octets) => ['02', ...Array.from(octets, (octet) => octet.toString(16).padStart(2, '0'))].join(':'));
const id = fc.record({ priority: fc.integer({ min: 0, max: 0xffff }), mac });
const time = fc.integer({ min: 0, max: 0xffff }).map((n) => n / 256);
const info = {
  root: id,
  rootPathCost: fc.integer({ min: 0, max: 0xffffffff }),
  bridge: id,
  port: fc.integer({ min: 0, max: 0xffff }),
  messageAge: time,
  maxAge: time,
  hello: time,
  forwardDelay: time,
  tc: fc.boolean(),
};
const flags = {
  role: fc.constantFrom('alternate' as const, 'root' as const, 'designated' as const, 'master' as const),
  proposal: fc.boolean(),
  learning: fc.boolean(),
  forwarding: fc.boolean(),
  agreement: fc.boolean(),
};
const octet = fc.integer({ min: 0, max: 255 });
const anyBpdu: fc.Arbitrary<WireBpdu> = fc.oneof(
  fc.constant({ kind: 'tcn' } as const),
  fc.record({ kind: fc.constant('config' as const), ...info, tcAck: fc.boolean() }),
  fc.record({ kind: fc.constant('rst' as const), ...info, ...flags }),
  fc.record({
    kind: fc.constant('mst' as const),
    ...info,
    ...flags,
    mst: fc.record({
      configurationId: fc.record({
        name: fc.stringMatching(/^[ -~]{0,32}$/),
        revision: fc.integer({ min: 0, max: 65_535 }),
        digest: fc.stringMatching(/^[0-9a-f]{32}$/),
      }),
      internalRootPathCost: info.rootPathCost,
      bridge: id,
      remainingHops: octet,
      instances: fc.array(
        fc.record({
          ...flags,
          tc: fc.boolean(),
          master: fc.boolean(),
          regionalRoot: id,
          internalRootPathCost: info.rootPathCost,
          bridgePriority: fc.integer({ min: 0, max: 15 }).map((n) => n * 4096),
          portPriority: fc.integer({ min: 0, max: 15 }).map((n) => n * 16),
          remainingHops: octet,
        }),
        { maxLength: 64 },
      ),
    }),
  }),
);
const hex = (octets: Uint8Array): string =>
  Array.from(octets, (octet) => octet.toString(16).padStart(2, '0')).join(' ');
const root: WireBpdu = {
  kind: 'rst',
  root: { priority: 32_783, mac: '02:4b:00:00:00:01' },
  rootPathCost: 20_000,
  bridge: { priority: 32_783, mac: '02:4b:00:00:00:0a' },
  port: 0x8001,
  messageAge: 1,
  maxAge: 20,
  hello: 2,
  forwardDelay: 15,
  tc: true,
  role: 'designated',
  proposal: true,
  learning: false,
  forwarding: false,
  agreement: false,
};

describe('BPDUs in octets', () => {
  it('read back as they were written', () =>
    fc.assert(fc.property(anyBpdu, (bpdu) => expect(decodeBpdu(encodeBpdu(bpdu))).toEqual({ ok: true, value: bpdu }))));
  it('have the lengths of the standard: 4, 35 and 36 octets, 102 and 16 for each instance', () =>
    fc.assert(
      fc.property(anyBpdu, (bpdu) =>
        expect(encodeBpdu(bpdu)).toHaveLength(
          bpdu.kind === 'mst' ? 102 + 16 * bpdu.mst.instances.length : { tcn: 4, config: 35, rst: 36 }[bpdu.kind],
        ),
      ),
    ));
  it('stand octet by octet as clause 14 has them', () =>
    expect(hex(encodeBpdu(root))).toBe(
      '00 00 02 02 0f 80 0f 02 4b 00 00 00 01 00 00 4e 20 80 0f 02 4b 00 00 00 0a 80 01 01 00 14 00 02 00 0f 00 00',
    ));
  it('are refused where they end too early, or are of another protocol', () => {
    fc.assert(
      fc.property(anyBpdu, fc.nat(), (bpdu, cut) => {
        const octets = encodeBpdu(bpdu);
        // An MST BPDU that ends before its instances is read as an RST BPDU (14.4).
        const part = decodeBpdu(octets.slice(0, cut % octets.length));
        if (bpdu.kind === 'mst' && part.ok) expect(part.value.kind).toBe('rst');
        else expect(part.ok).toBe(false);
      }),
    );
    expect(decodeBpdu(Uint8Array.from([0, 1, 0, 0]))).toEqual({ ok: false, error: 'protocol identifier 1, not 0' });
    expect(decodeBpdu(Uint8Array.from([0, 0, 0, 9]))).toEqual({
      ok: false,
      error: 'BPDU type 9 of version 0 is not known',
    });
  });
});

describe('frames', () => {
  const anyFrame = fc.record({
    to: fc.constantFrom(BRIDGE_GROUP, PER_VLAN_GROUP),
    from: mac,
    vlan: fc.option(fc.integer({ min: 1, max: 4094 })),
    bpdu: anyBpdu.map(encodeBpdu),
  });
  it('read back, and are never shorter than a frame may be', () => {
    fc.assert(
      fc.property(anyFrame, (frame) => {
        const octets = encodeFrame(frame);
        expect(octets.length).toBeGreaterThanOrEqual(60);
        expect(decodeFrame(octets)).toEqual({ ok: true, value: frame });
      }),
    );
  });
  it('that hold no BPDU are refused with the reason', () => {
    const octets = encodeFrame({ to: BRIDGE_GROUP, from: '02:00:00:00:00:01', vlan: null, bpdu: encodeBpdu(root) });
    expect(decodeFrame(octets.slice(0, 30))).toMatchObject({ ok: false, error: 'the frame ends after 30 octets' });
    const other = octets.slice();
    other[14] = 0xaa;
    expect(decodeFrame(other)).toMatchObject({ ok: false, error: 'no BPDU: another LLC header' });
    other.set([0x08, 0x00], 12);
    expect(decodeFrame(other)).toMatchObject({ ok: false, error: 'EtherType 0x800, not a length' });
  });
});

describe('captures', () => {
  const anyCapture = fc.record({
    interfaces: fc.array(fc.string({ maxLength: 40, unit: 'grapheme' }), { minLength: 1, maxLength: 4 }),
    frames: fc.array(
      fc.record({
        t: fc.integer({ min: 0, max: 2 ** 45 }),
        at: fc.constant(0),
        octets: fc.uint8Array({ minLength: 1, maxLength: 70 }),
      }),
      { maxLength: 6 },
    ),
  });
  it('read back as they were written', () =>
    fc.assert(
      fc.property(anyCapture, (capture) =>
        expect(decodePcapng(encodePcapng(capture))).toEqual({ ok: true, value: capture }),
      ),
    ));
  it('that are cut off are refused', () => {
    const bytes = encodePcapng({ interfaces: ['a 1 = b 1'], frames: [{ t: 1, at: 0, octets: encodeBpdu(root) }] });
    for (const length of [0, 20, 40, bytes.length - 4]) expect(decodePcapng(bytes.slice(0, length)).ok).toBe(false);
  });
});
