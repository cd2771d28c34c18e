/** A moment in the time of whoever looks, with its day where that is not today; `at`: milliseconds since 1970. */
export function timeText(at: number): string {
  const time = new Date(at);
  return time.toDateString() === new Date().toDateString()
    ? time.toLocaleTimeString('en-GB')
    : time.toLocaleString('en-GB', { dateStyle: 'short', timeStyle: 'medium' });
}
