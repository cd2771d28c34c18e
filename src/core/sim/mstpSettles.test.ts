/** MSTP comes to rest where the solver says: every tree of every region, whatever the neighbours. */
import fc from 'fast-check';
import { SECOND } from '../protocol/entity';
import { regionsDesign } from '../testing/networks';
import { unlike } from '../testing/settling';
import { turnLinks } from '../testing/turns';
import { compileNetwork } from '../tree/network';
import { treesOf } from '../tree/trees';
import { Simulation } from './simulation';

const REST = 120 * SECOND;

const RUNS = Number(process.env.RUNS ?? 60);

it.each([
  ['of up to four regions, beside rapid and classic bridges', regionsDesign(), RUNS],
  ['with up to 64 instances', regionsDesign(5, ['r0', 'r0', 'r0', 'r1', 'rstp'], 64), Math.ceil(RUNS / 6)],
  ['beside bridges that have a tree for each VLAN', regionsDesign(6, ['r0', 'r0', 'r1', 'rstp', 'per-vlan-rstp', 'per-vlan-rstp']), RUNS],
  ['beside switches without spanning tree', regionsDesign(6, ['r0', 'r0', 'r0', 'r1', 'rstp', 'off']), RUNS],
])('in random networks %s, from boot and after cuts', (_, designs, numRuns) => {
  fc.assert(fc.property(designs, fc.nat(), fc.array(fc.nat(), { maxLength: 2 }), (design, seed, turns) => {
    const sim = new Simulation(compileNetwork(design), treesOf(design), seed);
    sim.boot();
    sim.runTo(REST);
    expect(unlike(sim, design)).toEqual([]);
    turnLinks(sim, design, turns, REST, (now) => expect(unlike(sim, now)).toEqual([]));
  }), { numRuns });
});
