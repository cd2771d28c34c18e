/** Guards at random on a design's ports. */
import fc from 'fast-check';
import type { Bundle, Design, Port } from '../model/document';

export interface GuardKinds {
  readonly bpdu?: boolean;
  /** Edge ports, also on cables between switches. */
  readonly edge?: boolean;
  readonly root?: boolean;
  readonly loop?: boolean;
  readonly tcn?: boolean;
  readonly filter?: boolean;
}

/** A design with some of these guards on some of its ports and bundles. */
export const guarded = (designs: fc.Arbitrary<Design>, kinds: GuardKinds): fc.Arbitrary<Design> =>
  fc.tuple(designs, fc.infiniteStream(fc.nat(11))).map(([design, draws]) => {
    const draw = (): number => draws.next().value as number;
    const guardsOf = <T extends Port | Bundle>(port: T): T => ({
      ...port,
      edge: (kinds.bpdu ?? kinds.edge) ? draw() < 3 : port.edge,
      rootGuard: kinds.root === true && draw() < 3,
      loopGuard: kinds.loop === true && draw() < 5,
      restrictedTcn: kinds.tcn === true && draw() < 3,
      bpduRx: !kinds.filter || draw() > 1,
      bpduTx: !kinds.filter || draw() > 1,
      ...(kinds.bpdu && draw() < 2 ? { bpduGuard: draw() < 9 } : {}),
    });
    return {
      ...design,
      switches: design.switches.map((sw) => ({
        ...sw,
        edgeBpduGuard: kinds.bpdu === true && draw() < 3,
        ports: sw.ports.map(guardsOf),
      })),
      bundles: design.bundles.map(guardsOf),
    };
  });
