/** Bundles the server's entry and its worker with what they use: many small files load slowly. Next and native packages stay outside. */
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
    external: ['next', 'better-sqlite3', 'pino', 'net-snmp'],
    sourcemap: 'linked',
    logLevel: 'warning',
  });
}
