import type { Design } from '../model/document';
import { networkOf } from '../testing/networks';
import { simulate } from './simulate';

describe('how a run ends', () => {
  const ring = (n: number) =>
    networkOf(
      Object.fromEntries(
        Array.from({ length: n }, (_, i) => [
          `s${i}`,
          { dialect: 'stp', timers: { maxAge: n > 12 ? 6 : 20, ageIncrement: 256 } },
        ]),
      ),
      Array.from({ length: n }, (_, i) => `s${i} 1 = s${(i + 1) % n} 2`),
    );
  const run = (design: Design, until: number, fromBoot = true) =>
    simulate(design, { actions: [], until, talk: 1, fromBoot });
  const endingOf = (design: Design, until: number) => {
    const done = run(design, until);
    if (!done.ok) throw new Error(done.error);
    return [done.value.ending, done.value.settledAt] as const;
  };

  it('tells one that is still on its way to rest from one that has come there', () => {
    expect(endingOf(ring(4), 40)).toEqual([{ kind: 'rests' }, 30]);
    expect(endingOf(ring(4), 20)).toEqual([{ kind: 'moves', at: 30 }, null]);
  });

  it('and from one that never will, whatever its ports do at the end', () => {
    const [ending, settledAt] = endingOf(ring(24), 60);
    expect([ending.kind, settledAt]).toEqual(['restless', null]);
    expect(ending.kind === 'restless' && ending.ports.length).toBeGreaterThan(0);
  });

  it('begins as it is where it never comes to rest before, and says what moves', () => {
    const done = run(ring(24), 10, false);
    if (!done.ok) throw new Error(done.error);
    expect(done.value.restlessBefore!.length).toBeGreaterThan(0);
    expect(done.value.ending.kind).toBe('restless');
    expect(done.value.trace.length).toBeGreaterThan(0);
    expect(done.value.trace.every(({ t }) => t >= 0 && t <= 10)).toBe(true);

    const calm = run(ring(4), 10, false);
    expect(calm.ok && [calm.value.restlessBefore, calm.value.ending]).toEqual([null, { kind: 'rests' }]);
  });
});
