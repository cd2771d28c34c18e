/** Networks in which untagged VLANs differ, and some switches check. */
import fc from 'fast-check';
import type { Design, Port } from '../model/document';

/** A design whose trunks have any native VLAN, some of whose switches check. */
export const withVlanChecks = (designs: fc.Arbitrary<Design>): fc.Arbitrary<Design> =>
  fc.tuple(designs, fc.infiniteStream(fc.nat(11))).map(([design, draws]) => {
    const next = (): number => draws.next().value as number;
    const native = (port: Port): Port =>
      port.vlans.mode === 'trunk' ? { ...port, vlans: { ...port.vlans, native: [1, 15, 25][next() % 6] ?? 1 } } : port;
    return {
      ...design,
      switches: design.switches.map((sw) => ({ ...sw, vlanCheck: next() % 3 > 0, ports: sw.ports.map(native) })),
    };
  });
