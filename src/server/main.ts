/**
 * The server as it is started: settings and database first, each fault a sentence; then Next behind the front; an end that
 * closes the database. Bundled to `dist/server/main.cjs` by the set-up.
 */
import { createServer } from 'node:http';
import next from 'next';
import { closeDatabase, database } from './db/connect';
import { DatabaseTrouble } from './db/trouble';
import { plantDemos } from './designService';
import { createFront } from './front/front';
import { readSettings } from './front/settings';

/** How long requests under way may take to end. */
const PATIENCE_MS = 3000;

function stop(text: string): never {
  process.stderr.write(`knot-path: ${text}\n`);
  process.exit(1);
}

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  if (!settings.ok) stop(settings.error);
  const { port, address } = settings.value;
  try {
    plantDemos(database());
  } catch (error) {
    if (error instanceof DatabaseTrouble) stop(error.message);
    throw error;
  }
  const app = next({ dev: process.argv.includes('--dev'), hostname: address, port });
  await app.prepare();
  const handle = app.getRequestHandler();
  const server = createServer(
    // A connection that idles is kept longer than its other end expects: closed in the moment of a request, it loses that.
    { headersTimeout: 20_000, requestTimeout: 60_000, keepAliveTimeout: 75_000 },
    createFront(settings.value, (request, response) => void handle(request, response)),
  );
  if (process.argv.includes('--dev'))
    server.on(
      'upgrade',
      (request, aggregationPort, head) => void app.getUpgradeHandler()(request, aggregationPort, head),
    );
  const end = (): void => {
    const done = (): never => {
      closeDatabase();
      process.exit(0);
    };
    server.close(done);
    server.closeIdleConnections();
    setTimeout(done, PATIENCE_MS).unref();
    setTimeout(() => server.closeAllConnections(), PATIENCE_MS / 3).unref();
  };
  process.on('SIGTERM', end);
  process.on('SIGINT', end);
  server.on('error', (error: NodeJS.ErrnoException) => {
    closeDatabase();
    stop(
      error.code === 'EADDRINUSE'
        ? `port ${port} on ${address} is taken. Stop what uses it, or choose another: PORT=3001 npm start`
        : `port ${port} on ${address} cannot be used: ${error.message}`,
    );
  });
  server.listen(port, address, () =>
    process.stdout.write(
      `knot-path: serving on http://${address.includes(':') ? `[${address}]` : address}:${port} (designs in ${settings.value.database})\n`,
    ),
  );
}

void main();
