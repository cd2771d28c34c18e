/**
 * Sets up what is missing: packages, and the command line. With --build also the workbench, with --chromium also the
 * browser that the end-to-end tests drive, with --tools what some tests compare with; with --packages nothing but
 * the packages. Run by `npm start` and `npm test`; doing nothing takes well under a second.
 */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { chromium, packages } from './chromium.cjs';
import { bin, root, run, say, stop, unlessFresh } from './lib.mjs';

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 12)) stop(`Node.js 20.12 or newer is needed; this is ${process.version}.`);

await unlessFresh('node_modules/.knot-path-lock', ['package-lock.json'], 'node_modules/next/package.json', () => {
  say('installing packages (a few minutes the first time)');
  run('npm', ['ci', '--no-audit', '--no-fund', '--ignore-scripts', '--loglevel=error']);
});
if (process.argv.includes('--packages')) process.exit();

// Compiled by itself: what only reads the sources need not wait for it.
const native = 'node_modules/better-sqlite3/build/Release/better_sqlite3.node';
await unlessFresh('node_modules/.knot-path-native', ['node_modules/.knot-path-lock'], native, () => {
  say('compiling the database');
  run('npm', ['rebuild', 'better-sqlite3', '--loglevel=error']);
});

await unlessFresh(
  'dist/.stamp',
  [
    'src/core',
    'src/cli',
    'src/snmp',
    'src/workbench/map',
    'src/workbench/ui',
    'src/server/db',
    'src/contract',
    'scripts/build-cli.mjs',
    'node_modules/.knot-path-lock',
  ],
  'node_modules/.bin/knot-path',
  async () => (await import('./build-cli.mjs')).buildCommandLine(),
);

await unlessFresh(
  'dist/.server-stamp',
  ['src/core', 'src/contract', 'src/snmp', 'src/server', 'scripts/build-server.mjs', 'node_modules/.knot-path-lock'],
  'dist/server/main.cjs',
  async () => (await import('./build-server.mjs')).buildServer(),
);

if (process.argv.includes('--build')) {
  const sources = ['src', 'next.config.ts', 'tsconfig.json', 'node_modules/.knot-path-lock'];
  await unlessFresh('.next/.knot-path-stamp', sources, '.next/BUILD_ID', () => {
    say('building the workbench');
    run(bin('next'), ['build']);
  });
}

await unlessFresh(
  'dist/.page-stamp',
  [
    'src/core',
    'src/contract',
    'src/workers',
    'src/workbench',
    'scripts/build-page.mjs',
    'node_modules/.knot-path-lock',
  ],
  'dist/page/page.js',
  async () => (await import('./build-page.mjs')).buildPage(),
);

if (process.argv.includes('--chromium')) {
  const wanted = process.env.CI ? !chromium().includes('headless-shell') : !existsSync(chromium());
  if (wanted && !process.env.KNOT_PATH_CHROMIUM) packages.some((name) => install(name, 'Chromium'));
  if (!existsSync(chromium()))
    stop(
      `The end-to-end tests need Chromium at ${chromium()} (or at the path in KNOT_PATH_CHROMIUM): apt-get install ${packages[0]}`,
    );
}
// Tools that some tests hold our answers against; without them those tests are left out, and say so.
if (process.argv.includes('--tools')) {
  const wanted = [
    ['tshark', 'tshark', 'captures are not held against a packet analyser'],
    ['ip', 'iproute2', 'nothing is held against the Linux bridge'],
    ['ovs-vsctl', 'openvswitch-switch', 'nothing is held against Open vSwitch'],
    ['socat', 'socat', 'no simulated switch is cabled to real ones'],
    ['lldpd', 'lldpd', 'neighbours are not held against lldpd'],
    ['snmpbulkwalk', 'snmp', 'stand-ins are not read by an independent client'],
    ['/usr/sbin/snmpd', 'snmpd', 'lldpd is not read by its own SNMP agent'],
    ['shellcheck', 'shellcheck', 'scripts are not checked'],
    ['xmllint', 'libxml2-utils', 'GraphML is not parsed by another'],
    ['dot', 'graphviz', 'DOT is not parsed by another'],
  ].filter(([program]) => spawnSync('sh', ['-c', 'command -v "$1"', 'sh', program], { stdio: 'ignore' }).status !== 0);
  if (
    wanted.length > 0 &&
    !install(
      wanted.map(([, name]) => name),
      'what tests compare with',
    )
  )
    for (const [, name, lost] of wanted) say(`no ${name} here: ${lost}`);
}

/** Installs a system package, or several, where this machine lets us; false where it does not. */
function install(names, what) {
  if (process.getuid?.() !== 0 || spawnSync('apt-get', ['--version']).status !== 0) return false;
  say(`installing ${what} from the system packages`);
  const options = {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    cwd: path.parse(root).root,
    stdio: 'inherit',
  };
  const done = (args) => spawnSync('apt-get', args, options).status === 0;
  return done(['update', '-qq']) && done(['install', '-y', '-qq', '--no-install-recommends', ...[names].flat()]);
}
