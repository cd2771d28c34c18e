/** `npm run mutate`: installs the mutation tester, which nothing else needs, and lets it change small core modules. */
import path from 'node:path';
import { root, run, unlessFresh } from './lib.mjs';

const place = path.join(root, 'scripts/mutate');
const installed = path.join(place, 'node_modules');
await unlessFresh(`${installed}/.knot-path-lock`, [`${place}/package-lock.json`], `${installed}/.bin/stryker`, () =>
  run('npm', ['ci', '--no-audit', '--no-fund', '--ignore-scripts', '--loglevel=error'], { cwd: place }),
);
run(`${installed}/.bin/stryker`, ['run', 'scripts/mutate/stryker.config.json']);
