/** `npm start`: sets up what is missing, builds what has changed, serves on 127.0.0.1. With --dev it builds as you look. */
import { createServer } from 'node:net';
import { stop } from './lib.mjs';

const dev = process.argv.includes('--dev');
const port = Number(process.env.PORT || 3000);
if (!Number.isInteger(port) || port < 1 || port > 65_535)
  stop(`PORT is ${process.env.PORT}; it must be a number from 1 to 65535.`);

await freePort(port); // before the build: nobody should wait a minute to be told
if (!dev) process.argv.push('--build');
await import('./setup.mjs');
process.env.NODE_ENV = dev ? 'development' : 'production';
await import('../dist/server/main.cjs');

function freePort(wanted) {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', (error) =>
      stop(
        error.code === 'EADDRINUSE'
          ? `port ${wanted} on 127.0.0.1 is taken. Stop what uses it, or choose another: PORT=3001 npm start`
          : `port ${wanted} on 127.0.0.1 cannot be used: ${error.message}`,
      ),
    );
    probe.listen(wanted, '127.0.0.1', () => probe.close(done));
  });
}
