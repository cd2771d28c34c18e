/** The first of those that occur most often. */
export function mostFrequent<T>(all: readonly T[]): T | undefined {
  const counted = new Map<T, number>();
  for (const each of all) counted.set(each, (counted.get(each) ?? 0) + 1);
  return [...counted].sort((a, b) => b[1] - a[1])[0]?.[0];
}
