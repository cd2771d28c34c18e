/** `npm run faults`: builds what is needed, then hurts a server of its own. */
import { run } from './lib.mjs';

process.argv.push('--build');
await import('./setup.mjs');
const { build } = await import('esbuild');
await build({
  entryPoints: ['faults/main.ts', 'faults/mutant.ts'],
  outdir: 'dist/faults',
  outExtension: { '.js': '.cjs' },
  bundle: true,
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
run(process.execPath, ['dist/faults/main.cjs', ...process.argv.slice(2)]);
