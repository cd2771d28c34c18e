/** What the server's tests share. */
import { commandSchema, type Command } from '../core/edit/commands';

export const command = (input: object): Command => commandSchema.parse(input);

/** The value of a success; fails the test where there is none. */
export function take<T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}
