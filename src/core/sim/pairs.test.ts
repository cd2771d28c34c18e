/** Pairs in a run: what each switch of one does as they lose each other, and who notices. */
import fc from 'fast-check';
import { SECOND } from '../modes/entity';
import { pairedNetwork, turnedInPair } from '../testing/pairs';
import { tries } from '../testing/runs';
import { booted, unlike } from '../testing/settling';

const REST = 120 * SECOND;
const MODES = ['stp', 'rstp', 'mstp', 'per-vlan-stp', 'per-vlan-rstp'] as const;

it.each(MODES)('settles to what the solver says after everything that is lost or comes back: %s', (dialect) => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(0, 4096, 32768), { minLength: 5, maxLength: 5 }),
      fc.nat(),
      fc.array(fc.nat({ max: 200 }), { maxLength: 4 }),
      (priorities, seed, turns) => {
        const switches = Object.fromEntries(
          ['p', 's', 'x', 'y', 'r'].map((sw, i) => [sw, { dialect, priority: priorities[i === 1 ? 0 : i] }]),
        );
        let now = pairedNetwork({ switches });
        const sim = booted(now, seed, REST);
        expect(unlike(sim, now)).toEqual([]);
        for (const turn of turns) {
          now = turnedInPair(now, turn);
          sim.follow(now);
          sim.runTo(sim.now + REST);
          expect(unlike(sim, now)).toEqual([]);
        }
      },
    ),
    { numRuns: tries(20) },
  );
});
