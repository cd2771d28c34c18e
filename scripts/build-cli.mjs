/**
 * Bundles the command line into one file and puts `knot-path` where npx looks for it. Not as a `bin` of package.json:
 * with one, npx first installs the project into its cache, which takes a second.
 */
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import { pathToFileURL } from 'node:url';

export async function buildCommandLine() {
  const { build } = await import('esbuild');
  await build({
    entryPoints: ['src/cli/main.ts'],
    outfile: 'dist/cli/knot-path.cjs',
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
    banner: { js: '#!/usr/bin/env node' },
    logLevel: 'warning',
  });
  chmodSync('dist/cli/knot-path.cjs', 0o755);
  if (!existsSync('node_modules/.bin')) mkdirSync('node_modules/.bin', { recursive: true });
  rmSync('node_modules/.bin/knot-path', { force: true });
  symlinkSync('../../dist/cli/knot-path.cjs', 'node_modules/.bin/knot-path');
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await buildCommandLine();
