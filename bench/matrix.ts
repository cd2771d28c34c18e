/** In the browser: how smoothly the matrix of 200 switches by 200 VLANs scrolls, no two VLANs alike. */
import type { Browser } from '@playwright/test';
import { frameRow, framesDuring } from './frames';
import { benchNetwork } from './network';
import { report } from './report';
import { BASE, store } from './session';

export async function benchMatrix(browser: Browser): Promise<void> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${BASE}/designs/${await store(benchNetwork(200, 600, 200, 200))}`);
  await page
    .getByText(/^root /)
    .first()
    .waitFor();
  const start = performance.now();
  await page.getByRole('tab', { name: 'Roots', exact: true }).click();
  const grid = page.getByRole('grid', { name: /^Roots/ });
  await grid.getByRole('row').nth(3).waitFor();
  const opened = performance.now() - start;
  const box = (await grid.boundingBox())!;
  await page.waitForTimeout(1000);
  const rows: object[] = [];
  for (const [what, x, y] of [
    ['down, row by row', 0, 30],
    ['down, by leaps', 0, 300],
    ['across, column by column', 60, 0],
    ['across, by leaps', 500, 0],
  ] as const) {
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    const frames = await framesDuring(page, async () => {
      for (let i = 0; i < 40; i += 1) {
        await page.mouse.wheel(i < 20 ? x : -x, i < 20 ? y : -y);
        await page.waitForTimeout(16);
      }
    });
    rows.push({ scroll: what, ...frameRow(frames) });
    await page.waitForTimeout(300);
  }
  report('The matrix of 200 switches by 200 VLANs: time between frames while it scrolls', [
    { scroll: 'none', 'first rows (ms)': Math.round(opened) },
    ...rows,
  ]);
  await page.close();
}
