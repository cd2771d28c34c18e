/** The built workbench on a free port with a database of its own, and a browser to look at it. */
import { chromium, type Browser } from '@playwright/test';
import { chromium as chromiumPlace } from '../scripts/chromium.cjs';
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Design } from '../src/core/model/document';
import { leanDesign } from '../src/core/model/derive/write';

const PORT = Number(process.env.KNOT_PATH_BENCH_PORT ?? 3189);
export const BASE = `http://127.0.0.1:${PORT}`;

async function serve(): Promise<() => void> {
  const KNOT_PATH_DB = path.join(mkdtempSync(path.join(tmpdir(), 'knot-path-bench-')), 'bench.sqlite');
  const server = spawn(process.execPath, ['dist/server/main.cjs'], {
    env: { ...process.env, NODE_ENV: 'production', PORT: String(PORT), KNOT_PATH_DB },
    stdio: 'ignore',
  });
  for (let i = 0; i < 100; i += 1) {
    const up = await fetch(`${BASE}/api/designs`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) return () => server.kill();
    await new Promise((done) => setTimeout(done, 200));
  }
  server.kill();
  throw new Error('the server did not start');
}

/** Runs `work` with a served workbench and a browser, and ends both. */
export async function withBrowser(work: (browser: Browser) => Promise<void>): Promise<void> {
  const stop = await serve();
  const browser = await chromium.launch({ executablePath: chromiumPlace() });
  try {
    await work(browser);
  } finally {
    await browser.close();
    stop();
  }
}

/** Stores a design and gives its id. */
export async function store(design: Design): Promise<string> {
  const made = await fetch(`${BASE}/api/designs`, {
    method: 'POST',
    body: JSON.stringify({ do: 'import', document: leanDesign(design) }),
    headers: { 'content-type': 'application/json' },
  });
  return ((await made.json()) as { id: string }).id;
}

/** The id of the demo, which a new database has. */
export async function demoId(): Promise<string> {
  const { designs } = (await (await fetch(`${BASE}/api/designs`)).json()) as {
    designs: { id: string; name: string }[];
  };
  return designs.find((design) => design.name.startsWith('Fernhollow'))!.id;
}

export const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
