/** Bundles while the protocols run: the LACP machines come to what the settled answer says, and spanning tree follows them. */
import fc from 'fast-check';
import { STATE_BITS, settleBundles } from '../bundle/settled';
import { bundlesOf } from '../bundle/ends';
import type { Design } from '../design/schema';
import { SECOND } from '../protocol/entity';
import type { Participant } from '../protocol/lacp/state';
import { bundledDesign } from '../testing/bundles';
import { solutionOf } from '../testing/networks';
import { roleOf } from '../tree/settled';
import { Simulation } from './simulation';

const REST = 120 * SECOND;

const booted = (design: Design, seed = 1): Simulation => {
  const { network, trees } = solutionOf(design);
  const sim = new Simulation(network, trees.map((tree) => tree.id), seed);
  sim.boot();
  sim.runTo(REST);
  return sim;
};

const told = (who: Participant | null) => who && { system: who.system, systemPriority: who.systemPriority, key: who.key, port: who.port, portPriority: who.portPriority, bits: STATE_BITS.filter((bit) => who.state[bit]) };

/** Members that the machines have otherwise than the settled answer. */
function unlike(sim: Simulation, design: Design): unknown[] {
  const bundles = bundlesOf(design);
  const settled = settleBundles(bundles);
  return bundles.members.flatMap((member, m) => {
    const { state, lacp } = sim.aggregation.memberNow(m);
    const { state: wanted, actor, partner } = settled.members[m]!;
    const is = { state, ...(lacp ? { actor: told(lacp.actor), partner: told(lacp.partner) } : {}) };
    const should = { state: wanted, ...(lacp ? { actor, partner } : {}) };
    return JSON.stringify(is) === JSON.stringify(should) ? [] : [{ member: `${member.at.switch} ${member.id}`, is, should }];
  });
}

/** Ports that the protocols have otherwise than the solver. */
function otherwise(sim: Simulation, design: Design): string[] {
  const { network, trees: [tree] } = solutionOf(design);
  return network.ports.flatMap((port, p) => {
    const role = roleOf(tree!, p) ?? 'disabled';
    return sim.role(0, p) === role ? [] : [`${network.switches[network.owner[p]!]!.id} ${port.id}: ${role}, not ${sim.role(0, p)}`];
  });
}

it('comes to what the settled answer says, member by member and bit by bit', () => {
  fc.assert(fc.property(bundledDesign({ modes: ['active', 'active', 'passive', 'static', 'initiate', 'answer'] }), (design) => {
    expect(unlike(booted(design), design)).toEqual([]);
  }), { numRuns: 150 });
});

it('leaves spanning tree where the solver has it, from boot and after cuts', () => {
  fc.assert(fc.property(bundledDesign({ modes: ['active', 'active', 'passive', 'initiate', 'answer'] }), fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) => {
    const sim = booted(design, seed);
    expect(otherwise(sim, design)).toEqual([]);
    let now = design;
    for (const turn of design.links.length > 0 ? turns : []) {
      const l = turn % design.links.length;
      now = { ...now, links: now.links.map((link, i) => (i === l ? { ...link, up: !link.up } : link)) };
      sim.follow(now);
      sim.runTo(sim.now + REST);
      expect(otherwise(sim, now)).toEqual([]);
    }
  }), { numRuns: 100 });
});
