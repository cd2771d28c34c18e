/** Ports that speak otherwise than their switches, at random. */
import fc from 'fast-check';
import type { Bundle, Design, Port, PortDialect } from '../model/document';

/** A design in which some ports and bundles speak one of `dialects`. */
export const otherwise = (
  designs: fc.Arbitrary<Design>,
  dialects: readonly PortDialect[],
  oneIn = 5,
): fc.Arbitrary<Design> =>
  fc.tuple(designs, fc.infiniteStream(fc.nat(oneIn * dialects.length - 1))).map(([design, draws]) => {
    const speakingOf = <T extends Port | Bundle>(port: T): T => {
      const speaks = dialects[draws.next().value as number];
      return speaks ? { ...port, speaks } : port;
    };
    return {
      ...design,
      switches: design.switches.map((sw) => ({ ...sw, ports: sw.ports.map(speakingOf) })),
      bundles: design.bundles.map(speakingOf),
    };
  });
