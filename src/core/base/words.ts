/** Counts and lengths of time as people say them. */

/** `1 port`, `3 ports`. */
export const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;

/** `1.005 ms`, `820 ms`, `31.2 s`. */
export function durationText(seconds: number): string {
  if (seconds === 0) return 'none';
  if (seconds < 0.0995) return `${Number((seconds * 1000).toFixed(seconds < 0.01 ? 3 : 1))} ms`;
  if (seconds < 1) return `${Math.round(seconds * 1000)} ms`;
  return `${Number(seconds.toFixed(seconds < 100 ? 3 : 1))} s`;
}
