import fc from 'fast-check';
import { scaleOf, ticksOf } from './scale';

const UNTIL = 60_000_000;
const moments = fc
  .array(fc.integer({ min: 0, max: UNTIL }), { maxLength: 30 })
  .map((all) => [...new Set(all)].sort((a, b) => a - b));

describe.each(['busy', 'even'] as const)('the %s scale', (kind) => {
  it('rises from 0 to 1, and leads back to the instant', () => {
    fc.assert(
      fc.property(moments, fc.array(fc.integer({ min: 0, max: UNTIL }), { maxLength: 20 }), (changes, instants) => {
        const scale = scaleOf(kind, changes, UNTIL);
        expect([scale.at(0), scale.at(UNTIL)]).toEqual([0, 1]);
        const sorted = [...instants].sort((a, b) => a - b);
        sorted.forEach((t, i) => {
          if (i > 0) expect(scale.at(t)).toBeGreaterThanOrEqual(scale.at(sorted[i - 1]!) - 1e-12);
          expect(Math.abs(scale.back(scale.at(t)) - t)).toBeLessThan(1);
        });
      }),
    );
  });
  it('has ticks that keep their distance, the start and the end among them', () => {
    fc.assert(
      fc.property(moments, (changes) => {
        const scale = scaleOf(kind, changes, UNTIL);
        const ticks = ticksOf(scale, changes, UNTIL, 0.1);
        expect([ticks[0], ticks.at(-1)]).toEqual([0, UNTIL]);
        ticks.forEach(
          (t, i) => i > 0 && expect(scale.at(t) - scale.at(ticks[i - 1]!)).toBeGreaterThanOrEqual(0.1 - 1e-9),
        );
      }),
    );
  });
});

it('shows a millisecond between two changes though a minute lies behind them', () => {
  const scale = scaleOf('busy', [1_000_000, 1_001_000], UNTIL);
  expect(scale.at(1_001_000) - scale.at(1_000_000)).toBeGreaterThan(0.05);
});
