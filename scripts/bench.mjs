/** `npm run bench`: builds what is needed, then measures; bundled as the core is in what we ship, since module boundaries cost hot loops dearly. */
import { run } from './lib.mjs';

const given = process.argv.slice(2);
process.argv.push('--build', '--chromium');
await import('./setup.mjs');
const { build } = await import('esbuild');
await build({
  entryPoints: ['bench/main.ts', 'bench/helper.ts'],
  outdir: 'dist/bench',
  outExtension: { '.js': '.cjs' },
  bundle: true,
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
run(process.execPath, ['dist/bench/main.cjs', ...given]);
