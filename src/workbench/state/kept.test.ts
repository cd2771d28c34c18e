/** What is not sent yet, in the browser's database. */
import 'fake-indexeddb/auto';
import type { Write } from '../../contract/api';
import { forgetWrites, holdPage, keepWrites, orphanedWrites } from './kept';

// Browsers have it, jsdom does not.
if (!('structuredClone' in globalThis))
  Object.assign(globalThis, { structuredClone: <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T });

const edit = (name: string): Write => ({
  kind: 'edit',
  base: 0,
  write: `the-write-${name}`,
  commands: [{ do: 'rename-design', name }],
});

/** The locks of a browser, as far as pages use them. */
function locks() {
  const held = new Map<string, Promise<unknown>>();
  return {
    request: (name: string, hold: () => Promise<unknown>) => {
      const holding = hold();
      held.set(name, holding);
      return holding.then(() => held.delete(name));
    },
    query: () => Promise.resolve({ held: [...held.keys()].map((name) => ({ name })) }),
  };
}
beforeEach(() => Object.defineProperty(navigator, 'locks', { value: locks(), configurable: true }));

it('is offered once its page is gone, of its own design only, the oldest first', async () => {
  const leave = holdPage('alive');
  await keepWrites('d', 'alive', [edit('a')]);
  await keepWrites('d', 'gone', [edit('b'), edit('c')]);
  await keepWrites('other', 'gone', [edit('x')]);
  expect((await orphanedWrites('d')).map(({ writes }) => writes)).toEqual([[edit('b'), edit('c')]]);
  leave();
  await new Promise((done) => setTimeout(done, 0));
  expect((await orphanedWrites('d')).map(({ writes }) => writes.length)).toEqual([1, 2]);
});

it('goes once everything is sent, or it was dropped', async () => {
  await keepWrites('e', 'p', [edit('a')]);
  const [kept] = await orphanedWrites('e');
  await keepWrites('e', 'p', []);
  expect(await orphanedWrites('e')).toEqual([]);
  await keepWrites('e', 'q', [edit('a')]);
  await forgetWrites('e q');
  expect(await orphanedWrites('e')).toEqual([]);
  expect(kept?.at).toBeGreaterThan(0);
});
