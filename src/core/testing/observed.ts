/** What the network of a design tells once it has come to rest. */
import { observeRun } from '../exchange/observation/ofRun';
import type { Observation } from '../exchange/observation/observation';
import type { Design } from '../model/document';
import { SECOND } from '../modes/entity';
import { Simulation } from '../sim/engine/simulation';
import { compileNetwork } from '../topology/network';
import { treesOf } from '../topology/trees';

export function observedAtRest(design: Design): Observation {
  const simulation = new Simulation(compileNetwork(design), treesOf(design));
  simulation.boot();
  simulation.runTo(150 * SECOND);
  const switches = observeRun(simulation, design);
  return { format: 'knot-path-observation', version: 1, at: '2026-01-01T00:00:00Z', switches, leftOut: [] };
}
