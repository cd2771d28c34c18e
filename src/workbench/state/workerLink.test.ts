/** Workers that load, that do not, and that take for ever. */
import { MessageChannel } from 'node:worker_threads';
import * as Comlink from 'comlink';
import { NOTHING_FOUND, watchBeside, type Findings } from './beside';
import type { Finding } from '../../core/analysis/findings/finding';
import type { Solution } from '../../core/tree/settled';
import { NoAnswer, workerLink } from './workerLink';

interface Room {
  double(n: number): number;
  never(): Promise<number>;
}

let channels: MessageChannel[] = [];
afterEach(() => {
  for (const { port1, port2 } of channels) {
    port1.close();
    port2.close();
  }
  channels = [];
});

/** A worker in this thread; `loads: false` is one whose file cannot be had. */
function fakeWorker(loads: boolean): Worker {
  const channel = new MessageChannel();
  channels.push(channel);
  const { port1, port2 } = channel;
  if (loads)
    Comlink.expose(
      { double: (n: number) => 2 * n, never: () => new Promise(() => undefined) } satisfies Room,
      port2 as unknown as Comlink.Endpoint,
    );
  const worker = Object.assign(port1, {
    onerror: null as ((event: Event) => void) | null,
    terminate: () => port1.close(),
  });
  if (!loads) setTimeout(() => worker.onerror?.(new Event('error')), 0);
  return worker as unknown as Worker;
}

it('asks again until the worker can be loaded, and says so meanwhile', async () => {
  const told: boolean[] = [];
  const loads = [false, false, true];
  const link = workerLink<Room>(
    () => fakeWorker(loads.shift() ?? true),
    (waits) => told.push(waits),
    () => Promise.resolve(),
  );
  expect(await link.ask((room) => room.double(4))).toBe(8);
  expect(told).toEqual([true, true, false]);
  expect(await link.ask((room) => room.double(5))).toBe(10);
  expect(told).toHaveLength(3);
  link.end();
});

it('stops what takes too long, with the next question answered by another worker', async () => {
  let started = 0;
  const link = workerLink<Room>(() => fakeWorker(Boolean((started += 1))));
  await expect(link.ask((room) => room.never(), 0.02)).rejects.toMatchObject({ kind: 'late' });
  expect(await link.ask((room) => room.double(1), 1)).toBe(2);
  expect(started).toBe(2);
  link.end();
});

it('ends every question when it is ended', async () => {
  const link = workerLink<Room>(() => fakeWorker(true));
  const asked = link.ask((room) => room.never());
  link.end();
  await expect(asked).rejects.toBeInstanceOf(NoAnswer);
});

describe('findings', () => {
  const finding = (text: string): Finding => ({ rule: 'root-by-mac', text, why: '', at: {}, remedies: [] });
  const solution = (): Solution => ({}) as Solution;
  const tick = () => new Promise((done) => setTimeout(done, 5));
  function watched(ask: (of: Solution) => Promise<readonly Finding[]>) {
    let now: Findings = NOTHING_FOUND;
    const states: Findings['kind'][] = [];
    const watch = watchBeside(ask, (next) => states.push((now = next(now)).kind), 0);
    return { watch, states, now: () => now };
  }

  it('are looked for once for several edits in a row, the last ones staying until newer are there', async () => {
    const asked: Solution[] = [];
    const { watch, now } = watched((of) => {
      asked.push(of);
      return Promise.resolve([finding(`of ${asked.length}`)]);
    });
    const last = solution();
    for (const each of [solution(), solution(), last]) watch.see(each);
    await tick();
    expect(asked).toEqual([last]);
    watch.see(solution());
    expect(now()).toMatchObject({ kind: 'busy', list: [{ text: 'of 1' }] });
    await tick();
    expect(now()).toMatchObject({ kind: 'found', list: [{ text: 'of 2' }] });
    watch.see(null);
    expect(now()).toBe(NOTHING_FOUND);
  });

  it('that take too long say so, and are looked for again when asked', async () => {
    const answers = [Promise.reject(new NoAnswer('late', 'x')), Promise.resolve([finding('late but there')])];
    const { watch, now } = watched(() => answers.shift()!);
    watch.see(solution());
    await tick();
    expect(now()).toEqual({ kind: 'late', list: [] });
    watch.again();
    await tick();
    expect(now()).toMatchObject({ kind: 'found', list: [{ text: 'late but there' }] });
  });
});
