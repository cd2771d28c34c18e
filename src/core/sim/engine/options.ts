/** How a simulation is run. */
import type { TreeId } from '../../model/ids';
import type { compileNetwork } from '../../topology/network';
import type { Outside } from './outside';

export interface SimulationOptions {
  /** Members of bundles that are single ports as yet. */
  readonly absent?: readonly number[];
  /** Trees that are not run, since one that is run fares alike: the place of that one. */
  readonly alike?: ReadonlyMap<TreeId, number>;
  /** Runs every hello, also those that say nothing new. */
  readonly everyHello?: boolean;
  /** What is not simulated: its cables are real. Every hello is run then. */
  readonly outside?: Outside;
  /** Compiles a state of the network. */
  readonly compile?: typeof compileNetwork;
}
