/** Each view's story by keyboard alone: what Tab, the keys and Find reach. */
import { expect, test, type Page } from '@playwright/test';
import { inspector, map, openDemo, saved } from './design';

/** Goes to a view, a table or a thing by Find. */
async function find(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.type(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** Presses Tab until the control of this name has the focus. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 150; i += 1) {
    const here = await page.evaluate(() => {
      const at = document.activeElement;
      const label = at?.id ? document.querySelector(`label[for="${CSS.escape(at.id)}"]`) : null;
      return (at?.getAttribute('aria-label') ?? label?.textContent ?? at?.textContent ?? '').trim();
    });
    if (name.test(here)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab does not reach ${name}`);
}

test('each view’s story by keyboard alone', async ({ page }) => {
  test.setTimeout(120_000);
  await openDemo(page);
  const trees = page.getByRole('navigation', { name: 'Trees' });

  // Cable: a line, done by Enter.
  await find(page, 'cable view');
  await page.keyboard.press('/');
  await page.keyboard.type('lodge 9 = dome-north 9');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(inspector(page)).toContainText('16 links');

  // Root: to the root, to another switch, and that one placed.
  await find(page, 'root view');
  await page.keyboard.press('r');
  await expect(inspector(page).getByRole('heading', { level: 2 })).toHaveText('lodge');
  await find(page, 'ridge-a');
  await page.keyboard.press('p');
  await expect(trees).toContainText('root ridge-a');

  // Steer: a port chosen, ways to block there proposed, the first one taken.
  await find(page, 'steer view');
  await find(page, 'ridge-b port 3');
  await tabTo(page, /^Propose ways to block here$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Proposals' })).toBeVisible();
  await tabTo(page, /^take it, proposal 1$/);
  await page.keyboard.press('Enter');
  await expect(map(page).getByText(/ports? changed in/)).toBeVisible();

  // Bundle: two links chosen and bundled by a key.
  await find(page, 'bundle view');
  await find(page, 'ridge-a 1 to ridge-b 1');
  await tabTo(page, /^Bundle these$/);
  await page.keyboard.press('Enter');
  await expect(inspector(page)).toContainText('Up: 2 of 2 members active');

  // Break: a switch loses its power, and the changes are stepped through.
  await find(page, 'break view');
  await find(page, 'ridge-a');
  await tabTo(page, /^Loses power$/);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/settled at/)).toBeVisible();
  await page.keyboard.press('.');
  await expect(page.getByRole('slider', { name: 'Time' })).not.toHaveAttribute('aria-valuenow', '0');

  // Group: a grouping proposed and taken.
  await find(page, 'group view');
  await find(page, 'VLANs assigned to instances');
  await page.keyboard.press('Escape');
  await tabTo(page, /^Propose from loads and topology$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Proposals' })).toBeVisible({ timeout: 20_000 });
  await tabTo(page, /^take it, proposal 1$/);
  await page.keyboard.press('Enter');
  await expect(trees).toContainText('MSTI');
  await saved(page);
});
