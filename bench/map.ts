/** In the browser: how smoothly the map of 300 switches and 900 links pans and zooms, from afar and from near. */
import type { Browser, Page } from '@playwright/test';
import { structuredPlaces } from '../src/core/analysis/structure/places';
import { campusOf } from '../src/core/testing/campus';
import { frameRow, framesDuring } from './frames';
import { benchNetwork } from './network';
import { report } from './report';
import { BASE, store } from './session';

/** Moves the map by its paper: what begins on a switch would drag that. */
async function pan(page: Page): Promise<void> {
  const at = await page.evaluate(() => {
    for (let y = 120; y < 420; y += 15)
      for (let x = 900; x > 600; x -= 15)
        if (document.elementFromPoint(x, y)?.classList.contains('react-flow__pane')) return { x, y };
    return null;
  });
  if (!at) throw new Error('there is no paper to pan by');
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  for (let i = 0; i < 60; i += 1) await page.mouse.move(at.x - i * 6, at.y + Math.round(60 * Math.sin(i / 8)));
  await page.mouse.up();
}

async function wheel(page: Page, by: number, times: number): Promise<void> {
  await page.mouse.move(590, 300);
  for (let i = 0; i < times; i += 1) {
    await page.mouse.wheel(0, by);
    await page.waitForTimeout(16);
  }
}

/** Opens a design, and gives how long it took until its first link was drawn, by the page's own clock. */
async function firstMap(page: Page, id: string): Promise<number> {
  await page.goto(`${BASE}/designs/${id}`);
  await page.locator('[data-switch]').first().waitFor();
  const shown = await page.evaluate(() => performance.now());
  await page
    .getByText(/^root /)
    .first()
    .waitFor();
  await page.waitForTimeout(1500);
  return shown;
}

/** From a click to the map as it stays, in ms: until nothing of it has changed for a while. */
async function untilDrawn(page: Page, click: () => Promise<void>): Promise<string> {
  await page.evaluate(() => {
    const watch = new MutationObserver(() => requestAnimationFrame(() => (seen.last = performance.now())));
    const seen = { click: 0, last: 0, end: () => watch.disconnect() };
    Object.assign(window, { seen });
    addEventListener('click', () => (seen.click = performance.now()), { capture: true, once: true });
    watch.observe(document.querySelector('.react-flow')!, { subtree: true, childList: true, attributes: true });
  });
  await click();
  await page.waitForTimeout(2500);
  const took = await page.evaluate(() => {
    const { seen } = window as unknown as { seen: { click: number; last: number; end: () => void } };
    seen.end();
    return seen.last - seen.click;
  });
  return took.toFixed(0);
}

/** Campuses that come without positions: laid out on arrival, moved, zoomed. */
async function benchCampuses(browser: Browser): Promise<void> {
  const rows: object[] = [];
  for (const [switches, vlans, perPair] of [
    [50, 8, 10],
    [200, 32, 20],
    [500, 64, 20],
  ] as const) {
    const design = campusOf({ switches, vlans, perPair });
    const from = performance.now();
    structuredPlaces(design);
    const laidOut = performance.now() - from;
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const shown = await firstMap(page, await store(design));
    const painted = await page.evaluate(
      () => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN,
    );
    const first = {
      switches,
      'laid out (ms)': laidOut.toFixed(1),
      'map seen (ms)': painted.toFixed(0),
      'map alive (ms)': shown.toFixed(0),
    };
    const fold = (name: string) => page.getByRole('button', { name, exact: true }).last().click();
    const folds = (await page.locator('[data-group]').count()) > 0;
    if (folds) {
      rows.push({ ...first, move: 'pan, folded', ...frameRow(await framesDuring(page, () => pan(page))) });
      rows.push({ switches, move: 'unfold all', 'drawn (ms)': await untilDrawn(page, () => fold('unfold')) });
      rows.push({ switches, move: 'fold all', 'drawn (ms)': await untilDrawn(page, () => fold('fold groups')) });
      await fold('unfold');
      await page.waitForTimeout(1500);
    }
    rows.push({
      ...(folds ? { switches } : first),
      move: 'pan, whole',
      ...frameRow(await framesDuring(page, () => pan(page))),
    });
    rows.push({ switches, move: 'zoom in', ...frameRow(await framesDuring(page, () => wheel(page, -60, 30))) });
    await page.waitForTimeout(600);
    rows.push({ switches, move: 'pan, from near', ...frameRow(await framesDuring(page, () => pan(page))) });
    rows.push({ switches, move: 'zoom out', ...frameRow(await framesDuring(page, () => wheel(page, 60, 30))) });
    await page.close();
  }
  report('Campuses without positions, one tree shown (aim: median within 17 ms, 95 of 100 within 33)', rows);
}

export async function benchMap(browser: Browser): Promise<void> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${BASE}/designs/${await store(benchNetwork(300, 900, 8))}`);
  await page
    .getByText(/^root /)
    .first()
    .waitFor();
  await page.waitForTimeout(1500);
  const rows: object[] = [];
  const measure = async (what: string, work: () => Promise<void>) => {
    rows.push({ move: what, ...frameRow(await framesDuring(page, work)) });
  };
  await measure('pan, whole map in view', () => pan(page));
  await measure('zoom in, from afar to near', () => wheel(page, -60, 30));
  await page.waitForTimeout(600);
  await measure('pan, from near', () => pan(page));
  await measure('zoom out, from near to afar', () => wheel(page, 60, 30));
  report('The map of 300 switches, 900 links: time between frames while it moves (a frame is 16.7 ms)', rows);
  await page.close();
  await benchCampuses(browser);
}
