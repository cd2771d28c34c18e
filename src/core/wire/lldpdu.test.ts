/** LLDPDUs read back by ourselves, whatever is in them, and by the packet analyser. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { decodeLldpFrame, encodeLldpFrame } from './lldpdu';
import { encodePcapng } from './pcapng';

const mac = fc
  .uint8Array({ minLength: 5, maxLength: 5 })
  .map((octets) => ['02', ...Array.from(octets, (octet) => octet.toString(16).padStart(2, '0'))].join(':'));
const frame = fc.record({
  from: mac,
  chassis: mac,
  port: fc.string({ minLength: 1, maxLength: 60, unit: 'grapheme' }),
  ttl: fc.nat(65_535),
  systemName: fc.option(fc.string({ maxLength: 60, unit: 'grapheme' })),
});

it('are read as they were written', () => {
  fc.assert(
    fc.property(frame, (said) => expect(decodeLldpFrame(encodeLldpFrame(said))).toEqual({ ok: true, value: said })),
  );
});

it('never fail to be read, or to be refused with a reason, whatever the octets', () => {
  fc.assert(
    fc.property(frame, fc.array(fc.tuple(fc.nat(), fc.nat(255))), fc.nat(), (said, changes, length) => {
      const octets = encodeLldpFrame(said);
      for (const [at, to] of changes) octets[at % octets.length] = to;
      const read = decodeLldpFrame(octets.slice(0, length % (octets.length + 1)));
      expect(read.ok || read.error.length > 0).toBe(true);
    }),
  );
});

it('cuts a name that is too long, between letters', () => {
  const read = decodeLldpFrame(
    encodeLldpFrame({
      from: '02:00:00:00:00:01',
      chassis: '02:00:00:00:00:01',
      port: 'p',
      ttl: 1,
      systemName: 'ä'.repeat(300),
    }),
  );
  expect(read).toMatchObject({ ok: true, value: { systemName: 'ä'.repeat(127) } });
});

const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-lldp-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const analyser = spawnSync('tshark', ['--version']).error ? it.skip : it;
analyser('are what the packet analyser reads', () => {
  const said = {
    from: '06:00:00:01:00:03',
    chassis: '02:00:00:00:00:01',
    port: 'port3',
    ttl: 121,
    systemName: 'ridge-a',
  };
  const file = path.join(folder, 'one.pcapng');
  writeFileSync(file, encodePcapng({ interfaces: ['x'], frames: [{ t: 0, at: 0, octets: encodeLldpFrame(said) }] }));
  const fields = ['lldp.chassis.id.mac', 'lldp.port.id', 'lldp.time_to_live', 'lldp.tlv.system.name', '_ws.malformed'];
  const { stdout } = spawnSync('tshark', ['-r', file, '-T', 'fields', ...fields.flatMap((field) => ['-e', field])], {
    encoding: 'utf8',
  });
  expect(stdout.trim().split('\t')).toEqual(['02:00:00:00:00:01', 'port3', '121', 'ridge-a']);
});
