import { defineConfig, devices } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from './scripts/chromium.cjs';

const port = Number(process.env.KNOT_PATH_TEST_PORT ?? 3187);
// The config is read by every worker process: they must agree on one database.
process.env.KNOT_PATH_TEST_DB ??= path.join(mkdtempSync(path.join(tmpdir(), 'knot-path-')), 'test.sqlite');

/** What the simulated switches of the stories are asked by. */
const LOOK = JSON.stringify({ version: '2c', community: 'look' });

export default defineConfig({
  testDir: 'e2e',
  // A machine that does other things as well stalls for seconds at times.
  timeout: 90_000,
  expect: { timeout: 20_000 },
  workers: 2,
  // What needed its second try is printed as flaky.
  retries: process.env.CI ? 1 : 0,
  forbidOnly: !!process.env.CI,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // Recording costs more than the tests themselves: after a failure, run the test again with --trace on.
    trace: 'off',
    launchOptions: {
      executablePath: chromium(),
    },
  },
  projects: [
    {
      name: 'workbench',
      testMatch: /.*\.spec\.ts/,
      use: { ...devices['Desktop Chrome'], viewport: { width: 1280, height: 800 } },
    },
    {
      name: 'screenshots',
      testMatch: /screenshots\.ts/,
      use: { ...devices['Desktop Chrome'], viewport: { width: 1280, height: 800 } },
    },
  ],
  webServer: {
    command: 'npm start',
    url: `http://127.0.0.1:${port}/api/designs`,
    timeout: 240_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 3000 },
    env: { PORT: String(port), KNOT_PATH_DB: process.env.KNOT_PATH_TEST_DB, KNOT_PATH_CREDENTIALS_LOOK: LOOK },
  },
});
