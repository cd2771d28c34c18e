/** `npm run bench`: prints figures, asserts none. */
import { benchEdits } from './edits';
import { benchMap } from './map';
import { withBrowser } from './session';
import { benchSolver } from './solver';
import { benchStudy } from './study';

async function main(): Promise<void> {
  benchSolver();
  benchStudy();
  await withBrowser(async (browser) => {
    await benchEdits(browser);
    await benchMap(browser);
  });
}

void main();
