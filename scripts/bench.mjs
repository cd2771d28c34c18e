/** `npm run bench`: builds what is needed, then measures. */
import { bin, run } from './lib.mjs';

process.argv.push('--build', '--chromium');
await import('./setup.mjs');
run(bin('tsx'), ['bench/main.ts']);
