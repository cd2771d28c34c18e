/**
 * What observed settings come to by the standards, beside what the switches say: where these differ, something was not read,
 * the network had not settled, or somebody does not do what the standard says.
 */
import { counted } from '../../base/words';
import { ok, type Result } from '../../base/result';
import { nameOf } from '../../model/names';
import type { Design } from '../../model/document';
import { solve } from '../../tree/solve';
import { compareObserved } from './compare/compare';
import type { Difference } from './compare/difference';
import { drawn } from './draw/draw';
import type { Observation } from './observation';

export interface Prediction {
  /** What was drawn from the settings that were told. */
  readonly design: Design;
  readonly doubts: readonly string[];
  /** Roots, roles and states that are told otherwise: `designed` is what was predicted. */
  readonly differences: readonly Difference[];
  readonly compared: number;
  /** What was not read and may be why, in sentences: what to ask for. */
  readonly asks: readonly string[];
}

/** Seconds: who has changed since then may not have been at rest. */
const SETTLING = 60;

/** The error is a sentence. */
export function predict(observation: Observation): Result<Prediction, string> {
  const all = drawn(observation);
  if (!all.ok) return all;
  const { design, doubts } = all.value;
  const { differences, compared, matches } = compareObserved(solve(design), observation);
  const asks = [
    ...matches.unseen.map((sw) => `${nameOf(sw)} was told of by its neighbours and not read: read it, too.`),
    ...observation.switches.flatMap((sw) =>
      sw.missing.map((sentence) => `${sw.name || sw.source}: ${sentence.charAt(0).toLowerCase()}${sentence.slice(1)}`),
    ),
  ];
  const moving = observation.switches.filter(({ trees }) =>
    trees.some(({ sinceTopologyChange, topologyChanges }) => topologyChanges > 0 && sinceTopologyChange < SETTLING),
  );
  if (moving.length > 0)
    asks.push(
      `${counted(moving.length, 'switch', 'switches')} told of a topology change less than ${SETTLING} s before: read again once the network is at rest.`,
    );
  return ok({
    ...{ design, doubts, compared, asks },
    differences: differences.filter(({ harm }) => harm === 'root' || harm === 'path' || harm === 'bundle'),
  });
}
