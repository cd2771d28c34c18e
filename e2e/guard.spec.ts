/** What an edge must never hear: guards by rule, a stranger tried everywhere, a shut port that counts down. */
import { expect, test, type Page } from '@playwright/test';
import { inspector, map, openDemo, portEnd, saved, selectSwitch } from './design';

const view = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const tag = (page: Page, sw: string) => map(page).locator(`[data-open="${sw}"]`);
const stranger = (page: Page, name: RegExp) =>
  page.getByRole('grid', { name: 'If a stranger comes' }).getByRole('row', { name });

test('edges are guarded by a rule, and a stranger who took every tree before is stopped', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Guard');
  await expect(tag(page, 'lodge')).toHaveText('2 open');
  await expect(page.getByText(/^Edges: 8 guarded, 5 open\./)).toBeVisible();

  await view(page, 'If a stranger comes');
  await expect(page.getByText(/is stopped at 7 of 12 ports/)).toBeVisible();
  await stranger(page, /lodge 6 nothing VLANs 1,15,25,35,45,55,65/).click();
  await expect(map(page).locator('[data-switch="stranger-1"]')).toBeVisible();
  await expect(page.locator('[data-tree="vlan:15"]')).toContainText('root stranger-1');
  await page.locator('#drawer-table').getByRole('button', { name: 'go back to now' }).click();
  await expect(page.locator('[data-tree="vlan:15"]')).toContainText('root lodge');

  await view(page, 'By rule');
  const rule = page.getByRole('listitem').filter({ hasText: 'BPDU guard on every edge port' });
  await expect(rule).toContainText('Changes 5 ports');
  await rule.getByRole('button', { name: /^take it/ }).click();
  await expect(tag(page, 'lodge')).toHaveCount(0);
  await view(page, 'If a stranger comes');
  await expect(page.getByText(/is stopped at 12 of 12 ports/)).toBeVisible();
  await saved(page);
});

test('a shut port counts down, opens, is shut again, and stays open once the stranger has gone', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Break');
  await page.getByLabel('Scenario').first().selectOption({ label: 'The same switch at a guarded port' });
  await page.getByRole('slider', { name: 'Time' }).waitFor();
  const shut = page.getByLabel('Shut ports');
  await expect(shut).toHaveCount(0);
  const next = page.getByRole('button', { name: 'Next change' });
  await next.click();
  await next.click();
  await expect(shut).toHaveText('Now array-hut port 6 shut by BPDU guard, opens in 30.0 s');
  await expect(map(page).locator('[data-link="visit"] [data-guard="B"]')).toHaveCount(1);
  await next.click(); // it opens by itself
  await expect(shut).toHaveCount(0);
  await next.click();
  await expect(shut).toContainText('opens in 30.0 s');
  await next.click(); // unplugged
  await expect(shut).toContainText('opens in 21.0 s');
  await next.click();
  await expect(shut).toHaveCount(0);
});

test('a guard set by hand says what comes of it, and a finding takes it away again', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Guard');
  await selectSwitch(page, 'lodge');
  await inspector(page).getByLabel('Recovery of shut ports').fill('7');
  await page.keyboard.press('Enter');
  await expect(inspector(page).getByRole('alert')).toContainText('Seconds from 30 to 86400');
  await inspector(page).getByRole('button', { name: 'use 300' }).click();

  await portEnd(page, 'ridge-a port 7').click();
  await inspector(page).getByLabel('Root guard').selectOption('on');
  await expect(map(page).locator('[data-link="l13"] [data-guard="R"]')).toHaveCount(1);
  await expect(inspector(page)).toContainText('Root guard holds this way to the root');
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await page.getByRole('button', { name: 'no root guard here' }).click();
  await expect(map(page).locator('[data-guard]')).toHaveCount(0);
});

test('a host that begins to send BPDUs is cut off by the guard of its port', async ({ page }) => {
  await openDemo(page);
  await view(page, 'Break');
  await map(page).getByText('Duty desk').click();
  await inspector(page).getByRole('button', { name: 'It sends BPDUs' }).click();
  await expect(map(page).locator('[data-switch="duty-desk-bridge"]')).toContainText('bridge of Duty desk');
  await expect(inspector(page)).toContainText('It sends BPDUs in this scenario.');
  await inspector(page).getByRole('button', { name: 'ridge-a port 9', exact: true }).click();
  await inspector(page).getByRole('button', { name: 'Somebody opens it again' }).click();
  await page.getByRole('slider', { name: 'Time' }).waitFor();
  const shut = page.getByLabel('Shut ports');
  const next = page.getByRole('button', { name: 'Next change' });
  await expect(async () => {
    await next.click();
    await expect(shut).toContainText('ridge-a port 9 shut by BPDU guard', { timeout: 500 });
  }).toPass();
  await page.getByRole('tab', { name: 'Outages' }).click();
  await expect(
    page
      .getByRole('grid', { name: /utages/ })
      .getByRole('row', { name: /Duty desk/ })
      .first(),
  ).toBeVisible();
});
