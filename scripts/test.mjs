/**
 * `npm test`: sets up what is missing, then Jest and Playwright. Arguments go to Jest, and Playwright is left out then.
 * CI, which has two cores, runs the core's tests (--core) while it compiles and tests the server (--server), then those
 * of what is seen (--workbench).
 */
import { bin, run } from './lib.mjs';

const parts = {
  '--core': ['--maxWorkers', '1', '--selectProjects', 'core'],
  '--server': ['--maxWorkers', '1', '--selectProjects', 'server'],
  '--workbench': ['--selectProjects', 'workbench'],
};
const asked = process.argv.slice(2);
const forJest = parts[asked[0]] ?? asked;
const browser = asked.length === 0 || asked[0] === '--workbench';
const wanted = asked[0] === '--core' ? ['--packages'] : ['--build', ...(browser ? ['--chromium'] : [])];
run(process.execPath, ['scripts/setup.mjs', ...wanted]);
run(process.execPath, [bin('jest'), ...forJest]);
if (browser) run(process.execPath, [bin('playwright'), 'test', '--project', 'workbench']);
