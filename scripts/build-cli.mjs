/**
 * Bundles the command line into one file, beside a launcher that has it compiled already, and puts `knot-path` where npx looks for it. Not as a `bin` of package.json:
 * with one, npx first installs the project into its cache, which takes a second.
 */
import { spawnSync } from 'node:child_process';
import { chmodSync, copyFileSync, existsSync, mkdirSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import { pathToFileURL } from 'node:url';

const LAUNCHER = 'dist/cli/knot-path.cjs';

export async function buildCommandLine() {
  const { build } = await import('esbuild');
  await build({
    entryPoints: ['src/cli/main.ts'],
    outfile: 'dist/cli/main.cjs',
    bundle: true,
    platform: 'node',
    format: 'cjs',
    external: ['better-sqlite3'],
    target: 'node20',
    loader: { '.woff2': 'dataurl' },
    define: {
      'process.env.NODE_ENV': '"production"',
      TOKENS: JSON.stringify(readFileSync('src/workbench/ui/theme/tokens.css', 'utf8')),
    },
    jsx: 'automatic',
    minify: true,
    keepNames: true,
    logLevel: 'warning',
    logOverride: { 'empty-import-meta': 'silent' }, // where pages start workers: drawing a map starts none
  });
  copyFileSync('src/cli/launch.cjs', LAUNCHER);
  chmodSync(LAUNCHER, 0o755);
  rmSync('dist/cli/main.compiled', { force: true });
  const empty = JSON.stringify({ format: 'knot-path-design', version: 1, name: 'Empty', switches: [], links: [] });
  const env = { ...process.env, KNOT_PATH_COMPILE: '1' };
  const { status, stderr } = spawnSync(process.execPath, [LAUNCHER, 'check', '-'], {
    input: empty,
    env,
    encoding: 'utf8',
  });
  if (status !== 0) throw new Error(`the command line does not start: ${stderr}`);
  if (!existsSync('node_modules/.bin')) mkdirSync('node_modules/.bin', { recursive: true });
  rmSync('node_modules/.bin/knot-path', { force: true });
  symlinkSync('../../dist/cli/knot-path.cjs', 'node_modules/.bin/knot-path');
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await buildCommandLine();
