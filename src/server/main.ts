/**
 * The server as it is started: settings and database first, each fault a sentence; the port; then Next behind the front; an end that
 * closes the database. Bundled to `dist/server/main.cjs` by the set-up.
 */
import { once } from 'node:events';
import { createServer, type RequestListener, type Server } from 'node:http';
import { closeDatabase, database } from './db/connect';
import { DatabaseTrouble } from './db/trouble';
import { plantDemos } from './designService';
import { resumeWatches, stopAll } from './watch/runner';
import { createFront } from './front/front';
import { readSettings, type FrontSettings } from './front/settings';

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
  const dev = process.argv.includes('--dev');
  const server = createServer(
    // A connection that idles is kept longer than its other end expects: closed in the moment of a request, it loses that.
    { headersTimeout: 20_000, requestTimeout: 60_000, keepAliveTimeout: 75_000 },
    createFront(settings.value, (request, response) => void pages.then((answer) => answer(request, response))),
  );
  const end = (): void => {
    stopAll();
    const done = (): never => {
      closeDatabase();
      process.exit(0);
    };
    server.close(done);
    server.closeIdleConnections();
    setTimeout(done, PATIENCE_MS).unref();
    setTimeout(() => server.closeAllConnections(), PATIENCE_MS / 3).unref();
  };
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP']) process.on(signal, end);
  server.on('error', (error: NodeJS.ErrnoException) => {
    closeDatabase();
    stop(
      error.code === 'EADDRINUSE'
        ? `port ${port} on ${address} is taken. Stop what uses it, or choose another: PORT=3001 npm start`
        : `port ${port} on ${address} cannot be used: ${error.message}`,
    );
  });
  server.on('listening', () => void resumeWatches(database()));
  server.on('listening', () =>
    process.stdout.write(
      `knot-path: serving on http://${address.includes(':') ? `[${address}]` : address}:${port} (designs in ${settings.value.database})\n`,
    ),
  );
  // The port is open at once; what is asked for meanwhile waits for Next, which takes longer to load than all the rest.
  const pages = once(server, 'listening').then(() => startPages(server, settings.value, dev));
  pages.catch((error: unknown) => stop(error instanceof Error ? error.message : String(error)));
  server.listen(port, address);
}

async function startPages(server: Server, { port, address }: FrontSettings, dev: boolean): Promise<RequestListener> {
  const { default: next } = await import('next');
  const app = next({ dev, hostname: address, port });
  await app.prepare();
  if (dev) server.on('upgrade', (request, socket, head) => void app.getUpgradeHandler()(request, socket, head));
  return app.getRequestHandler() as RequestListener;
}

void main();
