/**
 * Sets up what is missing: packages, and the command line. With --build also the workbench, with --chromium also the
 * browser that the end-to-end tests drive. Run by `npm start` and `npm test`; doing nothing takes well under a second.
 */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { bin, root, run, say, stop, unlessFresh } from './lib.mjs';

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 12)) stop(`Node.js 20.12 or newer is needed; this is ${process.version}.`);

await unlessFresh('node_modules/.knot-path-lock', ['package-lock.json'], 'node_modules/next/package.json', () => {
  say('installing packages (a few minutes the first time)');
  run('npm', ['ci', '--no-audit', '--no-fund']);
});

const { buildCommandLine } = await import('./build-cli.mjs');
await unlessFresh('dist/.stamp', ['src/core', 'src/cli', 'scripts/build-cli.mjs', 'node_modules/.knot-path-lock'], 'node_modules/.bin/knot-path', buildCommandLine);

if (process.argv.includes('--build')) {
  const sources = ['src', 'next.config.ts', 'tsconfig.json', 'node_modules/.knot-path-lock'];
  await unlessFresh('.next/.knot-path-stamp', sources, '.next/BUILD_ID', () => {
    say('building the workbench');
    run(bin('next'), ['build']);
  });
}

if (process.argv.includes('--chromium')) ensureChromium();

function ensureChromium() {
  const chromium = process.env.KNOT_PATH_CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(chromium)) return;
  const advice = `The end-to-end tests need Chromium at ${chromium} (or at the path in KNOT_PATH_CHROMIUM): apt-get install chromium`;
  if (process.getuid?.() !== 0 || spawnSync('apt-get', ['--version']).status !== 0) stop(advice);
  say('installing Chromium from the system packages');
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], { env, cwd: path.parse(root).root });
  if (!existsSync(chromium)) stop(advice);
}
