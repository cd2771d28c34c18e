import type { Write } from '../../contract/api';
import { fail, ok, type Result } from '../../core/base/result';
import type { ApiFailure } from './api';
import { createSaver, type Overtaken, type SaveState } from './saver';

const edit = (base: number): Write => ({ kind: 'edit', base, commands: [{ do: 'rename-design', name: `n${base}` }] });
const undo = (base: number): Write => ({ kind: 'undo', base, target: 1 });
const failure = (status: number): Result<never, ApiFailure> =>
  fail({ status, message: `status ${status}`, details: [] });
const settle = () => new Promise((done) => setTimeout(done, 0));

type Answer = Result<{ revision: number; replayed: boolean }, ApiFailure>;

function harness(answers: Answer[], follows: boolean[] = []) {
  const posted: Write[] = [];
  const states: SaveState['kind'][] = [];
  const followed: Overtaken[] = [];
  const kept: number[] = [];
  const saver = createSaver(
    {
      post(each) {
        posted.push(each);
        return Promise.resolve(answers.shift() ?? ok({ revision: each.base + 1, replayed: false }));
      },
      report: (state) => states.push(state.kind),
      follow(overtaken) {
        followed.push(overtaken);
        if (follows.shift() === false) return Promise.resolve(false);
        saver.replace(saver.unsent().map((each) => ({ ...each, base: each.base + 10 })));
        return Promise.resolve(true);
      },
      keep: (writes) => kept.push(writes.length),
      acknowledged: () => undefined,
    },
    () => Promise.resolve(),
  );
  return { saver, posted, states, followed, kept };
}
const basesOf = (writes: readonly Write[]) => writes.map(({ base }) => base);

describe('the saver', () => {
  it('sends writes one after another, in order, and keeps what is unsent until it is taken', async () => {
    const { saver, posted, states, kept } = harness([]);
    for (const base of [0, 1, 2]) saver.send(edit(base));
    expect(saver.unsent()).toHaveLength(3);
    await settle();
    expect(basesOf(posted)).toEqual([0, 1, 2]);
    expect(states.at(-1)).toBe('saved');
    expect(saver.unsent()).toEqual([]);
    expect(kept).toEqual([1, 2, 3, 2, 1, 0]);
  });

  it('tries again what the network, a failing server, a full disk or a lost session kept from being saved, under the same name', async () => {
    const { saver, posted, states } = harness([failure(0), failure(503), failure(507), failure(401)]);
    saver.send(edit(0));
    await settle();
    expect(basesOf(posted)).toEqual([0, 0, 0, 0, 0]);
    expect(new Set(posted.map(({ write }) => write)).size).toBe(1);
    expect(posted[0]!.write).toMatch(/^[0-9a-f]{32}$/);
    expect(states).toEqual(['saving', 'offline', 'offline', 'offline', 'offline', 'saved']);
  });

  it('names every write differently', async () => {
    const { saver, posted } = harness([]);
    for (const base of [0, 1]) saver.send(edit(base));
    await settle();
    expect(new Set(posted.map(({ write }) => write)).size).toBe(2);
  });

  it.each([
    [409, 'conflict'],
    [422, 'refused'],
  ] as const)('stops at status %i, keeping what is unsent', async (status, state) => {
    const { saver, posted, states } = harness([failure(status)]);
    saver.send(edit(0));
    saver.send(edit(1));
    await settle();
    saver.send(edit(2));
    await settle();
    expect(basesOf(posted)).toEqual([0]);
    expect(states.at(-1)).toBe(state);
    expect(saver.unsent()).toHaveLength(3);
    saver.abandon();
    expect(saver.unsent()).toEqual([]);
  });

  it('follows where the server made a write on top of others, and goes on from there', async () => {
    const { saver, posted, followed, states } = harness([ok({ revision: 4, replayed: true })], [false, true]);
    saver.send(edit(1));
    saver.send(edit(2));
    await settle();
    expect(followed[0]).toEqual({ renamed: new Map([[2, 4]]), dropped: null });
    expect(followed).toHaveLength(2); // the first time the server could not be asked
    expect(basesOf(posted)).toEqual([1, 12]);
    expect(states.at(-1)).toBe('saved');
  });

  it('drops an undo that is not the next in line any more, and follows', async () => {
    const { saver, posted, followed, states } = harness([failure(409)]);
    saver.send(undo(1));
    saver.send(edit(2));
    await settle();
    expect(followed).toMatchObject([{ dropped: { kind: 'undo', base: 1 } }]);
    expect(basesOf(posted)).toEqual([1, 12]);
    expect(states.at(-1)).toBe('saved');
  });

  describe('a write that more may be added to', () => {
    it('takes what is added before it goes, under one name and on the same base', async () => {
      const { saver, posted } = harness([]);
      saver.hold(edit(4));
      expect(saver.amend(edit(7))).toBe(true);
      expect(saver.unsent()).toHaveLength(1);
      await settle();
      expect(posted).toEqual([{ ...edit(7), base: 4, write: expect.any(String) as string }]);
      expect(saver.amend(edit(8))).toBe(false);
    });

    it('goes at once where another follows it, and takes nothing more then', async () => {
      const { saver, posted } = harness([]);
      saver.hold(edit(0));
      saver.send(undo(1));
      expect(saver.amend(edit(0))).toBe(false);
      await settle();
      expect(posted.map(({ kind }) => kind)).toEqual(['edit', 'undo']);
    });

    it('waits for more, but not when it is hurried', async () => {
      const looks: number[] = [];
      const posted: Write[] = [];
      const saver = createSaver(
        {
          post: (write) => {
            posted.push(write);
            return Promise.resolve(ok({ revision: 1, replayed: false }));
          },
          report: () => undefined,
          follow: () => Promise.resolve(true),
          keep: () => undefined,
          acknowledged: () => undefined,
        },
        (ms) => {
          looks.push(ms);
          if (looks.length === 3) saver.hurry();
          return Promise.resolve();
        },
      );
      saver.hold(edit(0));
      await settle();
      expect(posted).toHaveLength(1);
      expect(looks.length).toBeLessThan(5);
    });
  });
});
