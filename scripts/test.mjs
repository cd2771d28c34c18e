/**
 * `npm test`: sets up what is missing, then Jest and Playwright. Arguments go to Jest, and Playwright is left out then.
 * CI, which has two cores, runs the core's tests (--core) while it compiles, and the others (--others) after that.
 */
import { bin, run } from './lib.mjs';

const parts = { '--core': ['--maxWorkers', '1', '--selectProjects', 'core'], '--others': ['--ignoreProjects', 'core'] };
const asked = process.argv.slice(2);
const forJest = parts[asked[0]] ?? asked;
const browser = asked.length === 0 || asked[0] === '--others';
const wanted = asked[0] === '--core' ? ['--packages'] : ['--build', ...(browser ? ['--chromium'] : [])];
run(process.execPath, ['scripts/setup.mjs', ...wanted]);
run(process.execPath, [bin('jest'), ...forJest]);
if (browser) run(process.execPath, [bin('playwright'), 'test', '--project', 'workbench']);
