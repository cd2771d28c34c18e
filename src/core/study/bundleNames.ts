/** Names and identifiers that new bundles get. */

/** After what is at the other end. */
export const nameToward = (far: string): string => `to ${far}`.slice(0, 200);

/** An identifier that is not taken yet. */
export function freshId(taken: ReadonlySet<string>, wanted: string): string {
  const stem = wanted.slice(0, 180);
  if (!taken.has(stem)) return stem;
  for (let n = 2; ; n += 1) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}
