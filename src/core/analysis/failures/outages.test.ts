/** Failures that the protocols run: how long hosts are cut off, held against what all of it settles to. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design, Dialect } from '../../model/document';
import { solve } from '../../tree/solve';
import { readIntent } from '../intents/intents';
import { Settled } from '../intents/settled';
import { everyFailure } from './everyFailure';
import { deadIn, failuresOf } from './failure';
import { readDesign } from '../../model/read';
import { leanDesign } from '../../model/derive/write';
import { tries } from '../../testing/runs';
import { VARIANTS } from './variants';
import { RanFailures, runFailure, worstByPair, type FailureRun } from './outages';

const speaking = (dialect: Dialect): Design => {
  const demo = fernhollow();
  return { ...demo, switches: demo.switches.map((sw) => ({ ...sw, dialect })) };
};
const runsOf = (design: Design): FailureRun[] =>
  failuresOf(solve(design)).map((failure) => {
    const run = runFailure(design, failure);
    if (!run.ok) throw new Error(run.error);
    return run.value;
  });

it('cuts off for good whom the settled network cuts off, and nobody else', () => {
  const demo = speaking('per-vlan-rstp');
  fc.assert(
    fc.property(
      fc.subarray(
        demo.links.map(({ id }) => id),
        { maxLength: 6 },
      ),
      (cut) => {
        const done = editAll(
          demo,
          cut.map((link) => ({ do: 'set-link', link, up: false }) as const),
        );
        const design = done.ok ? done.value.design : demo;
        const failures = failuresOf(solve(design)).filter((_, i) => i % 5 === 0); // some of every kind
        const { outcomes } = everyFailure(solve(design), failures);
        for (const [i, failure] of failures.entries()) {
          const run = runFailure(design, failure);
          if (!run.ok) throw new Error(run.error);
          expect(run.value.forGood > 0).toBe(outcomes[i]!.cutOff.length > 0);
        }
      },
    ),
    { numRuns: 4 },
  );
});

it('takes classic bridges longer than rapid ones, and each pair has the worst of all failures', () => {
  const [rapid, classic] = (['rstp', 'stp'] as const).map((dialect) => runsOf(speaking(dialect)));
  const longest = (runs: readonly FailureRun[]): number => Math.max(...runs.map(({ worst }) => worst ?? 0));
  // 802.1D-1998: a bridge listens and learns for two forward delays before it forwards again.
  expect(longest(classic!)).toBeGreaterThanOrEqual(30);
  expect(longest(rapid!)).toBeLessThan(longest(classic!));
  const worst = worstByPair(classic!);
  expect(worst[0]!.pair.longest).toBe(longest(classic!));
  for (const { pair } of worst)
    for (const run of classic!)
      for (const other of run.pairs)
        if (other.from === pair.from && other.to === pair.to && other.vlan === pair.vlan)
          expect(other.longest).toBeLessThanOrEqual(pair.longest);
});

it('holds claims about times against runs, and takes them under failures alone', () => {
  const design = speaking('stp');
  expect(readIntent(design, 'all hosts are cut off no longer than 3 s')).toMatchObject({ ok: false });
  expect(readIntent(design, 'whatever card fails, all hosts are cut off no longer than 3 s')).toMatchObject({
    ok: false,
  });
  const claimOf = (line: string) => {
    const meant = readIntent(design, line);
    if (!meant.ok) throw new Error(meant.error.message);
    return meant.value.claim;
  };
  const claim = claimOf('whatever link fails, all hosts are cut off no longer than 3 s');
  const long = claimOf('whatever link fails, all hosts are cut off no longer than 3600 s');
  for (const run of runsOf(design)) {
    const of = new Settled(solve(design), deadIn(run.failure));
    expect(claim.judgeRun!(run, of) === null).toBe((run.worst ?? 0) <= 3);
    expect(long.judgeRun!(run, of)).toBeNull();
  }
});

it('is run otherwise beside it: every variant is a legal design with the same switches and cables', () => {
  const demo = fernhollow();
  for (const { key, of } of VARIANTS) {
    const variant = of(demo);
    expect(readDesign(leanDesign(variant)).ok).toBe(true);
    expect(variant.switches.map(({ id }) => id)).toEqual(demo.switches.map(({ id }) => id));
    expect(variant.links).toEqual(demo.links);
    const [failure] = failuresOf(solve(variant), ['switch']);
    expect(runFailure(variant, failure!)).toMatchObject({ ok: true });
    expect(key).not.toBe('');
  }
});

it('says the same after edits as though all had been run again, whatever it keeps', () => {
  const demo = speaking('per-vlan-rstp');
  const cost = (tree: string, value: number) =>
    ({
      do: 'set-port-cost',
      switch: 'ridge-a' as never,
      port: '7' as never,
      tree: tree as never,
      cost: value,
    }) as const;
  const priority = (tree: string | null, sw: string) =>
    ({ do: 'set-bridge-priority', switch: sw as never, tree: tree as never, priority: 4096 }) as const;
  const EDITS: readonly Command[] = [
    cost('vlan:15', 90_000),
    cost('vlan:45', 3),
    priority('vlan:25', 'dome-north'),
    priority('vlan:1', 'ridge-b'),
    priority(null, 'ridge-a'),
    { do: 'set-switch', switch: 'lodge' as never, name: 'Lodge' },
    { do: 'put', puts: [{ place: ['switches', 'lodge', 'timers', 'hello'], value: 1 }] },
    { do: 'set-port', switch: 'lodge' as never, port: '3' as never, bpduGuard: true },
  ];
  fc.assert(
    fc.property(fc.shuffledSubarray([...EDITS], { minLength: 2, maxLength: 4 }), (edits) => {
      const kept = new RanFailures();
      let at = demo;
      for (const edit of edits) {
        const done = editAll(at, [edit]);
        if (!done.ok) throw new Error(done.error.found);
        at = done.value.design;
        for (const failure of failuresOf(solve(at)).filter((_, i) => i % 9 === 0))
          expect(kept.run(at, failure)).toEqual(runFailure(at, failure));
      }
    }),
    { numRuns: tries(5) },
  );
});
