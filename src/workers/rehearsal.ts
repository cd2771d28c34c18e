/** Runs for nothing: code that has run before is several times as fast. */
import type { Design } from '../core/model/document';
import { DEFAULT_TALK, type Scenario } from '../core/model/scenario';
import { simulateInSteps } from '../core/sim/simulate';

/** Something of everything, a few times: a switch dies, ports move, addresses are learnt anew. */
export const rehearsals = ({ switches }: Design): Scenario[] =>
  switches.slice(0, 6).map((sw) => ({
    actions: [{ at: 0.1, do: 'switch-down', switch: sw.id }],
    until: 15,
    talk: DEFAULT_TALK,
    fromBoot: false,
  }));

/** Messages and timers of a rehearsal: a large network is not run to its end for nothing. */
const REHEARSED = 15_000;

/** Booted: that ends with so many events, while a large network takes its time to be brought to rest. */
export const rehearse = (design: Design, scenario: Scenario): ReturnType<typeof simulateInSteps> =>
  simulateInSteps(design, scenario, { mostFrames: 1000, mostEvents: REHEARSED, begins: 'booted' });
