/** Groups: a large network is read folded, and small ones are put into groups of their own. */
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { campusOf } from '../src/core/testing/campus';
import { writeDesign } from '../src/core/model/derive/write';
import { inspector, map, openDemo, saved, settled } from './design';

test('two hundred switches from a file: the root by accident is found, roots are placed for all VLANs, no uplink idles', async ({
  page,
}) => {
  test.slow();
  await page.goto('/');
  const file = writeDesign(campusOf({ switches: 200, vlans: 32 }));
  await page
    .getByLabel('Design file')
    .setInputFiles({ name: 'campus.knot.json', mimeType: 'application/json', buffer: Buffer.from(file) });
  await page.waitForURL(/\/designs\//);
  await settled(page);

  // Folded: nine boxes and the core, all of them in view.
  const groups = map(page).locator('[data-group]');
  await expect(groups).toHaveCount(9);
  for (const box of [...(await groups.all()), ...(await map(page).locator('[data-switch]').all())])
    await expect(box).toBeInViewport({ ratio: 0.99 });
  const odd = groups.filter({ hasText: 'root acc-174' });
  await expect(odd).toHaveCount(1);
  await odd.getByRole('button', { name: 'unfold' }).click();
  await expect(map(page).locator('[data-switch="acc-174"]')).toBeInViewport({ ratio: 0.99 });
  await expect(map(page).locator('[data-switch="acc-174"]').getByRole('img', { name: /root/ })).toBeVisible();
  await page.getByRole('button', { name: 'fold groups' }).click();
  await expect(groups).toHaveCount(9);

  await page.getByRole('tab', { name: 'Steer' }).click();
  await page.getByRole('tab', { name: 'Load sharing' }).click();
  const sharing = page.locator('#drawer-table');
  await expect(sharing).toContainText('over 342 links that lead to a stronger tier, 162 of them idle');
  await sharing.getByRole('button', { name: 'Propose ways to share' }).click();
  await page.getByRole('button', { name: 'take it, proposal 1' }).click();
  // Six thousand ports change.
  await expect(sharing).toContainText('none of them idle', { timeout: 30_000 });
  const rail = page.getByRole('navigation', { name: 'Trees' });
  await expect(rail.getByText('root core-1')).toBeVisible();
  await expect(rail.getByText('root core-2')).toBeVisible();
  await expect(groups.filter({ hasText: 'root' })).toHaveCount(0);
  await saved(page);
});

test('buildings are made by a line and by a click, nested, folded, taken as a selection, and still there after a reload', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('tab', { name: 'Cable' }).click();
  const line = page.getByLabel('Cabling line');
  await line.fill('switch lodge, workshop in valley');
  await line.press('Enter');
  await expect(map(page).locator('[data-group-outline]')).toHaveCount(1);
  await page.getByRole('tab', { name: 'Groups' }).click();
  await page.getByRole('button', { name: 'names' }).click();
  const table = page.getByRole('grid', { name: 'Groups of switches' });
  await table.getByRole('row', { name: /^dome/ }).getByRole('gridcell').first().click();
  await expect(inspector(page)).toContainText('3 switches selected');
  const group = inspector(page).getByRole('region', { name: 'Group' });
  await group.getByLabel('Kind').selectOption('building');
  await group.getByLabel('Within').selectOption('ridge');
  await table
    .getByRole('row', { name: /^ridge/ })
    .getByRole('button', { name: 'fold' })
    .click();
  const ridge = map(page).locator('[data-group="ridge"]');
  await expect(ridge).toContainText('5 switches');
  await expect(map(page).locator('[data-switch="dome-north"]')).toHaveCount(0);

  // What is found opens the groups that it is in.
  await page.getByRole('tab', { name: 'Root', exact: true }).click();
  await ridge.click({ position: { x: 8, y: 8 } });
  await page.getByRole('button', { name: 'only of the 5 selected switches' }).click();
  await expect(page.locator('#drawer-table')).toContainText(/2\d ports/);
  await saved(page);
  await page.reload();
  await settled(page);
  await expect(ridge).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('dome-west');
  await page.keyboard.press('Enter');
  await expect(map(page).locator('[data-switch="dome-west"]')).toBeVisible();
  await expect(ridge).toHaveCount(0);
});

test('the map is saved as a picture: as shown, and whole, as SVG and as PNG', async ({ page }) => {
  await openDemo(page);
  const pictured = async (name: string): Promise<Buffer> => {
    await page.getByRole('button', { name: 'Picture' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name, exact: true }).click(),
    ]);
    expect(download.suggestedFilename()).toMatch(/^fernhollow-observatory\.(svg|png)$/);
    return readFileSync(await download.path());
  };
  const svg = (await pictured('Picture of the whole map (SVG)')).toString();
  for (const name of ['ridge-a', 'array-hut', 'VLAN 15: root lodge', '--strand-1', 'font/woff2;base64'])
    expect(svg).toContain(name);
  const png = await pictured('Picture of the map as shown (PNG)');
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.readUInt32BE(16)).toBeGreaterThan(1400);
});
