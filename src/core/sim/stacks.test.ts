/** Stacks in a run: what a member takes along when it loses power, and who notices. */
import fc from 'fast-check';
import { SECOND } from '../modes/entity';
import { bundledDesign } from '../testing/bundles';
import { anyDesign, networkOf } from '../testing/networks';
import { tries } from '../testing/runs';
import { benchedScenario } from '../testing/scenarios';
import { booted, unlike } from '../testing/settling';
import { stackOf, turnedMember, withStack } from '../testing/stacks';
import { simulate } from './simulate';

const REST = 120 * SECOND;

it.each([
  ['any dialects', withStack(anyDesign)] as const,
  ['bundles', withStack(bundledDesign({ modes: ['active', 'passive'] }))] as const,
])(
  'settles to what the solver says after every member and stack cable that is lost or comes back: %s',
  (_, designs) => {
    fc.assert(
      fc.property(designs, fc.nat(), fc.array(fc.nat({ max: 7 }), { maxLength: 3 }), (design, seed, turns) => {
        const sim = booted(design, seed, REST);
        expect(unlike(sim, design)).toEqual([]);
        let now = design;
        for (const turn of turns) {
          now = turnedMember(now, turn);
          sim.follow(now);
          sim.runTo(sim.now + REST);
          expect(unlike(sim, now)).toEqual([]);
        }
      }),
      { numRuns: tries(25) },
    );
  },
);

describe('a member that loses power', () => {
  const design = (keepsAddress: boolean) =>
    networkOf(
      { a: { priority: 0 }, b: { stack: stackOf(2, { keepsAddress }) }, c: { priority: 61440 } },
      ['a 1 = b 1', 'a 2 = b 2', 'b 3 = c 1'],
      { 'b 2': { stackMember: 2 }, 'b 3': { stackMember: 2 } },
    );
  const run = (keepsAddress: boolean, actions: readonly object[]) => {
    const of = design(keepsAddress);
    const found = simulate(of, benchedScenario(of, actions, 20));
    if (!found.ok) throw new Error(found.error);
    return found.value;
  };
  const moved = (actions: readonly object[], keepsAddress = true) => [
    ...new Set(run(keepsAddress, actions).trace.map(({ switch: sw, port }) => `${sw} ${port}`)),
  ];

  it('takes its ports along, and their neighbours, and leaves the others alone', () => {
    expect(moved([{ at: 1, do: 'stack-member-down', switch: 'b', member: 1 }]).sort()).toEqual(['a 1', 'b 1', 'b 2']);
    expect(run(true, [{ at: 1, do: 'stack-member-down', switch: 'b', member: 1 }]).settledAt).toBeLessThan(2);
  });
  it('changes nobody beyond where the stack keeps its address; else every neighbour hears of another bridge', () => {
    const down = { at: 1, do: 'stack-member-down', switch: 'b', member: 1 };
    const identifiers = (keepsAddress: boolean) => {
      const { sent } = run(keepsAddress, [down]);
      const own = Array.from({ length: sent.count }, (_, i) => sent.at(i)).filter(({ origin }) => origin === 1);
      return new Set(own.flatMap(({ bpdu }) => ('vector' in bpdu ? [bpdu.vector.bridge] : []))).size;
    };
    expect([identifiers(true), identifiers(false)]).toEqual([1, 2]);
    for (const keepsAddress of [true, false])
      expect(run(keepsAddress, [down]).final.trees[0]!.switches['b' as never]!.rootPort).toBe('2');
  });
  it('comes back', () => {
    const { final } = run(true, [
      { at: 1, do: 'stack-member-down', switch: 'b', member: 1 },
      { at: 5, do: 'stack-member-up', switch: 'b', member: 1 },
    ]);
    expect(final.trees[0]!.switches['b' as never]!.rootPort).toBe('1');
  });
  it('and a stack that falls apart keep one of its parts alone', () => {
    expect(moved([{ at: 1, do: 'stack-cable-down', switch: 'b', member: 1 }])).toEqual([]); // around the ring
    const both = [1, 2].map((member) => ({ at: member, do: 'stack-cable-down', switch: 'b', member }));
    expect(moved(both).sort()).toEqual(['a 2', 'b 2', 'b 3', 'c 1']);
  });
  it('is named as the stack has it', () => {
    const of = design(true);
    expect(() => benchedScenario(of, [{ at: 1, do: 'stack-member-down', switch: 'b', member: 5 }], 20)).toThrow();
    expect(() => benchedScenario(of, [{ at: 1, do: 'stack-member-down', switch: 'a', member: 1 }], 20)).toThrow();
  });
});
