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

async function main(): Promise<void> {
  benchSolver();
  benchRegions();
  benchStudy();
  benchSteering();
  benchSimulator();
  await withBrowser(async (browser) => {
    await benchEdits(browser);
    await benchMap(browser);
    await benchMatrix(browser);
    await benchClock(browser);
  });
}

void main();
