/** Draws the pictures in docs/screenshots from the demo: `npm run screenshots`. */
import { test, type Page } from '@playwright/test';
import { openDemo, selectSwitch, setSetting, treeRow } from './design';

const picture = async (page: Page, name: string) => {
  await page.waitForTimeout(700); // the tables follow the map
  await page.screenshot({ path: `docs/screenshots/${name}.png`, animations: 'disabled' });
};

test('pictures', async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto('/');
  await picture(page, 'designs');

  await openDemo(page);
  await picture(page, 'workbench-light');
  await page.getByLabel('Filter ends').fill('alternate');
  await page.getByRole('button', { name: 'ridge-b port 1', exact: true }).click();
  await picture(page, 'why-and-ledger');
  await page.getByLabel('Filter ends').fill('');

  await page.getByLabel('draw VLAN 25 with the others').check();
  await selectSwitch(page, 'ridge-b');
  await setSetting(page, 'VLAN 25', '4096');
  await selectSwitch(page, 'ridge-a');
  await setSetting(page, 'VLAN 15', '4096');
  await treeRow(page, 'vlan:15').getByText('root ridge-a').waitFor();
  await picture(page, 'two-trees');
  await page.getByRole('tab', { name: /Moved ends/ }).click();
  await page.getByRole('button', { name: 'Dark' }).click();
  await picture(page, 'workbench-dark');
  await page.getByRole('button', { name: 'Light' }).click();
  await page.getByRole('tab', { name: 'Cable' }).click();
  await picture(page, 'cable');
  await page.getByRole('tab', { name: /Findings/ }).click();
  await picture(page, 'findings');
});
