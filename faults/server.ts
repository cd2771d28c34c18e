/** A server of its own to be hurt: started on a free port over a file, asked, stopped, killed. */
import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';

export interface Server {
  readonly base: string;
  readonly process: ChildProcess;
  /** Resolves with the exit code. */
  readonly ended: Promise<number | null>;
  /** What it said on its outputs. */
  readonly said: () => string;
}

async function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
}

/** Starts it and waits until it answers or has ended. */
export async function start(database: string): Promise<Server> {
  const port = await freePort();
  const child = spawn(process.execPath, ['dist/server/main.cjs'], {
    env: { ...process.env, NODE_ENV: 'production', PORT: String(port), KNOT_PATH_DB: database, KNOT_PATH_LOG: 'fatal' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const ended = new Promise<number | null>((done) => child.on('exit', (code) => done(code)));
  const server = { base: `http://127.0.0.1:${port}`, process: child, ended, said: () => said };
  let over = false;
  void ended.then(() => (over = true));
  while (!over && !said.includes('serving on')) await pause(20);
  return server;
}

export const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

export async function kill(server: Server, signal: NodeJS.Signals): Promise<void> {
  server.process.kill(signal);
  await server.ended;
}

export interface Answer {
  readonly status: number;
  readonly body: unknown;
}

/** Asks for JSON; status 0 where there is no answer within `ms`. */
export async function ask(server: Server, method: string, path: string, body?: unknown, ms = 60_000): Promise<Answer> {
  try {
    const init: RequestInit = { method, signal: AbortSignal.timeout(ms) };
    if (body !== undefined)
      Object.assign(init, {
        body: typeof body === 'string' ? body : JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      });
    const response = await fetch(server.base + path, init);
    const text = await response.text();
    return { status: response.status, body: text === '' ? null : JSON.parse(text) };
  } catch {
    return { status: 0, body: null };
  }
}

/** Adds a demo; gives its id. */
export async function addDemo(server: Server): Promise<string> {
  const { body } = await ask(server, 'POST', '/api/designs', { do: 'demo' });
  return (body as { id: string }).id;
}

export const renaming = (base: number, write: string, sw: string, name: string) => ({
  kind: 'edit',
  base,
  write,
  commands: [{ do: 'set-switch', switch: sw, name }],
});

interface Opened {
  readonly revision: number;
  readonly damage: unknown;
  readonly design: { readonly switches: readonly { readonly id: string; readonly name?: string }[] };
}

export async function open(server: Server, id: string): Promise<Opened | null> {
  const { status, body } = await ask(server, 'GET', `/api/designs/${id}`);
  return status === 200 ? (body as Opened) : null;
}
