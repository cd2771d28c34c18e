/** What starts with everything set up: `npm start` until its port is open and until its first page is there, and the command line. */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fernhollow } from '../src/core/demo/demos';
import { leanDesign } from '../src/core/model/derive/write';
import { report } from './report';
import { middle } from './session';

const PORT = 3187;
const TIMES = 5;

export async function benchStarting(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-bench-'));
  const starts = [];
  for (let i = 0; i <= TIMES; i += 1) starts.push(await start(path.join(folder, 'bench.sqlite')));
  starts.shift(); // the first fills the database
  const file = path.join(folder, 'demo.knot.json');
  writeFileSync(file, JSON.stringify(leanDesign(fernhollow())));
  const checks = Array.from({ length: TIMES }, () => {
    const from = performance.now();
    spawnSync('node_modules/.bin/knot-path', ['solve', file]);
    return performance.now() - from;
  });
  report('Started again (aim: `npm start` within 1000 ms, the command line within 150 ms)', [
    { command: 'npm start, its port open', 'time (ms)': middle(starts.map(({ open }) => open)).toFixed(0) },
    { command: 'npm start, its first page', 'time (ms)': middle(starts.map(({ page }) => page)).toFixed(0) },
    { command: 'knot-path solve of the demo', 'time (ms)': middle(checks).toFixed(0) },
  ]);
}

/** Milliseconds from the command to what it says once its port is open, and to the end of the first page. */
async function start(KNOT_PATH_DB: string): Promise<{ open: number; page: number }> {
  const from = performance.now();
  const npm = spawn('npm', ['start'], { env: { ...process.env, PORT: String(PORT), KNOT_PATH_DB }, detached: true });
  const ended = new Promise((done) => npm.on('exit', done));
  let said = '';
  await new Promise<void>((done, failed) => {
    npm.stdout.on('data', (part: Buffer) => {
      said += part.toString();
      if (said.includes('serving on')) done();
    });
    npm.on('exit', () => failed(new Error(`npm start ended: ${said}`)));
  });
  const open = performance.now() - from;
  await (await fetch(`http://127.0.0.1:${PORT}/`)).text();
  const page = performance.now() - from;
  process.kill(-npm.pid!, 'SIGTERM');
  await ended;
  return { open, page };
}
