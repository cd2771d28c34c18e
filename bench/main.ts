/** `npm run bench`: prints figures, asserts none. */
import { benchBrowser } from './browser';
import { benchSolver } from './solver';

async function main(): Promise<void> {
  benchSolver();
  await benchBrowser();
}

void main();
