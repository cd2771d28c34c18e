/** `npm test`: sets up what is missing, then Jest and Playwright. Arguments go to Jest, and Playwright is left out then. */
import { bin, run } from './lib.mjs';

const only = process.argv.slice(2);
process.argv.push('--build');
if (only.length === 0) process.argv.push('--chromium');
await import('./setup.mjs');
run(process.execPath, [bin('jest'), ...only]);
if (only.length === 0) run(process.execPath, [bin('playwright'), 'test', '--project', 'workbench']);
