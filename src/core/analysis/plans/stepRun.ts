/** One step of a plan run by the protocols: who is cut off while the network goes over from one state to the next. */
import { fail, ok, type Result } from '../../base/result';
import type { Design, Port, Switch } from '../../model/document';
import type { HostId } from '../../model/ids';
import { DEFAULT_TALK } from '../../model/scenario';
import { costOf, type PairCost } from '../../sim/report/cost';
import { simulate } from '../../sim/simulate';

/** When a step is done, and how long the network is watched, seconds. */
const DONE_AT = 1;
const WATCHED = 60;

export interface StepRun {
  /** The pair that was cut off longest; null where none was. */
  readonly worst: PairCost | null;
  /** Pairs that were cut off. */
  readonly pairs: number;
  /** Frames circled without end. */
  readonly loops: boolean;
}

/** Runs a step; `counts` says of which pairs; the error is a sentence. */
export function runStep(
  from: Design,
  to: Design,
  counts: (from: HostId, to: HostId) => boolean,
): Result<StepRun, string> {
  if (JSON.stringify(from.bundles) !== JSON.stringify(to.bundles)) return fail('Not run: bundles change.');
  const [before, after] = staged(from, to);
  const done = simulate(
    before,
    { actions: [], until: DONE_AT + WATCHED, talk: DEFAULT_TALK, fromBoot: false },
    { becomes: { at: DONE_AT, design: after }, mostFrames: 0, views: false },
  );
  if (!done.ok) return fail(done.error);
  const { outages, storms } = done.value;
  const { pairs } = costOf(
    outages.filter((outage) => outage.start >= DONE_AT && counts(outage.from, outage.to)),
    DONE_AT + WATCHED,
  );
  return ok({ worst: pairs[0] ?? null, pairs: pairs.length, loops: storms.some(({ endless }) => endless) });
}

/** Both states with the same switches and ports: those that one of them has alone are dead in the other. */
function staged(from: Design, to: Design): readonly [Design, Design] {
  const ids = [...new Set([...from.switches, ...to.switches].map(({ id }) => id))];
  const dead = (port: Port): Port => ({ ...port, up: false });
  const withAll = (design: Design, other: Design): Design => ({
    ...design,
    hosts: from.hosts.map((host) => {
      const own = design.hosts.find(({ id }) => id === host.id);
      return own ? { ...host, attach: own.attach } : host;
    }),
    switches: ids.map((id): Switch => {
      const own = design.switches.find((sw) => sw.id === id);
      const far = other.switches.find((sw) => sw.id === id);
      if (!own) return { ...far!, up: false };
      const order = [
        ...new Set(
          [...from.switches, ...to.switches].flatMap((sw) => (sw.id === id ? sw.ports.map((port) => port.id) : [])),
        ),
      ];
      return {
        ...own,
        ports: order.map(
          (port) => own.ports.find((each) => each.id === port) ?? dead(far!.ports.find((each) => each.id === port)!),
        ),
      };
    }),
  });
  return [withAll(from, to), withAll(to, from)];
}
