/** A name in at most `most` characters, shortened in the middle: what tells names apart is at their ends, mostly at the last. */
export function shortened(name: string, most: number): string {
  const letters = [...name];
  if (letters.length <= most) return name;
  if (most < 2) return '';
  const head = Math.floor((most - 1) * 0.4);
  return `${letters.slice(0, head).join('')}…${letters.slice(letters.length - (most - 1 - head)).join('')}`;
}
