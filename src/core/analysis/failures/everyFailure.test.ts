/** Every failure in turn, held against each by itself. */
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import { sharingParts } from '../../model/derive/touched';
import type { Design } from '../../model/document';
import type { HostId, LinkId, SwitchId } from '../../model/ids';
import { solve } from '../../tree/solve';
import { readIntent } from '../intents/intents';
import { Settled } from '../intents/settled';
import { byHarm, everyFailure, joined, SolvedFailures, unneededIn } from './everyFailure';
import { FAILURE_KINDS, MOST_PAIRS, commandsOf, deadIn, failed, failuresOf, inTwos, isOf } from './failure';

const LINES = [
  'whatever link or switch fails, all hosts reach each other',
  'whatever switch fails, access switches never become root',
  'whatever card fails, "Image store", "Camera recorder" reach each other',
  'whatever member or link fails, no link above 60 %',
];
const withIntents = (design: Design): Design => ({
  ...design,
  intents: LINES.map((line, i) => ({
    id: `i${i}`,
    line,
    severity: i === 0 ? ('must' as const) : ('should' as const),
    note: '',
  })),
});
const DEMO = withIntents(fernhollow());

it('has each thing that works fail once', () => {
  const failures = failuresOf(solve(DEMO));
  const count = (kind: string): number => failures.filter((each) => each.kind === kind).length;
  expect(count('switch')).toBe(DEMO.switches.length);
  expect(count('link') + count('member')).toBe(DEMO.links.filter(({ up }) => up).length);
  expect(count('card')).toBe(DEMO.hosts.flatMap(({ attach }) => attach).length);
  for (const kind of FAILURE_KINDS)
    expect(failuresOf(solve(DEMO), [kind])).toEqual(failures.filter((each) => each.kind === kind));
});

/** The demo with some of its links cut and switches off. */
const damaged = fc
  .tuple(fc.subarray(DEMO.links.map(({ id }) => id)), fc.subarray(DEMO.switches.map(({ id }) => id)))
  .map(([links, off]) => {
    const done = editAll(DEMO, [
      ...links.slice(0, 5).map((link: LinkId) => ({ do: 'set-link', link, up: false }) as const),
      ...off.slice(0, 2).map((id: SwitchId) => ({ do: 'set-switch', switch: id, up: false }) as const),
    ]);
    return done.ok ? done.value.design : DEMO;
  });

it('breaks the intents that are broken in the network after it', () => {
  fc.assert(
    fc.property(damaged, (design) => {
      const { outcomes } = everyFailure(solve(design));
      for (const { failure, broken } of outcomes) {
        const after = new Settled(solve(failed(design, failure)), deadIn(failure));
        const wrong = design.intents.filter(({ line }) => {
          const meant = readIntent(design, line, true);
          return meant.ok && isOf(failure, meant.value.whatever!) && meant.value.claim.judge(after) !== null;
        });
        expect(broken.map(({ intent }) => intent)).toEqual(wrong.map(({ id }) => id));
      }
    }),
    { numRuns: 8 },
  );
});

it('counts whoever reached others before and is split from them', () => {
  fc.assert(
    fc.property(damaged, (design) => {
      const reaches = (of: Settled, a: HostId, b: HostId): boolean => {
        const [one, other] = [a, b].map((id) => design.hosts.find((host) => host.id === id)!);
        const ways = of.ways(one!.vlan, of.switchesAt(one!));
        return one!.vlan === other!.vlan && of.switchesAt(other!).some((s) => ways[s]! >= 0);
      };
      const now = new Settled(solve(design));
      for (const { failure, cutOff, lost } of everyFailure(solve(design)).outcomes) {
        const after = new Settled(solve(failed(design, failure)));
        const gone = new Set(lost);
        const pairs = design.hosts.flatMap(({ id: a }) => design.hosts.map(({ id: b }) => [a, b] as const));
        const parted = pairs.some(
          ([a, b]) => a !== b && !gone.has(a) && !gone.has(b) && reaches(now, a, b) && !reaches(after, a, b),
        );
        expect(cutOff.length > 0).toBe(parted);
        for (const id of lost) expect(reaches(after, id, id)).toBe(false);
      }
    }),
    { numRuns: 8 },
  );
});

it('tells the worst first, and the links that no failure needs', () => {
  const all = everyFailure(solve(DEMO));
  const { outcomes } = all;
  const unneeded = unneededIn(DEMO, all);
  expect(joined(outcomes.map((outcome) => everyFailure(solve(DEMO), [outcome.failure])))).toEqual({
    outcomes,
    carries: expect.arrayContaining([...all.carries]) as string[],
  });
  const sorted = [...outcomes].sort(byHarm(DEMO));
  const musts = sorted.map(({ broken }) => broken.filter(({ intent }) => intent === 'i0').length);
  expect(musts).toEqual([...musts].sort((a, b) => b - a));
  for (const link of unneeded)
    for (const { failure } of outcomes) {
      const after = new Settled(solve(failed(DEMO, failure)));
      expect(after.loads.links.find((each) => each.link === link)!.state).not.toBe('carries');
    }
});

it('says what it is afterwards by commands that the design takes', () => {
  for (const failure of failuresOf(solve(DEMO))) expect(editAll(DEMO, commandsOf(failure)).ok).toBe(true);
});

it('tries pairs of cables and switches, each once, so many at most', () => {
  const all = failuresOf(solve(DEMO));
  const single = all.filter((each) => each.kind !== 'card' && each.kind !== 'group');
  const pairs = inTwos(all);
  expect(pairs).toHaveLength((single.length * (single.length - 1)) / 2);
  expect(new Set(pairs.map((pair) => JSON.stringify(pair))).size).toBe(pairs.length);
  const many = Array.from({ length: 100 }, (_, i) => ({ kind: 'link' as const, link: `l${i}` as LinkId }));
  expect(inTwos(many)).toHaveLength(MOST_PAIRS);
  // Both ridges at once cut off whatever has no other way.
  const ridges = pairs.find(
    (pair) =>
      pair.kind === 'two' && pair.both.every((each) => each.kind === 'switch' && each.switch.startsWith('ridge')),
  )!;
  const [{ cutOff, lost }] = everyFailure(solve(DEMO), [ridges]).outcomes as [
    ReturnType<typeof everyFailure>['outcomes'][number],
  ];
  expect(cutOff.length).toBeGreaterThan(0);
  expect(lost.length).toBeGreaterThan(0);
});

it('says the same after edits as though it had been asked for the first time, whatever it keeps', () => {
  const EDITS: readonly Command[] = [
    { do: 'set-bridge-priority', switch: 'ridge-a' as never, tree: 'vlan:15' as never, priority: 4096 },
    { do: 'set-bridge-priority', switch: 'workshop' as never, tree: null, priority: 0 },
    { do: 'set-port-cost', switch: 'lodge' as never, port: '1' as never, tree: 'vlan:25' as never, cost: 7 },
    { do: 'set-link', link: 'l3' as never, up: false },
    { do: 'set-switch', switch: 'dome-east' as never, tier: 'core' },
    { do: 'set-host', host: DEMO.hosts[0]!.id, vlan: 25 },
    { do: 'set-switch', switch: 'ridge-b' as never, dialect: 'rstp' },
    { do: 'set-vlan', vlan: 15, load: 40 },
  ];
  fc.assert(
    fc.property(fc.shuffledSubarray([...EDITS], { minLength: 2 }), (edits) => {
      const kept = new SolvedFailures();
      let at: Design = DEMO;
      for (const edit of edits) {
        const done = editAll(at, [edit]);
        if (!done.ok) throw new Error(`${done.error.path} ${done.error.found}`);
        at = sharingParts(at, JSON.parse(JSON.stringify(done.value.design)) as Design);
        const solution = solve(at);
        const failures = failuresOf(solution).filter((_, i) => i % 3 === 0);
        expect(everyFailure(solution, failures, undefined, kept)).toEqual(
          everyFailure(solve(done.value.design), failures),
        );
      }
    }),
    { numRuns: 6 },
  );
});
