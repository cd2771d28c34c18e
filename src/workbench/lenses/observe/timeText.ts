/** A moment in the time of whoever looks; `at`: milliseconds since 1970. */
export const timeText = (at: number): string =>
  new Date(at).toLocaleString('en-GB', { dateStyle: 'short', timeStyle: 'medium' });
