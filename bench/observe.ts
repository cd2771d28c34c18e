/** A network of 200 switches that is there: read, watched, held against its design. */
import { spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { compareObserved } from '../src/core/exchange/observation/compare/compare';
import type { Observation } from '../src/core/exchange/observation/observation';
import { asObserved } from '../src/core/exchange/observation/onMap';
import { eventsBetween } from '../src/core/exchange/observation/watch/events';
import { writeDesign } from '../src/core/model/derive/write';
import { campusOf } from '../src/core/testing/campus';
import { solve } from '../src/core/tree/solve';
import { readNetwork, type Reading } from '../src/snmp/reader';
import { report } from './report';

const PORT = 11_777;
const COMMUNITY = 'look';

export async function benchObserve(): Promise<void> {
  const design = campusOf({ switches: 200, vlans: 12 });
  const { observation, first, again } = await asked(writeDesign(design));
  report('reading 200 stand-ins from one address (aim 60 s; a watch at 30 s reads within its interval)', [
    { switches: observation.switches.length, 'from one address (s)': first, 'again (s)': again },
  ]);
  const solution = solve(design);
  const { compared } = compareObserved(solution, observation);
  report('holding 200 switches against their design (aim 33 ms)', [
    { compared, ...times('compare (ms)', () => compareObserved(solution, observation)) },
  ]);
  report('a reading of 200 switches', [
    { ...times('events (ms)', () => eventsBetween(observation, observation)) },
    { ...times('on the map (ms)', () => asObserved(design, observation)) },
  ]);
}

/** The stand-ins run in a process of their own, as switches would. */
async function asked(document: string): Promise<{ observation: Observation; first: number; again: number }> {
  mkdirSync('dist/bench', { recursive: true });
  writeFileSync('dist/bench/campus.knot.json', document);
  const args = ['agents', 'dist/bench/campus.knot.json', '--credentials', 'bench', '--first', '127.60.0.1'];
  const child = spawn(process.execPath, ['dist/cli/knot-path.cjs', ...args, '--port', String(PORT)], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, KNOT_PATH_CREDENTIALS_BENCH: JSON.stringify({ version: '2c', community: COMMUNITY }) },
  });
  try {
    await new Promise<void>((done) =>
      child.stdout.on('data', (said: Buffer) => said.toString().includes('They answer') && done()),
    );
    const reading: Reading = {
      ...{ addresses: ['127.60.0.1'], port: PORT, credential: { version: '2c', community: COMMUNITY } },
      ...{ isNamed: (address: string) => address.startsWith('127.60.'), most: 500, atOnce: 8, timeout: 5000 },
    };
    const timed = async (of: Reading): Promise<[Observation, number]> => {
      const from = performance.now();
      const observation = await readNetwork(of, new AbortController().signal, {
        read: () => undefined,
        failed: (address, why) => console.log(address, why),
      });
      return [observation, Number(((performance.now() - from) / 1000).toFixed(1))];
    };
    const [observation, first] = await timed(reading);
    const [, again] = await timed({ ...reading, addresses: observation.switches.map(({ source }) => source) });
    return { observation, first, again };
  } finally {
    child.kill();
  }
}

/** The least of several, warm. */
function times(column: string, work: () => unknown): Record<string, number> {
  for (let i = 0; i < 3; i += 1) work();
  const all = Array.from({ length: 9 }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((a, b) => a - b);
  const rounded = (value: number): number => Number(value.toFixed(1));
  return { [column]: rounded(all[0]!), [column.replace('(ms)', 'median (ms)')]: rounded(all[4]!) };
}
