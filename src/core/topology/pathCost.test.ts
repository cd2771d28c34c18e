import fc from 'fast-check';
import { longPathCost, pathCostOf, shortPathCost } from './pathCost';

describe('path cost from speed', () => {
  it.each([
    [10, 2_000_000],
    [100, 200_000],
    [1000, 20_000],
    [10_000, 2000],
    [25_000, 800],
    [40_000, 500],
    [100_000, 200],
    [400_000, 50],
  ])('long: %i Mb/s costs %i', (speed, cost) => expect(longPathCost(speed)).toBe(cost));

  it.each([
    [4, 250],
    [10, 100],
    [16, 62],
    [100, 19],
    [1000, 4],
    [10_000, 2],
    [25_000, 1],
    [400_000, 1],
  ])('short: %i Mb/s costs %i', (speed, cost) => expect(shortPathCost(speed)).toBe(cost));

  it('short, between the rows of the table: 2 x 100 Mb/s 12, 3 x 100 Mb/s 9, 2 x 1 Gb/s 3', () => {
    expect([200, 300, 2000].map(shortPathCost)).toEqual([12, 9, 3]);
  });

  it('is by the method asked for', () => {
    expect([pathCostOf(1000, 'long'), pathCostOf(1000, 'short')]).toEqual([20_000, 4]);
  });

  it('stays within what a BPDU can say, and never rises with speed', () => {
    const speed = fc.double({ min: 0.0001, max: 10_000_000, noNaN: true });
    for (const [method, most] of [
      [longPathCost, 200_000_000],
      [shortPathCost, 65_535],
    ] as const) {
      fc.assert(
        fc.property(speed, speed, (a, b) => {
          expect(method(a)).toBeGreaterThanOrEqual(1);
          expect(method(a)).toBeLessThanOrEqual(most);
          expect(Number.isInteger(method(a))).toBe(true);
          expect(method(Math.max(a, b))).toBeLessThanOrEqual(method(Math.min(a, b)));
        }),
      );
    }
  });
});
