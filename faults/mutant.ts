/** The worker that makes mutants by their seed and tries each. */
import { parentPort, workerData } from 'node:worker_threads';
import { isDeepStrictEqual } from 'node:util';
import fc from 'fast-check';
import { fernhollow, valleyStation } from '../src/core/demo/demos';
import { commandSchema, type Command } from '../src/core/edit/commands';
import { editAll } from '../src/core/edit/edit';
import { describeCommands } from '../src/core/edit/describe';
import { readDesign, readDesignText } from '../src/core/model/read';
import { designSchema, type Design } from '../src/core/model/document';
import { leanDesign, writeDesign } from '../src/core/model/derive/write';
import { planLines } from '../src/core/cabling/plan';
import { findingsOf } from '../src/core/analysis/findings/findings';
import { fromSchema, type Pools } from '../src/core/testing/fromSchema';
import { solve } from '../src/core/tree/solve';
import type { Verdict } from './mutants';

const { what, from, to } = workerData as {
  readonly what: 'documents' | 'commands';
  readonly from: number;
  readonly to: number;
};
const demos: readonly Design[] = [fernhollow(), valleyStation()];
const ODD = [
  '',
  '__proto__',
  'constructor',
  'a\nb',
  '1-4094',
  '9-5',
  'vlan:15',
  'mst:1',
  'x'.repeat(300),
  '\u0000',
  '02:00:00:00:00:01',
  '[[[[',
];
const ids = demos.flatMap((design) =>
  [...design.switches, ...design.links, ...design.hosts, ...design.bundles, ...design.regions].map(
    ({ id }) => id as string,
  ),
);
const pools: Pools = {
  texts: {},
  numbers: {},
  other: { texts: [...ids, ...ODD, '1', '2', '3'], numbers: [0, 1, 2, 3, 15, 128, 4096, 4094, 1e308, -1, 0.5, 65_536] },
};
const anyPart = fc.oneof(
  fromSchema(designSchema.shape.switches, pools),
  fromSchema(designSchema.shape.bundles, pools),
  fromSchema(designSchema.shape.regions, pools),
  fromSchema(designSchema.shape.hosts, pools),
  fc.constantFrom<unknown>(null, true, 0, -1, 1e308, '', [], {}, ...ODD),
);
const anyCommand = fromSchema(commandSchema, pools);

/** A pure sequence of random numbers below `n`. */
function dice(seed: number): (n: number) => number {
  let state = seed * 2_654_435_761 + 12_345;
  return (n) => {
    state = (Math.imul(state ^ (state >>> 15), 1 | state) + 0x6d2b79f5) | 0;
    return ((state ^ (state >>> 14)) >>> 0) % n;
  };
}

/** Changes some places of a document: other values, missing keys, twins, other references. */
function mutate(document: unknown, roll: (n: number) => number, seed: number): unknown {
  const copy = structuredClone(document) as Record<string, unknown>;
  for (let n = 1 + roll(4); n > 0; n -= 1) {
    let here: Record<string, unknown> | unknown[] = copy;
    for (;;) {
      const keys: string[] = Object.keys(here);
      if (keys.length === 0) break;
      const key = keys[roll(keys.length)]!;
      const value: unknown = (here as Record<string, unknown>)[key];
      if (typeof value === 'object' && value !== null && roll(6) > 0) {
        here = value as Record<string, unknown>;
        continue;
      }
      const choice = roll(5);
      if (choice === 0 && Array.isArray(here)) here.push(structuredClone(here[roll(here.length)]));
      else if (choice === 1) delete (here as Record<string, unknown>)[key];
      else if (choice === 2) (here as Record<string, unknown>)[key] = ids[roll(ids.length)];
      else (here as Record<string, unknown>)[key] = fc.sample(anyPart, { seed: seed + n, numRuns: 1 })[0];
      break;
    }
  }
  return copy;
}

/** Everything that is asked of a design once it is taken. */
function exercise(design: Design): string | null {
  const again = readDesignText(writeDesign(design));
  if (!again.ok || !isDeepStrictEqual(again.value, design)) return 'what is written is not what is read';
  findingsOf(design, solve(design));
  return null;
}

function tryDocument(seed: number, roll: (n: number) => number): string | null {
  const lean = leanDesign(demos[roll(2)]!);
  const text = JSON.stringify(mutate(lean, roll, seed));
  const broken =
    roll(10) === 0 ? text.slice(0, roll(text.length)) + ODD[roll(ODD.length)]! + text.slice(roll(text.length)) : text;
  const read = readDesignText(broken);
  return read.ok
    ? exercise(read.value)
    : read.error.length === 0 || read.error.length > 100
      ? 'refused without a word, or with too many'
      : null;
}

function tryCommands(seed: number, roll: (n: number) => number): string | null {
  const design = demos[roll(2)]!;
  const commands = fc.sample(anyCommand, { seed, numRuns: 1 + roll(3) }).flatMap((each): Command[] => {
    const parsed = commandSchema.safeParse(each);
    return parsed.success ? [parsed.data] : [];
  });
  planLines(
    design,
    fc.sample(fc.constantFrom(...pools.other.texts), { seed, numRuns: 6 }).join(roll(2) === 0 ? ' = ' : ' '),
  );
  const edited = editAll(design, commands);
  if (!edited.ok) return null;
  describeCommands(design, commands);
  const whole = readDesign(leanDesign(edited.value.design));
  return whole.ok ? exercise(edited.value.design) : 'an edit was taken that leaves no design';
}

const verdicts: Verdict[] = [];
for (let seed = from; seed < to; seed += 1) {
  try {
    const why = (what === 'documents' ? tryDocument : tryCommands)(seed, dice(seed));
    verdicts.push(why === null ? { seed, kind: 'fine' } : { seed, kind: 'lost', why });
  } catch (error) {
    verdicts.push({ seed, kind: 'crashed', why: (error as Error).message.slice(0, 200) });
  }
  if (verdicts.length === 20 || seed === to - 1) parentPort?.postMessage(verdicts.splice(0));
}
