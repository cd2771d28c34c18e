/** Runs of a property in several tests, so that none of them takes long: for `it.each`. */
export const parts = (count: number, numRuns: number): { readonly numRuns: number }[] =>
  Array.from({ length: count }, () => ({ numRuns: Math.ceil(numRuns / count) }));
