/** A network to watch with no hardware: the switches of a design, simulated, with its scenarios one after the other. */
import { randomBytes } from 'node:crypto';
import type { WatchSettings } from '../../contract/observe';
import { fail, ok, type Result } from '../../core/base/result';
import type { Design } from '../../core/model/document';
import type { Scenario } from '../../core/model/scenario';
import type { Credential } from '../../snmp/credentials';
import type { StandIns } from '../../snmp/standIns';
import { log } from '../log';

const PORT = 16_100;
/** Seconds before the first scenario begins, and between one and the next. */
const QUIET = 15;
const TICK_MS = 200;

interface Demo {
  readonly standIns: StandIns;
  readonly timer: ReturnType<typeof setInterval>;
  readonly credential: Credential;
  readonly net: number;
}
const held = globalThis as typeof globalThis & { knotPathDemos?: Map<string, Demo> };
const demos = (): Map<string, Demo> => (held.knotPathDemos ??= new Map());

/** The name by which its credential is called. */
export const DEMO = 'demo';
export const demoCredential = (design: string): Credential | null => demos().get(design)?.credential ?? null;

/** Starts it, and gives how it is watched; the error is a sentence. */
export async function startDemo(id: string, design: Design): Promise<Result<WatchSettings, string>> {
  stopDemo(id);
  if (design.switches.length === 0) return fail('There is no switch to simulate yet.');
  // Loaded only here: the library is large.
  const { loopbackFrom, startStandIns } = await import('../../snmp/standIns');
  const taken = new Set([...demos().values()].map(({ net }) => net));
  let net = 100;
  while (taken.has(net)) net += 1;
  if (net > 200) return fail('Too many networks are simulated: stop one of them.');
  const addresses = loopbackFrom(`127.${net}.0.1`, design.switches.length);
  if (!addresses.ok) return addresses;
  const credential: Credential = { version: '2c', community: randomBytes(12).toString('hex') };
  const troubles: string[] = [];
  const standIns = startStandIns(design, {
    ...{ addresses: addresses.value, port: PORT, credential, speed: 1 },
    failed: (address, error) => {
      troubles.push(`${address} port ${PORT}: ${error.message}`);
      log.warn({ address, error }, 'a simulated switch cannot answer');
    },
  });
  const timer = setInterval(goesWrong(design, standIns), TICK_MS);
  timer.unref();
  demos().set(id, { standIns, timer, credential, net });
  await new Promise((done) => setTimeout(done, TICK_MS));
  const [trouble] = troubles;
  if (trouble !== undefined) {
    stopDemo(id);
    return fail(`The simulated switches cannot answer at this machine's own addresses: ${trouble}.`);
  }
  return ok({
    on: true,
    source: { addresses: [addresses.value[0]!], within: [`127.${net}.0.0/16`], credentials: DEMO, port: PORT },
    ...{ every: 5, rules: ['a switch does not answer', 'more than 3 topology changes in an hour'] },
    ...{ webhook: null, syslog: null, days: 1, mib: 50 },
  });
}

/** Scenario after scenario, with everything as designed in between. */
function goesWrong(design: Design, { stage }: StandIns): () => void {
  const scenarios: Pick<Scenario, 'actions' | 'until'>[] =
    design.scenarios.length > 0 ? design.scenarios : aCableIsCut(design);
  let turn = 0;
  let next = QUIET;
  let ends = Infinity;
  return () => {
    const { seconds } = stage;
    if (seconds >= ends) {
      stage.restore();
      next = seconds + QUIET;
      ends = Infinity;
    } else if (seconds >= next && scenarios.length > 0) {
      const scenario = scenarios[turn % scenarios.length]!;
      stage.play(scenario);
      turn += 1;
      next = Infinity;
      ends = seconds + scenario.until;
    }
    stage.tick();
  };
}

/** For a design without scenarios. */
const aCableIsCut = ({ links }: Design): Pick<Scenario, 'actions' | 'until'>[] =>
  links.slice(0, 1).map(({ id }) => ({ actions: [{ at: 1, do: 'link-down', link: id, light: false }], until: 30 }));

export function stopDemo(id: string): void {
  const demo = demos().get(id);
  if (!demo) return;
  clearInterval(demo.timer);
  demo.standIns.close();
  demos().delete(id);
}

export const stopDemos = (): void => [...demos().keys()].forEach(stopDemo);
