/** Bundles the server's entry and its worker; Next and native packages stay outside. */
import { build } from 'esbuild';

export async function buildServer() {
  await build({
    entryPoints: { main: 'src/server/main.ts', worker: 'src/server/heavy/worker.ts' },
    outdir: 'dist/server',
    outExtension: { '.js': '.cjs' },
    bundle: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    packages: 'external',
    sourcemap: 'linked',
    logLevel: 'warning',
  });
}
