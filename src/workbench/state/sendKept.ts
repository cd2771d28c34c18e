/** What an earlier page had not sent goes to the server as that page would have sent it: what was taken already is not done again. */
import type { Write } from '../../contract/api';
import { api } from './api';
import type { KeptWrites } from './kept';

/** Gives null, or why some of it could not be done. */
export async function sendKept(design: string, { writes }: KeptWrites): Promise<string | null> {
  const numbers = new Map<number, number>();
  for (const [i, write] of writes.entries()) {
    const named = (number: number): number => numbers.get(number) ?? number;
    const moved: Write =
      write.kind === 'edit'
        ? { ...write, base: named(write.base) }
        : { ...write, base: named(write.base), target: named(write.target) };
    const saved = await api.write(design, moved);
    if (!saved.ok)
      return [
        `${i} of ${writes.length} changes were sent, the next one was not: ${saved.error.message}`,
        ...saved.error.details,
      ].join(' ');
    numbers.set(write.base + 1, saved.value.revision);
  }
  return null;
}
