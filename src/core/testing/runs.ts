/** How often a property is tried. With `RUNS=10 npm test` ten times as often as in CI. */
const TIMES = Number(process.env.RUNS ?? 1);

/** `count` runs of a property, or as many times that as was asked for. */
export const tries = (count: number): number => Math.ceil(count * TIMES);

/** Runs of a property in several tests, so that none of them takes long: for `it.each`. */
export const parts = (count: number, numRuns: number): { readonly numRuns: number }[] =>
  Array.from({ length: count }, () => ({ numRuns: tries(numRuns / count) }));
