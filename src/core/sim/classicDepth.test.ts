/** How deep classic bridges may stand (IEEE 802.1D-1998 8.6.1, 8.7.4 and 8.10.2): the solver, the findings and a run agree. */
import fc from 'fast-check';
import { rootFindings } from '../analysis/findings/rootFindings';
import type { Design } from '../model/document';
import { networkOf, solutionOf } from '../testing/networks';
import { tries } from '../testing/runs';
import { booted, unlike } from '../testing/settling';
import { SECOND } from '../modes/entity';

interface Classic {
  readonly ageIncrement: number;
  readonly rapid?: boolean;
}

/** Bridges in a row, or in a ring; the first is the root. */
function row(
  bridges: readonly Classic[],
  ring: boolean,
  times: { readonly maxAge: number; readonly hello: number },
): Design {
  const names = bridges.map((_, i) => `s${i}`);
  const cables = names.slice(1).map((name, i) => `${names[i]} 2 = ${name} 1`);
  return networkOf(
    Object.fromEntries(
      bridges.map(({ ageIncrement, rapid }, i) => [
        names[i]!,
        { dialect: rapid ? 'rstp' : 'stp', priority: i === 0 ? 0 : 32_768, timers: { ...times, ageIncrement } },
      ]),
    ),
    ring ? [...cables, `${names.at(-1)} 2 = ${names[0]} 1`] : cables,
  );
}

/** Runs it from boot, long enough for everything to have died once and to come back. */
function ran(design: Design, seed: number): { readonly others: object[]; readonly rests: boolean } {
  const sim = booted(design, seed, 150 * SECOND);
  return { others: unlike(sim, design), rests: sim.rests };
}
const tooDeep = (design: Design): string[] =>
  rootFindings(solutionOf(design)).flatMap((each) => (each.rule === 'beyond-max-age' ? [each.text] : []));
const many = (n: number, ageIncrement: number): Classic[] => Array.from({ length: n }, () => ({ ageIncrement }));
const USUAL = { maxAge: 20, hello: 2 };

describe('classic bridges', () => {
  it.each([
    ['a chain to depth 12', row(many(13, 1), false, USUAL)],
    ['a chain to depth 19', row(many(20, 1), false, USUAL)],
    ['a ring of 24', row(many(24, 1), true, USUAL)],
    ['a ring of 38', row(many(38, 1), true, USUAL)],
    ['a chain to depth 40', row(many(41, 1), false, USUAL)],
    ['a chain to depth 12 with max age 6', row(many(13, 1), false, { maxAge: 6, hello: 2 })],
    ['a chain to depth 12, a second a bridge', row(many(13, 256), false, USUAL)],
    ['a chain to depth 19, half a second a bridge', row(many(20, 128), false, USUAL)],
  ])('settle: %s', (_, design) => {
    expect(tooDeep(design)).toEqual([]);
    for (const seed of [1, 2, 3]) expect(ran(design, seed)).toEqual({ others: [], rests: true });
  });

  // Nearer to the limit than a hold time for each bridge, it hangs on the moments of the first hellos whether it rests.
  it('may settle up to the depth that max age allows: 19 with a second a bridge', () => {
    const design = row(many(20, 256), false, USUAL);
    expect(tooDeep(design)).toEqual([]);
    const ends = [1, 2, 3, 4].map((seed) => ran(design, seed));
    expect(ends.some(({ rests }) => rests)).toBe(true);
    for (const { rests, others } of ends) if (rests) expect(others).toEqual([]);
  });

  it.each([
    ['at depth 20, a second a bridge', row(many(21, 256), false, USUAL)],
    ['at depth 6 with max age 6, a second a bridge', row(many(7, 256), false, { maxAge: 6, hello: 2 })],
  ])('never rest where what they hear dies before the next hello: %s', (_, design) => {
    expect(tooDeep(design).length).toBeGreaterThan(0);
    expect(ran(design, 1).rests).toBe(false);
  });

  it('rest only as the solver has it, and do rest where nothing is near its limit', () => {
    const bridges = fc.array(
      fc.record({
        ageIncrement: fc.constantFrom(1, 16, 128, 256),
        rapid: fc.constantFrom(false, false, false, true),
      }),
      { minLength: 4, maxLength: 14 },
    );
    const times = fc.record({ maxAge: fc.integer({ min: 6, max: 12 }), hello: fc.constantFrom(2, 3) });
    // A hello as short as the hold timer is held back at every bridge, by how much hangs on the first moments.
    fc.assert(
      fc.property(bridges, times, fc.boolean(), fc.nat(), (each, seconds, ring, seed) => {
        const design = row(each, ring, seconds);
        const { others, rests } = ran(design, seed);
        if (rests) expect(others).toEqual([]);
        // A second for the hold timer of every bridge, and one for its increment, at the most.
        const oldest = each.length + each.filter(({ ageIncrement, rapid }) => rapid || ageIncrement > 16).length + 1;
        if (oldest + seconds.hello < seconds.maxAge) expect([tooDeep(design), rests]).toEqual([[], true]);
      }),
      { numRuns: tries(60) },
    );
  });
});
