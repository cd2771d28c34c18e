/** Guards at random on a design's ports. */
import fc from 'fast-check';
import type { Bundle, Design, Port } from '../model/document';
import type { PortId, SwitchId } from '../model/ids';
import { SECOND } from '../modes/entity';
import { readScenario } from '../sim/scenario/scenario';
import { simulate } from '../sim/simulate';
import { Player, traceOf } from '../sim/trace/trace';
import { compileNetwork } from '../topology/network';

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

/** What comes of actions; throws where they don't fit. */
export function run(design: Design, actions: readonly object[], until: number, fromBoot = false) {
  const scenario = readScenario({ actions, until }, design);
  if (!scenario.ok) throw new Error(JSON.stringify(scenario.error));
  const ran = simulate(design, scenario.value, { fromBoot });
  if (!ran.ok) throw new Error(ran.error);
  return ran.value;
}

/** The seconds at which a port is shut or opens. */
export const shutTimes = (ran: ReturnType<typeof run>, sw: string, port: string): number[] => {
  const { network, trace } = { network: compileNetwork(ran.design, null, []), trace: traceOf(ran, [], ran.reached) };
  const p = network.portIndexOf(sw as SwitchId, port as PortId);
  const player = new Player(trace);
  return [...player.moments]
    .filter((t) => player.at(t).shut(p) !== (t === 0 ? 0 : player.at(t - 1).shut(p)))
    .map((t) => Math.round(t / SECOND));
};
