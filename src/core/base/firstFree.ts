/** The lowest number from 1 up that is not taken. */
export function firstFree(taken: ReadonlySet<number>): number {
  let n = 1;
  while (taken.has(n)) n += 1;
  return n;
}
