import type { Write } from '../../contract/api';
import { fail, ok, type Result } from '../../core/result';
import type { ApiFailure } from './api';
import { createSaver, type SaveState } from './saver';

const write = (base: number): Write => ({ kind: 'undo', base, target: 1 });
const failure = (status: number): Result<never, ApiFailure> => fail({ status, message: `status ${status}`, details: [] });
const settle = () => new Promise((done) => setTimeout(done, 0));

function harness(answers: Result<{ revision: number }, ApiFailure>[]) {
  const posted: number[] = [];
  const states: SaveState['is'][] = [];
  const saver = createSaver(
    (each) => {
      posted.push(each.base);
      return Promise.resolve(answers.shift() ?? ok({ revision: each.base + 1 }));
    },
    (state) => states.push(state.is),
    () => Promise.resolve(),
  );
  return { saver, posted, states };
}

describe('the saver', () => {
  it('sends writes one after another, in order', async () => {
    const { saver, posted, states } = harness([]);
    for (const base of [0, 1, 2]) saver.send(write(base));
    expect(saver.unsent()).toBe(3);
    await settle();
    expect(posted).toEqual([0, 1, 2]);
    expect(states.at(-1)).toBe('saved');
    expect(saver.unsent()).toBe(0);
  });

  it('tries again what the network or a failing server lost', async () => {
    const { saver, posted, states } = harness([failure(0), failure(503)]);
    saver.send(write(0));
    await settle();
    expect(posted).toEqual([0, 0, 0]);
    expect(states).toEqual(['saving', 'offline', 'offline', 'saved']);
  });

  it.each([[409, 'conflict'], [422, 'refused']] as const)('stops at status %i, keeping what is unsent', async (status, state) => {
    const { saver, posted, states } = harness([failure(status)]);
    saver.send(write(0));
    saver.send(write(1));
    await settle();
    saver.send(write(2));
    await settle();
    expect(posted).toEqual([0]);
    expect(states.at(-1)).toBe(state);
    expect(saver.unsent()).toBe(3);
    saver.abandon();
    expect(saver.unsent()).toBe(0);
  });
});
