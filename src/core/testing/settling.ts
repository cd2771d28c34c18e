/** Holding what the protocols have come to against what the solver says, field by field. */
import type { Design } from '../model/document';
import { SECOND } from '../modes/entity';
import { Simulation } from '../sim/engine/simulation';
import { viewNow } from '../sim/trace/view';
import { compileNetwork } from '../topology/network';
import { viewTree, type SwitchView, type TreeView } from '../tree/settled';
import { solveTrees } from '../tree/solve';
import { treesOf } from '../topology/trees';
import { turnLinks } from './turns';

/** Long enough for two forward delays after the oldest information has died. */
const REST = 120 * SECOND;

/** A network from boot on, until a moment. */
export function booted(design: Design, seed = 1, until = REST): Simulation {
  const sim = new Simulation(compileNetwork(design), treesOf(design), seed);
  sim.boot();
  sim.runTo(until);
  return sim;
}

/** Switches of which the protocols have a tree otherwise than the solver; empty where all agree. */
export function unlike(sim: Simulation, design: Design): object[] {
  const network = compileNetwork(design);
  return solveTrees(network, treesOf(design)).flatMap((tree) => {
    const place = sim.trees.indexOf(tree.id);
    const [should, is] = [viewTree(network, tree), viewNow(sim, place < 0 ? 0 : place)]; // the common tree goes by several names
    return Object.keys({ ...should.switches, ...is.switches }).flatMap((sw) => {
      const of = (view: TreeView) => view.switches[sw as never];
      return JSON.stringify(sorted(told(of(should)))) === JSON.stringify(sorted(told(of(is))))
        ? []
        : [{ tree: tree.id, sw, should: of(should), is: of(is) }];
    });
  });
}

/** What is unlike the solver once a network has come to rest from boot, and after each link that is cut or plugged in again, within `rest`; empty where all agree. */
export function unlikeAtRest(design: Design, seed: number, turns: readonly number[], rest = REST): object[] {
  const sim = booted(design, seed, rest);
  const found = unlike(sim, design);
  turnLinks(sim, design, turns, rest, (now) => found.push(...unlike(sim, now)));
  return found;
}

/** The cost of a port that hears nothing is that of the side on which it did last, and nothing comes of it. */
const told = (view: SwitchView | undefined) =>
  view && {
    ...view,
    ports: Object.fromEntries(
      Object.entries(view.ports).map(([port, part]) => [
        port,
        'role' in part && (part.role === 'disabled' || part.role === 'designated')
          ? { role: part.role, state: part.state }
          : part,
      ]),
    ),
  };

const sorted = (value: unknown): unknown =>
  value && typeof value === 'object'
    ? Object.fromEntries(
        Object.entries(value)
          .sort(([a], [b]) => (a < b ? -1 : 1))
          .map(([key, part]) => [key, sorted(part)]),
      )
    : value;
