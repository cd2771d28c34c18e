/** The protocols come to rest where the solver says, whatever the network, the offsets and what is cut. */
import fc from 'fast-check';
import type { Design } from '../design/schema';
import { FAMILIES, meshDesign, randomDesign, solutionOf } from '../testing/networks';
import { roleOf, stateOf } from '../tree/settled';
import { SECOND } from '../protocol/entity';
import { Simulation } from './simulation';

/** Long enough for two forward delays after the oldest information has died. */
const REST = 120 * SECOND;

/** Every port that is not as the solver has it. */
function differences(sim: Simulation, design: Design): string[] {
  const { network, trees } = solutionOf(design);
  return trees.flatMap((tree) => {
    const t = sim.trees.indexOf(tree.id);
    return network.ports.flatMap((port, p): string[] => {
      const role = roleOf(tree, p);
      if (role === null) return sim.inTree(t, p) && network.switches[network.owner[p]!]!.up ? [`${tree.id} has port ${port.id}`] : [];
      const [state, wanted] = [sim.state(t, p), role === 'disabled' ? 'disabled' : stateOf(role)];
      const same = sim.role(t, p) === role && (state === 'blocking' ? 'discarding' : state) === wanted;
      return same ? [] : [`${tree.id} ${network.switches[network.owner[p]!]!.id} port ${port.id}: ${role}, not ${sim.role(t, p)} ${state}`];
    });
  });
}

const families = [...(Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]).map((family) => [family, randomDesign(family, family === 'hubs' ? 4 : 8)] as const), ['mesh', meshDesign] as const];

describe.each(families)('random networks, %s', (_, anyOf) => {
  it('settle to what the solver says, from boot and after every cable that is cut or plugged in again', () => {
    fc.assert(fc.property(anyOf, fc.nat(), fc.array(fc.nat(), { maxLength: 3 }), (design, seed, turns) => {
      const { network, trees } = solutionOf(design);
      const sim = new Simulation(network, trees.map((tree) => tree.id), seed);
      sim.boot();
      sim.runTo(REST);
      expect(differences(sim, design)).toEqual([]);
      let now = design;
      for (const turn of design.links.length > 0 ? turns : []) {
        const l = turn % design.links.length;
        now = { ...now, links: now.links.map((link, i) => (i === l ? { ...link, up: !link.up } : link)) };
        sim.follow(now);
        sim.runTo(sim.now + REST);
        expect(differences(sim, now)).toEqual([]);
      }
    }), { numRuns: 60 });
  });
});

it('settles again after a switch has lost its power, and has it back', () => {
  fc.assert(fc.property(meshDesign, fc.nat(), (design, pick) => {
    const { network, trees } = solutionOf(design);
    const sim = new Simulation(network, trees.map((tree) => tree.id));
    sim.boot();
    sim.runTo(REST);
    const s = pick % design.switches.length;
    for (const up of [false, true]) {
      const now = { ...design, switches: design.switches.map((sw, i) => (i === s ? { ...sw, up } : sw)) };
      sim.follow(now);
      sim.runTo(sim.now + REST);
      expect(differences(sim, now)).toEqual([]);
    }
  }), { numRuns: 40 });
});
