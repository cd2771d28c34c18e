/**
 * `npm run bench`: prints figures, asserts none. Parts by name (`-- map edits`); figures go to `dist/bench/figures.json`, or to
 * `--out FILE`; `--against FILE` says what is slower than in that one.
 */
import { parseArgs } from 'node:util';
import { benchClock } from './clock';
import { benchEdits } from './edits';
import { benchMap } from './map';
import { benchMatrix } from './matrix';
import { withBrowser } from './session';
import { benchRegions } from './regions';
import { compareFigures, writeFigures } from './report';
import { benchObserve } from './observe';
import { benchOpenSwitches } from './openSwitches';
import { benchSimulator } from './simulator';
import { benchSolver } from './solver';
import { benchSteering } from './steering';
import { benchStarting } from './starting';
import { benchStudy } from './study';

/** Parts by name. */
const ALONE = {
  solver: benchSolver,
  regions: benchRegions,
  study: benchStudy,
  steering: benchSteering,
  simulator: benchSimulator,
  starting: benchStarting,
  'real-switches': benchOpenSwitches,
  observe: benchObserve,
};
const IN_BROWSER = { edits: benchEdits, map: benchMap, matrix: benchMatrix, clock: benchClock };

async function main(): Promise<void> {
  const { positionals: wanted, values } = parseArgs({
    allowPositionals: true,
    options: { out: { type: 'string', default: 'dist/bench/figures.json' }, against: { type: 'string' } },
  });
  const unknown = wanted.filter((word) => !(word in ALONE) && !(word in IN_BROWSER));
  if (unknown.length > 0)
    throw new Error(`no part ${unknown.join(', ')}; there are ${Object.keys({ ...ALONE, ...IN_BROWSER }).join(', ')}`);
  const parts = <T>(all: Record<string, T>): T[] =>
    Object.entries(all).flatMap(([name, part]) => (wanted.length === 0 || wanted.includes(name) ? [part] : []));
  for (const bench of parts<() => void | Promise<void>>(ALONE)) await bench();
  const seen = parts(IN_BROWSER);
  if (seen.length > 0)
    await withBrowser(async (browser) => {
      for (const bench of seen) await bench(browser);
    });
  writeFigures(values.out);
  if (values.against) compareFigures(values.against);
}

main().catch((error: unknown) => {
  console.error(`bench: ${error instanceof Error ? error.message : String(error)}`);
  process.exitCode = 1;
});
