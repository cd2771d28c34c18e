/** How a simulation is run. */
import type { Alike } from './alikeTrees';

export interface SimulationOptions {
  /** Members of bundles that are single ports as yet. */
  readonly absent?: readonly number[];
  /** Trees that are run once and told as many. */
  readonly alike?: Alike;
  /** Runs every hello, also those that say nothing new. */
  readonly everyHello?: boolean;
}
