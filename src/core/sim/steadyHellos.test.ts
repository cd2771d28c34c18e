/** Hellos that are not run, since they say nothing new: a run is the same without them at every instant, frame by frame. */
import fc from 'fast-check';
import type { Design } from '../model/document';
import { bundledDesign } from '../testing/bundles';
import { anyDesign, meshDesign, networkOf, regionsDesign } from '../testing/networks';
import { tries } from '../testing/runs';
import { benchedScenario } from '../testing/scenarios';
import { compileNetwork } from '../topology/network';
import { captureOf } from './report/capture';
import type { Run, RunOptions } from './run';
import { simulate } from './simulate';

/** Everything of a run; frames of one moment in any order. */
function told(run: Run) {
  const { frames } = captureOf(compileNetwork(run.design), run.trees, run);
  return {
    trace: run.trace,
    flushes: [...run.flushes],
    outages: run.outages,
    storms: run.storms,
    final: run.final,
    ending: run.ending,
    settledAt: run.settledAt,
    restless: run.restlessBefore,
    frames: frames.map(({ t, at, octets }) => `${String(t).padStart(12)} ${at} ${[...octets].join()}`).sort(),
  };
}

const families: readonly (readonly [string, fc.Arbitrary<Design>])[] = [
  ['any dialects', anyDesign],
  ['meshes', meshDesign],
  ['regions', regionsDesign()],
  ['bundles', bundledDesign({ modes: ['active', 'passive', 'static'] })],
];

describe.each(families)('%s', (_, anyOf) => {
  it('runs as with every hello: links cut and plugged in, muted, switches off and on', () => {
    let spared = 0;
    const action = fc.record({
      at: fc.integer({ min: 0, max: 4000 }).map((hundredths) => hundredths / 100),
      kind: fc.constantFrom('link', 'mute', 'switch'),
      pick: fc.nat(),
      lasts: fc.integer({ min: 1, max: 1200 }).map((hundredths) => hundredths / 100),
    });
    fc.assert(
      fc.property(
        anyOf,
        fc.array(action, { maxLength: 3 }),
        fc.boolean(),
        fc.nat(),
        (design, picked, fromBoot, seed) => {
          const actions = picked.flatMap(({ at, kind, pick, lasts }): object[] => {
            const link = design.links[pick % Math.max(1, design.links.length)];
            const sw = design.switches[pick % design.switches.length]!;
            const turned = (what: object, name: string): object[] => [
              { at, do: `${name}-down`, ...what },
              { at: at + lasts, do: `${name}-up`, ...what },
            ];
            if (kind === 'switch') return turned({ switch: sw.id }, kind);
            if (!link) return [];
            return kind === 'link'
              ? turned({ link: link.id }, kind)
              : [{ at, do: 'one-way', link: link.id, from: link.a.switch }];
          });
          const scenario = { ...benchedScenario(design, actions, 60), fromBoot };
          const run = (options: RunOptions) => {
            const done = simulate(design, scenario, { seed, begins: 'booted', ...options });
            if (!done.ok) throw new Error(done.error);
            return done.value;
          };
          const [few, every] = [run({}), run({ everyHello: true })];
          expect(told(few)).toEqual(told(every));
          spared += every.events - few.events;
        },
      ),
      { numRuns: tries(12) },
    );
    expect(spared).toBeGreaterThan(0);
  });
});

it('an hour at rest takes no more events than a minute, and its log is known all the same', () => {
  const design = networkOf({ a: { priority: 0 }, b: { priority: 4096 }, c: {} }, [
    'a 1 = b 1',
    'b 2 = c 1',
    'c 2 = a 2',
  ]);
  const run = (until: number) => {
    const done = simulate(design, benchedScenario(design, [], until));
    if (!done.ok) throw new Error(done.error);
    return done.value;
  };
  const [minute, hour] = [run(60), run(3600)];
  expect(hour.events).toBe(minute.events);
  // Three designated ports, a hello each every two seconds.
  expect(minute.sent.count).toBe(3 * 30);
  expect(hour.sent.count).toBe(3 * 1800);
  const times = Array.from(hour.sent.marks().times);
  expect(times).toEqual([...times].sort((a, b) => a - b));
  expect(times.at(-1)).toBeGreaterThan(3598e6);
});
