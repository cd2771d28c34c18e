/** In the browser: how soon a scenario of the demo can be played, and how long scrubbing through a large recording takes to draw. */
import type { Browser } from '@playwright/test';
import { fernhollow } from '../src/core/demo/demos';
import { benchNetwork } from './network';
import { report } from './report';
import { BASE, demoId, middle, store } from './session';

export async function benchClock(browser: Browser): Promise<void> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const demo = await demoId();
  const rows = [];
  for (const { name } of fernhollow().scenarios) {
    await page.goto(`${BASE}/designs/${demo}`); // a page of its own: the simulator's worker starts, too
    await page
      .getByText(/^root /)
      .first()
      .waitFor();
    await page.getByRole('tab', { name: 'Break' }).click();
    await page.waitForTimeout(1000);
    const start = performance.now();
    await page.getByLabel('Scenario').first().selectOption({ label: name });
    await page.getByRole('slider', { name: 'Time' }).waitFor();
    rows.push({ scenario: name, 'ready to play (ms)': (performance.now() - start).toFixed(0) });
  }
  report('Scenarios of the demo, from the choice to a clock that can be played (aim: 300 ms)', rows);

  const design = {
    ...benchNetwork(200, 600, 32),
    scenarios: [
      {
        id: 's1',
        name: 'root dies',
        look: '',
        actions: [{ at: 1, do: 'switch-down' as const, switch: benchNetwork(200, 600, 32).switches[0]!.id }],
        until: 60,
        talk: 0.01,
        fromBoot: false,
      },
    ],
  };
  await page.goto(`${BASE}/designs/${await store(design)}`);
  await page
    .getByText(/^root /)
    .first()
    .waitFor();
  await page.getByRole('tab', { name: 'Break' }).click();
  await page.getByLabel('Scenario').first().selectOption({ label: 'root dies' });
  await page.getByRole('slider', { name: 'Time' }).waitFor({ timeout: 120_000 });
  const { x, y, width } = (await page.getByRole('slider', { name: 'Time' }).boundingBox())!;
  await page.mouse.move(x + 5, y + 10);
  await page.mouse.down();
  const times: number[] = [];
  for (let i = 1; i <= 40; i += 1) {
    const painted = page.evaluate(
      () =>
        new Promise<number>((done) => {
          let start = 0;
          window.addEventListener(
            'pointermove',
            () => {
              start = performance.now();
              requestAnimationFrame(() => {
                const { port1, port2 } = new MessageChannel();
                port1.onmessage = () => done(performance.now() - start);
                port2.postMessage(0);
              });
            },
            { capture: true, once: true },
          );
        }),
    );
    await page.mouse.move(x + 5 + ((width - 10) * ((i * 17) % 41)) / 41, y + 10);
    times.push(await painted);
  }
  await page.mouse.up();
  report(
    'Scrubbing through the recording of a dead root in 200 switches, 600 links, 32 trees (aim: within a frame, 17 ms)',
    [{ 'pointer to paint, median (ms)': middle(times).toFixed(1), 'slowest (ms)': Math.max(...times).toFixed(1) }],
  );
  await page.close();
}
