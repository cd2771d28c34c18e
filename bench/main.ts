/** `npm run bench`: prints figures, asserts none. */
import { benchClock } from './clock';
import { benchEdits } from './edits';
import { benchMap } from './map';
import { benchMatrix } from './matrix';
import { withBrowser } from './session';
import { benchRegions } from './regions';
import { benchSimulator } from './simulator';
import { benchSolver } from './solver';
import { benchSteering } from './steering';
import { benchStudy } from './study';

/** Parts by name: `npm run bench -- map edits` runs these alone. */
const ALONE = {
  solver: benchSolver,
  regions: benchRegions,
  study: benchStudy,
  steering: benchSteering,
  simulator: benchSimulator,
};
const IN_BROWSER = { edits: benchEdits, map: benchMap, matrix: benchMatrix, clock: benchClock };

async function main(): Promise<void> {
  const wanted = process.argv.slice(2).filter((word) => !word.startsWith('--'));
  const parts = <T>(all: Record<string, T>): T[] =>
    Object.entries(all).flatMap(([name, part]) => (wanted.length === 0 || wanted.includes(name) ? [part] : []));
  for (const bench of parts(ALONE)) bench();
  const seen = parts(IN_BROWSER);
  if (seen.length > 0)
    await withBrowser(async (browser) => {
      for (const bench of seen) await bench(browser);
    });
}

void main();
