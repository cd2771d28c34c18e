/** MSTP comes to rest where the solver says: every tree of every region, whatever the neighbours. */
import fc from 'fast-check';
import type { Design } from '../design/schema';
import { SECOND } from '../protocol/entity';
import { regionsDesign } from '../testing/networks';
import { turnLinks } from '../testing/turns';
import { compileNetwork } from '../tree/network';
import { viewTree, type SwitchView, type TreeView } from '../tree/settled';
import { solveTrees } from '../tree/solve';
import { treesOf } from '../tree/trees';
import { Simulation } from './simulation';
import { viewNow } from './view';

const REST = 120 * SECOND;

/** Where the protocols have a tree otherwise than the solver. */
function unlike(sim: Simulation, design: Design): object[] {
  const network = compileNetwork(design);
  return solveTrees(network, treesOf(design)).flatMap((tree) => {
    const [should, is] = [viewTree(network, tree), viewNow(sim, sim.trees.indexOf(tree.id))];
    return Object.keys({ ...should.switches, ...is.switches }).flatMap((sw) => {
      const of = (view: TreeView) => view.switches[sw as never];
      return JSON.stringify(sorted(live(of(should)))) === JSON.stringify(sorted(live(of(is)))) ? [] : [{ tree: tree.id, sw, should: of(should), is: of(is) }];
    });
  });
}
/** The cost of a port without signal is that of the side on which it was last; nothing comes of it. */
const live = (view: SwitchView | undefined) => view && { ...view, ports: Object.fromEntries(Object.entries(view.ports).map(([port, part]) => [port, 'role' in part && part.role === 'disabled' ? { role: part.role } : part])) };
const sorted = (value: unknown): unknown => (value && typeof value === 'object' ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, part]) => [key, sorted(part)])) : value);

it('in random networks of up to three regions, beside rapid and classic bridges, from boot and after cuts', () => {
  fc.assert(fc.property(regionsDesign(), fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) => {
    const sim = new Simulation(compileNetwork(design), treesOf(design), seed);
    sim.boot();
    sim.runTo(REST);
    expect(unlike(sim, design)).toEqual([]);
    turnLinks(sim, design, turns, REST, (now) => expect(unlike(sim, now)).toEqual([]));
  }), { numRuns: Number(process.env.RUNS ?? 60) });
});
